import fc from 'fast-check';
import type { GroupDefinition, StateDefinition } from 'dot-hop';
import type { Parts } from './characters.js';

// States of made-up characters, with every kind of rule.

const conditions = [
  'a',
  'not a',
  'b',
  'a and b',
  'a or !b',
  'not vx > 10',
  'vx > 10',
  'abs(vx) >= 10',
  'vy < 0',
  'moving',
  'moving && !a',
  'lasting',
  'settled',
  'felt',
  'not kept and b',
  'vx * vx + vy * vy > 400',
  'tilt',
  '-vx > 10 == a',
  'a ? moving : vy >= 0',
  'mode == ladder',
  'mode != water && b',
  'aim.x > 0',
  'aim.x + aim.y > 1',
  't',
  'not u and a',
  'tagged',
];
/** What can be asked of tracks, where there are some. */
const crossed = [
  'body.s1',
  '!body.s0',
  'arms.r0',
  "arms == 'r1' && a",
  'r1 != arms',
  'v',
  'moving && body.s0',
  "p && body != 's1'",
  'q && arms.r0',
];
const pulsed = ['p', 'q', 'o', 'p && a', 'p or q', 'o || p', 'q and moving', 'p and not q'];
const priorities = fc.constantFrom(0, 0, 1, 2, 2, 3, 5);
/** Something, or nothing. */
export const maybe = <T>(value: fc.Arbitrary<T>, freq = 2): fc.Arbitrary<T | undefined> =>
  fc.option(value, { nil: undefined, freq });

const at = fc.constantFrom(
  'now' as const,
  'end' as const,
  'end' as const,
  'tick' as const,
  { start: 'late' },
  { end: 'late' },
  { phases: [0, 0.5] },
  { phases: [0.3] },
);
const rates = fc.constantFrom(
  0.5,
  2,
  'speed / 10',
  'a ? 0 : 1',
  'a ? -1 : 1',
  'vx / 20',
  'vy / 12',
  -0.5,
  { travel: 'speed', least: 0.1, most: 3 },
  { travel: 'speed' },
);

const facings = fc.constantFrom(
  undefined,
  undefined,
  'held' as const,
  { by: 'aim', deadZone: 0.6 },
  { by: ['vy', 'vx'] as const },
);
const turns = fc.constantFrom({ shows: 'c0-once' }, { shows: 'c1-once', least: 45 });

/**
 * @param track where there are several, the one it is in and the other one
 * @param groups of the body, which are led into by their names too
 */
export const state = (
  names: readonly string[],
  track?: readonly [string, string],
  groups: readonly string[] = [],
) => {
  const name: fc.Arbitrary<string> = fc.constantFrom(...names);
  const some: fc.Arbitrary<string> =
    track?.[0] === 'arms' ? name : fc.constantFrom(...names, ...groups, ...groups);
  const asked = [...crossed, ...crossed, ...groups.map((group) => `body.${group}`)];
  const levels = [...conditions, ...(track === undefined ? [] : asked)];
  const condition = fc.constantFrom(...levels, ...pulsed);
  const others = fc.constantFrom(
    undefined,
    [track?.[1] ?? ''],
    ...['a', '!b', 'vx > 10', 'moving && !a'].map((when) => ({ [track?.[1] ?? '']: when })),
  );
  const carry = fc.constantFrom('none' as const, 'phase' as const, 'frame' as const);
  return fc.record({
    kind: fc.constantFrom('posture' as const, 'act' as const, 'act' as const, 'bare' as const),
    clip: fc.constantFrom('c0', 'c1', 'c2', 'c3'),
    priority: priorities,
    while: fc.constantFrom(...levels),
    guarded: fc.boolean(),
    when: condition,
    then: maybe(name),
    carry: fc.oneof(carry, fc.dictionary(some, carry, { maxKeys: 2, noNullPrototype: true })),
    facing: facings,
    turns: maybe(turns, 4),
    final: fc.integer({ min: 0, max: 11 }).map((n) => n === 0),
    leaves: maybe(at, 2),
    atLeast: fc.constantFrom(0, 0, 0, 20, 100, 333.333, 'speed * 3', 'b ? 40 : 0'),
    lasts: maybe(
      fc.constantFrom<number | string>(0, 30, 120, 333.333, 'speed * 5', '100 - vy * 4', 'a ? 50 : 90'),
      2,
    ),
    fit: fc.boolean(),
    again: fc.constantFrom('ignore' as const, 'restart' as const, 'queue' as const),
    tags: fc.subarray(track?.[0] === 'arms' ? ['v'] : ['t', 'u']),
    takes: track === undefined ? fc.constant(undefined) : others,
    inStep: track?.[0] === 'arms' ? fc.constantFrom(undefined, 'shows', 'follows') : fc.constant(undefined),
    bridges: fc.oneof(
      fc.constant({}),
      fc.dictionary(some, fc.constantFrom('c0-once', 'c1-once'), { maxKeys: 2, noNullPrototype: true }),
    ),
    rate: maybe(rates, 2),
    moves: fc.constantFrom('time', 'time', 'gaits', 'number', 'turn', 'chance', 'weights'),
    /** In a plain character one in eight states has further rules all the same; the others have this condition. */
    hasAllRules: fc.nat(7).map((n) => n === 0),
    simply: fc.constantFrom('a', 'not a', 'b', 'a and b', 'vx > 10', 'abs(vx) >= 10', 'moving'),
    hops: fc.array(fc.record({ to: some, if: maybe(condition), during: maybe(fc.constant('late')), at }), {
      maxLength: 2,
    }),
    yields: fc.array(
      fc.record({
        to: maybe(fc.array(some, { minLength: 1, maxLength: 2 })),
        during: maybe(fc.constant('late')),
      }),
      { maxLength: 1 },
    ),
  });
};

