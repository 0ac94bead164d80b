import { TrackRow } from '../controller/layout.js';
import { pickNext } from './pick.js';
import { report, timelineOf } from './rows.js';
import type { Rows } from './rows.js';

// Cues are told as their frames begin, some of them by one of several names.

/** @param begins the cues of what begins, by number */
export function tellCues(rows: Rows, at: number, track: number, begins: readonly number[]): void {
  const { cueVarieties } = rows.controller;
  for (const cue of begins) {
    const variety = cueVarieties[cue];
    const name = variety === undefined ? cue : variety.names[pickNext(rows, at, variety)]!;
    report(rows, at, track, 0, cue, name, 0);
  }
}

/** Reports the cues of the segment that begins. */
export function reportCues(rows: Rows, at: number, trackRow: number): void {
  const { cues, state } = timelineOf(rows, trackRow);
  tellCues(rows, at, state.track, cues[rows.ints[2 * trackRow + TrackRow.segment]!]!);
}
