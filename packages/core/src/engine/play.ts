import type { Rate, Slot } from '../controller/state.js';
import type { CarryRule } from '../controller/definition.js';
import { Row, TrackRow } from '../controller/layout.js';
import { Units, segmentAt } from '../controller/timeline.js';
import type { Timeline } from '../controller/timeline.js';
import { holds } from '../signal/condition.js';
import { programValue } from '../signal/program.js';
import { evaluate } from './read.js';
import { cuesTold, reportCues } from './cues.js';
import { Attention, StateBit, timelineOf } from './rows.js';
import type { Rows } from './rows.js';

// Where a track row is in its clip, and how it gets on. All instants are whole microseconds and places in a clip are whole units, so
// they are exact at any rate. A border of segments that nobody notices is no event: it is passed when somebody looks.

/** Whether a track row runs by itself, so that its clip has borders. */
const runs = ({ ints }: Rows, trackRow: number): boolean =>
  ints[2 * trackRow + TrackRow.rate]! !== 0 &&
  (ints[2 * trackRow + TrackRow.stateBits]! & StateBit.ended) === 0;

/** Whether a route leads a track row somewhere: it is decided at every border then. */
const isRouted = ({ ints }: Rows, trackRow: number): boolean => ints[2 * trackRow + TrackRow.goal]! >= 0;

/**
 * Brings the place of a track row up to the present instant, across borders that nobody notices.
 *
 * @param timeline the one it shows
 */
export function advance(
  rows: Rows,
  at: number,
  trackRow: number,
  timeline = timelineOf(rows, trackRow),
): void {
  const { doubles, ints } = rows;
  const now = doubles[at + Row.now]!;
  const marked = doubles[trackRow + TrackRow.positionTime]!;
  if (marked === now) return;
  doubles[trackRow + TrackRow.positionTime] = now;
  if (!runs(rows, trackRow)) return;
  const { ends, silent, length } = timeline;
  const place = 2 * trackRow + TrackRow.segment;
  let position =
    doubles[trackRow + TrackRow.position]! + (now - marked) * ints[2 * trackRow + TrackRow.rate]!;
  let segment = ints[place]!;
  // On a route it is decided at every border.
  const isWatched = isRouted(rows, trackRow);
  if (timeline.isSilent && position >= length && !isWatched) {
    // Whole passes at once. A silent clip loops, and has no intro: else its end would be noticed.
    position -= Math.floor(position / length) * length;
    doubles[trackRow + TrackRow.position] = position;
    ints[place] = segmentAt(timeline, doubles, trackRow + TrackRow.position);
    return;
  }
  while (position >= ends[segment]!) {
    const next = isWatched ? -1 : silent[segment]!;
    if (next < 0) break;
    if (next <= segment) position -= length;
    segment = next;
  }
  doubles[trackRow + TrackRow.position] = position;
  ints[place] = segment;
}

/** Whether a scrub sets the frame of a track row. */
export function followsNumber(rows: Rows, trackRow: number): boolean {
  const { state, bridge } = timelineOf(rows, trackRow);
  return state.scrub !== undefined && !bridge;
}

/**
 * Shows the frame that the scrub's number picks.
 *
 * @returns whether it is another frame than before
 */
export function scrub(rows: Rows, at: number, trackRow: number): boolean {
  const { ints } = rows;
  const before = ints[2 * trackRow + TrackRow.segment]!;
  placeByNumber(rows, at, trackRow);
  if (before === ints[2 * trackRow + TrackRow.segment]!) return false;
  reportCues(rows, at, trackRow);
  return true;
}

/** Moves to the place in the clip that the scrub's number means. */
export function placeByNumber(rows: Rows, at: number, trackRow: number): void {
  const { doubles, ints } = rows;
  const timeline = timelineOf(rows, trackRow);
  const { program, from, to } = timeline.state.scrub!;
  evaluate(rows, at, program);
  const part = (programValue[0]! - from) / (to - from);
  const place = Math.floor(Math.max(0, Math.min(1, part)) * timeline.length);
  doubles[trackRow + TrackRow.position] = Math.min(place, timeline.length - 1);
  ints[2 * trackRow + TrackRow.segment] = segmentAt(timeline, doubles, trackRow + TrackRow.position);
}

/** The most units that pass in a microsecond: 64 times as fast as drawn. */
const fastest = 64 * Units.perMicrosecond;

