import { Performer, compileController } from 'dot-hop';
import type { Controller, SignalValue } from 'dot-hop';
import { whoWins } from 'dot-hop/check';
import type { Winner } from 'dot-hop/check';
import fc from 'fast-check';
import { isTrue } from '../src/rehearsal/question.js';
import { compile, sheets } from './characters.js';
import { characters } from './made-characters.js';
import { lawThatMeets } from './often.js';

const heron = {
  dotHop: 1 as const,
  sheets,
  clips: { c: { cells: 0 }, once: { cells: '0-1', fps: 8, loop: 'once' as const } },
  signals: {
    vx: { number: 0 },
    wet: { flag: false },
    low: { flag: false },
    call: { pulse: true as const },
  },
  derived: { moving: 'abs(vx) > 8' },
  states: {
    stand: { shows: 'c' },
    wade: { shows: 'c', while: 'wet && moving', priority: 2 },
    walk: { shows: 'c', while: 'moving', priority: 1 },
    shake: { shows: 'once', when: '!wet', priority: 3 },
    duck: { shows: 'c', while: 'low && (wet || !moving)', priority: 4 },
    cry: { shows: 'once', when: 'call', priority: 5 },
  },
  rest: 'stand',
};
const short = ({ state, terms, over, once }: Winner): string =>
  [
    state,
    ...terms.map(({ text, on }) => `${on ? '+' : '-'}${text}`),
    ...over.map((name) => `(${name})`),
    ...(once ? ['once'] : []),
  ].join(' ');

test('the table of who wins names only what matters, from the highest rank down', () => {
  expect(whoWins(compileController(heron)).map(short)).toEqual([
    'cry +call (duck) (shake) (wade) (walk)',
    'duck +low +wet (wade) (walk)',
    'duck +low -abs(vx) > 8 (shake)',
    'shake -wet (walk) once',
    'wade +wet +abs(vx) > 8 (walk)',
    'walk +abs(vx) > 8',
    'stand',
  ]);
});

test('with a question only what can be, and without naming what it says', () => {
  const ask = (question: string): string[] => {
    const controller = compileController(heron, { questions: [question] });
    return whoWins(controller, controller.questions[0]).map(short);
  };
  expect(ask('wet && !call')).toEqual(['duck +low (wade) (walk)', 'wade +abs(vx) > 8 (walk)', 'stand']);
  expect(ask('vx == 5 && !call')).toEqual(['duck +low (shake)', 'shake -wet once', 'stand']);
  expect(ask('vx > 3 && vx < 2')).toEqual([]);
  expect(() => ask('wett')).toThrow('questions[0]: there is no signal "wett"; did you mean "wet"?');
});

/** The first row that fits what a performer hears. */
function firstFit(rows: readonly Winner[], performer: Performer): Winner | undefined {
  return rows.find(
    ({ once, terms }) => !once && terms.every(({ text, on }) => isTrue(text, performer) === on),
  );
}

test('the table agrees with the runtime: a performer begins in the state of the first row that fits', () => {
  const met = new Map<number, number>();
  lawThatMeets(
    fc.property(
      characters,
      fc.array(fc.integer({ min: -40, max: 40 }), { maxLength: 4 }),
      (parts, numbers) => {
        const controller: Controller = compile(parts);
        const rows = whoWins(controller);
        // What shows has its tags: there is nothing yet at the very start that could have any.
        if (
          rows.some(({ terms }) =>
            terms.some(({ text }) => controller.tables.tags.has(text) || text === 'tagged'),
          )
        )
          return;
        const number = [...controller.tables.signals.values()].find(({ kind }) => kind === 'number');
        const given: Readonly<Record<string, SignalValue>>[] = [
          ...rows.map(({ set }) => set),
          ...numbers.map((value) => (number === undefined ? {} : { [number.name]: value })),
        ];
        for (const first of given) {
          const performer = new Performer(controller, first);
          const row = firstFit(rows, performer);
          expect(row?.state).toBe(performer.state);
          if (performer.state === parts.rest) continue;
          const { length } = row!.terms;
          met.set(length, (met.get(length) ?? 0) + 1);
        }
      },
    ),
    {
      usual: 100,
      // Rows of several kinds were met, some of them often.
      met: () => (met.size > 1 ? [...met.values()].reduce((sum, times) => sum + times, 0) : 0),
      moreThan: 60,
    },
  );
}, 240_000);

test('a condition with very many alternatives stands as it was written', () => {
  const flags = Array.from({ length: 12 }, (_, i) => `f${i}`);
  const pairs = flags.flatMap((_, i) => (i % 2 === 0 ? [`(f${i} || f${i + 1})`] : []));
  const controller = compileController({
    dotHop: 1,
    sheets,
    clips: { c: { cells: 0 } },
    signals: Object.fromEntries(flags.map((name) => [name, { flag: false }])),
    states: { stand: { shows: 'c' }, many: { shows: 'c', while: pairs.join(' && '), priority: 1 } },
    rest: 'stand',
  });
  expect(whoWins(controller).map(short)).toEqual([`many +${pairs.join(' && ')}`, 'stand']);
});

