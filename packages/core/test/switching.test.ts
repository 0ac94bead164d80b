import { Performer } from 'dot-hop';
import { whyText } from 'dot-hop/explain';
import type { AtDefinition, StateDefinition } from 'dot-hop';
import { compile, perform, stepTold } from './characters.js';
import { clips, signals, stage } from './walking-stage.js';

describe('choices and vectors', () => {
  test('a choice is tested by name, in both orders, with == and !=', () => {
    const performer = stage({
      climb: { shows: 'rise', while: 'mode == ladder', priority: 2 },
      wade: { shows: 'walk', while: '"water" == mode && mode != \'quay\'', priority: 2 },
    });
    expect(performer.value('mode')).toBe('quay');
    performer.set('mode', 'ladder');
    expect(stepTold(performer, 10)).toEqual(['0 stand > climb']);
    performer.set('mode', 'water');
    expect(stepTold(performer, 10)).toEqual(['10 climb > wade', '10 step']);
    performer.set('mode', 'quay');
    expect(stepTold(performer, 10)).toEqual(['20 wade > stand']);
  });

  test('a vector is read by its parts, turns the character, and is set whole', () => {
    const performer = stage(
      { go: { shows: 'walk', while: 'hypot(aim.x, aim.y) > 0.5', priority: 1 } },
      { compass: { directions: 'four', by: 'aim', deadZone: 0.2 } },
    );
    performer.set('aim', [0, 1]);
    expect(stepTold(performer, 0)).toEqual(['0 turns south', '0 stand > go', '0 step']);
    performer.setVector('aim', -0.3, 0.1);
    expect(stepTold(performer, 0)).toEqual(['0 turns west', '0 go > stand']);
    expect([performer.value('aim'), performer.value('aim.x')]).toEqual([[-0.3, 0.1], -0.3]);
  });

  test('first values decide the state it begins in', () => {
    const performer = new Performer(
      compile({
        clips,
        signals,
        states: { stand: { shows: 'stand' }, climb: { shows: 'rise', while: "mode == 'ladder'" } },
        rest: 'stand',
      }),
      { mode: 'ladder', aim: [1, 2] },
    );
    expect([performer.state, performer.value('aim')]).toEqual(['climb', [1, 2]]);
  });

  test.each([
    ['mode', 'laddre', 'the choice "mode" has no option "laddre"; did you mean "ladder"?'],
    ['mode', 2, '"mode" is a choice and takes one of quay, ladder, water, not 2'],
    ['aim', 3, '"aim" is a vector and takes two finite numbers, [x, y], not 3'],
    ['aim', [1, NaN], '"aim" is a vector and takes two finite numbers, [x, y], not [1,null]'],
    ['vx', 'fast', '"vx" is a number and takes a finite number, not "fast"'],
    ['go', 1, '"go" is a flag and takes true or false, not 1'],
  ])('setting %s to %j is an error that names it', (name, value, message) => {
    const performer = stage({});
    expect(() => performer.set(name, value as never)).toThrow(message);
  });

  test('a handle sets what its name sets', () => {
    const performer = stage({ go: { shows: 'walk', while: 'vx > 5 && go', priority: 1 } });
    const { controller } = performer;
    performer.set(controller.signal('vx'), 6);
    performer.set(controller.signal('go'), true);
    expect(stepTold(performer, 0)).toEqual(['0 stand > go', '0 step']);
    expect(() => controller.signal('vz')).toThrow('did you mean "vx"');
  });
});