type StateParts = ReturnType<typeof state> extends fc.Arbitrary<infer T> ? T : never;

/** What a state shows: one clip in time, one by a number, or several gaits. */
function shown(s: StateParts): Partial<StateDefinition> {
  if (s.moves === 'gaits')
    return { gaits: { by: 'speed', shows: ['c0', 'c1', 'c2'], above: [9, 12], margin: 4 } };
  if (s.moves === 'turn') return { shows: { any: [s.clip, 'c2', 'c0'] } };
  if (s.moves === 'chance') return { shows: { any: ['c0', 'c1', s.clip], pick: 'chance' } };
  if (s.moves === 'weights')
    return { shows: { any: [s.clip, 'c1', 'c3'], pick: 'chance', weights: [2, 0.5, 0], repeats: true } };
  return s.moves === 'number' ? { shows: s.clip, scrub: { by: 'vy', from: 30, to: -30 } } : { shows: s.clip };
}

/** A state of what was made for it. */
export function stateOf(s: StateParts, name: string): StateDefinition {
  const { priority, carry, final, hops, atLeast, tags, facing, turns, lasts } = s;
  // A clip that is stretched has no rate of its own, no number and no bridge.
  const fit = lasts !== undefined && s.fit && s.kind !== 'posture' ? true : undefined;
  const { bridges, rate } = fit === true ? { bridges: undefined, rate: undefined } : s;
  if (s.inStep !== undefined && s.kind !== 'act') return inStep(s);
  const yields = s.yields.map((one) => ({ ...one, to: one.to?.filter((to) => to !== name) }));
  const { takes } = s;
  const common = { priority, carry, final, hops, yields, atLeast, tags, bridges, rate, facing, takes };
  const leaves = s.leaves === 'now' ? undefined : s.leaves;
  if (s.kind === 'posture') return { ...common, ...shown(s), while: s.while, leaves, turns };
  const shows = fit === true ? { shows: s.clip } : shown(s);
  if (s.kind === 'bare') return { ...common, ...shows, then: s.then, turns, lasts, fit };
  const guard = s.guarded ? { while: s.while, leaves } : {};
  const act = { ...common, ...guard, when: s.when, then: s.then, again: s.again };
  // What lasts need not come to an end by itself.
  if (lasts !== undefined) return { ...act, ...shows, lasts, fit };
  return { ...act, shows: `${s.clip}-once` };
}

/** A state that says only what it shows and when, as most of a real game do: a switch to it takes the short way. */
export function plainStateOf(s: StateParts, name: string): StateDefinition {
  if (s.hasAllRules) return stateOf(s, name);
  const { clip, priority, simply } = s;
  if (s.kind === 'act' && s.guarded && s.fit) return { shows: `${clip}-once`, when: s.when, priority };
  // Here and there one of the things that need the long way.
  return {
    ...{ shows: clip, priority, while: simply },
    ...(s.guarded && s.fit && { carry: s.carry }),
    ...(s.guarded && !s.fit && { bridges: s.bridges }),
    ...(!s.guarded && s.fit && { facing: s.facing }),
  };
}

/** A state in step with the body: what has to do with time and directions is left out. */
function inStep({
  kind,
  clip,
  priority,
  final,
  hops,
  atLeast,
  tags,
  while: during,
  inStep: how,
}: StateParts): StateDefinition {
  const ways = hops.map((hop) => ({ to: hop.to, if: hop.if }));
  const own = how === 'shows' ? { shows: clip } : {};
  const common = { priority, final, hops: ways, atLeast, tags, inStep: 'body', ...own };
  return kind === 'posture' ? { ...common, while: during } : common;
}

/** What the two groups say, one of them in the other, and in which of them each state is but the first. */
export const grouping = (
  names: readonly string[],
  track: readonly [string, string] | undefined,
  groups: readonly string[],
) => {
  const said = fc.record({
    while: fc.constantFrom(...conditions, 'true', 'b'),
    priority: priorities,
    tags: fc.subarray(['t', 'u']),
    carry: maybe(fc.constantFrom('phase' as const, 'frame' as const), 1),
    facing: facings,
    rest: state(names, track, groups),
  });
  return fc.record({
    outer: said,
    inner: said,
    places: fc.array(fc.constantFrom('outside', 'outer', 'outer', 'inner'), { minLength: 6, maxLength: 6 }),
  });
};
type Grouping = ReturnType<typeof grouping> extends fc.Arbitrary<infer T> ? T : never;
type States = Record<string, StateDefinition>;

const placesOf = (states: States, { places }: Grouping, place: string): States =>
  Object.fromEntries(Object.entries(states).filter((_, i) => (i === 0 ? 'outside' : places[i]) === place));
/** The states that are in no group. */
export const withoutThose = (states: States, how: Grouping): States => placesOf(states, how, 'outside');

/** The groups with their states. */
export function grouped(states: States, how: Grouping): Parts['groups'] {
  const group = (name: string, { rest, ...said }: Grouping['outer'], inside: States): GroupDefinition => {
    const bare = { ...stateOf({ ...rest, kind: 'posture' }, name), while: undefined, priority: undefined };
    return { ...said, rest: name, states: { ...inside, [name]: bare } };
  };
  const inner = group('f1', how.inner, placesOf(states, how, 'inner'));
  return { g0: { ...group('f0', how.outer, placesOf(states, how, 'outer')), groups: { g1: inner } } };
}
