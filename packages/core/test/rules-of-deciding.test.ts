// Examples of the rules under "Deciding" in docs/model.md that no other test shows by themselves, in the order of that page.
import { Performer } from 'dot-hop';
import type { StateDefinition } from 'dot-hop';
import { compile, lastTold, perform, stepTold } from './characters.js';
import { clips, signals, stage } from './stage.js';

test('what another switch of the same instant makes false again starts no act', () => {
  const performer = stage({
    hit: { shows: 'short', when: 'tap', priority: 5, tags: ['hurting'] },
    cheer: { shows: 'short', when: 'go and not hurting', priority: 1 },
  });
  performer.set('go', true);
  performer.pulse('tap');
  expect(stepTold(performer, 50)).toEqual(['0 rest > hit']);
});

test('a bare state ends with a clip that is played once; with lasts it ends then instead', () => {
  const states = { hit: { shows: 'short', when: 'tap', then: 'up' }, up: { shows: 'short', then: 'late' } };
  const played = stage({ ...states, late: { shows: 'short', lasts: 250 } });
  played.pulse('tap');
  expect(stepTold(played, 1000)).toEqual([
    '0 rest > hit',
    '100 hit > up',
    '200 up > late',
    '450 late > rest',
  ]);
});

describe('rest and presses', () => {
  test('a switch to rest while it shows is no switch', () => {
    const performer = stage({});
    performer.step(30);
    performer.set('go', true);
    expect(stepTold(performer, 1000)).toEqual([]);
  });

  test('an act that plays does not want in again because its condition has just become true', () => {
    const performer = stage({ swing: { shows: 'act', when: 'go', priority: 1 } });
    performer.set('go', true);
    performer.step(60);
    performer.set('go', false);
    performer.step(0);
    performer.set('go', true);
    expect(stepTold(performer, 400)).toEqual(['100 hit', '200 swing > rest']);
  });

  test('a pulse under not is read as absent, and is never used', () => {
    const performer = stage({
      go: { shows: 'loop', while: 'go and not press', priority: 1 },
      out: { shows: 'short', when: 'press and hurt', priority: 2 },
    });
    performer.set('go', true);
    performer.pulse('press');
    expect(stepTold(performer, 50)).toEqual([]);
    performer.set('hurt', true);
    expect(stepTold(performer, 10)).toEqual(['50 rest > out']);
  });

  test('entering uses the pulses of the hop that led there, not those of the state', () => {
    const performer = stage({
      go: { shows: 'loop', while: 'go', priority: 1, hops: [{ to: 'out', if: 'tap' }] },
      out: { shows: 'short', when: 'press and hurt', priority: 2 },
    });
    performer.set('go', true);
    performer.step(0);
    performer.pulse('tap');
    performer.pulse('press');
    expect(stepTold(performer, 10)).toEqual(['0 go > out']);
    expect(performer.value('press')).toBe(true);
  });

  test('queue plays the act once more at its end, however many presses there were', () => {
    const performer = stage({ swing: { shows: 'short', when: 'press', priority: 1, again: 'queue' } });
    performer.pulse('press');
    performer.step(10);
    performer.pulse('press');
    performer.step(10);
    performer.pulse('press');
    expect(stepTold(performer, 500)).toEqual(['100 swing > swing', '200 swing > rest']);
    expect(performer.value('press')).toBe(false);
  });
});

describe('where one can go', () => {
  test('a follow-up does not lead into a state whose while is false', () => {
    const performer = stage({
      swing: { shows: 'short', when: 'tap', priority: 1, then: 'up' },
      up: { shows: 'loop', while: 'go', priority: 1 },
    });
    performer.pulse('tap');
    expect(stepTold(performer, 150)).toEqual(['0 rest > swing', '100 swing > rest']);
  });

  test('leaves and atLeast do not hold off hops', () => {
    const performer = stage({
      go: { shows: 'loop', while: 'go', atLeast: 1000, leaves: 'end', hops: [{ to: 'up', if: 'fast' }] },
      up: { shows: 'loop', while: 'fast' },
    });
    performer.set('go', true);
    performer.step(10);
    performer.set('fast', true);
    expect(stepTold(performer, 0)).toEqual(['10 go > up']);
  });

  test('at its end, and during its bridge, a state may be left whatever leaves says', () => {
    const performer = stage({
      go: { shows: 'act', while: 'go', priority: 1, leaves: 'hit', bridges: { rest: 'short' } },
    });
    performer.set('go', true);
    performer.step(50);
    performer.set('go', false);
    expect(stepTold(performer, 0)).toEqual(['50 go > rest']);
    performer.set('go', true);
    // The bridge takes 100 ms, and the cue comes 100 ms after it: it is over when he no longer stands.
    performer.step(220);
    performer.set('go', false);
    expect(stepTold(performer, 300)).toEqual(['350 go > rest']);
  });
});

