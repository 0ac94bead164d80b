import fc from 'fast-check';
import { compile, perform } from './characters.js';

/** The value of an expression for given signals, as the library decides and as ECMAScript does. */
function bothWays(expression: string, values: Record<string, number | boolean>): [unknown, unknown] {
  const signals = Object.fromEntries(
    Object.entries(values).map(([name, value]) => [
      name,
      typeof value === 'number' ? { number: value } : { flag: value },
    ]),
  );
  const performer = perform({ ...still, signals, derived: { it: expression } });
  // eslint-disable-next-line @typescript-eslint/no-implied-eval
  const run = new Function('calls', `with (calls) return ${expression}`) as (calls: unknown) => unknown;
  const { abs, min, max, hypot, ceil, floor, round, sign, sqrt } = Math;
  return [performer.value('it'), run({ abs, min, max, hypot, ceil, floor, round, sign, sqrt, ...values })];
}

const still = { clips: { c: { cells: 0 } }, states: { s: { shows: 'c' } }, rest: 's' };
const withCondition = (text: string) =>
  compile({
    ...still,
    signals: { vx: { number: 0 }, grounded: { flag: true }, jump: { pulse: true } },
    derived: { speed: 'abs(vx)' },
    states: { s: { shows: 'c' }, t: { shows: 'c', while: text } },
  });

