import { Row } from '../controller/layout.js';
import { pass, passUntil } from '../engine/pass.js';
import { Attention } from '../engine/rows.js';
import type { Crowd, Rows } from '../engine/rows.js';
import { IntList, Wheel } from './wheel.js';

/** How many members share a block of rows, as a power of two. A block is never moved. */
export const blockBits = 10;
export const blockSize = 1 << blockBits;

/** What the rows of a troupe have in common: the time, who was told something, and who is due when. */
export class TroupeCrowd implements Crowd {
  readonly clock = new Float64Array(1);
  /** Up to when the present step goes. */
  private readonly until = new Float64Array(1);
  readonly wheel = new Wheel();
  /** The members that were told something since the last step. */
  private readonly told = new IntList();
  /** What went wrong first in the present step. */
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

  /** Has nothing happen to a member any more. */
  remove(index: number): void {
    const { ints } = this.blocks[index >> blockBits]!;
    ints[2 * (index & (blockSize - 1)) * this.size + Row.attention] = 0;
    this.wheel.remove(index);
  }

  /**
   * Lets time pass for all members: first for those that were told something, then for those that are due.
   *
   * @param time in microseconds
   * @throws {DotHopError} what went wrong first, after all others have passed it
   */
  step(time: number): void {
    const { told, clock } = this;
    this.until[0] = clock[0]! + time;
    for (let i = 0; i < told.length; i++) this.visit(told.items[i]!);
    told.length = 0;
    this.wheel.pass(this.until, this);
    clock[0] = this.until[0]!;
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
    try {
      pass(rows, at);
    } catch (error) {
      // It goes on from here, once its signals break the circle.
      this.failed ??= error as Error;
      rows.doubles[at + Row.now] = this.until[0]!;
      rows.doubles[at + Row.due] = this.until[0]! + 1;
    }
    this.wheel.file(index, rows.doubles, at + Row.due);
  }

  /** Files everybody anew. */
  begin(isMember: Uint8Array, end: number): void {
    this.wheel.clear(this.clock[0]!);
    this.told.length = 0;
    for (let index = 0; index < end; index++) {
      if (isMember[index] !== 1) continue;
      const { ints } = this.blocks[index >> blockBits]!;
      const attention = ints[2 * (index & (blockSize - 1)) * this.size + Row.attention]!;
      if ((attention & Attention.decide) !== 0) this.told.push(index);
      else this.file(index);
    }
  }
}
