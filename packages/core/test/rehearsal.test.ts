import type { RehearsalScript } from 'dot-hop/rehearsal';
import fc from 'fast-check';
import { run, told } from './ferryman.js';
import { often } from './often.js';

describe('lines of a script', () => {
  test('a ramp changes a number evenly and ends on it exactly', () => {
    const { trace } = run({
      lasts: 500,
      script: [{ at: 100, ramp: { vx: [0, 40] }, over: 200 }],
      expect: [
        { at: 190, state: 'stand' },
        { at: 210, state: 'stroll' },
      ],
    });
    const values = trace.flatMap((one) => (one.kind === 'set' && one.name === 'vx' ? [one] : []));
    for (const { at, value, by } of values) {
      expect(value).toBeCloseTo(((at - 100) / 200) * 40, 9);
      expect(by).toBe('ramp');
    }
    expect(values.at(-1)).toEqual({ kind: 'set', at: 300, name: 'vx', value: 40, by: 'ramp' });
    expect(told(trace, 'switch')).toEqual(['205 stroll']);
  });

  test('a ramp goes on from where the number is, and a set ends it', () => {
    const { trace } = run({
      lasts: 400,
      script: [
        { at: 0, set: { vx: 100 } },
        { at: 100, ramp: { vx: 0 }, over: 200 },
        { at: 200, set: { vx: 7 } },
      ],
    });
    const values = trace.flatMap((one) => (one.kind === 'set' ? [[one.at, one.value]] : []));
    expect(values).toContainEqual([150, 75]);
    expect(values.at(-1)).toEqual([200, 7]);
  });

  test('repeats, and lines that count from the last of them', () => {
    const { trace } = run({
      lasts: 1000,
      script: [
        { at: 50, pulse: 'wave', every: 300, times: 3 },
        { after: 100, set: { vx: 50 } },
      ],
    });
    expect(told(trace, 'pulse')).toEqual(['50 wave', '350 wave', '650 wave']);
    expect(told(trace, 'set')).toEqual(['750 vx']);
  });

  test.each([
    [{ until: { state: 'wave' } }, 300],
    [{ until: { cue: 'hail' } }, 400],
    [{ until: 'vx > 30 && !lamp' }, 600],
    [{ until: 'moving' }, 600],
    // Computed as the conditions of a document are.
    [{ until: 'hypot(vx * 3e200, vx * 4e200) / 1e200 == 250' }, 600],
    [{ until: 'vx * 1e300 * 1e300 == 0 and vx / (vx - 50) == 0 and vx > 3' }, 600],
    [{ until: 'clamp(vx, 0, 20) - vx % 30 == 0 and (vx > 3) == moving and moving' }, 600],
    [{ until: '(moving ? -vx : 1) < 0 or sqrt(vx) > 9' }, 600],
    [{ until: "body == stroll and not 'wave' == body" }, 600],
  ])('%j is waited for', (until, at) => {
    const { trace, outcomes } = run({
      lasts: 1000,
      script: [
        { at: 300, pulse: 'wave' },
        { at: 600, set: { vx: 50 } },
        { at: 0, set: { vx: 0 } },
        { ...until, within: 700, set: { lamp: true } },
        { after: 30, set: { lamp: false } },
      ],
    });
    expect(outcomes).toMatchObject([{ met: true, path: ['script', 3, 'until'], from: 0 }]);
    const lamp = trace.flatMap((one) => (one.kind === 'set' && one.name === 'lamp' ? [one.at] : []));
    // It is looked at every 5 ms.
    expect(lamp[0]! - at).toBeGreaterThanOrEqual(0);
    expect(lamp[0]! - at).toBeLessThanOrEqual(5);
    expect(lamp[1]! - lamp[0]!).toBeCloseTo(30, 3);
  });

  test('what does not come in time is told, and what would follow does not take place', () => {
    const { trace, outcomes } = run({
      lasts: 1000,
      script: [{ at: 100 }, { until: 'lamp', within: 200, set: { vx: 50 } }, { after: 10, pulse: 'wave' }],
    });
    expect(trace).toEqual([]);
    expect(outcomes).toMatchObject([
      { met: false, expected: 'after 100 ms: lamp within 200 ms', from: 100, to: 305, failedAt: 305 },
    ]);
    expect(outcomes[0]!.why).toContain('stand shows since 0 ms');
  });

  test('a line past the end and a wait without a limit are told when time is over', () => {
    const script = [{ at: 100 }, { after: 950 }, { at: 0 }, { until: 'lamp' }];
    expect(
      run({ lasts: 1000, script }).outcomes.map(({ path, met, failedAt }) => [path[1], met, failedAt]),
    ).toEqual([
      [1, false, 1000],
      [3, false, 1000],
    ]);
  });

  test('flags are held for a while, pulses are pressed once', () => {
    const { trace } = run({
      lasts: 400,
      script: [
        { at: 10, press: 'lamp', for: 90 },
        { at: 200, press: ['lamp', 'wave'] },
        { at: 250, release: 'lamp' },
      ],
    });
    expect(trace.filter(({ kind }) => kind === 'set')).toEqual([
      { kind: 'set', at: 10, name: 'lamp', value: true, by: 'button' },
      { kind: 'set', at: 100, name: 'lamp', value: false, by: 'button' },
      { kind: 'set', at: 200, name: 'lamp', value: true, by: 'button' },
      { kind: 'set', at: 250, name: 'lamp', value: false, by: 'button' },
    ]);
    expect(told(trace, 'pulse')).toEqual(['200 wave']);
  });

  test('what a line expects is looked at after what it does was decided', () => {
    const { outcomes } = run({
      lasts: 300,
      script: [
        { at: 50, set: { vx: -50 }, expect: { state: 'stroll', direction: 'west', cell: 2 } },
        { after: 50, expect: { state: 'stand' } },
      ],
    });
    expect(outcomes.map(({ met, instead }) => [met, instead])).toEqual([
      [true, ''],
      [false, 'state stroll'],
    ]);
  });
});

