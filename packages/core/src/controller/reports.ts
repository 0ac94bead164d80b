import { callError } from '../problem/error.js';
import { ruleNames } from './rule.js';
import type { RuleName } from './rule.js';

/** What a report tells of. */
export type ReportKind = 'cue' | 'switch' | 'turn' | 'flipbook';

const kinds: readonly ReportKind[] = ['cue', 'switch', 'turn', 'flipbook'];

/** The most reports that are kept of one step. An hour in one step can hold hundreds of millions, which no memory would. */
const mostKept = 1_000_000;

/** One thing that happened in a step, as plain data that you can keep. */
export interface Report<Name extends string = string> {
  readonly kind: ReportKind;
  /** The cue's name, or the state, direction or flipbook (another gait or variant) that was switched to. */
  readonly name: Name;
  /** The state, direction or flipbook that was left. For a cue, the cue's name on the frame. */
  readonly from: string;
  /** The exact instant, in milliseconds since the performer began. */
  readonly at: number;
  /** The rule of decision behind a switch; `undefined` for anything else. */
  readonly rule: RuleName | undefined;
  /** The track in which it happened: `body`, or one of the document's `tracks`. */
  readonly track: string;
}

/** The names that reports are told by. */
export class ReportNames {
  private readonly named: readonly (readonly string[])[];

  constructor(
    cues: readonly string[],
    states: readonly string[],
    directions: readonly string[],
    private readonly flipbooks: readonly string[],
    readonly tracks: readonly string[],
  ) {
    this.named = [cues, states, directions, flipbooks];
  }

  of(kind: number, index: number): string {
    return this.named[kind]![index]!;
  }

  /** The index of a flipbook's name, as reports of flipbooks have it. */
  flipbookIndex(name: string): number {
    return this.flipbooks.indexOf(name);
  }
}

/** The numbers of a report: what it is, what it names, and its instant. In one array, because a crowd touches many of them. */
const enum Pack {
  size = 4,
  name = 1,
  at = 2,
  member = 3,
  /**
   * In the first number, the lowest bits hold the kind (two bits), the rule (four) and the track (six). Above them is what was
   * left.
   */
  from = 12,
  head = 4095,
}

/** What a report is, as one number of it. @param from what was left */
export const packed = (kind: 0 | 1 | 2 | 3, from: number, rule: number, track: number): number =>
  kind | (rule << 2) | (track << 6) | (from << Pack.from);

/**
 * The cues, switches, turns and changes of flipbook of a performer's latest step or request, in the order in which they happened. The
 * object is always about the latest step of its performer, so do not step that performer while you go through it: that throws. Other
 * performers may step meanwhile. Reading by index allocates nothing.
 *
 * ```ts
 * for (const { kind, name, at } of performer.reports) console.log(at, kind, name);
 * ```
 */
export class Reports<Name extends string = string> implements Iterable<Report<Name>> {
  private readonly packed: number[] = [];
  private kept = 0;
  private lost = 0;
  /** Counts the steps, so that who goes through it can tell that another has begun. */
  private round = 0;
  /** For performers: whether somebody watches, so that a step is more than to let time pass. */
  isWatched = false;

  constructor(private readonly names: ReportNames) {}

  /** How many there are. */
  get count(): number {
    return this.kept;
  }

  /** How many further reports the step had. 0, except for a step with over a million reports. */
  get missed(): number {
    return this.lost;
  }

  /** @throws {DotHopError} as all that read by index, when there is no such report */
  kind(index: number): ReportKind {
    return kinds[this.head(index) & 3]!;
  }

  /** The cue's name, or the state, direction or flipbook (another gait or variant) that was switched to. */
  name(index: number): Name {
    const head = this.head(index);
    return this.names.of(head & 3, this.packed[index * Pack.size + Pack.name]!) as Name;
  }

  /** The state, direction or flipbook that was left. For a cue, the cue's name on the frame. */
  from(index: number): string {
    const head = this.head(index);
    return this.names.of(head & 3, this.packed[index * Pack.size]! >> Pack.from);
  }

  /** The exact instant, in milliseconds since the performer began. */
  at(index: number): number {
    this.head(index);
    return this.packed[index * Pack.size + Pack.at]! / 1000;
  }

  /** The rule of decision behind a switch; `undefined` for anything else. */
  rule(index: number): RuleName | undefined {
    const head = this.head(index);
    return (head & 3) === 1 ? ruleNames[(head >> 2) & 15] : undefined;
  }

  /** The name of the track in which it happened: `body`, or one of the document's `tracks`. */
  track(index: number): string {
    return this.names.tracks[this.head(index) >> 6]!;
  }

  /** In a report of a troupe, the index of the member. Reports of a performer do not use it. */
  memberAt(index: number): number {
    this.head(index);
    return this.packed[index * Pack.size + Pack.member]!;
  }

  /** One report as plain data that you can keep. */
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
    const { round, kept } = this;
    for (let i = 0; i < kept; i++) {
      if (this.round !== round) throw callError('reports-stale', {});
      yield this.report(i);
    }
  }

  /** For performers: empties it at the beginning of a step. */
  clear(): void {
    this.kept = this.lost = 0;
    this.round++;
  }

  /**
   * For performers: adds one.
   *
   * @param head what it is: see {@link packed}
   * @param now where the instant is among the numbers; a double handed over would be boxed
   */
  add(head: number, to: number, member: number, numbers: Float64Array, now: number): void {
    if (this.kept === mostKept) {
      this.lost++;
      return;
    }
    const at = Pack.size * this.kept++;
    this.packed[at] = head;
    this.packed[at + Pack.name] = to;
    this.packed[at + Pack.at] = numbers[now]!;
    this.packed[at + Pack.member] = member;
  }

  /** The kind, rule and track of one. */
  private head(index: number): number {
    if (!(index >= 0 && index < this.kept)) throw callError('cue-report', { count: this.kept, index });
    return this.packed[index * Pack.size]! & Pack.head;
  }
}