describe('leaves: a posture is left where it suits', () => {
  test.each<[string, AtDefinition, number]>([
    ['its end', 'end', 400],
    ['a cue', 'step', 200],
    ["a span's start", { start: 'push' }, 500],
    ["a span's end", { end: 'push' }, 300],
    ['phases', { phases: [0.3, 0.9] }, 360],
  ])('%s', (_, leaves, at) => {
    const performer = stage({ walk: { shows: 'walk', while: 'go', priority: 1, leaves } });
    performer.set('go', true);
    performer.step(130);
    performer.set('go', false);
    const told = stepTold(performer, 600).filter((text) => text.includes('>'));
    expect(told).toEqual([`${at} walk > stand`]);
  });

  test('a higher rank does not wait for it, and what is true again stays', () => {
    const performer = stage({
      walk: { shows: 'walk', while: 'go', priority: 1, leaves: 'end' },
      swing: { shows: 'swing', when: 'swing', priority: 5 },
    });
    performer.set('go', true);
    performer.step(130);
    performer.set('go', false);
    performer.step(50);
    expect(performer.why().holding).toBe('leaves');
    expect(whyText(performer.why())).toContain('it is left where its "leaves" says');
    performer.set('go', true);
    expect(stepTold(performer, 300)).toEqual(['200 step', '400 step']);
    performer.set('go', false);
    performer.pulse('swing');
    expect(stepTold(performer, 0)).toEqual(['480 walk > swing']);
  });
});

describe('atLeast', () => {
  test('keeps a state for its time, but not from a higher rank', () => {
    const performer = stage({
      walk: { shows: 'walk', while: 'go', priority: 1, atLeast: 250 },
      swing: { shows: 'swing', when: 'swing', priority: 5 },
    });
    performer.set('go', true);
    performer.step(10);
    performer.set('go', false);
    performer.step(100);
    expect(performer.why().holding).toBe('atLeast');
    expect(stepTold(performer, 500)).toEqual(['200 step', '250 walk > stand']);
    performer.set('go', true);
    performer.step(10);
    performer.set('go', false);
    performer.pulse('swing');
    expect(stepTold(performer, 0)).toEqual(['620 walk > swing']);
  });

  test('keeps an act on its last frame', () => {
    const performer = stage({ swing: { shows: 'swing', when: 'swing', priority: 5, atLeast: 300 } });
    performer.pulse('swing');
    expect(stepTold(performer, 1000)).toEqual(['0 stand > swing', '300 swing > stand']);
  });
});

describe('again: a new press while an act plays', () => {
  const pressed = (again: 'ignore' | 'restart' | 'queue'): string[] => {
    const performer = stage({ swing: { shows: 'swing', when: 'swing', priority: 5, again } });
    performer.pulse('swing');
    performer.step(100);
    performer.pulse('swing');
    return stepTold(performer, 1000);
  };

  test('is ignored', () => expect(pressed('ignore')).toEqual(['200 swing > stand']));
  test('restarts it', () => expect(pressed('restart')).toEqual(['100 swing > swing', '300 swing > stand']));
  test('plays it again at its end', () =>
    expect(pressed('queue')).toEqual(['200 swing > swing', '400 swing > stand']));

  test('a flag that is held restarts nothing', () => {
    const performer = stage({ swing: { shows: 'swing', when: 'go', priority: 5, again: 'restart' } });
    performer.set('go', true);
    expect(stepTold(performer, 500)).toEqual(['0 stand > swing', '200 swing > stand']);
  });

  test('a hop that hears the press comes before it', () => {
    const performer = stage({
      swing: {
        shows: 'swing',
        when: 'swing',
        priority: 5,
        again: 'restart',
        hops: [{ to: 'two', if: 'swing', during: 'late', at: 'end' }],
      },
      two: { shows: 'run' },
    });
    performer.pulse('swing');
    performer.step(120);
    performer.pulse('swing');
    expect(stepTold(performer, 80)).toEqual(['200 swing > two', '200 step']);
    expect(performer.why().last).toEqual({ from: 'swing', rule: 'hop', used: [] });
  });
});

