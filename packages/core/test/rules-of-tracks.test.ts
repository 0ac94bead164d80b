// Examples of the rules under "Tracks" and "Facing" in docs/model.md that no other test shows by themselves, in the order of that page.
import { Performer } from 'dot-hop';
import type { CompassDefinition, ControllerDefinition, StateDefinition } from 'dot-hop';
import { compile, perform, stepTold } from './characters.js';
import { clips, signals } from './stage.js';

type States = Record<string, StateDefinition>;

/** A body and arms that each rest, and have some more states. */
const twoTracks = (body: States, arms: States, more: Partial<ControllerDefinition> = {}): Performer =>
  perform({
    clips,
    signals,
    states: { rest: { shows: 'loop' }, ...body },
    rest: 'rest',
    tracks: { arms: { states: { hang: { shows: 'loop' }, ...arms }, rest: 'hang' } },
    ...more,
  });

test('what leaves a state of another track that has taken it goes on from there, as carry says', () => {
  const performer = twoTracks(
    { dive: { shows: 'loop', while: 'go', priority: 1, takes: ['arms'] } },
    { wave: { shows: 'loop', while: 'fast', priority: 2, carry: { dive: 'phase', hang: 'none' } } },
  );
  const arms = (): unknown[] => [performer.showing('arms').state, performer.showing('arms').phase];
  performer.step(70);
  performer.set('go', true);
  performer.step(130);
  expect(arms()).toEqual(['dive', 130 / 400]);
  performer.set('fast', true);
  performer.step(0);
  expect(arms()).toEqual(['wave', 130 / 400]);
  performer.set('go', false);
  performer.set('fast', false);
  performer.step(70);
  performer.set('fast', true);
  performer.step(0);
  expect(arms()).toEqual(['wave', 0]);
});

test('of a press that two tracks use at one instant both say that they have used it', () => {
  const performer = twoTracks(
    { leap: { shows: 'act', when: 'tap', priority: 2 } },
    { wave: { shows: 'act', when: 'tap', priority: 1 } },
  );
  performer.pulse('tap');
  performer.step(10);
  expect([performer.state, performer.showing('arms').state]).toEqual(['leap', 'wave']);
  expect([performer.why().last.used, performer.why('arms').last.used]).toEqual([['tap'], ['tap']]);
});

test('a state that faces by a vector of its own turns by that alone, also where there are two sides', () => {
  const performer = perform({
    clips,
    signals: { ...signals, aim: { vector: [0, 0] } },
    compass: { directions: 'sides', mirror: { west: 'east' }, by: ['vx', 0] },
    states: {
      rest: { shows: 'loop' },
      aiming: { shows: 'loop', while: 'go', facing: { by: 'aim' } },
    },
  });
  performer.set('vx', 50);
  performer.set('aim', [-9, 0]);
  performer.step(10);
  expect(performer.facing).toBe('east');
  performer.set('go', true);
  performer.step(10);
  expect(performer.facing).toBe('west');
  performer.set('aim', [9, 0]);
  performer.set('vx', -50);
  performer.step(10);
  expect(performer.facing).toBe('east');
  performer.set('go', false);
  performer.step(10);
  expect(performer.facing).toBe('west');
});

