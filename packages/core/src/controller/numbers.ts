import { Slots, placeOf } from '../signal/program.js';
import type { SignalTables } from '../signal/tables.js';
import { Place } from './places.js';
import type { Reports } from './reports.js';

export { Place } from './places.js';

/**
 * Where a track but the first keeps what it plays, while another one is being played: these numbers and those of the
 * performer's own fields are exchanged (see `Strands`). They lie after the instants, track by track.
 */
export const enum Kept {
  timeline = 0,
  segment = 1,
  marks = 2,
  rate = 3,
  remembered = 4,
  last = 5,
  lastUsed = 6,
  position = 7,
  marked = 8,
  entered = 9,
  /** How many there are. */
  size = 10,
}

/** Where the instants begin. */
export const timerOf = (slots: number, timer: number): number => Slots.first + Slots.size * slots + timer;

/** How many performers share a block at most: one that outlives the others keeps no more than this in memory. */
const mostSharing = 128;

/** A block of numbers, and beside it the reports of those who share it, by their place: whoever tells nothing has none. */
export interface NumberBlock extends Float64Array<ArrayBuffer> {
  reports: (Reports | undefined)[];
}

const blockOf = (length: number): NumberBlock => Object.assign(new Float64Array(length), { reports: [] });

/**
 * Where the performers of a controller keep their numbers: in blocks, side by side. So a performer needs no array of its
 * own (its header would be half as large as what is in it), and what many performers read one after the other lies
 * one after the other in memory. A block is freed with the last of its performers.
 */
export class Numbers {
  /** A performer's numbers as they are at the very first: the intervals are empty, so that the first reading finds them. */
  readonly first: Float64Array;
  /** Where those begin that tracks but the first keep; see {@link Kept}. */
  readonly kept: number;
  /** The block in which the latest performer's numbers are. */
  block: NumberBlock = blockOf(0);
  private sharing = 0;
  private used = 0;

  /** @param strands what each track but the first keeps at the very first: the numbers of {@link Kept} that are not 0 */
  constructor({ regions, signals, timers }: SignalTables, strands: readonly (readonly number[])[]) {
    const end = timerOf(regions.length, timers);
    this.kept = end;
    this.first = new Float64Array(end + strands.length * Kept.size).fill(Infinity, Slots.first, end);
    strands.forEach((strand, i) => this.first.set(strand, end + i * Kept.size));
    this.first[Place.timer] = Infinity;
    for (const { slot, first } of signals.values())
      if (slot >= 0) first.forEach((value, i) => (this.first[placeOf(slot + i)] = value));
  }

  /** Gives a new performer its place. @returns where in {@link block} its numbers begin */
  take(): number {
    const { first } = this;
    if (this.used === this.sharing) {
      // A lone performer does not pay for neighbours; a crowd shares large blocks.
      this.sharing = Math.min(mostSharing, Math.max(1, 2 * this.sharing));
      this.used = 0;
      this.block = blockOf(this.sharing * first.length);
    }
    const base = this.used++ * first.length;
    this.block.set(first, base);
    return base;
  }
}