test('numbers that are read together with a flag have an example; a vector that does not matter is in none', () => {
  const controller = compile({
    clips: { c: { cells: 0 } },
    signals: { vx: { number: 0 }, aim: { vector: [1, 0] }, near: { flag: false }, low: { flag: false } },
    states: {
      stand: { shows: 'c' },
      push: { shows: 'c', while: 'vx * (near ? 1 : 0) > 5', priority: 2 },
      point: { shows: 'c', while: 'aim.y > 3', priority: 3 },
      crouch: { shows: 'c', while: 'low', priority: 4 },
    },
    rest: 'stand',
  });
  const [crouch, point, push, stand] = whoWins(controller);
  expect(crouch!.set).toEqual({ low: true });
  expect((point!.set.aim as [number, number])[1]).toBeGreaterThan(3);
  expect(push!.set).toMatchObject({ near: true });
  expect(push!.set.vx).toBeGreaterThan(5);
  expect(push!.example).toMatch(/^vx = [\d.]+, .*near$/);
  // What is given as an example is so in a performer.
  for (const { state, set } of [crouch!, point!, push!, stand!])
    expect(new Performer(controller, set).state).toBe(state);
});

test('a comparison that reads a band of another number has an example that is so', () => {
  const controller = compile({
    clips: { c: { cells: 0 } },
    signals: { vx: { number: 0 }, vy: { number: 0 } },
    derived: { moving: { of: 'vx', above: 12, below: 8 } },
    states: {
      stand: { shows: 'c' },
      dive: { shows: 'c', while: '(moving ? vy : 0) > 50', priority: 1 },
    },
    rest: 'stand',
  });
  const [dive, stand] = whoWins(controller);
  for (const { state, set } of [dive!, stand!]) expect(new Performer(controller, set).state).toBe(state);
  expect(dive!.set.vx).toBeGreaterThan(12);
});

test('a comparison that reads another comparison of several numbers has an example that is so', () => {
  const controller = compile({
    clips: { c: { cells: 0 } },
    signals: { vx: { number: 0 }, vy: { number: 0 }, pull: { number: 0 } },
    derived: { fast: 'hypot(vx, vy) > 20' },
    states: {
      stand: { shows: 'c' },
      tug: { shows: 'c', while: 'pull * (fast ? 1 : 0) > 3', priority: 1 },
    },
    rest: 'stand',
  });
  for (const { state, set } of whoWins(controller)) expect(new Performer(controller, set).state).toBe(state);
});

test('a comparison that reads what shows, or a flag that lasts, has an example that is so', () => {
  const controller = compile({
    clips: { c: { cells: 0 } },
    signals: { vx: { number: 0 }, grounded: { flag: false }, air: { flag: false } },
    derived: { settled: { of: 'grounded', settle: 300 } },
    states: {
      stand: { shows: 'c' },
      push: { shows: 'c', while: 'vx * (settled ? 1 : 0) > 7', priority: 2 },
      leap: { shows: 'c', while: 'air', priority: 5, tags: ['airborne'] },
      glide: { shows: 'c', while: '(airborne ? vx : 0) > 5', priority: 9, tags: ['airborne'] },
    },
    rest: 'stand',
  });
  const [glide, leap, push] = whoWins(controller);
  expect(glide!.example).toBe(`vx = ${glide!.set.vx as number}, airborne`);
  expect(push!.set).toMatchObject({ grounded: true });
  // Once it leaps, and stands on the ground for long enough.
  for (const [{ state, set }, first] of [
    [glide!, leap!.set],
    [push!, push!.set],
  ] as const) {
    const performer = new Performer(controller, first);
    performer.step(400);
    for (const [name, value] of Object.entries(set)) performer.set(name as never, value as never);
    performer.step(0);
    expect(performer.state).toBe(state);
  }
});

test('a row for which no numbers are found in time is there all the same, without an example', () => {
  const controller = compile({
    clips: { c: { cells: 0 } },
    signals: { vx: { number: 0 }, vy: { number: 0 } },
    states: {
      stand: { shows: 'c' },
      rare: { shows: 'c', while: 'vx * vx + vy == 12.34 and vy * 3 + vx * 0 == 5.1', priority: 1 },
    },
    rest: 'stand',
  });
  const [rare, stand] = whoWins(controller);
  expect([rare!.state, rare!.example, rare!.set]).toEqual(['rare', '', {}]);
  expect(stand!.state).toBe('stand');
});

test('twenty numbers and flags that are read together are tried in time, the last of them too', () => {
  const names = Array.from({ length: 20 }, (_, i) => `n${i}`);
  const flags = Array.from({ length: 20 }, (_, i) => `f${i}`);
  const sum = [...names, ...flags.map((flag) => `(${flag} ? 1 : 0)`)].join(' + ');
  const controller = compile({
    clips: { c: { cells: 0 } },
    signals: {
      ...Object.fromEntries(names.map((name) => [name, { number: 0 }] as const)),
      ...Object.fromEntries(flags.map((name) => [name, { flag: false }] as const)),
    },
    states: {
      stand: { shows: 'c' },
      heavy: { shows: 'c', while: `(f19 ? n19 : 0) + 0 * (${sum}) > 2`, priority: 1 },
    },
    rest: 'stand',
  });
  const [heavy, stand] = whoWins(controller);
  expect(heavy!.set).toMatchObject({ f19: true });
  expect(heavy!.set.n19).toBeGreaterThan(2);
  for (const { state, set } of [heavy!, stand!]) expect(new Performer(controller, set).state).toBe(state);
});
