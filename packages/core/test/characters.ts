import fc from 'fast-check';
import { Performer, compileController } from 'dot-hop';
import type {
  CompassDefinition,
  Controller,
  ControllerDefinition,
  Showing,
  SignalValue,
  StateDefinition,
} from 'dot-hop';
import type { Player } from 'dot-hop/play';

/** Sixty-four cells of 8x8 pixels, eight to a row: what the made-up characters of these tests are cut from. */
export const sheets = { s: { image: 's.png', size: [64, 64], grid: { cell: [8, 8] } } } as const;

type Parts = Omit<ControllerDefinition, 'dotHop' | 'sheets'>;

/** Compiles a character from what a test is about. */
export function compile(parts: Parts): Controller {
  return compileController({ dotHop: 1, sheets, ...parts });
}

/** Performs a character from what a test is about. */
export function perform(parts: Parts, first?: Record<string, SignalValue>): Performer {
  return new Performer(compile(parts), first);
}

/** The reports of one step as texts: `300 stand > run`, `445.455 step`, `10 turns west`. */
export function stepTold(performer: Player, ms: number): string[] {
  performer.step(ms);
  return lastTold(performer);
}

/** The reports of the latest step, also of one that failed on its way. */
export function lastTold({ reports }: Pick<Player, 'reports'>): string[] {
  return Array.from({ length: reports.count }, (_, i) => {
    const track = reports.track(i);
    const at = `${reports.at(i)}${track === 'body' ? '' : ` ${track}:`}`;
    const name = reports.name(i);
    if (reports.kind(i) === 'cue') return `${at} ${name}`;
    if (reports.kind(i) === 'gait') return `${at} gait ${name}`;
    return reports.kind(i) === 'turn' ? `${at} turns ${name}` : `${at} ${reports.from(i)} > ${name}`;
  });
}

/** What each track shows, and how far it is. */
export function shownBy(performer: Player): Showing[] {
  return performer.controller.tracks.map(({ name }) => performer.showing(name));
}

/** Something done to the signals, or asked for. */
export type Deed =
  | { readonly set: string; readonly to: SignalValue }
  | { readonly pulse: string }
  | { readonly ask: string }
  | { readonly cut: string }
  | { readonly route: string };

/** What is done, and how long nothing is done after it, in microseconds. */
export interface Scene {
  readonly deeds: readonly Deed[];
  readonly wait: number;
}

/** Does it. @returns what a request gives */
export function act(performer: Player, deed: Deed): boolean | undefined {
  if ('ask' in deed) return performer.ask(deed.ask);
  if ('route' in deed) return performer.route(deed.route);
  if ('cut' in deed) {
    performer.cut(deed.cut);
    return true;
  }
  if ('pulse' in deed) performer.pulse(deed.pulse);
  else performer.set(deed.set, deed.to);
  return undefined;
}

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
const maybe = <T>(value: fc.Arbitrary<T>, freq = 2): fc.Arbitrary<T | undefined> =>
  fc.option(value, { nil: undefined, freq });

const clip = fc
  .record({
    first: fc.nat(40),
    ms: fc.array(fc.constantFrom(1, 7.5, 16.667, 33, 40, 100, 250), { minLength: 1, maxLength: 5 }),
    loop: fc.constantFrom('forever' as const, 'once' as const),
    cue: fc.boolean(),
    span: maybe(fc.tuple(fc.nat(4), fc.nat(4)), 3),
  })
  .map(({ first, ms, loop, cue, span }) => {
    const last = ms.length - 1;
    const [from, to] = [Math.min(span?.[0] ?? 0, last), Math.min(span?.[1] ?? last, last)];
    return {
      cells: `${first}-${first + last}`,
      ms,
      loop,
      cues: cue ? { tick: last, tock: 0 } : {},
      spans: { late: `${Math.min(from, to)}-${Math.max(from, to)}` },
      stride: 12 * ms.length,
    };
  });

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

const compasses = fc.constantFrom<CompassDefinition>(
  { directions: 'sides', mirror: { west: 'east' }, by: ['vx', 0], deadZone: 5 },
  { directions: 'sides', by: ['vx', 0], deadZone: 5, through: 30 },
  { directions: 'eight', mirror: 'west', by: ['vx', 'vy'], deadZone: 5, stick: 10, through: 25 },
  { directions: 'four', by: ['vx', 'vy'], diagonal: 'keep', up: '+y', start: 'south' },
  { directions: 'four', by: ['vx', 'vy'], diagonal: 'horizontal', stick: 15 },
  { directions: 'eight', by: 'aim', through: 60 },
);