describe('hops at instants', () => {
  test.each<[AtDefinition, number]>([
    [{ end: 'early' }, 100],
    [{ phases: [0.6] }, 120],
    [{ start: 'late' }, 100],
    ['end', 200],
  ])('%j', (at, instant) => {
    const performer = stage({
      swing: { shows: 'swing', when: 'swing', priority: 5, hops: [{ to: 'run', if: 'go', at }] },
      run: { shows: 'run' },
    });
    performer.set('go', true);
    performer.pulse('swing');
    expect(stepTold(performer, 200)).toContain(`${instant} swing > run`);
  });

  test('why tells what keeps each hop', () => {
    const performer = stage({
      swing: {
        shows: 'swing',
        when: 'swing',
        priority: 5,
        hops: [
          { to: 'run', if: 'swing', during: 'late', at: 'end' },
          { to: 'walk', if: 'go' },
        ],
      },
      run: { shows: 'run' },
      walk: { shows: 'walk', while: 'vx > 5' },
    });
    performer.pulse('swing');
    performer.step(10);
    expect(performer.why().hops.map(({ to, kept }) => `${to} ${kept}`)).toEqual([
      'run span',
      'walk condition',
    ]);
    performer.set('go', true);
    performer.step(110);
    performer.pulse('swing');
    performer.step(1);
    expect(performer.why().hops.map(({ to, kept }) => `${to} ${kept}`)).toEqual([
      'run instant',
      'walk while',
    ]);
    expect(whyText(performer.why())).toContain('hop to run: remembered, waits for its instant');
  });
});

describe('rate, gaits and scrub', () => {
  test('a rate by what is travelled: one pass covers the stride', () => {
    const performer = stage({
      walk: { shows: 'walk', while: 'vx > 1', priority: 1, rate: { travel: 'vx' } },
    });
    // 40 pixels a pass of 400 ms: as drawn at 100 pixels a second.
    performer.set('vx', 50);
    expect(stepTold(performer, 800)).toEqual(['0 stand > walk', '0 step', '400 step', '800 step']);
    expect(performer.speed).toBe(0.5);
    performer.set('vx', 200);
    performer.step(50);
    expect(performer.phase).toBeCloseTo(0.25);
  });

  test('gaits keep the phase and change within their margin', () => {
    const gaits = { by: 'vx', shows: ['walk', 'run'], above: [100], margin: 20 };
    const performer = stage({ go: { gaits, while: 'vx > 1', priority: 1 } });
    performer.set('vx', 50);
    performer.step(100);
    performer.set('vx', 101);
    expect(stepTold(performer, 0)).toEqual(['100 flipbook run']);
    expect([performer.clip, performer.phase]).toEqual(['run', 0.25]);
    performer.set('vx', 81);
    expect(stepTold(performer, 10)).toEqual([]);
    performer.set('vx', 79);
    expect(stepTold(performer, 0)).toEqual(['110 flipbook walk']);
    expect(performer.phase).toBeCloseTo(0.3);
  });

  test('a bridge out of one gait: what is left is left in the gait it showed', () => {
    const performer = perform({
      clips: { ...clips, skid: { cells: '20-21', ms: 60, loop: 'once' } },
      signals,
      states: {
        stand: { shows: 'stand', bridges: { go: { run: 'skid' } } },
        go: {
          gaits: { by: 'vx', shows: ['walk', 'run'], above: [100], margin: 20 },
          while: 'vx > 1',
          priority: 1,
        },
      },
      rest: 'stand',
    });
    performer.set('vx', 150);
    performer.step(100);
    performer.set('vx', 0);
    performer.step(10);
    expect([performer.state, performer.clip]).toEqual(['stand', 'skid']);
    performer.set('vx', 50);
    performer.step(100);
    performer.set('vx', 0);
    performer.step(10);
    expect([performer.state, performer.clip]).toEqual(['stand', 'stand']);
  });

  test('a scrubbed clip follows its number and stands still with it', () => {
    const performer = stage({
      rise: { shows: 'rise', while: 'go', priority: 1, scrub: { by: 'vy', from: -200, to: 200 } },
    });
    performer.set('go', true);
    performer.set('vy', -200);
    performer.step(1000);
    const frames = [-500, -101, -100, 0, 99, 100, 199, 9000].map((vy) => {
      performer.set('vy', vy);
      const told = stepTold(performer, 10);
      return `${performer.frameIndex}${told.some((text) => text.includes('top')) ? ' top' : ''}`;
    });
    expect(frames).toEqual(['0', '0', '1', '2', '2', '3 top', '3', '3']);
  });
});

