import type { StateDefinition } from 'dot-hop';
import { perform, stepTold } from './characters.js';
import { clips, signals, stage } from './stage.js';

describe('rule 1: a higher rank takes over at once', () => {
  test('a posture that becomes true, even in the middle of a frame', () => {
    const performer = stage({ go: { shows: 'loop', while: 'go', priority: 1 } });
    performer.step(33);
    performer.set('go', true);
    expect(stepTold(performer, 0)).toEqual(['33 rest > go']);
  });

  test('of several the highest; of equals the first in the document', () => {
    const performer = stage({
      low: { shows: 'loop', while: 'go', priority: 1 },
      one: { shows: 'loop', while: 'go', priority: 2 },
      two: { shows: 'loop', while: 'go', priority: 2 },
    });
    performer.set('go', true);
    expect(stepTold(performer, 0)).toEqual(['0 rest > one']);
  });

  test('equal ranks never cut each other off', () => {
    const performer = stage({
      one: { shows: 'loop', while: 'fast', priority: 2 },
      two: { shows: 'loop', while: 'go', priority: 2 },
    });
    performer.set('go', true);
    performer.step(10);
    performer.set('fast', true);
    expect(stepTold(performer, 10)).toEqual([]);
    performer.set('go', false);
    expect(stepTold(performer, 10)).toEqual(['20 two > one']);
  });

  test('a final state refuses it', () => {
    const performer = stage({
      out: { shows: 'act', when: 'press', priority: 1, final: true },
      go: { shows: 'loop', while: 'go', priority: 9 },
    });
    performer.pulse('press');
    performer.step(10);
    performer.set('go', true);
    expect(stepTold(performer, 100)).toEqual(['100 hit']);
    expect(performer.why().states[0]).toMatchObject({ name: 'go', keptOut: 'final' });
    expect(stepTold(performer, 100)).toEqual(['200 out > go']);
  });
});

describe('acts', () => {
  test('a held flag starts an act once, and does not starve what follows', () => {
    const performer = stage({
      swing: { shows: 'short', when: 'hurt', priority: 3, then: 'after' },
      after: { shows: 'act' },
    });
    performer.set('hurt', true);
    expect(stepTold(performer, 1000)).toEqual([
      '0 rest > swing',
      '100 swing > after',
      '200 hit',
      '300 after > rest',
    ]);
    performer.set('hurt', false);
    performer.step(10);
    performer.set('hurt', true);
    expect(stepTold(performer, 0)).toEqual(['1010 rest > swing']);
  });

  test('what is true at the very start has not just become true', () => {
    const performer = stage(
      { swing: { shows: 'short', when: 'hurt', priority: 3 } },
      { signals: { ...signals, hurt: { flag: true } } },
    );
    expect(stepTold(performer, 500)).toEqual([]);
    expect(performer.why().states[0]).toMatchObject({ name: 'swing', keptOut: 'not-new' });
  });

  test('a pulse is remembered for its keep and used up by the state that it lets in', () => {
    const performer = stage({ swing: { shows: 'short', when: 'press && go', priority: 3 } });
    performer.pulse('press');
    performer.step(99.999);
    performer.set('go', true);
    expect(stepTold(performer, 50)).toEqual(['99.999 rest > swing']);
    expect(performer.value('press')).toBe(false);
    performer.step(200);
    performer.set('go', false);
    performer.pulse('press');
    performer.step(100);
    performer.set('go', true);
    expect(stepTold(performer, 50)).toEqual([]);
  });

  test('a pulse without keep counts at its instant only', () => {
    const performer = stage({ swing: { shows: 'short', when: 'tap && go', priority: 3 } });
    performer.pulse('tap');
    performer.step(1);
    performer.set('go', true);
    expect(stepTold(performer, 1)).toEqual([]);
    performer.pulse('tap');
    expect(stepTold(performer, 1)).toEqual(['2 rest > swing']);
  });

  test('a press while the act plays does not restart it; one still remembered at its end starts it again', () => {
    const performer = stage({ swing: { shows: 'act', when: 'press', priority: 3 } });
    performer.pulse('press');
    performer.step(120);
    performer.pulse('press');
    expect(stepTold(performer, 400)).toEqual(
      ['200 swing > swing', '300 hit', '400 swing > rest'].map(String),
    );
  });

  test('an act whose while turns false gives way at once', () => {
    const performer = stage(
      {
        swing: { shows: 'act', when: 'press', while: 'go', priority: 3, then: 'after' },
        after: { shows: 'act' },
      },
      {},
    );
    performer.set('go', true);
    performer.pulse('press');
    performer.step(30);
    performer.set('go', false);
    expect(stepTold(performer, 0)).toEqual(['30 swing > rest']);
  });
});

