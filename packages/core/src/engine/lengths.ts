import type { State } from '../controller/controller.js';
import { Row, TrackRow } from '../controller/layout.js';
import { lengthOf } from './read.js';
import { StateBit } from './rows.js';
import type { Rows } from './rows.js';

// How long a state lasts, where the document says so, and how long it is kept. Both are read once, when it is entered.

/** Reads how long a state lasts and is kept that is entered now, and has its row wait for both. */
export function beginLengths(rows: Rows, at: number, trackRow: number, state: State): void {
  const { doubles, lengths } = rows;
  const { lasts, keeps, atLeast } = state;
  if (lasts === undefined && atLeast === 0) return;
  const now = doubles[at + Row.now]!;
  if (lasts !== undefined) {
    // No time at all would let states lead to one another without any.
    const over = now + Math.max(1, lengthOf(rows, at, lasts.program));
    doubles[trackRow + lengths] = over;
    doubles[at + Row.timer] = Math.min(doubles[at + Row.timer]!, over);
  }
  if (keeps !== undefined) doubles[trackRow + lengths + 1] = now + lengthOf(rows, at, keeps);
  if (atLeast > 0)
    doubles[at + Row.timer] = Math.min(doubles[at + Row.timer]!, keptUntil(rows, trackRow, state));
}

/** The instant at which the `atLeast` of the state that shows is over. */
export const keptUntil = ({ doubles, lengths }: Rows, trackRow: number, { atLeast, keeps }: State): number =>
  keeps === undefined ? doubles[trackRow + TrackRow.entered]! + atLeast : doubles[trackRow + lengths + 1]!;

/** The instant at which the state that shows is over, if it says how long it lasts; `Infinity` else. */
export const overAt = ({ doubles, lengths }: Rows, trackRow: number, { lasts }: State): number =>
  lasts === undefined ? Infinity : doubles[trackRow + lengths]!;

/** Whether a state that shows is over: its time, or its clip where it says no time. */
export const isOver = (rows: Rows, at: number, trackRow: number, state: State): boolean =>
  state.lasts === undefined
    ? state.ends && (rows.ints[2 * trackRow + TrackRow.stateBits]! & StateBit.ended) !== 0
    : rows.doubles[at + Row.now]! >= rows.doubles[trackRow + rows.lengths]!;
