import { Row } from '../controller/layout.js';
import type { Rows } from './rows.js';

// A character's own pace lies above the bits of `Attention`, so that one whose time does not run with the game's is never left
// alone: sixteen bits of thousandths, 0 where they are 1000, and above them ten bits of what has passed of a microsecond.

const shift = 6;
const restShift = 22;
const paceMask = 0xffff;

/** The pace at which own time and the game's time are the same, in thousandths. */
export const gamePace = 1000;

/** The fastest pace. */
export const fastestPace = 64;

const attentionOf = ({ ints }: Rows, at: number): number => ints[2 * at + Row.attention]!;

/** How fast a row's time runs, in thousandths of the game's. */
export const paceOf = (rows: Rows, at: number): number =>
  ((attentionOf(rows, at) >>> shift) & paceMask) ^ gamePace;

/** The part of a microsecond of its own time that is left over, in thousandths. */
export const paceRemainderOf = (rows: Rows, at: number): number => attentionOf(rows, at) >>> restShift;

/**
 * Sets how fast a row's time runs.
 *
 * @param pace in thousandths
 */
export function setPace(rows: Rows, at: number, pace: number, rest = 0): void {
  const place = 2 * at + Row.attention;
  const other = rows.ints[place]! & ((1 << shift) - 1);
  rows.ints[place] = other | ((pace ^ gamePace) << shift) | (rest << restShift);
}

/**
 * How much of its own time passes for a row, in whole microseconds. The rest of a microsecond is kept, so that a step gives the same as its
 * parts.
 *
 * @param time of the game, in microseconds
 */
export function ownTime(rows: Rows, at: number, time: number): number {
  if (attentionOf(rows, at) >>> shift === 0) return time;
  const pace = paceOf(rows, at);
  const passed = time * pace + paceRemainderOf(rows, at);
  const own = Math.floor(passed / gamePace);
  setPace(rows, at, pace, passed - own * gamePace);
  return own;
}
