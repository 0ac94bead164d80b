// Examples of the rules under "Time" in docs/model.md that no other test shows by themselves, in the order of that page.
import { Performer } from 'dot-hop';
import { compile, perform, stepTold } from './characters.js';
import { clips, signals, stage } from './stage.js';

test('of several values that are set before a step only the last counts, also for bands and directions', () => {
  const performer = perform({
    compass: { directions: 'sides', mirror: { west: 'east' }, by: ['vx', 0] },
    clips,
    signals,
    derived: { running: { of: 'abs(vx)', above: 80, below: 60 } },
    states: { rest: { shows: 'loop' }, run: { shows: 'loop', while: 'running', priority: 1 } },
    rest: 'rest',
  });
  performer.set('vx', -100);
  performer.set('vx', 70);
  expect(stepTold(performer, 10)).toEqual([]);
  expect([performer.facing, performer.state]).toEqual(['east', 'rest']);
});

test('the bounds of a number decide nothing', () => {
  const performer = stage(
    { go: { shows: 'loop', while: 'vx > 500', priority: 1 } },
    { signals: { ...signals, vx: { number: 0, from: 0, to: 100, whole: true } } },
  );
  performer.set('vx', 600.5);
  expect(stepTold(performer, 0)).toEqual(['0 rest > go']);
});

test('what is no finite number counts as 0, anywhere in an expression', () => {
  const performer = stage({ go: { shows: 'loop', while: '1 / vx + 5 == 5', priority: 1 } });
  expect(performer.state).toBe('go');
  performer.set('vx', 1);
  expect(stepTold(performer, 0)).toEqual(['0 go > rest']);
});

test.each([
  [99.999, ['99.999 rest > out']],
  [100, []],
])('a pulse kept for 100 ms, with its condition true after %s', (ms, told) => {
  const performer = stage({ out: { shows: 'short', when: 'press and go', priority: 1 } });
  performer.pulse('press');
  performer.step(ms);
  performer.set('go', true);
  expect(stepTold(performer, 0)).toEqual(told);
});

test('a flag lingers and settles for exactly as long as it says', () => {
  const performer = stage(
    {
      late: { shows: 'loop', while: 'lately', priority: 1 },
      calm: { shows: 'loop', while: 'settled', priority: 2 },
    },
    { derived: { lately: { of: 'go', linger: 80 }, settled: { of: 'go', settle: 80 } } },
  );
  performer.set('go', true);
  expect(stepTold(performer, 100)).toEqual(['0 rest > late', '80 late > calm']);
  performer.set('go', false);
  expect(stepTold(performer, 200)).toEqual(['100 calm > late', '180 late > rest']);
});

describe('at one instant', () => {
  test('pulses expire before anything else', () => {
    const performer = stage({
      out: { shows: 'act', when: 'hurt', hops: [{ to: 'rest', if: 'press', at: 'hit' }] },
    });
    performer.set('hurt', true);
    // The frame with the cue begins 100 ms after both: then the press is gone.
    performer.pulse('press');
    expect(stepTold(performer, 150)).toEqual(['0 rest > out', '100 hit']);
  });

  test('new values count before the frame ends', () => {
    const performer = stage(
      { out: { shows: 'act', when: 'tap', hops: [{ to: 'rest', if: 'settled', at: 'hit' }] } },
      { derived: { settled: { of: 'go', settle: 100 } } },
    );
    performer.pulse('tap');
    performer.set('go', true);
    expect(stepTold(performer, 150)).toEqual(['0 rest > out', '100 hit', '100 out > rest']);
  });

  test('the next frame begins, with its cues, before a higher rank takes over', () => {
    const performer = stage(
      {
        out: { shows: 'act', when: 'tap', priority: 1 },
        go: { shows: 'loop', while: 'settled', priority: 2 },
      },
      { derived: { settled: { of: 'go', settle: 100 } } },
    );
    performer.set('go', true);
    performer.pulse('tap');
    expect(stepTold(performer, 100)).toEqual(['0 rest > out', '100 hit', '100 out > go']);
  });

  test('at an end that leaves names, the decision runs before the next frame begins', () => {
    const performer = stage(
      { go: { shows: 'beat', while: 'go', priority: 1, leaves: 'end' } },
      { clips: { ...clips, beat: { cells: '0-1', ms: 100, cues: { step: 0 } } } },
    );
    performer.set('go', true);
    performer.step(10);
    performer.set('go', false);
    expect(stepTold(performer, 300)).toEqual(['200 go > rest']);
  });

  test('a state that stayed shows the gait that its number picks, after the decision', () => {
    const gaits = { by: 'vx', shows: ['loop', 'short'], above: [50] };
    const performer = stage({ go: { gaits, while: 'go', priority: 1 } });
    performer.set('go', true);
    performer.step(10);
    performer.set('vx', 60);
    expect(stepTold(performer, 0)).toEqual(['10 flipbook short']);
    performer.set('vx', 0);
    performer.set('go', false);
    expect(stepTold(performer, 0)).toEqual(['10 go > rest']);
  });
});

