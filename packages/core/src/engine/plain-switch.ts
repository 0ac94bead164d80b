import { Row, TrackRow, targetDirectionShift } from '../controller/layout.js';
import type { Situation } from '../controller/situations.js';
import { Units } from '../controller/timeline.js';
import type { Timeline } from '../controller/timeline.js';
import { Decision, stateOfDecision } from './choose.js';
import { reportCues } from './cues.js';
import { notes } from './notes.js';
import { StateBit, report, situationOf } from './rows.js';
import type { Rows } from './rows.js';

// The short way of most switches: where all follows from a timeline and the situation, and no more is to be done than to begin a clip.

/**
 * What a timeline leads to in a situation, if that follows from the two alone: the timeline to begin (shifted by four bits) with the rule,
 * or one of these values.
 */
export const enum Plain {
  unknown = 0,
  stays = -1,
  /** More has a say, or more is to be done than to begin a clip. */
  no = -2,
}

/**
 * Switches in a track if everything follows from its timeline and the situation, and the switch only begins another clip. Most switches are
 * like that, and this is the short way for them.
 *
 * @returns {@link Plain.stays} if nothing switches any more, {@link Plain.no} if the full rule must decide, or the timeline that was begun,
 *   for which the next decision is due
 */
export function switchPlainly(rows: Rows, at: number, trackRow: number): number {
  const { ints } = rows;
  const place = 2 * trackRow;
  const stateBits = ints[place + TrackRow.stateBits]!;
  if (notes.anyStarts || ints[place + TrackRow.goal]! >= 0 || (stateBits & StateBit.ended) !== 0)
    return Plain.no;
  const situation = situationOf(rows, at);
  if (situation.plain.length === 0) situation.plain = new Int32Array(rows.timelines.length);
  const { plain } = situation;
  const number = ints[place + TrackRow.timeline]!;
  const known = plain[number]!;
  if (known < 0) return known;
  if (known === Plain.unknown) {
    plain[number] = plainOutcome(rows, situation, rows.timelines[number]!);
    return Plain.no;
  }
  const before = rows.timelines[number]!;
  if (stateBits >> targetDirectionShift !== before.direction) return Plain.no;
  const after = rows.timelines[known >> 4]!;
  notes.anySwitch = true;
  beginPlainly(rows, at, trackRow, before.stateIndex, after, known & 15);
  return plain[after.number] === Plain.stays ? Plain.stays : after.number;
}

/** What comes of a timeline in a situation, as far as it has been decided. */
function plainOutcome(rows: Rows, situation: Situation, timeline: Timeline): number {
  const { state: from } = timeline;
  const decision = situation.decided[from.index] ?? 0;
  if (decision === 0 || !from.isStatic) return from.isStatic ? Plain.unknown : Plain.no;
  if (from.remembersPresses) return Plain.no;
  if (decision === Decision.stay) return Plain.stays;
  const to = rows.states[stateOfDecision(decision)]!;
  const isPlain =
    to.beginsPlainly &&
    from.leavesPlainly &&
    to !== from &&
    to.bridges[from.index] === undefined &&
    (to.carry[from.index] ?? to.carryElse) === 'none' &&
    !rows.pulseBits.some((bits, i) => (bits & situation.words[i]!) !== 0);
  if (!isPlain) return Plain.no;
  return (to.flipbooks[0]![timeline.direction]!.number << 4) | (decision & Decision.ruleBits);
}

/** Enters a state where that is no more than beginning its clip: the short way of most switches. */
function beginPlainly(
  rows: Rows,
  at: number,
  trackRow: number,
  from: number,
  timeline: Timeline,
  rule: number,
): void {
  const { doubles, ints } = rows;
  report(rows, at, timeline.state.track, 1, from, timeline.stateIndex, rule);
  ints[2 * trackRow + TrackRow.stateBits]! &= ~(StateBit.ended | StateBit.queued | StateBit.underway);
  ints[2 * trackRow + TrackRow.lastSwitch] = ((from + 1) << 4) | rule;
  // Neither a hop is remembered nor a pulse used.
  const end = 2 * (trackRow + rows.trackRowSize);
  for (let i = 2 * trackRow + TrackRow.words; i < end; i++) ints[i] = 0;
  ints[2 * trackRow + TrackRow.segment] = 0;
  ints[2 * trackRow + TrackRow.rate] = Units.perMicrosecond;
  ints[2 * trackRow + TrackRow.timeline] = timeline.number;
  const now = doubles[at + Row.now]!;
  doubles[trackRow + TrackRow.positionTime] = now;
  doubles[trackRow + TrackRow.entered] = now;
  doubles[trackRow + TrackRow.position] = 0;
  if (timeline.cues[0]!.length > 0) reportCues(rows, at, trackRow);
}