describe('bridges', () => {
  test('phases and the end of hops are those of the own clip', () => {
    const performer = stage({
      go: {
        shows: 'act',
        while: 'go',
        priority: 1,
        bridges: { rest: 'short' },
        hops: [{ to: 'up', at: { phases: [0.5] } }],
      },
      up: { shows: 'loop', priority: 2 },
    });
    performer.set('go', true);
    // Half of the clip is 100 ms, after the bridge's 100.
    expect(stepTold(performer, 250).slice(0, 3)).toEqual(['0 rest > go', '200 hit', '200 go > up']);
  });

  test('nothing is carried out of a bridge', () => {
    const performer = stage({
      go: { shows: 'loop', while: 'go', priority: 1, bridges: { rest: 'act' } },
      run: { shows: 'loop', while: 'fast', priority: 2, carry: 'phase' },
    });
    performer.set('go', true);
    performer.step(70);
    performer.set('fast', true);
    performer.step(0);
    expect([performer.state, performer.phase]).toEqual(['run', 0]);
  });

  test('the gait that counts is the one that showed, also if its number falls at that very instant', () => {
    const performer = stage({
      rest: { shows: 'loop', bridges: { go: { short: 'act' } } },
      go: { gaits: { by: 'vx', shows: ['loop', 'short'], above: [50] }, while: 'go', priority: 1 },
    });
    performer.set('go', true);
    performer.set('vx', 60);
    performer.step(10);
    performer.set('go', false);
    performer.set('vx', 0);
    performer.step(0);
    expect([performer.state, performer.isBridging, performer.clip]).toEqual(['rest', true, 'act']);
  });
});

test('chance is the linear congruence that it says, asked once for each pick', () => {
  const performer = new Performer(
    compile({
      clips,
      signals,
      states: {
        rest: { shows: 'loop' },
        go: {
          shows: { any: ['act', 'short', 'loop'], pick: 'chance', weights: [1, 3, 4] },
          while: 'go',
          priority: 1,
        },
      },
      rest: 'rest',
    }),
  );
  performer.seed = 7;
  let seed = 7;
  let last: string | undefined;
  for (let i = 0; i < 40; i++) {
    performer.set('go', true);
    performer.step(0);
    seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
    const left = Object.entries({ act: 1, short: 3, loop: 4 }).filter(([name]) => name !== last);
    let point = (seed / 2 ** 32) * left.reduce((sum, [, weight]) => sum + weight, 0);
    last = left.find(([, weight]) => (point -= weight) < 0)![0];
    expect(performer.clip).toBe(last);
    performer.set('go', false);
    performer.step(0);
  }
});

describe('groups and tags', () => {
  test('a state that is in no further group counts as 0 there', () => {
    const group = (inner: number) => ({
      groups: {
        out: {
          while: 'go',
          priority: 5,
          rest: 'idle',
          states: { idle: { shows: 'loop' }, plain: { shows: 'loop', while: 'fast', priority: 1 } },
          groups: {
            in: {
              while: 'hurt',
              priority: inner,
              rest: 'low',
              states: { low: { shows: 'loop' }, deep: { shows: 'loop', while: 'go', priority: 9 } },
            },
          },
        },
      },
    });
    const shownWith = (inner: number): string => {
      const performer = stage({}, group(inner));
      for (const flag of ['go', 'fast', 'hurt']) performer.set(flag, true);
      performer.step(0);
      return performer.state;
    };
    // The priority of the inner group stands against the 1 of the plain state, not the 9 inside it.
    expect([shownWith(2), shownWith(-1)]).toEqual(['deep', 'plain']);
  });

  test('tags count from the instant at which their state is entered', () => {
    const performer = stage({
      hit: { shows: 'act', when: 'tap', priority: 5, tags: ['hurting'] },
      after: { shows: 'short', when: 'hurting', priority: 9 },
    });
    performer.pulse('tap');
    expect(stepTold(performer, 0)).toEqual(['0 rest > hit', '0 hit > after']);
  });

  test('while the first state is looked for, the tags of rest count', () => {
    const states: Record<string, StateDefinition> = {
      rest: { shows: 'loop', tags: ['calm'] },
      go: { shows: 'loop', while: 'go and calm', priority: 1 },
      run: { shows: 'loop', while: 'go and not calm', priority: 1 },
    };
    const performer = new Performer(compile({ clips, signals, states, rest: 'rest' }), { go: true });
    expect(performer.state).toBe('go');
    // What shows is not calm, from the first instant on.
    expect(stepTold(performer, 0)).toEqual(['0 go > run']);
  });
});