/** Reverses the direction in which a track row plays its clip. */
function turnBack({ doubles, ints, timelines }: Rows, trackRow: number): void {
  const number = 2 * trackRow + TrackRow.timeline;
  const { reverse, length, ends } = timelines[ints[number]!]!;
  ints[number] = reverse!.number;
  doubles[trackRow + TrackRow.position] = length - doubles[trackRow + TrackRow.position]!;
  const segment = 2 * trackRow + TrackRow.segment;
  ints[segment] = ends.length - 1 - ints[segment]!;
  ints[2 * trackRow + TrackRow.stateBits]! &= ~StateBit.ended;
}

/** How fast the expression of a state's rate says that time runs; below 0 backwards. */
function rateNow(rows: Rows, at: number, { length, clip, bridge }: Timeline, rate: Rate): number {
  evaluate(rows, at, rate.program);
  let value = programValue[0]!;
  // One pass covers the stride: rate = speed * duration of a pass / stride.
  const seconds = length / Units.perMicrosecond / 1e6;
  if (rate.travels) value = clip.stride === undefined ? 1 : (Math.abs(value) * seconds) / clip.stride;
  // What is played in between is played as it is, at any rate.
  if (bridge) value = Math.abs(value);
  return Math.round(Math.max(rate.least, Math.min(rate.most, value)) * Units.perMicrosecond);
}

/** Makes a clip that begins play in the direction of the state's rate. A clip that plays backwards begins at its end. */
export function pickWay(rows: Rows, at: number, trackRow: number): void {
  const timeline = timelineOf(rows, trackRow);
  const { reverse, state } = timeline;
  if (reverse !== undefined && rateNow(rows, at, timeline, state.rate!) < 0 !== timeline.isBackwards)
    rows.ints[2 * trackRow + TrackRow.timeline] = reverse.number;
}

/**
 * Reads the rate of the state that shows, from the present signals. The place must be up to date.
 *
 * @param mayTurn whether the clip may begin to play the other way. It may not before the new values are decided
 */
export function readRate(rows: Rows, at: number, trackRow: number, mayTurn = true): void {
  const { ints } = rows;
  const timeline = timelineOf(rows, trackRow);
  const { rate, inStep, scrub: frames, lasts } = timeline.state;
  const place = 2 * trackRow + TrackRow.rate;
  if (inStep >= 0 || (frames !== undefined && !timeline.bridge)) ints[place] = 0;
  else if (lasts?.fits === true && !timeline.bridge) {
    const { doubles, lengths } = rows;
    // One pass takes as long as the state; rounded down, so that no other pass begins before it is over.
    const time = doubles[trackRow + lengths]! - doubles[trackRow + TrackRow.entered]!;
    ints[place] = Math.max(1, Math.min(fastest, Math.floor(timeline.length / time)));
  } else if (rate === undefined) ints[place] = Units.perMicrosecond;
  else {
    const units = rateNow(rows, at, timeline, rate);
    // Standing still it stays turned as it was.
    if (mayTurn && units !== 0 && units < 0 !== timeline.isBackwards) {
      turnBack(rows, trackRow);
      // It may be at a border that is to be crossed now.
      ints[2 * at + Row.attention]! |= Attention.border;
    }
    ints[place] = Math.abs(units);
  }
}

/** The flipbook that shows, of those that share a slot: by gait and variants, from the present signals. */
export function flipbookOf(rows: Rows, at: number, { first, axes }: Slot): number {
  const { ints } = rows;
  const words = 2 * at + rows.words;
  let flipbook = first;
  for (const { conditions, isRising, step, pick } of axes) {
    if (pick >= 0) {
      flipbook += Math.max(0, ints[2 * at + rows.picks + 1 + pick]!);
      continue;
    }
    let count = 0;
    while (count < conditions.length && holds(conditions[count]!, ints, words) === isRising) count++;
    // Of variants it is the one that was found, after what shows without any.
    if (isRising) flipbook += count * step;
    else if (count < conditions.length) flipbook += (count + 1) * step;
  }
  return flipbook;
}

/**
 * Shows the same state in another direction, gait or variant, and keeps the phase.
 *
 * @param to the timeline that plays forwards. If the state plays backwards, it goes on doing so
 */
export function changeTimeline(rows: Rows, at: number, trackRow: number, to: Timeline): void {
  const before = timelineOf(rows, trackRow);
  const after = before.isBackwards ? to.reverse! : to;
  if (before.clip === after.clip) {
    rows.ints[2 * trackRow + TrackRow.timeline] = after.number;
    return;
  }
  advance(rows, at, trackRow);
  rows.ints[2 * trackRow + TrackRow.timeline] = after.number;
  keepPhase(rows, trackRow, before, after);
  // What has ended in a clip that is played once goes on in one that loops.
  if (after.loops) rows.ints[2 * trackRow + TrackRow.stateBits]! &= ~StateBit.ended;
  readRate(rows, at, trackRow);
}

