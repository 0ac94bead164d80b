import fc from 'fast-check';
import { Performer } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import { compile } from './characters.js';
import { often } from './often.js';

type Parts = Parameters<typeof compile>[0];

/** A walker whose compass turns by `vx`, so that it is signed; nothing says so of `pace`. */
const walker = (rate: string, fields: object = {}, more: object = {}): Parts => ({
  clips: { walk: { cells: '0-7', fps: 10 } },
  compass: { directions: 'sides', by: ['vx', 0], mirror: { west: 'east' } },
  signals: { vx: { number: 0 }, pace: { number: 1 }, aim: { vector: [0, 0] }, fast: { flag: false } },
  states: { walk: { shows: 'walk', rate, ...fields }, still: { shows: 'walk' } },
  rest: 'still',
  ...more,
});
const told = (parts: Parts): string[] =>
  checkController(compile(parts))
    .findings.filter(({ code }) => code === 'rate-below-zero')
    .map(({ message }) => message);

test.each([
  ['vx / 60', {}, {}],
  ['1 - pace', {}, {}],
  ['aim.x', {}, {}],
  ['clamp(pace, 1, 3) - clamp(pace / 2, 0, 2)', {}, {}],
  ['pace', {}, { derived: { lower: 'pace < -3' } }],
  ['pace', {}, { derived: { far: 'abs(pace) > 2' } }],
  ['pace', {}, { derived: { back: '-pace > 2' } }],
  ['clamp(pace, 2, 3) % pace - 0.5', {}, {}],
  ['slow', {}, { derived: { slow: 'min(pace, vx)' } }],
  ['fast ? vx : 1', {}, {}],
  ['abs(vx) - 0.5', {}, {}],
  ['abs(clamp(vx, -3, 0.5)) - 0.2', {}, {}],
  ['floor(clamp(vx, -0.5, 3))', {}, {}],
  ['2 * abs(vx) - 2 * pace', {}, {}],
  ['vx / 60', { while: 'vx < 9 && fast' }, {}],
  ['1 / clamp(pace, 1, 2) - 0.6', {}, {}],
  ['0.9 - 1 / clamp(pace, 1, 2)', {}, {}],
  ['vx / 60', {}, { signals: { vx: { number: 0, from: -90, to: 90 } } }],
])('the rate %s falls below 0 with %j and %j', (rate, fields, more) => {
  expect(told(walker(rate, fields, more))).toHaveLength(1);
});

test.each([
  ['abs(vx) / 60', {}, {}],
  ['pace / 60', {}, {}],
  ['pace', {}, { derived: { any: 'pace < 3 && pace > 0' } }],
  ['hypot(vx, aim.y)', {}, {}],
  ['60 / pace', {}, {}],
  ['pace / abs(vx)', {}, {}],
  ['-1 / -abs(vx)', {}, {}],
  ['1 / clamp(pace, 1, 2) - 0.4', {}, {}],
  ['1.1 - 1 / clamp(pace, 1, 2)', {}, {}],
  ['abs(clamp(vx, 0.5, 3)) - 0.5', {}, {}],
  ['ceil(clamp(vx, -0.5, 3))', {}, {}],
  ['round(clamp(vx, -0.4, 3))', {}, {}],
  ['pace % vx', {}, {}],
  ['0.5 - clamp(vx, -2, -1) % pace', {}, {}],
  ['max(vx, 0.5) - 0.5', {}, {}],
  ['2 - min(vx, 2)', {}, {}],
  ['max(0, 1 - pace)', {}, {}],
  ['clamp(vx, 0.5, 2)', {}, {}],
  ['vx / 60', { while: 'vx > 3 && fast' }, {}],
  ['size * 2', {}, { derived: { size: 'abs(vx)' } }],
  // What is meant to fall below 0 says so.
  ['climb', {}, { signals: { vx: { number: 0 }, climb: { number: 0, from: -1, to: 1 } } }],
  ['-1', {}, {}],
])('the rate %s does not with %j and %j', (rate, fields, more) => {
  expect(told(walker(rate, fields, more))).toEqual([]);
});

test('it says which number is below 0, and what to write', () => {
  expect(told(walker('vx / 60'))[0]).toBe(
    'the rate `vx / 60` of "walk" falls below 0 when vx does; the clip plays backwards then; write abs(vx / 60), or say "from: -1" at the number that is meant to',
  );
});

const { expression } = fc.letrec<{ expression: string }>((tie) => ({
  expression: fc.oneof(
    { maxDepth: 3 },
    fc.constantFrom('vx', 'pace', 'clamp(pace, 1, 3)', '2', '0.5', '0'),
    fc
      .tuple(tie('expression'), fc.constantFrom('+', '-', '*', '/', '%'), tie('expression'))
      .map(([a, sign, b]) => `(${a} ${sign} ${b})`),
    fc
      .tuple(fc.constantFrom('abs', 'sign', 'floor', 'ceil', 'round', 'sqrt', '-'), tie('expression'))
      .map(([name, a]) => `${name}(${a})`),
    fc
      .tuple(fc.constantFrom('min', 'max', 'hypot'), tie('expression'), tie('expression'))
      .map(([name, a, b]) => `${name}(${a}, ${b})`),
    tie('expression').map((a) => `clamp(${a}, -1, 3)`),
    fc
      .tuple(tie('expression'), tie('expression'), fc.constantFrom('fast', 'vx < pace'))
      .map(([a, b, test]) => `(${test} ? ${a} : ${b})`),
  ),
}));

test('a rate that nothing is told of is never below 0, whatever the numbers', () => {
  const numbers = fc.record({
    vx: fc.double({ min: -500, max: 500, noNaN: true }),
    pace: fc.double({ min: 0, max: 500, noNaN: true }),
    aim: fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 })),
    fast: fc.boolean(),
  });
  fc.assert(
    fc.property(expression, fc.array(numbers, { minLength: 8, maxLength: 8 }), (text, values) => {
      const controller = compile(walker('made', {}, { derived: { made: `(${text}) + 0` } }));
      const isTold = checkController(controller).findings.some(({ code }) => code === 'rate-below-zero');
      const performer = new Performer(controller);
      for (const one of values) {
        for (const [name, value] of Object.entries(one)) performer.set(name, value);
        performer.step(16);
        const below = (performer.value('made') as number) < 0;
        expect(below && !isTold).toBe(false);
      }
    }),
    { numRuns: often(300) },
  );
});

test.each(['back + 1', 'back * 2', 'back / 2', '1 + back', '0.5 * (back - 1)', 'near - 3', '-near'])(
  'the rate %s plays backwards below 0, although other numbers in it are not',
  (rate) => {
    const performer = new Performer(
      compile({
        clips: { walk: { cells: '0-7', ms: 100 } },
        signals: { back: { number: -2, from: -3, to: 0 }, near: { number: 1, from: 0, to: 9 } },
        states: { walk: { shows: 'walk', rate } },
        rest: 'walk',
      }),
    );
    performer.step(50);
    expect(performer.speed).toBeLessThan(0);
    expect(performer.frameIndex).toBeGreaterThan(4);
  },
);