describe('requests', () => {
  test('ask is granted by an open yield, and not before it opens', () => {
    const performer = stage({
      swing: { shows: 'act', when: 'tap', priority: 5, yields: [{ to: ['up'], during: 'late' }] },
      up: { shows: 'loop' },
    });
    performer.pulse('tap');
    performer.step(50);
    expect([performer.ask('up'), performer.state]).toEqual([false, 'swing']);
    performer.step(60);
    expect([performer.ask('up'), performer.state]).toEqual([true, 'up']);
  });

  test('cut enters a posture that does not stand, and it is left again at once', () => {
    const performer = stage({ go: { shows: 'loop', while: 'go', priority: 1 } });
    performer.step(30);
    performer.cut('go');
    expect([performer.state, lastTold(performer)]).toEqual(['rest', ['30 rest > go', '30 go > rest']]);
  });

  test('a route takes hops without an instant at once where it begins, and at the end of a pass on the way', () => {
    const performer = stage({
      rest: { shows: 'loop', hops: [{ to: 'one', if: 'go' }] },
      one: { shows: 'loop', hops: [{ to: 'two', if: 'go' }] },
      two: { shows: 'loop' },
    });
    performer.step(130);
    expect([performer.route('two'), performer.state]).toEqual([true, 'one']);
    expect(stepTold(performer, 1000)).toEqual(['530 one > two']);
  });

  test('of two ways of equal length a route takes the first hop of the document', () => {
    const performer = stage({
      rest: {
        shows: 'loop',
        hops: [
          { to: 'left', if: 'go' },
          { to: 'right', if: 'go' },
        ],
      },
      right: { shows: 'loop', hops: [{ to: 'end', if: 'go' }] },
      left: { shows: 'loop', hops: [{ to: 'end', if: 'go' }] },
      end: { shows: 'loop' },
    });
    performer.route('end');
    expect(performer.state).toBe('left');
  });

  test('any other switch ends a route', () => {
    const performer = stage({
      rest: { shows: 'loop', hops: [{ to: 'one', if: 'go' }] },
      one: { shows: 'loop', hops: [{ to: 'two', if: 'go' }] },
      two: { shows: 'loop' },
      hit: { shows: 'short', when: 'tap', priority: 9, then: 'one' },
    });
    performer.route('two');
    performer.step(10);
    performer.pulse('tap');
    expect(stepTold(performer, 2000)).toEqual(['10 one > hit', '110 hit > one']);
  });
});

describe('carry', () => {
  /** Switches after so many milliseconds from a clip with a cue on its first three frames to another one. */
  const carried = (
    ms: number,
    carry: 'phase' | 'frame',
    cues: Record<string, number[]> = { step: [0, 1, 2] },
  ) => {
    const performer = perform({
      clips: {
        ...clips,
        beat: { cells: '0-3', ms: 100, cues: { step: [0, 1, 2] } },
        other: { cells: '0-3', ms: 50, cues },
      },
      signals,
      states: {
        rest: { shows: 'loop' },
        one: { shows: 'beat', while: 'go', priority: 1 },
        two: { shows: 'other', while: 'fast', priority: 2, carry },
      },
      rest: 'rest',
    });
    performer.set('go', true);
    performer.step(ms);
    performer.set('fast', true);
    return [stepTold(performer, 0), performer.phase];
  };

  test('a place at a border of frames stays at a border, and what was told there is not told again', () => {
    expect(carried(100, 'phase')).toEqual([['100 one > two'], 0.25]);
    expect(carried(99.999, 'phase')).toEqual([['99.999 one > two'], 0.249_997_5]);
  });

  test('a cue of another name is told there', () => {
    expect(carried(100, 'phase', { step: [0, 1], puff: [1] })).toEqual([['100 one > two', '100 puff'], 0.25]);
  });

  test('a frame that is entered in its middle reports no cue', () => {
    expect(carried(150, 'phase')).toEqual([['150 one > two'], 0.375]);
  });

  test('a frame that is kept begins again, and tells only what it has not told', () => {
    expect(carried(150, 'frame')).toEqual([['150 one > two'], 0.25]);
    expect(carried(150, 'frame', { step: [1], puff: [1] })).toEqual([['150 one > two', '150 puff'], 0.25]);
  });

  test('at its end a clip has no phase: what follows begins at its beginning', () => {
    const performer = stage({
      swing: { shows: 'act', when: 'tap', priority: 1, then: 'up' },
      up: { shows: 'act', carry: 'phase' },
    });
    performer.pulse('tap');
    expect(stepTold(performer, 320)).toEqual(['0 rest > swing', '100 hit', '200 swing > up', '300 hit']);
  });
});

test('what a hop remembers is its own press, and not the one that let the state in', () => {
  const performer = perform({
    clips: {
      stand: { cells: 0 },
      act: { cells: '0-3', ms: 50, loop: 'once', spans: { early: '0-1' } },
      next: { cells: '4-7', ms: 50, loop: 'once' },
    },
    signals: { tap: { pulse: true }, press: { pulse: true } },
    states: {
      stand: { shows: 'stand' },
      act: { shows: 'act', when: 'tap', hops: [{ to: 'next', if: 'press', during: 'early', at: 'end' }] },
      next: { shows: 'next' },
    },
    rest: 'stand',
  });
  const afterTap = (press: boolean): string => {
    performer.reset();
    performer.pulse('tap');
    performer.step(60);
    if (press) performer.pulse('press');
    performer.step(10);
    expect(performer.why().last).toMatchObject({ from: 'stand', used: ['tap'] });
    performer.step(140);
    return performer.state;
  };
  expect([afterTap(false), afterTap(true)]).toEqual(['stand', 'next']);
});