describe('expressions', () => {
  test.each([
    'x + y * 2 - -x / 4',
    '(x + y) * 2 % 3',
    'x > y && a || !a && y >= 3',
    'a ? x : y + 1',
    'abs(x) > 3 == a',
    'max(x, min(y, 2)) + hypot(x, y)',
    'hypot(x * 1e200, y * 1e200) / 1e200',
    'hypot(x / 2, y) > 3 || hypot(y, 0) == 0',
    'x === y != a',
    '!(x < 2) || a != (y > 0)',
    '1 < 2 && a',
    // In a number a condition is worked out with the numbers, not as terms.
    '(x > y && a ? x : y) + (x <= y || a ? 1 : 2)',
    '(x >= y) == (y <= x) && (x < y) != a ? 1 : 2',
    'ceil(x / 2) * 10 + floor(y / 2) + round(x / 4) + sign(y)',
    'sqrt(abs(x)) + min(x, y) % 3',
    '-(x + y) > 3 || abs(x + y) <= 2',
  ])('%s means what it means in ECMAScript', (expression) => {
    fc.assert(
      fc.property(
        fc.integer({ min: -5, max: 5 }),
        fc.integer({ min: -5, max: 5 }),
        fc.boolean(),
        (x, y, a) => {
          const [ours, theirs] = bothWays(expression, { x, y, a });
          expect(ours).toEqual(theirs);
        },
      ),
    );
  });

  test.each([
    ['a and not b or x > 2', 'a && !b || x > 2'],
    ['not x > 2 and y >= 1', '!(x > 2) && y >= 1'],
    ['not a and b', '!a && b'],
    ['not (a or b)', '!(a || b)'],
    ['not not a or !b&&a', '!!a || !b && a'],
    ['not a == b', '!(a == b)'],
    ['a ? not b : x > y or b', 'a ? !b : x > y || b'],
  ])('%s says %s in words', (words, signs) => {
    fc.assert(
      fc.property(
        fc.integer({ min: -3, max: 3 }),
        fc.integer({ min: -3, max: 3 }),
        fc.boolean(),
        fc.boolean(),
        (x, y, a, b) => {
          const both = perform(
            {
              clips: { c: { cells: 0 } },
              signals: { x: { number: 0 }, y: { number: 0 }, a: { flag: false }, b: { flag: false } },
              derived: { words, signs },
              states: { s: { shows: 'c' } },
            },
            { x, y, a, b },
          );
          both.step(1);
          expect(both.value('words')).toBe(both.value('signs'));
        },
      ),
    );
  });

  test.each([
    ['grounded and and vx > 1', '"and" was not expected here'],
    ['grounded or', 'it ends where a value is wanted'],
    ['grounded not', '"not" was not expected here'],
    ['nto grounded', '"grounded" was not expected here; join two by and, or'],
    ['grounded & vx > 1', '"&" is not part of an expression; did you mean "and"?'],
  ])('%j is told in the words that stand there', (text, words) => {
    expect(() => withCondition(text)).toThrow(words);
  });

  test('a choice is compared with an option without quotes, whatever else has that name', () => {
    const performer = perform({
      clips: { c: { cells: 0 } },
      signals: { mode: { choice: ['quay', 'ladder', 'high-up'] }, ladder: { flag: true } },
      derived: { climbs: 'mode == ladder', free: 'ladder != mode and ladder', up: "mode == 'high-up'" },
      states: { s: { shows: 'c' } },
    });
    const seen = ['quay', 'ladder', 'high-up'].map((mode) => {
      performer.set('mode', mode);
      performer.step(1);
      return [performer.value('climbs'), performer.value('free'), performer.value('up')];
    });
    expect(seen).toEqual([
      [false, true, false],
      [true, false, false],
      [false, true, true],
    ]);
  });

  test('a choice has two different options or more, and begins with one of them', () => {
    const begin = (choice: string[], first?: string) =>
      perform({ ...still, signals: { mode: { choice, first } } }).value('mode');
    expect([begin(['quay', 'ladder']), begin(['quay', 'ladder'], 'ladder')]).toEqual(['quay', 'ladder']);
    for (const few of [[], ['quay'], ['quay', 'quay']])
      expect(() => begin(few)).toThrow('signals.mode.choice: a choice needs at least two different names');
    expect(() => begin(['quay', 'ladder'], 'laddre')).toThrow(
      'signals.mode.first: the choice "mode" has no option "laddre"; did you mean "ladder"?',
    );
  });

  test('nothing can be named by a word that joins conditions', () => {
    for (const name of ['not', 'and', 'or'])
      expect(() =>
        compile({
          clips: { c: { cells: 0 } },
          signals: { [name]: { flag: false } },
          states: { s: { shows: 'c' } },
        }),
      ).toThrow(`signals.${name}: "${name}" cannot be used in an expression`);
  });

  test('a threshold is exact on both sides of it, through abs and minus too', () => {
    const tests = [
      'x > t',
      'x >= t',
      'x < t',
      'x <= t',
      'x == t',
      'x != t',
      'abs(x) > t',
      '-x >= t',
      't < x',
      't >= abs(x)',
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(...tests),
        fc.integer({ min: -3, max: 3 }),
        fc.integer({ min: -1, max: 1 }),
        (test, t, side) => {
          const values = { x: (test.includes('-x') ? -t : t) + side * Number.EPSILON };
          const [ours, theirs] = bothWays(test.replaceAll('t', `(${t})`).replace('(0)', '0'), values);
          expect(ours).toBe(theirs);
        },
      ),
    );
  });

  test('what is no finite number counts as 0, in a condition as by itself', () => {
    for (const [ratio, vy] of [
      ['x / vy', 0],
      ['x % vy', 0],
      ['1 + 60 / vy', 0],
      ['sqrt(vy)', -4],
      ['x * vy * vy', 1e200],
      ['hypot(vy, vy)', 1.7e308],
    ] as const) {
      const performer = perform({
        ...still,
        signals: { x: { number: 60 }, vy: { number: vy } },
        derived: { ratio, more: `${ratio} > 1`, none: `${ratio} == 0`, one: `${ratio} == 1` },
      });
      const value = performer.value('ratio');
      expect([ratio, value]).toEqual([ratio, ratio.startsWith('1 +') ? 1 : 0]);
      expect([performer.value('more'), performer.value('none'), performer.value('one')]).toEqual([
        false,
        value === 0,
        value === 1,
      ]);
    }
  });

  test.each([
    ['speed', '"speed" is a number where a flag is wanted; compare it, such as speed > 0'],
    ['grounded > 3', '"grounded" is a flag where a number is wanted'],
    ['groundd', 'there is no signal "groundd"; did you mean "grounded"?'],
    ['abz(vx) > 1', 'there is no function "abz"; did you mean "abs"?'],
    ['abs(vx, 1) > 1', 'abs() takes 1, not 2'],
    ['vx >', 'it ends where a value is wanted'],
    ['grounded = true', '"=" is not part of an expression; did you mean "=="?'],
    ['(grounded', '")" is wanted at its end'],
    ['grounded grounded', '"grounded" was not expected here'],
    ['', 'it is empty'],
    ['('.repeat(500), 'nested too deeply'],
    ['!'.repeat(1900) + 'grounded', 'nested too deeply'],
    [Array(3000).fill('grounded').join(' || '), 'it has more than 2000 parts'],
    [Array(30).fill('grounded').join(' == '), 'it has more than 2000 parts'],
    ['vx > 1e999', '"1e999" is too large a number'],
  ])('%j is refused in words', (text, words) => {
    expect(() => withCondition(text)).toThrow(words);
    expect(() => withCondition(text)).toThrow(/^states\.t\.while: /);
  });

  test('the place of a fault inside an expression is kept', () => {
    try {
      withCondition('grounded && speeed > 3');
    } catch (error) {
      expect(error).toMatchObject({ problems: [{ code: 'signal-unknown', offset: 12 }] });
    }
    expect.assertions(1);
  });
});

