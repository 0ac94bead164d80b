import type { ControllerDefinition, StateDefinition, VectorDefinition } from 'dot-hop';
import type { Deed } from './stories.js';
import type { ReferenceTrack } from './reference-track.js';

export type Parts = Omit<ControllerDefinition, 'dotHop' | 'sheets'>;
type Values = Record<string, unknown>;

const pulseKeep: Record<string, number> = { o: 1, p: 1, q: 60_000 };
const pulses = Object.keys(pulseKeep);
/** A pulse by name, not under a `!`. */
const asked: Record<string, RegExp> = { o: /(?<!!)\bo\b/, p: /(?<!!)\bp\b/, q: /(?<!!)\bq\b/ };
const tests = new Map<string, (values: Values) => unknown>();
const names = [
  'vx',
  'vy',
  'a',
  'b',
  'mode',
  'aim',
  'o',
  'p',
  'q',
  'speed',
  'moving',
  'lasting',
  'settled',
  'felt',
  'kept',
  'tilt',
];
const tags = ['t', 'u', 'v', 'tagged', 'body', 'arms'];

/** An expression with signs for the words `not`, `and`, `or`, and options in quotes; `not` takes a whole comparison. */
const inSigns = (text: string): string =>
  text
    .replace(/\bnot (\w+ [<>]=? -?\w+)/g, '!($1)')
    .replace(/\bnot /g, '!')
    .replace(/\band\b/g, '&&')
    .replace(/\bor\b/g, '||')
    .replace(/\b(mode|arms|body) ([!=]=) (\w+)/g, "$1 $2 '$3'")
    .replace(/\br1 != arms/, "'r1' != arms");

/** The value of an expression, by the language whose subset it is. */
function evaluate(text: string, values: Values): unknown {
  let test = tests.get(text);
  if (test === undefined) {
    const all = [...names, ...tags];
    // eslint-disable-next-line @typescript-eslint/no-implied-eval
    const run = new Function('abs', ...all, `return ${inSigns(text)}`) as (...parts: unknown[]) => unknown;
    test = (given) => run(Math.abs, ...all.map((name) => given[name]));
    tests.set(text, test);
  }
  return test(values);
}

/** What the signals of the made-up characters of these tests amount to. It knows these signals and no others. */
export class ReferenceSignals {
  values: Values = {
    moving: false,
    tilt: false,
    lasting: false,
    settled: false,
    tagged: false,
    felt: false,
    kept: false,
  };
  private given: Values = { vx: 0, vy: 0, a: false, b: true, mode: 'ground', aim: { x: 0, y: 0 } };
  private readonly expires = new Map<string, number>();
  private readonly due = new Map<string, number>();
  private readonly bands = new Map<string, boolean>();

  constructor(
    private readonly tracks: readonly ReferenceTrack[],
    private readonly compass: Compass,
  ) {}

  do(deed: Deed, now: number): void {
    if ('pulse' in deed) this.expires.set(deed.pulse, now + pulseKeep[deed.pulse]!);
    else if ('set' in deed) {
      const value = Array.isArray(deed.to) ? { x: deed.to[0] as number, y: deed.to[1] as number } : deed.to;
      this.given = { ...this.given, [deed.set]: value };
    }
  }

  /** The next instant at which something expires, falls or settles. */
  get next(): number {
    return Math.min(Infinity, ...this.expires.values(), ...this.due.values());
  }

  expire(at: number): void {
    for (const [pulse, expiry] of this.expires) if (expiry <= at) this.expires.delete(pulse);
  }

  isOn(pulse: string): boolean {
    return this.expires.has(pulse);
  }

  use(pulse: string): void {
    this.expires.delete(pulse);
  }

  /** What is true now, for what shows; and notes of each track the acts whose `when` has become true by it. */
  read(at: number): void {
    const before = this.values;
    const { vx, vy, a } = this.given as { vx: number; vy: number; a: boolean };
    const values: Values = { ...before, ...this.given, speed: Math.abs(vx) };
    for (const pulse of pulses) values[pulse] = this.expires.has(pulse);
    const shown = this.tracks.flatMap(({ states, state }) => states[state]!.tags ?? []);
    for (const tag of ['t', 'u', 'v']) values[tag] = shown.includes(tag);
    // Compared with a text, a track is the name of what shows.
    for (const { name, states, state } of this.tracks) {
      const of = Object.fromEntries(
        Object.entries(states).flatMap(([one, { groups }]) => [
          [one, one === state],
          ...groups.map((group) => [group, states[state]!.groups.includes(group)] as const),
        ]),
      );
      values[name] = { ...of, toString: () => state };
    }
    values.moving = band(Math.abs(vx), 12, 8, before.moving as boolean);
    values.tilt = band(vx + vy, 15, -15, before.tilt as boolean);
    this.last(at, values, 'lasting', a, 0, 45_000);
    this.last(at, values, 'settled', values.moving === false && !a, 30_000, 0);
    this.last(at, values, 'tagged', values.t === true, 0, 20_000);
    const speed = Math.abs(vx);
    this.last(at, values, 'felt', values.b as boolean, Math.round(speed * 2000), 0);
    this.last(at, values, 'kept', a, 0, Math.round(Math.max(0, vy) * 3000));
    this.values = values;
    for (const { gaits } of this.tracks.flatMap(({ states }) => Object.values(states)))
      for (const above of gaits?.above ?? []) {
        const key = `${gaits!.by} ${above} ${gaits!.margin}`;
        const value = this.number(gaits!.by);
        this.bands.set(key, band(value, above, above - (gaits!.margin ?? 0), this.bands.get(key) ?? false));
      }
    if (!('vx' in before)) return;
    for (const { states, justTrue } of this.tracks)
      for (const [name, { when }] of Object.entries(states)) {
        // A `when` that needs a pulse starts by the pulse and not by a change.
        if (when === undefined || /\b[opq]\b/.test(when.replace(/![opq]/g, ''))) continue;
        if (evaluate(when, values) === true && evaluate(when, before) !== true) justTrue.add(name);
      }
  }

