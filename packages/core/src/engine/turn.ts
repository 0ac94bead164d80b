import { apart, neighbourTowards } from '../compass/compass.js';
import type { State } from '../controller/state.js';
import { Row, TrackRow } from '../controller/layout.js';
import type { Situation } from '../controller/situations.js';
import { mostWatchedBits } from '../controller/situations.js';
import { setTimer } from './write-signals.js';
import { notes } from './notes.js';
import { advance, flipbookOf, changeTimeline, readRate, takePlace } from './play.js';
import { readSignals } from './read.js';
import { StateBit, report, situationOf, timelineOf, targetDirectionOf } from './rows.js';
import type { Rows } from './rows.js';

// What was set counts: the situation is found again, characters turn, rates follow.

/**
 * Makes new values count, and notes each `when` that has just become true.
 *
 * @returns whether the situation or a direction has changed
 */
export function commit(rows: Rows, at: number): boolean {
  const watched = rows.watched.length;
  const before = situationOf(rows, at);
  const after = readSignals(rows, at, before);
  let changed = before !== after;
  if (changed && watched > 0)
    if ((after.watched & ~before.watched) !== 0 || watched > mostWatchedBits) noteStarts(rows, before, after);
  const end = at + rows.trackRowsEnd;
  for (let trackRow = at + Row.trackRows; trackRow < end; trackRow += rows.trackRowSize)
    if (isMoved(rows, trackRow) && followCompass(rows, at, trackRow)) changed = true;
  return changed;
}

function noteStarts({ watched }: Rows, before: Situation, after: Situation): void {
  for (const { state, when } of watched) {
    if (before.holds(when) || !after.holds(when)) continue;
    notes.starts[state] = 1;
    notes.anyStarts = true;
  }
}

/** Whether a track row may have to turn, or to run at another rate. */
function isMoved(rows: Rows, trackRow: number): boolean {
  const { state, direction } = timelineOf(rows, trackRow);
  return (
    state.rate !== undefined ||
    rows.turnTimer >= 0 ||
    (!state.held && targetDirectionOf(rows, trackRow) !== direction)
  );
}

/** Turns the state that shows, and has its rate follow, for signals as they are now. @returns whether it turned */
function followCompass(rows: Rows, at: number, trackRow: number): boolean {
  const { turnTimer } = rows;
  const timeline = timelineOf(rows, trackRow);
  const { state } = timeline;
  if (turnTimer >= 0) endTurn(rows, at, turnTimer + state.track);
  const turned =
    !state.held &&
    targetDirectionOf(rows, trackRow) !== timeline.direction &&
    turn(rows, at, trackRow, state);
  if (state.rate !== undefined) {
    advance(rows, at, trackRow);
    readRate(rows, at, trackRow);
  }
  return turned;
}

/** A direction has been shown long enough: the next may follow. */
function endTurn({ doubles, timers }: Rows, at: number, timer: number): void {
  const place = at + timers + timer;
  if (doubles[place]! <= doubles[at + Row.now]!) doubles[place] = Infinity;
}

/**
 * The direction in which to show a state now: where the compass points, or a step on the way there if turning takes time. A turn for which
 * the state has a clip needs no steps.
 */
export function directionNow(rows: Rows, at: number, trackRow: number, state: State): number {
  const { doubles, controller } = rows;
  const { compass, turnTimer } = controller;
  const { direction, state: of } = timelineOf(rows, trackRow);
  const target = targetDirectionOf(rows, trackRow);
  if (turnTimer < 0 || target === direction || isWide(rows, trackRow, state)) return target;
  const timer = turnTimer + of.track;
  if (doubles[at + rows.timers + timer] !== Infinity) return direction;
  setTimer(rows, at, timer, compass.through);
  return neighbourTowards(compass, direction, target);
}

/** Whether the compass points so far off that a state has a clip for the turn. */
function isWide(rows: Rows, trackRow: number, { turns }: State): boolean {
  if (turns === undefined) return false;
  const { degrees } = rows.controller.compass;
  const { direction } = timelineOf(rows, trackRow);
  return apart(degrees[direction]!, degrees[targetDirectionOf(rows, trackRow)]!) >= turns.least;
}

/** Turns in the state that shows. @returns whether it did */
function turn(rows: Rows, at: number, trackRow: number, state: State): boolean {
  const { ints } = rows;
  const timeline = timelineOf(rows, trackRow);
  const target = targetDirectionOf(rows, trackRow);
  if (!timeline.bridge && isWide(rows, trackRow, state)) {
    report(rows, at, state.track, 2, timeline.direction, target, 0);
    advance(rows, at, trackRow);
    ints[2 * trackRow + TrackRow.stateBits]! &= ~StateBit.ended;
    ints[2 * trackRow + TrackRow.timeline] =
      state.flipbooks[flipbookOf(rows, at, state.slots[state.turns!.slot]!)]![target]!.number;
    takePlace(rows, at, trackRow, timeline, 'none');
    return true;
  }
  const direction = directionNow(rows, at, trackRow, state);
  if (direction === timeline.direction) return false;
  report(rows, at, state.track, 2, timeline.direction, direction, 0);
  changeTimeline(rows, at, trackRow, state.flipbooks[timeline.flipbook]![direction]!);
  return true;
}

/**
 * Shows the gait and the variant that signals pick, if the state has stayed. (A state that is left keeps the gait it showed, because
 * bridges go by that gait.)
 *
 * @returns whether another flipbook shows than before
 */
export function changeFlipbook(rows: Rows, at: number, trackRow: number): boolean {
  const timeline = timelineOf(rows, trackRow);
  const { state } = timeline;
  const slot = state.slots[state.slotOf[timeline.flipbook]!]!;
  if (slot.axes.length === 0) return false;
  const flipbook = flipbookOf(rows, at, slot);
  if (flipbook === timeline.flipbook) return false;
  const names = rows.controller.reportNames;
  const [before, after] = [state.flipbookNames[timeline.flipbook]!, state.flipbookNames[flipbook]!];
  if (before === after) {
    const same = state.flipbooks[flipbook]![timeline.direction]!;
    rows.ints[2 * trackRow + TrackRow.timeline] = (timeline.isBackwards ? same.reverse! : same).number;
    return false;
  }
  report(rows, at, state.track, 3, names.flipbookIndex(before), names.flipbookIndex(after), 0);
  changeTimeline(rows, at, trackRow, state.flipbooks[flipbook]![timeline.direction]!);
  return true;
}