test('tags: other states test what shows, and an act can start by it', () => {
  const performer = stage({
    rise: { shows: 'rise', while: 'vy < 0', priority: 3, tags: ['airborne'] },
    lantern: { shows: 'swing', when: 'swing && !airborne', priority: 5 },
    gasp: { shows: 'swing', when: 'airborne', priority: 1 },
  });
  performer.set('vy', -10);
  performer.pulse('swing');
  performer.step(0);
  expect([performer.state, performer.value('airborne')]).toEqual(['lantern', false]);
  performer.step(200);
  expect([performer.state, performer.value('airborne')]).toEqual(['rise', true]);
  performer.pulse('swing');
  expect(stepTold(performer, 100)).toEqual([]);
});

test('carry by the state that is left', () => {
  const performer = stage({
    walk: { shows: 'walk', while: 'vx > 1', priority: 1, carry: { run: 'phase', stand: 'frame' } },
    run: { shows: 'run', while: 'vx > 90', priority: 2 },
  });
  performer.step(210);
  performer.set('vx', 50);
  performer.step(0);
  expect([performer.state, performer.frameIndex]).toEqual(['walk', 2]);
  performer.set('vx', 100);
  performer.step(110);
  expect([performer.state, performer.frameIndex]).toEqual(['run', 2]);
  performer.set('vx', 50);
  performer.step(0);
  expect(performer.phase).toBeCloseTo(0.55);
});

describe('asking by name', () => {
  const states: Record<string, StateDefinition> = {
    walk: { shows: 'walk', while: 'go', priority: 2, yields: [{ to: ['low'], during: 'push' }] },
    low: { shows: 'stand', priority: 1 },
    wet: { shows: 'stand', while: "mode == 'water'", priority: 9 },
    high: { shows: 'swing', priority: 7 },
  };

  test('ask obeys ranks and says whether it was granted', () => {
    const performer = stage(states);
    performer.set('go', true);
    performer.step(10);
    expect(performer.ask('low')).toBe(false);
    expect(performer.ask('wet')).toBe(false);
    expect(performer.ask('walk')).toBe(true);
    expect(performer.ask('high')).toBe(true);
    expect([performer.state, performer.why().last.rule]).toEqual(['high', 'ask']);
    performer.step(300);
    performer.step(110);
    expect(performer.state).toBe('walk');
    expect(performer.ask('low')).toBe(true);
    expect(() => performer.ask('hihg')).toThrow('did you mean "high"');
  });

  test('cut asks nobody, not even a final state', () => {
    const performer = stage({ ...states, out: { shows: 'swing', when: 'swing', priority: 90, final: true } });
    performer.pulse('swing');
    performer.step(10);
    expect(performer.ask('high')).toBe(false);
    performer.cut('low');
    expect(performer.state).toBe('low');
    expect([performer.reports.name(0), performer.reports.rule(0)]).toEqual(['low', 'cut']);
    performer.cut('wet');
    expect(performer.state).toBe('stand');
  });

  test('route says whether there is a way, and takes hops whatever their conditions', () => {
    const performer = stage(
      {
        crouch: { shows: 'swing', hops: [{ to: 'lie', if: 'go', at: { start: 'late' } }] },
        lie: { shows: 'run' },
      },
      { rest: 'crouch' },
    );
    expect(performer.route('stand')).toBe(false);
    expect(performer.route('lie')).toBe(true);
    expect(stepTold(performer, 150)).toEqual(['100 crouch > lie', '100 step']);
  });
});