/**
 * Keeps the phase from one timeline to another. A place at a border stays at a border, to the unit: else a cue there
 * would be reported twice or not at all.
 */
function keepPhase({ doubles, ints }: Rows, trackRow: number, before: Timeline, after: Timeline): void {
  const position = trackRow + TrackRow.position;
  const at = 2 * trackRow + TrackRow.segment;
  const place = doubles[position]!;
  const segment = ints[at]!;
  if (place >= before.length) {
    doubles[position] = after.length;
    ints[at] = after.ends.length - 1;
    return;
  }
  const ending = place >= before.ends[segment]!;
  const begins = segment === 0 ? 0 : before.ends[segment - 1]!;
  const scaled = Math.min(Math.floor(place * (after.length / before.length)), after.length - 1);
  if (ending || place - begins < Units.perMicrosecond) {
    doubles[position] = Math.min(scaled + Units.perMicrosecond, after.length - 1);
    const found = segmentAt(after, doubles, position);
    const start = found === 0 ? 0 : after.ends[found - 1]!;
    if (Math.abs(start - scaled) <= Units.perMicrosecond) {
      doubles[position] = start;
      ints[at] = ending && found > 0 ? found - 1 : found;
      return;
    }
  }
  doubles[position] = scaled;
  ints[at] = segmentAt(after, doubles, position);
}

/** The same from one state to another, of which either may play backwards. */
function carryPhase(rows: Rows, trackRow: number, before: Timeline, after: Timeline): void {
  const { ints } = rows;
  const number = 2 * trackRow + TrackRow.timeline;
  let from = before;
  if (before.isBackwards) {
    ints[number] = before.number;
    turnBack(rows, trackRow);
    from = before.reverse!;
  }
  const to = after.isBackwards ? after.reverse! : after;
  ints[number] = to.number;
  keepPhase(rows, trackRow, from, to);
  if (after.isBackwards) turnBack(rows, trackRow);
}

/**
 * Moves a state that is entered to its place in the clip.
 *
 * @param before what was left, whose place may be kept
 * @returns whether a segment begins, so that what happens at its beginning is due
 */
export function takePlace(
  rows: Rows,
  at: number,
  trackRow: number,
  before: Timeline,
  carry: CarryRule,
): boolean {
  const { doubles, ints } = rows;
  pickWay(rows, at, trackRow);
  const timeline = timelineOf(rows, trackRow);
  const position = trackRow + TrackRow.position;
  const place = 2 * trackRow + TrackRow.segment;
  if (carry === 'none') {
    ints[place] = 0;
    doubles[position] = 0;
    readRate(rows, at, trackRow);
    if (!followsNumber(rows, trackRow)) {
      reportCues(rows, at, trackRow);
      return true;
    }
  }
  // At its end a clip is at no phase, or again at its first: what follows begins at its beginning.
  const over = doubles[position]! >= before.length;
  const kept = over || before.bridge || timeline.bridge ? 'none' : carry;
  const told = kept === 'none' ? undefined : cuesTold(rows, trackRow, before, kept === 'frame');
  if (kept === 'phase') carryPhase(rows, trackRow, before, timeline);
  else {
    const frame =
      kept === 'none' ? 0 : Math.min(before.frames[ints[place]!]!, timeline.clip.frames.length - 1);
    ints[place] = kept === 'none' ? 0 : timeline.frames.indexOf(frame);
    doubles[position] = ints[place] === 0 ? 0 : timeline.ends[ints[place] - 1]!;
  }
  // A border that was about to be crossed is crossed by entering; backwards that may be the end.
  if (doubles[position]! >= timeline.length) doubles[position] = ints[place] = 0;
  else if (doubles[position]! >= timeline.ends[ints[place]!]!) ints[place]!++;
  readRate(rows, at, trackRow);
  if (followsNumber(rows, trackRow)) placeByNumber(rows, at, trackRow);
  const begins = ints[place] === 0 ? 0 : timeline.ends[ints[place]! - 1]!;
  if (doubles[position]! - begins >= Units.perMicrosecond) return false;
  reportCues(rows, at, trackRow, told);
  return true;
}
