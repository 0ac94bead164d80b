import { compileController } from 'dot-hop';
import type { Controller, ControllerDefinition } from 'dot-hop';
import { assertRehearsal, readRehearsal, runRehearsal, toGoAsRehearsed } from 'dot-hop/rehearsal';
import type { RehearsalScript, TraceEntry } from 'dot-hop/rehearsal';
import fc from 'fast-check';

const ferryman: ControllerDefinition = {
  dotHop: 1,
  name: 'ferryman',
  sheets: { all: { image: 'a.png', size: [160, 10], grid: { cell: [10, 10] } } },
  clips: {
    stand: { cells: '0-1', fps: 5 },
    stroll: { cells: '2-3', fps: 10 },
    crouch: { cells: '4-5', ms: 50, loop: 'once', cues: { leap: 1 } },
    fly: { cells: 6 },
    land: { cells: '7-8', ms: 60, loop: 'once' },
    wave: { cells: '9-10', ms: 100, loop: 'once', cues: { hail: 1 } },
  },
  compass: { directions: 'sides', mirror: { west: 'east' }, by: ['vx', '0'], deadZone: 4 },
  signals: {
    vx: { number: 0 },
    vy: { number: 0 },
    grounded: { flag: true },
    jump: { pulse: { keep: 100 } },
    wave: { pulse: true },
    lamp: { flag: false },
    pull: { vector: [0, 0] },
  },
  derived: { moving: { of: 'abs(vx)', above: 20, below: 10 } },
  states: {
    stand: { shows: 'stand' },
    stroll: { shows: 'stroll', while: 'grounded && moving', priority: 10 },
    land: { shows: 'land', when: 'grounded', priority: 12 },
    fly: { shows: 'fly', while: '!grounded', priority: 20 },
    crouch: { shows: 'crouch', when: 'jump && grounded', priority: 30 },
    wave: { shows: 'wave', when: 'wave && !lamp', priority: 40 },
  },
  rest: 'stand',
};
const controller = compileController(ferryman);
const run = (rehearsal: RehearsalScript, on: Controller = controller) => runRehearsal(on, rehearsal);
const told = (trace: readonly TraceEntry[], ...kinds: TraceEntry['kind'][]): string[] =>
  trace.filter(({ kind }) => kinds.includes(kind)).map(({ at, name }) => `${Math.round(at)} ${name}`);

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

