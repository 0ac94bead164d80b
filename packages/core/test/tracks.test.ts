import { Performer, compileController } from 'dot-hop';
import type { ControllerDefinition, StateDefinition, TrackDefinition } from 'dot-hop';
import { whyText } from 'dot-hop/explain';
import { lastTold, stepTold } from './characters.js';

const sheets: ControllerDefinition['sheets'] = {
  w: {
    image: 'w.png',
    size: [64, 32],
    grid: { cell: [8, 8] },
    pivot: [4, 8],
    boxes: { body: [1, 1, 6, 7], strike: [6, 2, 2, 2] },
    points: { waist: [4, 5] },
    parts: {
      back: { image: 'w-back.png', joint: 'waist' },
      legs: 'w-legs.png',
      arms: { image: 'w-arms.png', joint: 'waist', boxes: ['strike'] },
    },
    perCell: { 9: { points: { waist: [5, 6] } } },
  },
};
const clips: ControllerDefinition['clips'] = {
  stand: { cells: '0-1', ms: 200 },
  run: { cells: '8-11', ms: 50, cues: { step: [0, 2] } },
  swing: { cells: '16-19', ms: 100, loop: 'once', cues: { whoosh: 1 }, spans: { late: '2-3' } },
  chop: { cells: '20-21', ms: 100, loop: 'once' },
  fall: { cells: '24-25', ms: 100, loop: 'once' },
};
const body: Record<string, StateDefinition> = {
  stand: { shows: 'stand' },
  run: { shows: 'run', while: 'moving', priority: 10 },
  fall: { shows: 'fall', when: 'hit', priority: 80, takes: ['arms'] },
};
const arms: TrackDefinition = {
  draws: ['back', 'arms'],
  states: {
    along: { inStep: 'body' },
    swing: {
      shows: 'swing',
      when: 'swing',
      priority: 40,
      takes: { body: '!moving' },
      hops: [{ to: 'chop', if: 'swing', during: 'late', at: 'end' }],
    },
    chop: { shows: 'chop', priority: 40 },
  },
  rest: 'along',
};
const define = (more: Partial<ControllerDefinition> = {}): ControllerDefinition => ({
  dotHop: 1,
  sheets,
  clips,
  compass: { directions: 'sides', by: ['vx', 0], mirror: { west: 'east' } },
  signals: {
    vx: { number: 0 },
    moving: { flag: false },
    swing: { pulse: { keep: 150 } },
    hit: { pulse: true },
  },
  states: body,
  rest: 'stand',
  tracks: { arms },
  ...more,
});
const stage = (more?: Partial<ControllerDefinition>): Performer =>
  new Performer(compileController(define(more)));
/** The image and number of each drawing, back to front. */
const drawn = ({ pose }: Performer): string[] =>
  pose.layers.map(({ cell, x, y }) => `${cell.image} ${cell.index} at ${x}, ${y}`);

