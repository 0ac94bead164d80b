import { compileController } from 'dot-hop';
import type { TraceEntry } from 'dot-hop/rehearsal';
import { ferryman, run, told } from './ferryman.js';

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
