import { callError } from '../problem/problem.js';
import { Place } from './places.js';
import { ruleNames } from './rule.js';
import type { RuleName } from './rule.js';

/** What a report tells of. */
export type ReportKind = 'cue' | 'switch' | 'turn' | 'gait';

const kinds: readonly ReportKind[] = ['cue', 'switch', 'turn', 'gait'];

/** The most reports that are kept of one step. An hour in one step can hold hundreds of millions, which no memory would. */
const mostKept = 1_000_000;

/** One thing that happened in a step, as plain data to be kept. */
export interface Report<Name extends string = string> {
  readonly kind: ReportKind;
  /** The cue's name, or the state, direction or gait's flipbook that was switched to. */
  readonly name: Name;
  /** The state, direction or flipbook that was left; the cue's own name for a cue. */
  readonly from: string;
  /** The exact instant, in milliseconds since the performer began. */
  readonly at: number;
  /** By which rule of decision a switch happened; `undefined` for anything else. */
  readonly rule: RuleName | undefined;
  /** The track that it tells of: `body`, or one of the document's `tracks`. */
  readonly track: string;
}

/** The names that reports are told by. */
export class ReportNames {
  private readonly named: readonly (readonly string[])[];

  constructor(
    cues: readonly string[],
    states: readonly string[],
    directions: readonly string[],
    private readonly books: readonly string[],
    readonly tracks: readonly string[],
  ) {
    this.named = [cues, states, directions, books];
  }

  of(kind: number, index: number): string {
    return this.named[kind]![index]!;
  }

  /** The index of a flipbook's name, as reports of gaits have it. */
  bookIndex(name: string): number {
    return this.books.indexOf(name);
  }
}

/** The reports of one step of one performer, as numbers. */
export class ReportList {
  /** The kind (two bits), the rule (four) and the track of each. */
  readonly heads: number[] = [];
  readonly froms: number[] = [];
  readonly tos: number[] = [];
  readonly times: number[] = [];
  length = 0;
  /** How many more there were than are kept. */
  missed = 0;
  /** Counts the steps it has served, so that who goes through it can tell that another has begun. */
  round = 0;

  /** Adds one at the instant that is due in a performer's numbers; a double handed over would be boxed. */
  add(
    kind: 0 | 1 | 2 | 3,
    from: number,
    to: number,
    rule: number,
    track: number,
    numbers: Float64Array,
    base: number,
  ): void {
    const index = this.length;
    if (index === mostKept) {
      this.missed++;
      return;
    }
    this.length++;
    this.heads[index] = kind | (rule << 2) | (track << 6);
    this.froms[index] = from;
    this.tos[index] = to;
    this.times[index] = numbers[base + Place.due]!;
  }
}

/**
 * The lists of some performers that share a block of numbers. A performer has one from the first report of a step until its
 * next step begins; so there are as many as have something to tell at one time, and no step allocates once there are enough.
 */
export class ReportBook {
  private readonly lists: ReportList[] = [new ReportList()];
  private readonly free: number[] = [];

  /** Hands out an empty list. @returns its number, from 1 */
  take(): number {
    const number = this.free.pop() ?? this.lists.push(new ReportList()) - 1;
    const list = this.lists[number]!;
    list.length = list.missed = 0;
    return number;
  }

  /** Takes a list back. */
  giveBack(number: number): void {
    this.lists[number]!.round++;
    this.free.push(number);
  }

  /** @param number as `take` gave it; 0 for a list without reports */
  list(number: number): ReportList {
    return this.lists[number]!;
  }
}

/**
 * The cues, switches, turns and changes of gait of a performer's latest step or request, in the order in which they happened.
 * It always speaks of the latest step of its own performer, whenever it was taken and whatever other performers do in
 * between; to go through it while its performer steps on is refused. Reading by index allocates nothing.
 *
 * ```ts
 * for (const { kind, name, at } of performer.reports) console.log(at, kind, name);
 * ```
 */
export class Reports<Name extends string = string> implements Iterable<Report<Name>> {
  /** @param latest gives the list of its performer's latest step */
  constructor(
    private readonly names: ReportNames,
    private readonly latest: () => ReportList,
  ) {}

  /** How many there are. */
  get count(): number {
    return this.latest().length;
  }

  /** How many more happened in the step than are kept; 0 but for steps with over a million reports. */
  get missed(): number {
    return this.latest().missed;
  }

  /** @throws {DotHopError} as all that read by index, when there is no such report */
  kind(index: number): ReportKind {
    return kinds[this.checked(index).heads[index]! & 3]!;
  }

  /** The cue's name, or the state, direction or gait's flipbook that was switched to. */
  name(index: number): Name {
    const { heads, tos } = this.checked(index);
    return this.names.of(heads[index]! & 3, tos[index]!) as Name;
  }

  /** The state, direction or flipbook that was left; the cue's own name for a cue. */
  from(index: number): string {
    const { heads, froms } = this.checked(index);
    return this.names.of(heads[index]! & 3, froms[index]!);
  }

  /** The exact instant, in milliseconds since the performer began. */
  at(index: number): number {
    return this.checked(index).times[index]! / 1000;
  }

  /** By which rule of decision a switch happened; undefined for anything else. */
  rule(index: number): RuleName | undefined {
    const head = this.checked(index).heads[index]!;
    return (head & 3) === 1 ? ruleNames[(head >> 2) & 15] : undefined;
  }

  /** The name of the track that it tells of: `body`, or one of the document's `tracks`. */
  track(index: number): string {
    return this.names.tracks[this.checked(index).heads[index]! >> 6]!;
  }

  /** One of them as plain data, to be kept. */
  report(index: number): Report<Name> {
    return {
      kind: this.kind(index),
      name: this.name(index),
      from: this.from(index),
      at: this.at(index),
      rule: this.rule(index),
      track: this.track(index),
    };
  }

  /**
   * All of them as plain data; `[...performer.reports]` keeps them.
   *
   * @throws {DotHopError} when the performer steps while they are gone through
   */
  *[Symbol.iterator](): Generator<Report<Name>, void, undefined> {
    const list = this.latest();
    const { round, length } = list;
    for (let i = 0; i < length; i++) {
      if (this.latest() !== list || list.round !== round) throw callError('reports-stale', {});
      yield this.report(i);
    }
  }

  private checked(index: number): ReportList {
    const list = this.latest();
    if (!(index >= 0 && index < list.length)) throw callError('cue-report', { count: list.length, index });
    return list;
  }
}
