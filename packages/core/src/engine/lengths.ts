import type { State } from '../controller/state.js';
import { Row, TrackRow } from '../controller/layout.js';
import { lengthOf } from './read.js';
import { StateBit } from './rows.js';
import type { Rows } from './rows.js';

// How long a state lasts, where the document says so, and how long it is kept. Both are read once, when it is entered.

/** Reads how long the state that is entered now lasts and is kept, and makes its row wait for both. */
export function beginLengths(rows: Rows, at: number, trackRow: number, state: State): void {
  const { doubles, lengths } = rows;
  const { lasts, keeps, atLeast } = state;
  if (lasts === undefined && atLeast === 0) return;
  const now = doubles[at + Row.now]!;
  // No time at all would let states lead to one another without any.
  if (lasts !== undefined) doubles[trackRow + lengths] = now + Math.max(1, lengthOf(rows, at, lasts.program));
  if (keeps !== undefined) doubles[trackRow + lengths + 1] = now + lengthOf(rows, at, keeps);
  waitForLengths(rows, at, trackRow, state);
}

// An instant that a function returns may be boxed, which allocates. So these return none, and compare where it is read.

/** Whether the `atLeast` of the state that shows is not over. */
export function isKept({ doubles, lengths }: Rows, at: number, trackRow: number, state: State): boolean {
  const { atLeast, keeps } = state;
  if (atLeast === 0) return false;
  const now = doubles[at + Row.now]!;
  return keeps === undefined
    ? now - doubles[trackRow + TrackRow.entered]! < atLeast
    : now < doubles[trackRow + lengths + 1]!;
}

/** Whether the time of the state that shows ends at this instant, or its `atLeast` does. */
export function endsLengthNow(
  { doubles, lengths }: Rows,
  at: number,
  trackRow: number,
  state: State,
): boolean {
  const { lasts, atLeast, keeps } = state;
  const now = doubles[at + Row.now]!;
  if (lasts !== undefined && now === doubles[trackRow + lengths]) return true;
  if (atLeast === 0) return false;
  return keeps === undefined
    ? atLeast === now - doubles[trackRow + TrackRow.entered]!
    : now === doubles[trackRow + lengths + 1];
}

/** Sets a row's timer to the end of the state that shows or to the end of its `atLeast`, whichever comes first. */
export function waitForLengths(rows: Rows, at: number, trackRow: number, state: State): void {
  const { doubles, lengths } = rows;
  const { lasts, atLeast, keeps } = state;
  const now = doubles[at + Row.now]!;
  const timer = at + Row.timer;
  if (lasts !== undefined) {
    const over = doubles[trackRow + lengths]!;
    if (over > now && over < doubles[timer]!) doubles[timer] = over;
  }
  if (atLeast === 0) return;
  const kept =
    keeps === undefined ? doubles[trackRow + TrackRow.entered]! + atLeast : doubles[trackRow + lengths + 1]!;
  if (kept > now && kept < doubles[timer]!) doubles[timer] = kept;
}

/** Whether the state that shows is over: its `lasts` has passed, or without `lasts` its clip has ended. */
export const isOver = (rows: Rows, at: number, trackRow: number, state: State): boolean =>
  state.lasts === undefined
    ? state.ends && (rows.ints[2 * trackRow + TrackRow.stateBits]! & StateBit.ended) !== 0
    : rows.doubles[at + Row.now]! >= rows.doubles[trackRow + rows.lengths]!;