describe('tracks side by side', () => {
  test('while he runs the arms swing and the legs go on, each at its own instants', () => {
    const wick = stage();
    wick.set('moving', true);
    expect(stepTold(wick, 60)).toEqual(['0 stand > run', '0 step']);
    wick.pulse('swing');
    expect(stepTold(wick, 200)).toEqual([
      '60 arms: along > swing',
      '100 step',
      '160 arms: whoosh',
      '200 step',
    ]);
    expect([wick.state, wick.showing('arms').state]).toEqual(['run', 'swing']);
    expect([wick.frameIndex, wick.showing('arms').frameIndex]).toEqual([1, 2]);
    expect(stepTold(wick, 200)).toEqual(['300 step', '400 step', '460 arms: swing > along']);
  });

  test('standing still a swing takes the whole body, at the same instant and in step with it', () => {
    const wick = stage();
    wick.pulse('swing');
    expect(stepTold(wick, 250)).toEqual(['0 arms: along > swing', '0 stand > swing', '100 arms: whoosh']);
    expect(wick.showing()).toMatchObject({ state: 'swing', isTaken: true, inStep: 'arms', clip: 'swing' });
    expect([wick.frameIndex, wick.phase]).toEqual([2, 0.625]);
    expect(stepTold(wick, 200)).toEqual(['400 arms: swing > along', '400 swing > stand']);
  });

  test('from the arms alone to the whole body and back the swing goes on where it is', () => {
    const wick = stage();
    wick.set('moving', true);
    wick.pulse('swing');
    wick.step(130);
    const before = wick.showing('arms');
    wick.set('moving', false);
    expect(stepTold(wick, 0)).toEqual(['130 run > swing']);
    expect([wick.showing('arms').phase, wick.phase]).toEqual([before.phase, before.phase]);
    wick.step(100);
    wick.set('moving', true);
    expect(stepTold(wick, 0)).toEqual(['230 swing > run', '230 step']);
    expect(wick.showing('arms')).toMatchObject({ state: 'swing', frameIndex: 2 });
  });

  test('a higher rank of the body cuts the swing off in both, and lets go of both at its end', () => {
    const wick = stage();
    wick.pulse('swing');
    wick.step(50);
    wick.pulse('hit');
    expect(stepTold(wick, 0)).toEqual(['50 swing > fall', '50 arms: swing > fall']);
    expect(wick.showing('arms')).toMatchObject({ state: 'fall', isTaken: true, clip: 'fall' });
    expect(stepTold(wick, 200)).toEqual(['250 fall > stand', '250 arms: fall > along']);
  });

  test('one press is seen by both tracks before it is used up', () => {
    const wick = stage({ states: { ...body, nod: { shows: 'chop', when: 'swing', priority: 20 } } });
    wick.set('moving', true);
    wick.step(0);
    wick.pulse('swing');
    expect(stepTold(wick, 0)).toEqual(['0 arms: along > swing', '0 run > nod']);
    expect(wick.value('swing')).toBe(false);
    expect(stepTold(wick, 300)).toEqual(['100 arms: whoosh', '200 nod > run', '200 step', '300 step']);
  });

  test('conditions ask for the state of another track, and for a tag of it', () => {
    const wick = stage({
      states: { ...body, brace: { shows: 'chop', while: 'arms.swing && busy', priority: 20 } },
      tracks: {
        arms: {
          ...arms,
          states: { ...arms.states, swing: { ...arms.states.swing!, takes: [], tags: ['busy'] } },
        },
      },
    });
    wick.pulse('swing');
    expect(stepTold(wick, 400)).toEqual([
      '0 arms: along > swing',
      '0 stand > brace',
      '100 arms: whoosh',
      '400 arms: swing > along',
      '400 brace > stand',
    ]);
    expect([wick.value('arms.along'), wick.value('body.stand'), wick.value('busy')]).toEqual([
      true,
      true,
      false,
    ]);
  });

  test('a state whose name has a hyphen is asked for by a text, from either side, as one term with its other name', () => {
    const crouch = { shows: 'chop', while: "arms == 'get-up'", priority: 20 };
    const wick = stage({
      states: {
        ...body,
        crouch,
        lean: { shows: 'chop', while: "'get-up' == arms || arms.swing", priority: 15 },
      },
      derived: { up: "arms != 'get-up'" },
      tracks: {
        arms: {
          ...arms,
          states: { ...arms.states, 'get-up': { shows: 'chop', when: 'swing', priority: 50 } },
        },
      },
    });
    const terms = wick.controller.tables.terms.map(({ text }) => text);
    expect(terms.filter((text) => text.startsWith('arms'))).toEqual(['arms.get-up', 'arms.swing']);
    expect([wick.value('arms'), wick.value('body'), wick.value('up')]).toEqual(['along', 'stand', true]);
    wick.pulse('swing');
    expect(stepTold(wick, 100)).toEqual(['0 arms: along > get-up', '0 stand > crouch']);
    expect([wick.value('arms'), wick.value('arms.get-up'), wick.value('up')]).toEqual([
      'get-up',
      true,
      false,
    ]);
    expect(stepTold(wick, 100)).toEqual(['200 arms: get-up > along', '200 crouch > stand']);
  });

  test('without further tracks the body can be asked for, too, and a signal of that name is the signal', () => {
    const only = (more: Partial<ControllerDefinition>): Performer => {
      const all: ControllerDefinition = define(more);
      return new Performer(compileController({ ...all, tracks: {} }));
    };
    const { stand, run } = body;
    const jog = { shows: 'run', while: "moving && body == 'run'", priority: 20 };
    const wick = only({ states: { stand: stand!, run: run!, jog } });
    wick.set('moving', true);
    // He jogs because he ran, and no longer does.
    expect(() => wick.step(0)).toThrow('jog -> run -> jog');
    const built = only({
      states: { stand: stand!, run: { ...run!, while: "body == 'tall'" } },
      signals: { vx: { number: 0 }, body: { choice: ['short', 'tall'] } },
    });
    built.set('body', 'tall');
    built.step(0);
    expect([built.state, built.value('body')]).toEqual(['run', 'tall']);
  });

  test('what is asked for by name is asked for in its own track', () => {
    const wick = stage();
    wick.set('moving', true);
    wick.step(0);
    expect(wick.ask('swing')).toBe(true);
    expect(lastTold(wick)).toEqual(['0 arms: along > swing']);
    expect(wick.route('chop')).toBe(true);
    expect(stepTold(wick, 400)).toContain('400 arms: swing > chop');
    wick.cut('along');
    expect([wick.state, wick.showing('arms').state]).toEqual(['run', 'along']);
    expect(() => wick.showing('legs')).toThrow('there is no other track "legs"');
  });

  test('why speaks of one track, and says who has taken it', () => {
    const wick = stage();
    wick.pulse('swing');
    wick.step(10);
    expect(wick.why().states.map(({ name, takenBy }) => [name, takenBy])).toEqual([
      ['fall', undefined],
      ['swing', 'arms'],
      ['run', undefined],
      ['stand', undefined],
    ]);
    expect(whyText(wick.why())).toContain(
      'swing shows since 0 ms: arms shows it and has taken this track too.',
    );
    expect(whyText(wick.why('arms'))).toContain(
      'arms: swing shows since 0 ms: it ranks above along and took over, using swing.',
    );
  });

  test('a snapshot holds all tracks; an edited document goes on where each of them is', () => {
    const wick = stage();
    wick.set('moving', true);
    wick.pulse('swing');
    wick.step(130);
    const snapshot = JSON.parse(JSON.stringify(wick.snapshot())) as ReturnType<Performer['snapshot']>;
    const again = stage();
    again.restore(snapshot);
    expect([again.state, again.showing('arms')]).toEqual(['run', wick.showing('arms')]);
    expect(stepTold(again, 500)).toEqual(stepTold(wick, 500));
    const edited = stage({ states: { ...body, wave: { shows: 'chop', while: 'vx > 500', priority: 3 } } });
    edited.adopt(snapshot);
    expect(edited.showing('arms')).toMatchObject({ state: 'swing', frameIndex: 1 });
    // Without the track what it showed is forgotten, and the rest goes on.
    const plain = stage({ tracks: undefined, states: { stand: body.stand!, run: body.run! } });
    plain.adopt(snapshot);
    expect([plain.state, plain.frameIndex]).toEqual(['run', 2]);
  });
});