describe('rule 2: hops', () => {
  const chain = (hop: object) =>
    stage({
      one: { shows: 'act', when: 'press', priority: 3, hops: [{ to: 'two', ...hop }] },
      two: { shows: 'short', priority: 3 },
    });

  test('at its end, when the condition was true within the span; the press is used', () => {
    const performer = chain({ if: 'press', during: 'late', at: 'end' });
    performer.pulse('press');
    performer.step(120);
    performer.pulse('press');
    expect(stepTold(performer, 300)).toEqual(['200 one > two', '300 two > rest']);
  });

  test('a press before the span counts while it is remembered', () => {
    const performer = chain({ if: 'press', during: 'late', at: 'end' });
    performer.pulse('press');
    performer.step(10);
    performer.pulse('press');
    expect(stepTold(performer, 200)).toEqual(['100 hit', '200 one > two']);
  });

  test('a press after the span does not', () => {
    const performer = chain({ if: 'tap', during: 'early', at: 'end' });
    performer.pulse('press');
    performer.step(110);
    performer.pulse('tap');
    expect(stepTold(performer, 200)).toEqual(['200 one > rest']);
  });

  test.each([
    [{ at: 'now' }, '0 one > two'],
    [{ at: 'hit' }, '100 one > two'],
    [{ at: { start: 'last' } }, '150 one > two'],
    [{ at: 'end' }, '200 one > two'],
  ])('%j is taken at its instant', (hop, told) => {
    const performer = chain(hop);
    performer.pulse('press');
    expect(stepTold(performer, 250).find((line) => line.includes('two'))).toBe(told);
  });

  test('does not lead into a state whose while is false', () => {
    const performer = stage({
      one: { shows: 'act', when: 'press', priority: 3, hops: [{ to: 'two' }, { to: 'three' }] },
      two: { shows: 'loop', while: 'go', priority: 3 },
      three: { shows: 'short', priority: 3 },
    });
    performer.pulse('press');
    expect(stepTold(performer, 0)).toEqual(['0 rest > one', '0 one > three']);
  });

  test('at the end of each pass of a loop, before the next pass begins', () => {
    const performer = stage(
      {
        walk: { shows: 'loop', while: 'go', priority: 1, hops: [{ to: 'skip', if: 'fast', at: 'end' }] },
        skip: { shows: 'short', priority: 1 },
      },
      { clips: { ...clips, loop: { cells: '0-3', ms: 100, cues: { first: 0 } } } },
    );
    performer.set('go', true);
    performer.step(500);
    performer.set('fast', true);
    expect(stepTold(performer, 300)).toEqual(['800 walk > skip']);
  });
});

describe('rule 3: giving way', () => {
  test('to the highest-ranked state that wants in, else to rest', () => {
    const performer = stage({
      run: { shows: 'loop', while: 'go && fast', priority: 2 },
      walk: { shows: 'loop', while: 'go', priority: 1 },
    });
    performer.set('go', true);
    performer.set('fast', true);
    performer.step(10);
    performer.set('fast', false);
    expect(stepTold(performer, 10)).toEqual(['10 run > walk']);
    performer.set('go', false);
    expect(stepTold(performer, 10)).toEqual(['20 walk > rest']);
  });

  test('a state yields within its span, to the states it names and no others', () => {
    const performer = stage({
      walk: { shows: 'loop', while: 'go', priority: 1 },
      other: { shows: 'loop', while: 'fast', priority: 2 },
      land: { shows: 'act', when: 'press', priority: 5, yields: [{ to: ['walk'], during: 'late' }] },
    });
    performer.pulse('press');
    performer.step(20);
    performer.set('fast', true);
    performer.step(20);
    performer.set('go', true);
    expect(stepTold(performer, 100)).toEqual(['100 hit', '100 land > walk', '100 walk > other']);
  });

  test('rest gives way to any rank', () => {
    const performer = stage({ low: { shows: 'loop', while: 'go', priority: -3 } });
    performer.set('go', true);
    expect(stepTold(performer, 0)).toEqual(['0 rest > low']);
  });

  test('the start state is found from the first values', () => {
    const states = { run: { shows: 'loop', while: 'go', priority: 2 } };
    expect(stage(states).state).toBe('rest');
    expect(
      perform({ clips, signals, states: { rest: { shows: 'loop' }, ...states }, rest: 'rest' }, { go: true })
        .state,
    ).toBe('run');
  });
});