describe('steps of a game', () => {
  const script: RehearsalScript['script'] = [
    { at: 101, pulse: 'wave' },
    { at: 500, set: { vx: 50 } },
  ];

  test('lines take place at the first step that begins then or later', () => {
    const { trace } = run({ lasts: 1000, steps: { perSecond: 60 }, script });
    expect(told(trace, 'pulse', 'set')).toEqual(['117 wave', '500 vx']);
    expect(told(trace, 'switch', 'cue')).toEqual(['117 wave', '217 hail', '317 stand', '500 stroll']);
  });

  test('uneven steps are the same for a seed, and within their lengths', () => {
    const uneven = (seed: number) => run({ lasts: 1000, steps: { from: 5, to: 80, seed }, script }).trace;
    expect(uneven(7)).toEqual(uneven(7));
    const firsts = Array.from({ length: 20 }, (_, seed) => uneven(seed)[0]!.at);
    expect(new Set(firsts).size).toBeGreaterThan(10);
    for (const first of firsts) expect(first).toBeGreaterThanOrEqual(101);
    for (const first of firsts) expect(first).toBeLessThan(181);
  });

  test('to expect and to ask why changes nothing that happens', () => {
    const line = fc.record({
      at: fc.integer({ min: 0, max: 900 }),
      set: fc.record({ vx: fc.integer({ min: -60, max: 60 }), grounded: fc.boolean() }),
      pulse: fc.constantFrom('jump', 'wave'),
    });
    const steps = fc.option(
      fc.oneof(
        fc.record({ perSecond: fc.integer({ min: 5, max: 200 }) }),
        fc.record({ from: fc.constant(3), to: fc.constant(90), seed: fc.nat() }),
      ),
      { nil: undefined },
    );
    const expected = fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(fc.array(line, { maxLength: 8 }), steps, expected, (lines, given, instants) => {
        const plain: RehearsalScript = { lasts: 1000, script: lines, steps: given };
        // Nobody faces a place that is no cell: every one is unmet, so that it is asked why at each.
        const judged = run({ ...plain, expect: instants.map((at) => ({ at, cell: 99 })) });
        expect(judged.trace).toEqual(run(plain).trace);
        for (const { met, why } of judged.outcomes) expect([met, typeof why]).toEqual([false, 'string']);
      }),
      { numRuns: often(60) },
    );
  });
});