describe('parts of drawings', () => {
  test('in step all show the whole drawing; apart each part is that of its track', () => {
    const wick = stage();
    expect(drawn(wick)).toEqual(['w.png 0 at 0, 0']);
    wick.set('moving', true);
    wick.pulse('swing');
    wick.step(10);
    expect(drawn(wick)).toEqual(['w-back.png 16 at 0, 0', 'w-legs.png 8 at 0, 0', 'w-arms.png 16 at 0, 0']);
    wick.step(50);
    // The waist of cell 9 is one to the right and one lower: what hangs by it goes along.
    expect(drawn(wick)).toEqual(['w-back.png 16 at 1, 1', 'w-legs.png 9 at 0, 0', 'w-arms.png 16 at 1, 1']);
    expect(wick.pose.boxes).toMatchObject({ strike: { x: 3, y: -5 }, body: { x: -3, y: -7 } });
    wick.set('moving', false);
    wick.step(0);
    expect(drawn(wick)).toEqual(['w.png 16 at 0, 0']);
  });

  test('mirrored they are mirrored about the same line, and the same picture is the same object', () => {
    const wick = stage();
    wick.set('moving', true);
    wick.set('vx', -50);
    wick.pulse('swing');
    wick.step(60);
    expect(wick.pose.layers.map(({ mirrored }) => mirrored)).toEqual([true, true, true]);
    expect(drawn(wick)).toEqual(['w-back.png 16 at -1, 1', 'w-legs.png 9 at 0, 0', 'w-arms.png 16 at -1, 1']);
    const { pose } = wick;
    wick.step(1);
    expect(wick.pose).toBe(pose);
  });

  test('a state in step can have drawings of its own, with as many frames or others', () => {
    const wick = stage({
      states: { stand: body.stand!, run: body.run! },
      tracks: { arms: { ...arms, states: { along: { inStep: 'body', shows: 'chop' } } } },
    });
    wick.set('moving', true);
    wick.step(60);
    // The second of four frames is the first of two.
    expect(drawn(wick)[2]).toBe('w-arms.png 20 at 1, 1');
    wick.step(50);
    expect(drawn(wick)[2]).toBe('w-arms.png 21 at 0, 0');
  });
});