describe('chains without time', () => {
  test('several switches at one instant are made in turn', () => {
    const performer = stage({
      one: { shows: 'act', when: 'press', priority: 3, hops: [{ to: 'two' }] },
      two: { shows: 'act', hops: [{ to: 'three' }] },
      three: { shows: 'short' },
    });
    performer.pulse('press');
    expect(stepTold(performer, 1)).toEqual(['0 rest > one', '0 one > two', '0 two > three']);
  });

  test('a cycle is named, and the performer can go on once it is broken', () => {
    const performer = stage({
      one: { shows: 'act', when: 'press', priority: 3, hops: [{ to: 'two' }] },
      two: { shows: 'act', hops: [{ to: 'one', if: '!go' }] },
    });
    performer.pulse('press');
    expect(() => performer.step(1)).toThrow(
      'these states lead to one another without taking any time: two -> one -> two',
    );
    performer.set('go', true);
    performer.step(50);
    expect(performer.state).toBe('two');
  });
});

describe('facing', () => {
  const turning = (states: Record<string, StateDefinition> = {}) =>
    stage(states, { compass: { directions: 'sides', mirror: { west: 'east' }, by: ['vx', 0], deadZone: 5 } });

  test('it turns with the vector, keeps facing when still, and never below the dead zone', () => {
    const performer = turning();
    const seen = [10, 0, -3, -5, 4, -0, 5].map((vx) => {
      performer.set('vx', vx);
      performer.step(1);
      return performer.facing;
    });
    expect(seen).toEqual(['east', 'east', 'east', 'west', 'west', 'west', 'east']);
  });

  test('the west is the mirrored east, and a turn keeps the frame', () => {
    const performer = turning();
    performer.step(150);
    const { cell } = performer.pose;
    performer.set('vx', -20);
    expect(stepTold(performer, 0)).toEqual(['150 turns west']);
    expect(performer.pose).toMatchObject({ cell, mirrored: true });
  });

  test('a state that holds its direction keeps the one it was entered with', () => {
    const performer = turning({ swing: { shows: 'act', when: 'press', priority: 3, facing: 'held' } });
    performer.set('vx', -20);
    performer.pulse('press');
    expect(stepTold(performer, 50)).toEqual(['0 turns west', '0 rest > swing']);
    performer.set('vx', 20);
    expect(stepTold(performer, 200)).toEqual(['100 hit', '200 swing > rest', '200 turns east'].sort());
  });
});

describe('what a switch carries', () => {
  test.each([
    ['none', 0],
    ['phase', 2],
    ['frame', 1],
  ] as const)('%s', (carry, frame) => {
    const performer = stage(
      { go: { shows: 'eight', while: 'go', priority: 1, carry } },
      { clips: { ...clips, eight: { cells: '0-7', ms: 100 } } },
    );
    performer.step(135);
    performer.set('go', true);
    performer.step(0);
    expect(performer.frameIndex).toBe(frame);
  });

  test('a cue of a frame that play enters in its middle is not reported', () => {
    const performer = stage(
      { go: { shows: 'step', while: 'go', priority: 1, carry: 'phase' } },
      { clips: { ...clips, step: { cells: '0-3', ms: 100, cues: { foot: [0, 2] } } } },
    );
    performer.step(250);
    performer.set('go', true);
    expect(stepTold(performer, 160)).toEqual(['250 rest > go', '400 foot']);
  });
});

describe('why', () => {
  test('tells for every state whether it wants in, its terms, and what keeps it out', () => {
    const performer = stage({
      walk: { shows: 'loop', while: 'go && vx > 3', priority: 1 },
      swing: { shows: 'act', when: 'press', priority: 5 },
    });
    performer.set('go', true);
    performer.pulse('press');
    performer.step(10);
    const why = performer.why();
    expect(why).toMatchObject({
      state: 'swing',
      since: 0,
      at: 10,
      pace: 1,
      last: { from: 'rest', rule: 'rank', used: ['press'] },
    });
    expect(why.states.map(({ name, keptOut, wantsIn }) => [name, keptOut, wantsIn])).toEqual([
      ['swing', 'shows', false],
      ['walk', 'condition', false],
      ['rest', 'no-condition', false],
    ]);
    expect(why.states[1]!.while!.terms).toEqual([
      { text: 'go', on: true, reads: [{ name: 'go', value: true }] },
      { text: 'vx > 3', on: false, reads: [{ name: 'vx', value: 0 }] },
    ]);
  });
});

describe('reports', () => {
  test('are refused once another performer of the controller has stepped', () => {
    const performer = stage({ go: { shows: 'loop', while: 'go', priority: 1 } });
    performer.set('go', true);
    performer.step(1);
    const other = new (performer.constructor as new (c: unknown) => typeof performer)(performer.controller);
    other.set('go', true);
    other.step(1);
    expect(performer.reports.count).toBe(1);
    expect(other.reports.count).toBe(1);
    expect(() => other.reports.name(1)).toThrow('1 things happened in this step');
  });
});