describe('derived signals', () => {
  test('a band is on above one threshold, off below the other, and between them as it was', () => {
    const performer = perform({
      ...still,
      signals: { vx: { number: 0 } },
      derived: { moving: { of: 'abs(vx)', above: 12, below: 8 } },
    });
    const seen = [8, 12, 12.5, 10, 8, 7.9, 10, -12.5, -8, -7].map((vx) => {
      performer.set('vx', vx);
      performer.step(1);
      return performer.value('moving');
    });
    expect(seen).toEqual([false, false, true, true, true, false, false, true, true, false]);
  });

  test('values that no step has seen leave a band as it was', () => {
    const performer = perform({
      ...still,
      signals: { vx: { number: 0 } },
      derived: { m: { of: 'vx', above: 12, below: 8 } },
    });
    performer.set('vx', 50);
    performer.set('vx', 10);
    performer.step(10);
    expect(performer.value('m')).toBe(false);
  });

  test('a lingering flag falls exactly so long after its condition, and not when that comes back before', () => {
    const performer = perform({
      ...still,
      signals: { g: { flag: true } },
      derived: { f: { of: 'g', linger: 80 } },
    });
    performer.set('g', false);
    performer.step(79.999);
    expect(performer.value('f')).toBe(true);
    performer.step(0.001);
    expect(performer.value('f')).toBe(false);
    performer.set('g', true);
    performer.step(0);
    expect(performer.value('f')).toBe(true);
    performer.set('g', false);
    performer.step(50);
    performer.set('g', true);
    performer.step(20);
    performer.set('g', false);
    performer.step(79);
    expect(performer.value('f')).toBe(true);
  });

  test('a settling flag rises once its condition has held so long', () => {
    const performer = perform({
      ...still,
      signals: { g: { flag: true } },
      derived: { f: { of: 'g', settle: 80 } },
    });
    performer.step(79.999);
    expect(performer.value('f')).toBe(false);
    performer.step(0.001);
    expect(performer.value('f')).toBe(true);
    performer.set('g', false);
    performer.step(0);
    expect(performer.value('f')).toBe(false);
  });

  test('a circle of derived signals is named', () => {
    const circle = { a: 'b', b: 'c', c: '!a' };
    expect(() => compile({ ...still, derived: circle })).toThrow(
      'these derived signals need one another: a -> b -> c -> a',
    );
  });

  test.each([
    [{ signals: { 'v x': { number: 0 } } }, 'signals["v x"]: "v x" cannot be used in an expression'],
    [{ signals: { abs: { number: 0 } } }, '"abs" cannot be used'],
    [{ signals: { v: { number: Infinity } } }, 'signals.v.number: expected a number, not Infinity'],
    [{ signals: { p: { pulse: { keep: -1 } } } }, 'expected milliseconds from 0 to 3600000, not -1'],
    [{ signals: { v: { number: 0 } }, derived: { v: 'v' } }, '"v" is both a signal and a derived signal'],
    [
      { signals: { v: { number: 0 } }, derived: { b: { of: 'v', above: 1, below: 2 } } },
      'a band turns on above 1 and off below 2',
    ],
    [
      { signals: { v: { flag: true } }, derived: { b: { of: 'v', linger: NaN } } },
      'derived.b.linger: expected milliseconds from 0 to 3600000, or an expression, not NaN',
    ],
    [
      { signals: Object.fromEntries(Array.from({ length: 1001 }, (_, i) => [`f${i}`, { flag: true }])) },
      'there are 1001 flags, at most 1000 are possible; turn flags of which one is on at a time into the options of a choice',
    ],
    [
      {
        signals: Object.fromEntries(
          Array.from({ length: 1001 }, (_, i) => [`p${i}`, { pulse: true as const }]),
        ),
      },
      'there are 1001 pulses',
    ],
  ])('%# is refused in words', (parts, words) => {
    expect(() => compile({ ...still, ...parts })).toThrow(words);
  });
});