describe('bodies', () => {
  const at = (trace: readonly TraceEntry[], name: string, value: unknown): number[] =>
    trace.flatMap((one) => (one.kind === 'set' && one.name === name && one.value === value ? [one.at] : []));

  test('a leap takes as long as it should: 2 v / g', () => {
    const { trace } = run({
      lasts: 1500,
      body: { platformer: { jump: 300, gravity: 900 } },
      script: [{ at: 200, press: 'jump' }],
      expect: [],
    });
    expect(at(trace, 'grounded', false)).toEqual([200]);
    expect(at(trace, 'grounded', true)[0]! / 1000).toBeCloseTo(0.2 + (2 * 300) / 900, 1);
    expect(told(trace, 'switch').map((text) => text.split(' ')[1])).toEqual(['fly', 'land', 'stand']);
    expect(told(trace, 'pulse')).toEqual(['200 jump']);
  });

  test('it leaps at the cue of the drawing that does', () => {
    const { trace } = run({
      lasts: 400,
      body: { platformer: { leapAt: 'leap' } },
      script: [{ at: 100, press: 'jump' }],
    });
    expect(at(trace, 'grounded', false)).toEqual([150]);
    expect(told(trace, 'switch').slice(0, 2)).toEqual(['100 crouch', '200 fly']);
  });

  test('a ledge lets it fall, a wall stops it, a ledge that is leapt up carries it', () => {
    const ground: [number, number, number][] = [
      [-100, 40, 0],
      [40, 200, -30],
      [200, 400, 0],
    ];
    const body = { platformer: { ground, feeds: { vx: 'x', vy: 'y', lamp: 'blocked' } as const } };
    const { trace } = run({
      lasts: 4000,
      body,
      script: [
        { at: 0, press: 'right' },
        { at: 3000, press: 'jump' },
      ],
    });
    const last = (name: string): unknown => trace.findLast((one) => one.kind === 'set' && one.name === name);
    expect(at(trace, 'grounded', false)).toHaveLength(2);
    expect(at(trace, 'vy', 30)).not.toEqual([]);
    expect(at(trace, 'lamp', true)[0]).toBeGreaterThan(2000);
    expect(last('vy')).toMatchObject({ value: 0 });
    expect(last('lamp')).toMatchObject({ value: false });
  });

  test('a walker goes no faster across, and comes to rest', () => {
    const { trace } = run({
      lasts: 2000,
      body: { walker: { speed: 100, feeds: { vx: 'speed', pull: 'velocity' } } },
      script: [{ at: 100, press: ['right', 'down'], for: 900 }],
    });
    const speeds = trace.flatMap((one) =>
      one.kind === 'set' && one.name === 'vx' ? [one.value as number] : [],
    );
    expect(Math.max(...speeds)).toBeCloseTo(100, 6);
    expect(speeds.at(-1)).toBe(0);
    expect(trace).toContainEqual(
      expect.objectContaining({ name: 'pull', value: [100 * Math.SQRT1_2, 100 * Math.SQRT1_2] }),
    );
  });

  test('where the document counts upwards, so does the body', () => {
    const upwards = compileController({ ...ferryman, compass: { ...ferryman.compass!, up: '+y' } });
    const { trace } = run(
      { lasts: 300, body: { platformer: { jump: 300 } }, script: [{ at: 100, press: 'jump' }] },
      upwards,
    );
    expect(at(trace, 'vy', 300)).toEqual([100]);
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
      { numRuns: 60 },
    );
  });
});

describe('unmet expectations', () => {
  test.each([
    [{ from: 0, to: 900, never: 'wave' }, 100, 'wave shows since 100 ms: it ranks above stand'],
    [{ from: 150, to: 900, state: 'wave' }, 300, 'stand shows since 300 ms: wave gave way'],
    [{ from: 0, to: 900, cues: { hail: 0 } }, 200, 'wave shows since 100 ms'],
    [{ from: 0, to: 700, passes: ['wave', 'stroll'] }, 300, 'stand shows since 300 ms'],
  ] as const)('%j says why when it went wrong', (one, failedAt, why) => {
    const never = { ...one, ...('passes' in one ? { passes: [...one.passes] } : {}) };
    const { outcomes } = run({ lasts: 1000, script: [{ at: 100, pulse: 'wave' }], expect: [never] });
    expect(outcomes[0]).toMatchObject({ met: false, failedAt });
    expect(outcomes[0]!.why).toContain(why);
  });

  test('a test of a user fails with all of this as its message', () => {
    expect.extend({ toGoAsRehearsed });
    const rehearsal: RehearsalScript = {
      lasts: 400,
      script: [{ at: 100, pulse: 'wave' }],
      expect: [{ at: 150, state: 'wave' }],
    };
    const wrong = { ...rehearsal, expect: [{ at: 150, state: 'stroll' }] };
    expect(assertRehearsal(controller, rehearsal).outcomes[0]!.met).toBe(true);
    (expect(controller) as unknown as { toGoAsRehearsed(one: RehearsalScript): void }).toGoAsRehearsed(
      rehearsal,
    );
    const words = /expected at 150 ms: state stroll\n {2}instead: state wave\n {4}wave shows since 100 ms/;
    expect(() => assertRehearsal(controller, wrong)).toThrow(words);
    expect(() => {
      (expect(controller) as unknown as { toGoAsRehearsed(one: RehearsalScript): void }).toGoAsRehearsed(
        wrong,
      );
    }).toThrow(words);
  });
});