/** @param track where there are several, the one it is in and the other one */
const state = (names: readonly string[], track?: readonly [string, string]) => {
  const name: fc.Arbitrary<string> = fc.constantFrom(...names);
  const levels = [...conditions, ...(track === undefined ? [] : [...crossed, ...crossed])];
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
    carry: fc.oneof(carry, fc.dictionary(name, carry, { maxKeys: 2, noNullPrototype: true })),
    facing: facings,
    turns: maybe(turns, 4),
    final: fc.integer({ min: 0, max: 11 }).map((n) => n === 0),
    leaves: maybe(at, 2),
    atLeast: fc.constantFrom(0, 0, 0, 20, 100, 333.333),
    again: fc.constantFrom('ignore' as const, 'restart' as const, 'queue' as const),
    tags: fc.subarray(track?.[0] === 'arms' ? ['v'] : ['t', 'u']),
    takes: track === undefined ? fc.constant(undefined) : others,
    inStep: track?.[0] === 'arms' ? fc.constantFrom(undefined, 'shows', 'follows') : fc.constant(undefined),
    bridges: fc.oneof(
      fc.constant({}),
      fc.dictionary(name, fc.constantFrom('c0-once', 'c1-once'), { maxKeys: 2, noNullPrototype: true }),
    ),
    rate: maybe(rates, 2),
    moves: fc.constantFrom('time' as const, 'time' as const, 'gaits' as const, 'number' as const),
    hops: fc.array(fc.record({ to: name, if: maybe(condition), during: maybe(fc.constant('late')), at }), {
      maxLength: 2,
    }),
    yields: fc.array(
      fc.record({
        to: maybe(fc.array(name, { minLength: 1, maxLength: 2 })),
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
  return s.moves === 'number' ? { shows: s.clip, scrub: { by: 'vy', from: 30, to: -30 } } : { shows: s.clip };
}

function stateOf(s: StateParts, name: string): StateDefinition {
  const { priority, carry, final, hops, atLeast, tags, bridges, rate, facing, turns } = s;
  if (s.inStep !== undefined && s.kind !== 'act') return inStep(s);
  const yields = s.yields.map((one) => ({ ...one, to: one.to?.filter((to) => to !== name) }));
  const { takes } = s;
  const common = { priority, carry, final, hops, yields, atLeast, tags, bridges, rate, facing, takes };
  const leaves = s.leaves === 'now' ? undefined : s.leaves;
  if (s.kind === 'posture') return { ...common, ...shown(s), while: s.while, leaves, turns };
  if (s.kind === 'bare') return { ...common, ...shown(s), then: s.then, turns };
  const guard = s.guarded ? { while: s.while, leaves } : {};
  return { ...common, ...guard, shows: `${s.clip}-once`, when: s.when, then: s.then, again: s.again };
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

/** Characters of three to six states with every kind of rule, over every kind of signal. */
export const characters: fc.Arbitrary<Parts> = fc
  .integer({ min: 3, max: 6 })
  .chain((count) => fc.tuple(fc.constant(count), fc.integer({ min: 0, max: 3 })))
  .chain(([count, further]) => {
    const names = Array.from({ length: count }, (_, i) => `s${i}`);
    // Every other character has arms, too.
    const arms = Array.from({ length: further < 2 ? 0 : further }, (_, i) => `r${i}`);
    const [inBody, inArms] =
      arms.length === 0 ? [undefined, undefined] : [['body', 'arms'] as const, ['arms', 'body'] as const];
    return fc.tuple(
      fc.constant(names),
      fc.tuple(clip, clip, clip, clip),
      compasses,
      fc.tuple(...names.map(() => state(names, inBody))),
      fc.constant(arms),
      fc.tuple(...arms.map(() => state(arms, inArms))),
    );
  })
  .map(([names, clips, compass, states, arms, armStates]): Parts => {
    const looped = clips.map((one) => ({ ...one, cues: { tick: 0, ...one.cues } }));
    return {
      clips: Object.fromEntries(
        looped.flatMap((one, i) => [
          [`c${i}`, one],
          [`c${i}-once`, { ...one, loop: 'once' as const }],
        ]),
      ),
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
      },
      states: {
        ...Object.fromEntries(states.map((s, i) => [names[i]!, stateOf(s, names[i]!)])),
        // So that both tags are names that conditions can use.
        tagged0: { shows: 'c0', while: 'false', tags: ['t', 'u'] },
      },
      rest: names[0]!,
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

const someState = fc.nat(2).map((i) => `s${i}`);
const setting: fc.Arbitrary<Deed> = fc.oneof(
  fc.record({
    set: fc.constant('vx'),
    to: fc.constantFrom(-40, -30, -12, -9, -5, 0, 5, 8, 10, 10.000001, 12, 13, 30, 40),
  }),
  fc.record({ set: fc.constant('vy'), to: fc.constantFrom(-30, -0.5, 0, 0.5, 30) }),
  fc.record({ set: fc.constantFrom('a', 'b'), to: fc.boolean() }),
  fc.record({ set: fc.constant('mode'), to: fc.constantFrom('ground', 'ladder', 'water') }),
  fc.record({
    set: fc.constant('aim'),
    to: fc.constantFrom([0, 0] as const, [1, 0] as const, [0.5, 0.5] as const, [2, -3] as const),
  }),
  fc.record({ pulse: fc.constantFrom('o', 'p', 'q') }),
);
const request: fc.Arbitrary<Deed> = fc.oneof(
  fc.record({ ask: someState }),
  fc.record({ cut: someState }),
  fc.record({ route: someState }),
);
const deed = fc.oneof({ arbitrary: setting, weight: 8 }, { arbitrary: request, weight: 1 });

/** More reports than this in one wait, and the rest of it would only be more of the same. */
const mostTold = 400;

/**
 * A story whose waits are cut short where a character switches without rest, at worst at every microsecond: millions of reports
 * would be compared.
 */
export function bearable(controller: Controller, story: readonly Scene[]): Scene[] {
  const probe = new Performer(controller);
  return story.map(({ deeds, wait }) => {
    let [waited, told] = [0, 0];
    try {
      for (const deed of deeds) act(probe, deed);
      for (; waited < wait && told < mostTold; waited += 1000)
        told += probe.step(Math.min(wait - waited, 1000) / 1000);
    } catch {
      // What leads on without taking any time is for the test to meet.
      return { deeds, wait };
    }
    return { deeds, wait: Math.min(wait, waited) };
  });
}

/** What is done to a character over time. */
export const scenes: fc.Arbitrary<Scene[]> = fc.array(
  fc.record({
    deeds: fc.array(deed, { maxLength: 3 }),
    wait: fc.oneof(fc.nat(300_000), fc.constantFrom(0, 1, 1000, 16_667, 40_000, 2_000_000)),
  }),
  { minLength: 1, maxLength: 8 },
);
