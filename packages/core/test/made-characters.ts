import fc from 'fast-check';
import type { CompassDefinition, VarietyDefinition } from 'dot-hop';
import type { Parts } from './characters.js';
import { grouped, grouping, maybe, plainStateOf, state, stateOf, withoutThose } from './made-states.js';

const clip = fc
  .record({
    first: fc.nat(40),
    ms: fc.array(fc.constantFrom(1, 7.5, 16.667, 33, 40, 100, 250), { minLength: 1, maxLength: 5 }),
    loop: fc.constantFrom('forever' as const, 'once' as const, 'intro' as const, 'back-and-forth' as const),
    cue: fc.boolean(),
    span: maybe(fc.tuple(fc.nat(4), fc.nat(4)), 3),
  })
  .map(({ first, ms, loop, cue, span }) => {
    const last = ms.length - 1;
    const [from, to] = [Math.min(span?.[0] ?? 0, last), Math.min(span?.[1] ?? last, last)];
    return {
      cells: `${first}-${first + last}`,
      ms,
      loop: loop === 'intro' ? { from: last } : loop,
      cues: cue ? { tick: last, tock: 0 } : {},
      spans: { late: `${Math.min(from, to)}-${Math.max(from, to)}` },
      stride: 12 * ms.length,
    };
  });

const compasses = fc.constantFrom<CompassDefinition>(
  { directions: 'sides', mirror: { west: 'east' }, by: ['vx', 0], deadZone: 5 },
  { directions: 'sides', by: ['vx', 0], deadZone: 5, through: 30 },
  { directions: 'eight', mirror: 'west', by: ['vx', 'vy'], deadZone: 5, stick: 10, through: 25 },
  { directions: 'four', by: ['vx', 'vy'], diagonal: 'keep', up: '+y', start: 'south' },
  { directions: 'four', by: ['vx', 'vy'], diagonal: 'horizontal', stick: 15 },
  { directions: 'eight', by: 'aim', through: 60 },
);

const cells = fc.constantFrom('c0', 'c1', 'c2', 'c3');
/** Which clips show in place of which: of those that are played once others that are. */
const instead = fc.dictionary(cells, cells, { maxKeys: 3, noNullPrototype: true }).map((pairs) =>
  Object.fromEntries(
    Object.entries(pairs).flatMap(([from, to]) => [
      [from, to],
      [`${from}-once`, `${to}-once`],
    ]),
  ),
);
const variants = fc.constantFrom(undefined, 'mode' as const, 'flags' as const, 'both' as const).chain((by) =>
  fc.record({
    ...(by === 'flags' || by === 'both' ? { a: instead, moving: instead } : {}),
    ...(by === 'mode' || by === 'both' ? { mode: fc.record({ ladder: instead, water: instead }) } : {}),
  }),
);

/** One of several names, by turns or by chance. */
const anyOf = (any: readonly string[]): fc.Arbitrary<VarietyDefinition> =>
  fc.constantFrom<VarietyDefinition>(
    { any },
    { any, pick: 'chance' },
    { any, pick: 'chance', weights: any.map((_, i) => i), repeats: true },
  );

/** Characters of three to six states with every kind of rule, over every kind of signal. One in four has mostly plain states. */
export const characters: fc.Arbitrary<Parts> = fc
  .integer({ min: 3, max: 6 })
  .chain((count) =>
    fc.tuple(
      fc.constant(count),
      fc.integer({ min: 0, max: 3 }),
      fc.nat(3),
      fc.constantFrom(true, false, false, false),
    ),
  )
  .chain(([count, further, kinds, isPlain]) => {
    const names = Array.from({ length: count }, (_, i) => `s${i}`);
    // Every other character has arms, too.
    const arms = Array.from({ length: further < 2 || isPlain ? 0 : further }, (_, i) => `r${i}`);
    // And every other one has states in groups.
    const groups = kinds < 2 || isPlain ? [] : ['g0', 'g1'];
    const [inBody, inArms] =
      arms.length === 0 ? [undefined, undefined] : [['body', 'arms'] as const, ['arms', 'body'] as const];
    return fc.tuple(
      fc.constant(names),
      fc.tuple(clip, clip, clip, clip),
      compasses,
      fc.tuple(...names.map(() => state(names, inBody, groups))),
      fc.constant(arms),
      fc.tuple(...arms.map(() => state(arms, inArms, groups))),
      variants,
      groups.length === 0 ? fc.constant(undefined) : grouping(names, inBody, groups),
      maybe(fc.tuple(anyOf(['tick', 'tack', 'tuck']), anyOf(['dong', 'tick'])), 3),
      fc.constant(isPlain),
    );
  })
  .map(([names, clips, compass, states, arms, armStates, others, groups, told, isPlain]): Parts => {
    const isCued = clips.some((one) => 'tock' in one.cues);
    const own = Object.fromEntries(
      states.map((s, i) => [names[i]!, (isPlain ? plainStateOf : stateOf)(s, names[i]!)]),
    );
    const looped = clips.map((one) => ({ ...one, cues: { tick: 0, ...one.cues } }));
    return {
      clips: Object.fromEntries(
        looped.flatMap((one, i) => [
          [`c${i}`, one],
          [`c${i}-once`, { ...one, loop: 'once' as const }],
        ]),
      ),
      cues: told && { tick: told[0], ...(isCued && { tock: told[1] }) },
      compass,
      signals: {
        vx: { number: 0 },
        vy: { number: 0 },
        a: { flag: false },
        b: { flag: true },
        mode: { choice: ['ground', 'ladder', 'water'] },
        aim: { vector: [0, 0] },
        o: { pulse: true },
        p: { pulse: true },
        q: { pulse: { keep: 60 } },
      },
      derived: {
        speed: 'abs(vx)',
        moving: { of: 'speed', above: 12, below: 8 },
        lasting: { of: 'a', linger: 45 },
        settled: { of: '!moving && !a', settle: 30 },
        tilt: { of: 'vx + vy', above: 15, below: -15 },
        tagged: { of: 't', linger: 20 },
        felt: { of: 'b', settle: 'speed * 2' },
        kept: { of: 'a', linger: 'vy * 3' },
      },
      states: {
        ...(groups === undefined ? own : withoutThose(own, groups)),
        // So that both tags are names that conditions can use.
        tagged0: { shows: 'c0', while: 'false', tags: ['t', 'u'] },
      },
      ...(groups && { groups: grouped(own, groups) }),
      rest: names[0]!,
      variants: isPlain ? undefined : others,
      ...(arms.length === 0
        ? {}
        : {
            tracks: {
              arms: {
                states: {
                  ...Object.fromEntries(armStates.map((s, i) => [arms[i]!, stateOf(s, arms[i]!)])),
                  tagged1: { shows: 'c0', while: 'false', tags: ['v'] },
                },
              },
            },
          }),
    };
  });
