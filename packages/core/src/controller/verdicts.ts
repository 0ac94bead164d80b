import { holds, pulsesRead } from '../signal/condition.js';
import type { Condition } from '../signal/condition.js';

/** What the table needs of a state. Conditions are indices into the list of conditions, -1 for none. */
export interface Candidate {
  readonly priority: number;
  readonly while: number;
  readonly when: number;
}

/** Marks a row of the table that no situation has been found for yet. */
const unmet = -2;

/** Past this many situations the table is begun anew, so that memory stays bounded. */
const mostSituations = 8192;

/**
 * For every situation (the two words of bits) what follows from it alone: which conditions hold and which state
 * that wants in ranks highest. A row is computed when its situation is first met and found again by hashing, so a
 * decision costs the same with forty states as with twelve.
 */
export class Verdicts {
  /** 32-bit words a row: the truth of each condition, then of each state whether it wants in. */
  private readonly stride: number;
  private readonly stateWords: number;
  private slots = 256;
  private used = 0;
  private flags!: Int32Array;
  private terms!: Int32Array;
  /** The highest-ranked state that wants in, -1 for none, or {@link unmet}. */
  private best!: Int16Array;
  private rows!: Int32Array;

  /** @param order the states from the highest rank to the lowest, document order among equals */
  constructor(
    private readonly conditions: readonly Condition[],
    private readonly states: readonly Candidate[],
    private readonly order: readonly number[],
  ) {
    this.stateWords = Math.ceil(conditions.length / 32);
    this.stride = this.stateWords + Math.ceil(states.length / 32);
    this.clear(this.slots);
  }

  /** The row of a situation. Valid until the next call: a later one may begin the table anew. */
  row(flags: number, terms: number): number {
    const mask = this.slots - 1;
    // Both words spread over the table by one multiplication each (Knuth, TAOCP 3, 6.4).
    let row = ((Math.imul(flags, 0x9e3779b1) ^ Math.imul(terms, 0x85ebca6b)) >>> 8) & mask;
    while (this.best[row] !== unmet) {
      if (this.flags[row] === flags && this.terms[row] === terms) return row;
      row = (row + 1) & mask;
    }
    if (this.used * 2 >= this.slots) {
      this.grow();
      return this.row(flags, terms);
    }
    this.fill(row, flags, terms);
    return row;
  }

  /** The highest-ranked state that wants in for what holds (not for what has just become true); -1 for none. */
  bestOf(row: number): number {
    return this.best[row]!;
  }

  /** Whether a condition holds; a missing one (-1) does. */
  holds(row: number, condition: number): boolean {
    return (
      condition < 0 || (this.rows[row * this.stride + (condition >> 5)]! & (1 << (condition & 31))) !== 0
    );
  }

  /** Whether a state wants in for what holds. */
  wantsIn(row: number, state: number): boolean {
    const word = this.rows[row * this.stride + this.stateWords + (state >> 5)]!;
    return (word & (1 << (state & 31))) !== 0;
  }

  private fill(row: number, flags: number, terms: number): void {
    const base = row * this.stride;
    this.rows.fill(0, base, base + this.stride);
    this.conditions.forEach((condition, index) => {
      if (holds(condition, flags, terms)) this.rows[base + (index >> 5)]! |= 1 << (index & 31);
    });
    let best = -1;
    for (const index of this.order) {
      const state = this.states[index]!;
      const posture = state.while >= 0 && state.when < 0;
      const pulsed = state.when >= 0 && pulsesRead(this.conditions[state.when]!, flags, terms) !== 0;
      if ((!posture && !pulsed) || !this.holds(row, state.while)) continue;
      this.rows[base + this.stateWords + (index >> 5)]! |= 1 << (index & 31);
      if (best < 0) best = index;
    }
    this.flags[row] = flags;
    this.terms[row] = terms;
    this.best[row] = best;
    this.used++;
  }

  private grow(): void {
    this.clear(this.slots >= mostSituations * 2 ? this.slots : this.slots * 2);
  }

  private clear(slots: number): void {
    this.slots = slots;
    this.used = 0;
    this.flags = new Int32Array(slots);
    this.terms = new Int32Array(slots);
    this.best = new Int16Array(slots).fill(unmet);
    this.rows = new Int32Array(slots * this.stride);
  }
}