  /** Where the compass points for the vector that a state faces by. */
  pointed(facing: StateDefinition['facing'], toward: string): string {
    const compass = this.compass;
    const own = typeof facing === 'object' ? facing : { by: compass.by! };
    const [x, y] = this.vector(own.by);
    const down = compass.up === '+y' ? -y : y;
    const long = Math.hypot(x, y);
    if (long === 0 || long < (own.deadZone ?? compass.deadZone ?? 0)) return toward;
    return pointed(compass, ((Math.atan2(down, x) * 180) / Math.PI + 360) % 360, toward);
  }

  private vector(by: VectorDefinition): [number, number] {
    if (typeof by !== 'string') return [this.number(by[0]), this.number(by[1])];
    const { x, y } = this.values[by] as { x: number; y: number };
    return [x, y];
  }

  /** @param seen pulses that count besides */
  holds(condition: string | undefined, seen: ReadonlySet<string>): boolean {
    return condition === undefined || evaluate(condition, this.valuesWith(seen)) === true;
  }

  private valuesWith(seen: ReadonlySet<string>): Values {
    if (seen.size === 0) return this.values;
    return { ...this.values, ...Object.fromEntries([...seen].map((pulse) => [pulse, true])) };
  }

  number(expression: string | number): number {
    const value = evaluate(String(expression), this.values) as number;
    return Number.isFinite(value) ? value : 0;
  }

  /** The pulses that a true condition reads as true: those that are on and not under a `!`. */
  pulsesOf(condition: string | undefined, seen: ReadonlySet<string>): string[] {
    if (condition === undefined || !this.holds(condition, seen)) return [];
    const values = this.valuesWith(seen);
    return pulses.filter((pulse) => values[pulse] === true && asked[pulse]!.test(inSigns(condition)));
  }

  /** What shows in place of a clip. */
  variantOf(name: string, { variants = {} }: Parts): string {
    let shown = name;
    for (const [signal, maps] of Object.entries(variants)) {
      const value = this.values[signal];
      const map = typeof value === 'string' ? (maps[value] ?? {}) : value === true ? maps : {};
      shown = (map as Record<string, string>)[shown] ?? shown;
    }
    return shown;
  }

  /** Which of a state's gaits its number picks. */
  gaitOf({ gaits }: StateDefinition): number {
    const off = gaits?.above.findIndex((above) => !this.bands.get(`${gaits.by} ${above} ${gaits.margin}`));
    return off === undefined ? 0 : off < 0 ? gaits!.above.length : off;
  }

  /** A flag that follows its condition after a while. */
  private last(at: number, values: Values, name: string, wanted: boolean, rise: number, fall: number): void {
    if (values[name] === wanted) {
      this.due.delete(name);
      return;
    }
    const due = this.due.get(name) ?? at + (wanted ? rise : fall);
    this.due.set(name, due);
    if (due > at) return;
    this.due.delete(name);
    values[name] = wanted;
  }
}

function band(value: number, above: number, below: number, before: boolean): boolean {
  return value > above ? true : value < below ? false : before;
}

const angles: Record<string, Record<string, number>> = {
  sides: { east: 0, west: 180 },
  four: { east: 0, south: 90, west: 180, north: 270 },
};
angles.eight = { ...angles.four, southeast: 45, southwest: 135, northwest: 225, northeast: 315 };

/** Degrees of a direction of the compasses of these tests. */
export const degreesOf = (direction: string): number => angles.eight![direction]!;

/** The direction that a vector at an angle means, by the rules as docs/model.md says them. */
function pointed({ directions, diagonal, stick = 0 }: Compass, angle: number, present: string): string {
  const round = Object.entries(angles[directions as string]!).sort(([, one], [, other]) => one - other);
  const gap = 360 / round.length;
  const before = Math.floor(angle / gap);
  const [first, next] = [round[before]![0], round[(before + 1) % round.length]![0]];
  const past = angle - before * gap;
  // Where the border lies between the two: in the middle, unless diagonals belong to one of them.
  const isLevel = (name: string): boolean => name === 'east' || name === 'west';
  const moves = diagonal === 'horizontal' && isLevel(first) !== isLevel(next);
  const border = gap / 2 + (moves ? ((isLevel(first) ? 1 : -1) * gap) / 4 : 0);
  const kept = diagonal === 'keep' ? gap / 4 : stick;
  const hair = 1e-9;
  if (present === first && past <= border + kept + hair) return first;
  if (present === next && past >= border - kept - hair) return next;
  if (Math.abs(past - border) > hair) return past < border ? first : next;
  const names = ['east', 'southeast', 'south', 'southwest', 'west', 'northwest', 'north', 'northeast'];
  return names.find((name) => name === first || name === next)!;
}

type Compass = NonNullable<Parts['compass']>;