describe('a rate', () => {
  test('that changes keeps the place in the clip', () => {
    const performer = stage({ go: { shows: 'act', while: 'go', priority: 1, rate: 'vx' } });
    performer.set('go', true);
    performer.set('vx', 1);
    performer.step(50);
    expect([performer.phase, performer.speed]).toEqual([0.25, 1]);
    performer.set('vx', 2);
    performer.step(0);
    expect([performer.phase, performer.speed]).toEqual([0.25, 2]);
    expect(stepTold(performer, 30)).toEqual(['75 hit']);
  });

  test('counts in steps of 1/4096, and to 64 at most', () => {
    const timed = (vx: number, ms: number): number => {
      const performer = stage({ go: { shows: 'loop', while: 'go', priority: 1, rate: 'vx' } });
      performer.set('go', true);
      performer.set('vx', vx);
      performer.step(ms);
      return performer.phase;
    };
    expect(timed(1 + 0.4 / 4096, 200)).toBe(timed(1, 200));
    expect(timed(1 + 0.6 / 4096, 200)).toBe(timed(1 + 1 / 4096, 200));
    expect(timed(1 + 1 / 4096, 200)).not.toBe(timed(1, 200));
    expect(timed(900, 3)).toBe(timed(64, 3));
  });

  test('backwards takes a loop with an intro through the intro to the first frame, and ends there', () => {
    const performer = stage(
      { go: { shows: 'hover', while: 'go', priority: 1, rate: 'vx' } },
      {
        clips: { ...clips, hover: { cells: '0-3', ms: 100, loop: { from: 2 }, cues: { first: 0, last: 3 } } },
      },
    );
    performer.set('vx', 1);
    performer.set('go', true);
    expect(stepTold(performer, 550)).toEqual(['0 rest > go', '0 first', '300 last', '500 last']);
    performer.set('vx', -1);
    expect(stepTold(performer, 1600)).toEqual(['800 first']);
    expect(performer.speed).toBe(-1);
    expect(performer.pose.cell.index).toBe(0);
  });

  test('below 0 plays a bridge forwards, at its size', () => {
    const performer = stage({
      go: { shows: 'loop', while: 'go', priority: 1, rate: 'vx', bridges: { rest: 'act' } },
    });
    performer.set('vx', -2);
    performer.set('go', true);
    expect(stepTold(performer, 60)).toEqual(['0 rest > go', '50 hit']);
    expect([performer.isBridging, performer.clip]).toEqual([true, 'act']);
  });

  test('scales neither atLeast, lasts, keep, linger nor settle', () => {
    const performer = stage(
      {
        kept: { shows: 'loop', while: 'go', priority: 1, rate: 3, atLeast: 100 },
        lasting: { shows: 'loop', when: 'hurt', priority: 2, rate: 3, lasts: 100 },
      },
      { derived: { late: { of: 'go', linger: 100 } } },
    );
    performer.set('go', true);
    performer.step(10);
    performer.set('go', false);
    expect(stepTold(performer, 200)).toEqual(['100 kept > rest']);
    performer.set('hurt', true);
    expect(stepTold(performer, 200)).toEqual(['210 rest > lasting', '310 lasting > rest']);
    performer.set('hurt', false);
    performer.set('go', true);
    performer.pulse('press');
    performer.step(0);
    performer.set('go', false);
    performer.step(99);
    expect([performer.value('press'), performer.value('late')]).toEqual([true, true]);
    performer.step(1);
    expect([performer.value('press'), performer.value('late')]).toEqual([false, false]);
  });
});

test('a scrubbed frame is where its number lies, weighed by durations; cues come when frames begin to show', () => {
  const performer = stage(
    { go: { shows: 'lean', while: 'go', priority: 1, scrub: { by: 'vx', from: 0, to: 100 } } },
    { clips: { ...clips, lean: { cells: '4-6', ms: [100, 200, 100], cues: { half: 1, full: 2 } } } },
  );
  performer.set('go', true);
  performer.step(0);
  const cellAt = (vx: number): [string[], number] => {
    performer.set('vx', vx);
    return [stepTold(performer, 10), performer.pose.cell.index];
  };
  expect(cellAt(24)).toEqual([[], 4]);
  expect(cellAt(25)).toEqual([['10 half'], 5]);
  expect(cellAt(74)).toEqual([[], 5]);
  expect(cellAt(80)).toEqual([['30 full'], 6]);
  expect(cellAt(900)).toEqual([[], 6]);
  expect(cellAt(30)).toEqual([['50 half'], 5]);
});

test('a document without states has a bare state for each clip, and rests in the first', () => {
  const performer = new Performer(compile({ clips, signals }));
  expect([performer.state, ...performer.controller.stateNamed.keys()]).toEqual([
    'loop',
    ...Object.keys(clips),
  ]);
  performer.cut('act');
  expect(stepTold(performer, 300)).toEqual(['100 hit', '200 act > loop']);
});

test('a character whose only state follows a number follows it', () => {
  const performer = perform({
    clips: { dial: { cells: '0-3', ms: 100 } },
    signals: { load: { number: 0 } },
    states: { dial: { shows: 'dial', scrub: { by: 'load', from: 0, to: 100 } } },
  });
  const frames = [0, 30, 60, 99, 10].map((load) => {
    performer.set('load', load);
    performer.step(10);
    return performer.frameIndex;
  });
  expect(frames).toEqual([0, 1, 2, 3, 0]);
});