describe('what cannot be is said with its place and the remedy', () => {
  const along: StateDefinition = { inStep: 'body' };
  test.each<[Partial<ControllerDefinition>, string]>([
    [
      { tracks: { arms: { states: { a: { inStep: 'bdoy' } } } } },
      'tracks.arms.states.a.inStep: there is no other track "bdoy"; did you mean "body"?',
    ],
    [
      { tracks: { arms: { states: { a: { inStep: 'arms' } } } } },
      'a state is in step with another track than its own',
    ],
    [
      { tracks: { arms: { draws: ['arm'], states: { along } } } },
      'tracks.arms.draws[0]: there is no part of a sheet "arm"; did you mean "arms"?',
    ],
    [
      {
        tracks: {
          arms: { draws: ['arms'], states: { along } },
          hat: { draws: ['arms'], states: { on: along } },
        },
      },
      'tracks.hat.draws[0]: the part "arms" is drawn by the track "arms" already',
    ],
    [{ tracks: { arms: { states: { stand: along } } } }, '"stand" is the name of states.stand already'],
    [{ tracks: { 'left arm': { states: { along } } } }, '"left arm" cannot name a track'],
    [{ tracks: { body: { states: { along } } } }, 'the track "body" is that of the document\'s own "states"'],
    [{ tracks: { vx: { states: { along } } } }, '"vx" is both a track and a signal'],
    [
      { tracks: { arms: { states: { along, a: { shows: 'swing', hops: [{ to: 'run' }] } } } } },
      'tracks.arms.states.a.hops[0].to: "run" is a state of the track "body"; a state leads to states of its own track',
    ],
    [
      { tracks: { arms: { states: { along, a: { shows: 'run', while: 'moving', takes: ['arms'] } } } } },
      'a state takes other tracks than its own',
    ],
    [
      {
        tracks: {
          arms: { states: { along, a: { shows: 'run', while: 'moving', takes: { body: 'moveing' } } } },
        },
      },
      'tracks.arms.states.a.takes.body: there is no signal "moveing"; did you mean "moving"?',
    ],
    [
      { tracks: { arms: { states: { a: { inStep: 'body', when: 'hit' } } } } },
      'an act plays to its end, and what is in step has no time of its own',
    ],
    [{ tracks: { arms: { states: { a: { inStep: 'body', rate: '2' } } } } }, '"rate" cannot be here'],
    [
      { states: { stand: { inStep: 'arms' } }, rest: 'stand', tracks: { arms: { states: { along } } } },
      'the track "arms" is in step with "body", and that one with it: nobody leads',
    ],
    [
      { states: { stand: { ...body.stand!, while: 'arms.alnog' } }, tracks: { arms: { states: { along } } } },
      'there is no signal "arms.alnog"; did you mean "arms.along"?',
    ],
    [
      {
        states: { stand: { ...body.stand!, while: "arms == 'alnog'" } },
        tracks: { arms: { states: { along } } },
      },
      'there is no state "alnog"; did you mean "along"?',
    ],
    [
      {
        states: { stand: { ...body.stand!, while: 'arms.get' } },
        tracks: { arms: { states: { 'get-up': along } } },
      },
      `there is no signal "arms.get"; known: vx, moving, swing, hit, body.stand, arms == 'get-up'`,
    ],
    [
      { states: { stand: { ...body.stand!, while: 'arms' } }, tracks: { arms: { states: { along } } } },
      `"arms" is a choice where a flag is wanted; compare it, such as arms == along`,
    ],
    [{ tracks: { arms: { states: {} } } }, 'a character needs a state'],
    [
      { sheets: { w: { ...sheets.w!, size: undefined, image: 'w.png' } } },
      'the image "w-arms.png" of this part is 64x24, that of the sheet 64x32',
    ],
  ])('%j is refused in words', (more, words) => {
    const images = {
      'w.png': { width: 64, height: 32 },
      'w-back.png': { width: 64, height: 32 },
      'w-legs.png': { width: 64, height: 32 },
      'w-arms.png': { width: 64, height: 24 },
    };
    const known = more.sheets === undefined ? { ...images, 'w-arms.png': images['w.png'] } : images;
    expect(() => compileController(define(more), { images: known })).toThrow(words);
  });
});