describe('tracks at one instant', () => {
  test('first all go over their borders in the order of the document, then all decide', () => {
    const performer = twoTracks(
      { out: { shows: 'act', when: 'hurt', priority: 1, hops: [{ to: 'rest', at: 'hit' }] } },
      { wave: { shows: 'act', when: 'hurt', priority: 1, hops: [{ to: 'hang', at: 'hit' }] } },
    );
    performer.set('hurt', true);
    performer.step(99);
    expect(stepTold(performer, 1)).toEqual([
      '100 hit',
      '100 arms: hit',
      '100 out > rest',
      '100 arms: wave > hang',
    ]);
  });

  test('the switch to the highest rank is made first; of equal ranks, that of the first track', () => {
    const ranked = (body: number, arms: number): string[] => {
      const performer = twoTracks(
        { out: { shows: 'act', when: 'tap', priority: body } },
        { wave: { shows: 'act', when: 'tap', priority: arms } },
      );
      performer.pulse('tap');
      return stepTold(performer, 0);
    };
    expect(ranked(1, 2)).toEqual(['0 arms: hang > wave', '0 rest > out']);
    expect(ranked(2, 2)).toEqual(['0 rest > out', '0 arms: hang > wave']);
  });

  test('after each switch all decide again: a tag of the first keeps the second out', () => {
    const performer = twoTracks(
      { out: { shows: 'act', when: 'tap', priority: 2, tags: ['busy'] } },
      { wave: { shows: 'act', when: 'tap and not busy', priority: 1 } },
    );
    performer.pulse('tap');
    expect(stepTold(performer, 0)).toEqual(['0 rest > out']);
  });

  test('a pulse that a track uses is gone for it at once, for the others once all have decided', () => {
    const performer = twoTracks(
      {
        out: { shows: 'act', when: 'press', priority: 2, hops: [{ to: 'more', if: 'press' }] },
        more: { shows: 'loop' },
      },
      { wave: { shows: 'act', when: 'press', priority: 1 } },
    );
    performer.pulse('press');
    expect(stepTold(performer, 0)).toEqual(['0 rest > out', '0 arms: hang > wave']);
    expect(performer.value('press')).toBe(false);
  });

  test('a press is queued when no track switches; another track that uses it at that instant does not take it away', () => {
    const performer = twoTracks(
      { out: { shows: 'short', when: 'press', priority: 1, again: 'queue' } },
      { wave: { shows: 'act', when: 'press and go', priority: 1 } },
    );
    performer.pulse('press');
    performer.step(50);
    performer.pulse('press');
    expect(stepTold(performer, 200)).toEqual(['100 out > out', '200 out > rest']);
    performer.pulse('press');
    performer.step(50);
    performer.set('go', true);
    performer.pulse('press');
    expect(stepTold(performer, 100)).toEqual(['300 arms: hang > wave', '350 out > out', '400 arms: hit']);
  });

  test('while the first states are looked for each track counts as showing its rest', () => {
    const performer = twoTracks(
      { out: { shows: 'loop', while: 'arms.hang', priority: 1 } },
      { wave: { shows: 'loop', while: 'body.rest', priority: 1 } },
    );
    expect([performer.state, performer.showing('arms').state]).toEqual(['out', 'wave']);
    expect(stepTold(performer, 0)).toEqual(['0 out > rest']);
  });
});

/** Somebody who looks about on the given compass. */
const looking = (compass: Partial<CompassDefinition>, state: Partial<StateDefinition> = {}): Performer =>
  perform({
    compass: { directions: 'eight', by: 'aim', ...compass },
    clips: { ...clips, watch: { cells: '0-3', ms: 100, spans: { early: '1-2' } } },
    signals: { ...signals, aim: { vector: [1, 0] } },
    states: {
      rest: { shows: 'loop' },
      look: { shows: 'loop', while: 'go', priority: 1, ...state },
    },
    rest: 'rest',
  });
const faces = (performer: Performer, degrees: number): string => {
  performer.setVector('aim', Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180));
  performer.step(0);
  return performer.facing;
};

describe('facing', () => {
  test('a border lies in the middle, unless diagonal moves it', () => {
    const sector = (diagonal?: 'horizontal' | 'vertical'): string[] =>
      [35, 55].map((degrees) =>
        faces(looking({ directions: 'four', ...(diagonal && { diagonal }) }), degrees),
      );
    expect(sector()).toEqual(['east', 'south']);
    expect(sector('horizontal')).toEqual(['east', 'east']);
    expect(sector('vertical')).toEqual(['south', 'south']);
  });

  test('diagonal: horizontal ends a quarter of the gap past the middle', () => {
    expect(
      [67, 68].map((degrees) => faces(looking({ directions: 'four', diagonal: 'horizontal' }), degrees)),
    ).toEqual(['east', 'south']);
  });

  test('a direction is kept until the vector is so many degrees past a border', () => {
    const sticky = looking({ directions: 'four', stick: 10 });
    expect([50, 54, 56, 50, 36, 34].map((degrees) => faces(sticky, degrees))).toEqual([
      'east',
      'east',
      'south',
      'south',
      'south',
      'east',
    ]);
  });

  test('entering a state is no turn; a wide turn while it shows has its clip, whose beginning is no instant for hops', () => {
    const performer = looking(
      {},
      {
        shows: 'watch',
        // The span of that name begins with the clip of the turn.
        turns: { shows: 'act', least: 90 },
        hops: [{ to: 'rest', at: { start: 'early' } }],
      },
    );
    performer.set('go', true);
    faces(performer, 180);
    expect([performer.state, performer.isBridging]).toEqual(['look', false]);
    faces(performer, 0);
    expect([performer.state, performer.clip, performer.isBridging]).toEqual(['look', 'act', true]);
  });

  test('of two drawn directions that are equally near, the more sideward stands in', () => {
    const performer = new Performer(
      compile({
        compass: { directions: 'eight', by: 'aim' },
        clips,
        flipbooks: { walk: { south: 'act', east: 'loop' } },
        signals: { ...signals, aim: { vector: [1, 1] } },
        states: { rest: { shows: 'walk' } },
        rest: 'rest',
      }),
    );
    expect([performer.facing, performer.clip]).toEqual(['southeast', 'loop']);
  });
});