test.each([
  ['script: [{ pulse: wave }]', 'say when the line takes place'],
  ['script: [{ at: 1, after: 2, pulse: wave }]', 'say when the line takes place'],
  ['script: [{ at: 1, ramp: { vx: 3 } }]', '"ramp" and "over" go together'],
  ['script: [{ at: 1, pulse: wave, times: 3 }]', '"every" and "times" go together'],
  ['script: [{ at: 1, pulse: wave, for: 3 }]', '"for" says something about "press", which is not given here'],
  ['script: [{ at: 1, within: 3 }]', '"within" says something about "until"'],
  ['script: [{ at: 1, ramp: { vz: 3 }, over: 9 }]', 'there is no signal "vz"; did you mean "vx"?'],
  ['script: [{ at: 1, ramp: { lamp: 3 }, over: 9 }]', '"lamp" is a flag, and only numbers change evenly'],
  [
    'script: [{ until: grunded }]',
    'quay.yaml:4:19 script[0].until: there is no signal "grunded"; did you mean "grounded"?',
  ],
  ['script: [{ until: vx }]', 'is a number where a flag is wanted'],
  ['script: [{ until: { state: wav } }]', 'there is no state "wav"; did you mean "wave"?'],
  ['script: [{ until: { cue: hall } }]', 'there is no cue or instant "hall"; did you mean "hail"?'],
  ['script: [{ at: 1, press: lmap }]', 'there is no button, flag or pulse "lmap"; did you mean "lamp"?'],
  ['script: [{ at: 1, press: left }]', 'there is no button, flag or pulse "left"'],
  ['script: [{ at: 1, times: 1, every: 5 }]', 'expected a whole number from 2 to 1000, not 1'],
  ['script: []\nsteps: { from: 9, to: 3, seed: 1 }', 'here from 9 to 3 ms'],
  ['script: []\nsteps: { perSecond: 0 }', 'expected from over 0 to 1000 steps a second, not 0'],
  [
    'script: []\nbody: { platformer: { sped: 3 } }',
    'body.platformer.sped: "sped" is not known here; did you mean "speed"?',
  ],
  ['script: []\nbody: { swimmer: {} }', 'expected { platformer: {} } or { walker: {} }'],
  [
    'script: []\nbody: { platformer: { leapAt: lap } }',
    'there is no cue or instant "lap"; did you mean "leap"?',
  ],
  [
    'script: []\nbody: { walker: { feeds: { lamp: speed } } }',
    '"lamp" is a flag, and "speed" of the body feeds a number',
  ],
  [
    'script: []\nbody: { walker: { feeds: { lamb: left } } }',
    'there is no signal "lamb"; did you mean "lamp"?',
  ],
])('%s is refused in words', (lines, words) => {
  const text = `dotHopRehearsal: 1\ndocument: ferryman.yaml\nlasts: 500\n${lines}\n`;
  expect(() => {
    const { source, definition } = readRehearsal(text, 'quay.yaml');
    source.placing(() => runRehearsal(controller, definition));
  }).toThrow(words);
});

test('a body that feeds nothing is refused', () => {
  const { signals } = ferryman;
  const deaf = compileController({
    ...ferryman,
    signals: { ...signals, speedX: { number: 0 } },
  });
  expect(() =>
    run({ lasts: 10, body: { walker: { feeds: { speedX: 'vx' } } }, script: [] }, deaf),
  ).not.toThrow();
  const none = compileController({
    dotHop: 1,
    sheets: ferryman.sheets,
    clips: { stand: ferryman.clips.stand! },
    states: { stand: { shows: 'stand' } },
    rest: 'stand',
  });
  expect(() => run({ lasts: 10, body: { walker: {} }, script: [] }, none)).toThrow(
    'the body feeds no signal of this character',
  );
});