describe('setting signals', () => {
  const performer = perform({
    ...still,
    signals: { vx: { number: 0 }, grounded: { flag: true }, jump: { pulse: true } },
    derived: { speed: 'abs(vx)' },
  });

  test.each([
    ['vx', NaN, '"vx" is a number and takes a finite number, not NaN'],
    ['vx', Infinity, 'not Infinity'],
    ['vx', true, '"vx" is a number and takes a finite number, not true'],
    ['grounded', 1, '"grounded" is a flag and takes true or false, not 1'],
    ['jump', true, '"jump" is a pulse and takes no value; call pulse(), not true'],
    ['vxx', 1, 'there is no signal "vxx"; did you mean "vx"?'],
    ['speed', 1, '"speed" is derived; set the signals it is computed from'],
  ])('set(%j, %j) is refused and changes nothing', (name, value, words) => {
    expect(() => performer.set(name, value)).toThrow(words);
    expect([performer.value('vx'), performer.value('grounded')]).toEqual([0, true]);
  });

  test('what is no finite number is refused by an interval that has no end, too', () => {
    const one = perform({
      ...still,
      signals: { vx: { number: 0 } },
      derived: { fast: { of: 'vx', above: 80, below: 80 } },
      states: { ...still.states, run: { shows: 'c', while: 'fast' } },
    });
    for (const bound of [-Number.MAX_VALUE, Number.MAX_VALUE]) {
      one.set('vx', bound);
      one.step(10);
      expect(one.value('fast')).toBe(bound > 0);
      for (const value of [NaN, -Infinity, Infinity])
        expect(() => one.set('vx', value)).toThrow(`not ${value}`);
      one.step(10);
      expect(one.value('vx')).toBe(bound);
    }
  });

  test.each([NaN, -1, Infinity, 3_600_001])('step(%d) is refused and time stays', (ms) => {
    expect(() => performer.step(ms)).toThrow(`not ${ms}`);
    expect(performer.time).toBe(0);
  });

  test('pulse() of another kind is refused', () => {
    expect(() => performer.pulse('vx')).toThrow('"vx" is a number');
    expect(() => performer.value('no')).toThrow('there is no signal "no"');
  });
});
