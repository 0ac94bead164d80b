import { callError } from '../problem/problem.js';
import { Place } from './numbers.js';
import { ruleNames } from './rule.js';
import type { RuleName } from './rule.js';

/** What a report tells of. */
export type ReportKind = 'cue' | 'switch' | 'turn' | 'gait';

const kinds: readonly ReportKind[] = ['cue', 'switch', 'turn', 'gait'];

/**
 * The cues, switches, turns and changes of gait of the latest step of any performer of a controller, in the order in which they
 * happened. One list serves all performers and is used again at each step: read it right after `step`, which
 * returns how many there are. Nothing is allocated but when a step reports more than any before.
 */
export class Reports {
  /** The kind (two bits), the rule (four) and the track of each. */
  private readonly heads: number[] = [];
  private readonly froms: number[] = [];
  private readonly tos: number[] = [];
  private readonly times: number[] = [];
  private length = 0;
  /** Whose step filled it. */
  private owner: object | null = null;

  constructor(
    private readonly cueNames: readonly string[],
    private readonly stateNames: readonly string[],
    private readonly directionNames: readonly string[],
    private readonly bookNames: readonly string[],
    private readonly trackNames: readonly string[],
  ) {}

  /** How many there are. */
  get count(): number {
    return this.length;
  }

  kind(index: number): ReportKind {
    return kinds[this.heads[this.checked(index)]! & 3]!;
  }

  /** The cue's name, or the state, direction or gait's flipbook that was switched to. */
  name(index: number): string {
    return this.namesOf(index)[this.tos[index]!]!;
  }

  /** The state, direction or flipbook that was left; the cue's own name for a cue. */
  from(index: number): string {
    return this.namesOf(index)[this.froms[index]!]!;
  }

  /** The exact instant, in milliseconds since the performer began. */
  at(index: number): number {
    return this.times[this.checked(index)]! / 1000;
  }

  /** By which rule of decision a switch happened; undefined for anything else. */
  rule(index: number): RuleName | undefined {
    const head = this.heads[this.checked(index)]!;
    return (head & 3) === 1 ? ruleNames[(head >> 2) & 15] : undefined;
  }

  /** The name of the track that it tells of: `body`, or one of the document's `tracks`. */
  track(index: number): string {
    return this.trackNames[this.heads[this.checked(index)]! >> 6]!;
  }

  /** For performers: empties the list and takes it over. */
  begin(owner: object): void {
    this.length = 0;
    this.owner = owner;
  }

  /** For performers: refuses to be read when another performer has stepped since. */
  checkOwner(owner: object): void {
    if (this.owner !== owner) throw callError('reports-stale', {});
  }

  /** For performers: the index of a flipbook's name, as reports of gaits have it. */
  bookIndex(name: string): number {
    return this.bookNames.indexOf(name);
  }

  /** For performers: adds one at the instant that is due in their numbers; a double handed over would be boxed. */
  add(
    kind: 0 | 1 | 2 | 3,
    from: number,
    to: number,
    rule: number,
    track: number,
    numbers: Float64Array,
    base: number,
  ): number {
    const index = this.length++;
    this.heads[index] = kind | (rule << 2) | (track << 6);
    this.froms[index] = from;
    this.tos[index] = to;
    this.times[index] = numbers[base + Place.due]!;
    return this.length;
  }

  private namesOf(index: number): readonly string[] {
    const kind = this.heads[this.checked(index)]! & 3;
    return [this.cueNames, this.stateNames, this.directionNames, this.bookNames][kind]!;
  }

  private checked(index: number): number {
    if (!(index >= 0 && index < this.length)) throw callError('cue-report', { count: this.length, index });
    return index;
  }
}
