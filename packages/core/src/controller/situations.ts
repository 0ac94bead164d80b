import { holds, pulsesRead } from '../signal/condition.js';
import type { Condition, Words } from '../signal/condition.js';

/** What the table needs of a state. Conditions are indices into the list of conditions, -1 for none. */
export interface Candidate {
  readonly while: number;
  readonly when: number;
}

/** How many conditions can be watched by their bits alone. */
export const mostWatchedBits = 30;

/** Past this many situations the table is begun anew, so that memory stays bounded. */
const mostSituations = 8192;

/**
 * The words of bits at one instant, with what follows from them alone: which conditions hold and which state that
 * wants in ranks highest. Shared by all performers of a controller that meet it.
 */
export class Situation implements Words {
  /** Of each track the highest-ranked state that wants in for what holds (not for what has just become true); -1 for none. */
  private readonly bests: Int32Array;
  /** That of the first track. */
  readonly best: number;
  /** 32-bit words: the truth of each condition, then of each state whether it wants in. */
  private readonly bits: Int32Array;
  private readonly stateWords: number;
  /** A bit for each of the first conditions that are watched, whether it holds: see {@link mostWatchedBits}. */
  readonly watched: number;

  /**
   * @param orders of each track the states from the highest rank to the lowest, document order among equals
   * @param watched the conditions that are watched for the instant at which they become true
   */
  constructor(
    readonly flags: number,
    readonly terms: number,
    readonly more: number,
    conditions: readonly Condition[],
    states: readonly Candidate[],
    orders: readonly (readonly number[])[],
    watched: readonly number[],
  ) {
    this.stateWords = (conditions.length + 31) >> 5;
    this.bits = new Int32Array(this.stateWords + ((states.length + 31) >> 5));
    for (let index = 0; index < conditions.length; index++)
      if (holds(conditions[index]!, this)) this.bits[index >> 5]! |= 1 << (index & 31);
    this.watched = watched
      .slice(0, mostWatchedBits)
      .reduce((bits, condition, i) => (this.holds(condition) ? bits | (1 << i) : bits), 0);
    this.bests = new Int32Array(orders.length).fill(-1);
    orders.forEach((order, track) => {
      for (const index of order) {
        const state = states[index]!;
        if (!this.holds(state.while) || (state.when < 0 && state.while < 0)) continue;
        if (state.when >= 0 && pulsesRead(conditions[state.when]!, this) === 0) continue;
        this.bits[this.stateWords + (index >> 5)]! |= 1 << (index & 31);
        if (this.bests[track]! < 0) this.bests[track] = index;
      }
    });
    this.best = this.bests[0]!;
  }

  /** The highest-ranked state of a track that wants in for what holds; -1 for none. */
  bestOf(track: number): number {
    return track === 0 ? this.best : this.bests[track]!;
  }

  /**
   * For each state for which it follows from this situation alone, what is decided: -1 to stay, else the state to switch
   * to (plus one) above four bits for the rule; 0 where it has not been asked yet. Made when it is first needed.
   */
  decided: Int32Array | undefined = undefined;

  /** Whether a condition holds; a missing one (-1) does. */
  holds(condition: number): boolean {
    return condition < 0 || (this.bits[condition >> 5]! & (1 << (condition & 31))) !== 0;
  }

  /** Whether a state wants in for what holds. */
  wantsIn(state: number): boolean {
    return (this.bits[this.stateWords + (state >> 5)]! & (1 << (state & 31))) !== 0;
  }
}

/**
 * The situations met so far. One is made when it is first met and found again by hashing, so a decision costs the same
 * with forty states as with twelve.
 */
export class Situations {
  private table: (Situation | undefined)[] = [];
  private used = 0;

  /**
   * @param orders of each track the states from the highest rank to the lowest, document order among equals
   * @param watched the conditions that are watched for the instant at which they become true
   */
  constructor(
    private readonly conditions: readonly Condition[],
    private readonly states: readonly Candidate[],
    private readonly orders: readonly (readonly number[])[],
    private readonly watched: readonly number[],
  ) {
    this.clear(64);
  }

  find(flags: number, terms: number, more: number): Situation {
    const { table } = this;
    const mask = table.length - 1;
    // The words are spread over the table by one multiplication each (Knuth, TAOCP 3, 6.4).
    const mixed = Math.imul(flags, 0x9e3779b1) ^ Math.imul(terms, 0x85ebca6b) ^ Math.imul(more, 0xc2b2ae35);
    let place = (mixed >>> 8) & mask;
    for (let met = table[place]; met !== undefined; met = table[place]) {
      if (met.flags === flags && met.terms === terms && met.more === more) return met;
      place = (place + 1) & mask;
    }
    return this.add(flags, terms, more);
  }

  private add(flags: number, terms: number, more: number): Situation {
    if (this.used * 2 >= this.table.length) {
      const known = this.table;
      const grows = known.length < mostSituations * 2;
      this.clear(grows ? known.length * 2 : known.length);
      if (grows) for (const one of known) if (one !== undefined) this.put(one);
    }
    const { conditions, states, orders, watched } = this;
    const found = new Situation(flags, terms, more, conditions, states, orders, watched);
    this.put(found);
    return found;
  }

  private put(situation: Situation): void {
    const { flags, terms, more } = situation;
    const mask = this.table.length - 1;
    const mixed = Math.imul(flags, 0x9e3779b1) ^ Math.imul(terms, 0x85ebca6b) ^ Math.imul(more, 0xc2b2ae35);
    let place = (mixed >>> 8) & mask;
    while (this.table[place] !== undefined) place = (place + 1) & mask;
    this.table[place] = situation;
    this.used++;
  }

  private clear(slots: number): void {
    this.used = 0;
    this.table = new Array<Situation | undefined>(slots).fill(undefined);
  }
}
