import { TrackRow } from '../controller/layout.js';
import { Units } from '../controller/timeline.js';
import type { Timeline } from '../controller/timeline.js';
import { pickNext } from './pick.js';
import { report, timelineOf } from './rows.js';
import type { Rows } from './rows.js';

// Cues are told as their frames begin, some of them by one of several names.

/**
 * Reports cues by their numbers.
 *
 * @param begins the cues of the segment that begins
 * @param told cues that were told already; they are skipped
 */
export function tellCues(
  rows: Rows,
  at: number,
  track: number,
  begins: readonly number[],
  told?: readonly number[],
): void {
  const { cueVarieties } = rows.controller;
  for (const cue of begins) {
    if (told?.includes(cue) === true) continue;
    const variety = cueVarieties[cue];
    const name = variety === undefined ? cue : variety.names[pickNext(rows, at, variety)]!;
    report(rows, at, track, 0, cue, name, 0);
  }
}

/** Reports the cues of the segment that begins, without those that were told already. */
export function reportCues(rows: Rows, at: number, trackRow: number, told?: readonly number[]): void {
  const { cues, state } = timelineOf(rows, trackRow);
  tellCues(rows, at, state.track, cues[rows.ints[2 * trackRow + TrackRow.segment]!]!, told);
}

/**
 * The cues that the frame has told whose place a switch keeps. The state that is entered does not tell them again: when a walk becomes a
 * run, the foot meets the ground once.
 *
 * @param keepsFrame whether the frame begins again. If it does not, it must have begun at this very instant
 */
export function cuesTold(
  { doubles, ints }: Rows,
  trackRow: number,
  before: Timeline,
  keepsFrame: boolean,
): readonly number[] | undefined {
  const { cues, ends, frames } = before;
  let segment = ints[2 * trackRow + TrackRow.segment]!;
  while (keepsFrame && segment > 0 && frames[segment - 1] === frames[segment]) segment--;
  const place = doubles[trackRow + TrackRow.position]!;
  const begins = segment === 0 ? 0 : ends[segment - 1]!;
  // At a border that is about to be crossed, the next frame has told nothing yet.
  const hasBegun = place - begins < Units.perMicrosecond && place < ends[segment]!;
  return keepsFrame || hasBegun ? cues[segment] : undefined;
}
