import { Row } from '../controller/layout.js';
import { pass, passUntil } from '../engine/pass.js';
import { Attention } from '../engine/rows.js';
import type { Crowd, Rows } from '../engine/rows.js';
import { watch } from '../performer/watch.js';
import { IntList, Wheel } from './wheel.js';

/** The number of members that share a block of rows, as a power of two. A block is never moved. */
export const blockBits = 10;
export const blockSize = 1 << blockBits;

/** What the rows of a troupe share: the clock, the members whose signals were set, and the instants at which members are due. */
export class TroupeCrowd implements Crowd {
  readonly clock = new Float64Array(1);
  /** The end of the present step. */
  private readonly until = new Float64Array(1);
  readonly wheel = new Wheel();
  /** The members whose signals were set since the last step. */
  private readonly told = new IntList();
  /** The members that somebody observes, each with the range of its own reports in the present step. */
  readonly watched = new Map<number, { from: number; count: number }>();
  /** The first error of the present step. */
  private failed: Error | undefined = undefined;

  constructor(
    private readonly blocks: readonly Rows[],
    private readonly size: number,
  ) {}

  tell(index: number): void {
    this.told.push(index);
  }

  file(index: number): void {
    const { doubles } = this.blocks[index >> blockBits]!;
    this.wheel.file(index, doubles, (index & (blockSize - 1)) * this.size + Row.due);
  }

  watch(index: number, isWatched: boolean): void {
    if (!isWatched) this.watched.delete(index);
    else if (!this.watched.has(index)) this.watched.set(index, { from: 0, count: 0 });
  }

  /** Stops everything that is due for a member. */
  remove(index: number): void {
    const rows = this.blocks[index >> blockBits]!;
    const at = (index & (blockSize - 1)) * this.size;
    rows.ints[2 * at + Row.attention] = 0;
    this.wheel.remove(index);
    if (this.watched.delete(index)) watch.gone(rows, at);
  }

  /**
   * Lets time pass for all members: first for those whose signals were set, then for those that are due.
   *
   * @param time in microseconds
   * @throws {DotHopError} the first error, after all other members have passed the time
   */
  step(time: number): void {
    const { told, clock } = this;
    this.until[0] = clock[0]! + time;
    for (let i = 0; i < told.length; i++) this.visit(told.items[i]!);
    told.length = 0;
    this.wheel.pass(this.until, this);
    clock[0] = this.until[0]!;
    if (this.watched.size > 0) this.tellWatchers();
    const { failed } = this;
    this.failed = undefined;
    if (failed !== undefined) throw failed;
  }

  isDue(index: number): boolean {
    const { doubles } = this.blocks[index >> blockBits]!;
    return doubles[(index & (blockSize - 1)) * this.size + Row.due]! <= this.until[0]!;
  }

  visit(index: number): void {
    const rows = this.blocks[index >> blockBits]!;
    const at = (index & (blockSize - 1)) * this.size;
    // It may have been told something and removed after that.
    if ((rows.ints[2 * at + Row.attention]! & Attention.member) === 0) return;
    passUntil[0] = this.until[0]!;
    const watched = this.watched.size === 0 ? undefined : this.watched.get(index);
    const before = watched === undefined ? 0 : rows.reportsOf(at).count;
    try {
      pass(rows, at);
    } catch (error) {
      // It goes on from here, once its signals break the circle.
      this.failed ??= error as Error;
      rows.doubles[at + Row.now] = this.until[0]!;
      rows.doubles[at + Row.due] = this.until[0]! + 1;
    }
    // Who was told something and is due besides is visited twice; the second time there is nothing left to do.
    if (watched !== undefined && rows.reportsOf(at).count > before) {
      watched.from = before;
      watched.count = rows.reportsOf(at).count - before;
    }
    this.wheel.file(index, rows.doubles, at + Row.due);
  }

  /** Tells the observers of members that a step is over, even if nothing happened to their member. */
  private tellWatchers(): void {
    for (const [index, watched] of this.watched) {
      const { from, count } = watched;
      watched.from = watched.count = 0;
      watch.step(this.blocks[index >> blockBits]!, (index & (blockSize - 1)) * this.size, count, from);
    }
  }

  /**
   * Files all members again, after all rows were taken from a copy.
   *
   * @param wereWatched the members that were observed when the copy was made: the rows contain a bit for it
   */
  begin(isMember: Uint8Array, end: number, wereWatched: readonly number[]): void {
    this.changeWatched(wereWatched, false);
    for (const index of [...this.watched.keys()]) if (isMember[index] !== 1) this.remove(index);
    this.changeWatched([...this.watched.keys()], true);
    this.wheel.clear(this.clock[0]!);
    this.told.length = 0;
    for (let index = 0; index < end; index++) {
      if (isMember[index] !== 1) continue;
      const { ints } = this.blocks[index >> blockBits]!;
      const attention = ints[2 * (index & (blockSize - 1)) * this.size + Row.attention]!;
      if ((attention & Attention.decide) !== 0) this.told.push(index);
      else this.file(index);
    }
    for (const index of this.watched.keys())
      watch.moved(this.blocks[index >> blockBits]!, (index & (blockSize - 1)) * this.size);
  }

  private changeWatched(members: readonly number[], isWatched: boolean): void {
    for (const index of members) {
      const { ints } = this.blocks[index >> blockBits]!;
      const place = 2 * (index & (blockSize - 1)) * this.size + Row.attention;
      ints[place] = isWatched ? ints[place]! | Attention.watched : ints[place]! & ~Attention.watched;
    }
  }
}
