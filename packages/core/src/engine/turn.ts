import { apart, neighbourTowards } from '../compass/compass.js';
import type { State } from '../controller/controller.js';
import { Row, Strand } from '../controller/layout.js';
import type { Situation } from '../controller/situations.js';
import { mostWatchedBits } from '../controller/situations.js';
import { setTimer } from './hear.js';
import { notes } from './notes.js';
import { advance, bookOf, changeTimeline, readRate, takePlace } from './play.js';
import { readSignals } from './read.js';
import { Mark, report, situationOf, timelineOf, towardOf } from './rows.js';
import type { Rows } from './rows.js';

// What was set counts: the situation is found anew, characters turn, rates follow.

/**
 * Takes over what was set, and notes which `when` has thereby become true.
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
  const end = at + rows.strandsEnd;
  for (let strand = at + Row.strands; strand < end; strand += rows.strandSize)
    if (isMoved(rows, strand) && followCompass(rows, at, strand)) changed = true;
  return changed;
}

function noteStarts({ watched }: Rows, before: Situation, after: Situation): void {
  for (const { state, when } of watched) {
    if (before.holds(when) || !after.holds(when)) continue;
    notes.starts[state] = 1;
    notes.anyStarts = true;
  }
}

/** Whether a strand may have to turn, or to run at another rate. */
function isMoved(rows: Rows, strand: number): boolean {
  const { of: state, direction } = timelineOf(rows, strand);
  return (
    state.rate !== undefined || rows.turnTimer >= 0 || (!state.held && towardOf(rows, strand) !== direction)
  );
}

/** Turns the state that shows, and has its rate follow, for signals as they are now. @returns whether it turned */
function followCompass(rows: Rows, at: number, strand: number): boolean {
  const { turnTimer } = rows;
  const timeline = timelineOf(rows, strand);
  const { of: state } = timeline;
  if (turnTimer >= 0) endTurn(rows, at, turnTimer + state.track);
  const turned =
    !state.held && towardOf(rows, strand) !== timeline.direction && turn(rows, at, strand, state);
  if (state.rate !== undefined) {
    advance(rows, at, strand);
    readRate(rows, at, strand);
  }
  return turned;
}

/** A direction has been shown long enough: the next may follow. */
function endTurn({ doubles, timers }: Rows, at: number, timer: number): void {
  const place = at + timers + timer;
  if (doubles[place]! <= doubles[at + Row.now]!) doubles[place] = Infinity;
}

/**
 * The direction to show now in a state: where the compass points, or a step on the way there where turning takes its time.
 * A turn that the state has a clip for needs no steps.
 */
export function directionNow(rows: Rows, at: number, strand: number, state: State): number {
  const { doubles, controller } = rows;
  const { compass, turnTimer } = controller;
  const { direction, of } = timelineOf(rows, strand);
  const toward = towardOf(rows, strand);
  if (turnTimer < 0 || toward === direction || isWide(rows, strand, state)) return toward;
  const timer = turnTimer + of.track;
  if (doubles[at + rows.timers + timer] !== Infinity) return direction;
  setTimer(rows, at, timer, compass.through);
  return neighbourTowards(compass, direction, toward);
}

/** Whether the compass points so far off that a state has a clip for the turn. */
function isWide(rows: Rows, strand: number, { turns }: State): boolean {
  if (turns === undefined) return false;
  const { degrees } = rows.controller.compass;
  const { direction } = timelineOf(rows, strand);
  return apart(degrees[direction]!, degrees[towardOf(rows, strand)]!) >= turns.least;
}

/** Turns in the state that shows. @returns whether it did */
function turn(rows: Rows, at: number, strand: number, state: State): boolean {
  const { ints } = rows;
  const timeline = timelineOf(rows, strand);
  const toward = towardOf(rows, strand);
  if (!timeline.bridge && isWide(rows, strand, state)) {
    report(rows, at, state.track, 2, timeline.direction, toward, 0);
    advance(rows, at, strand);
    ints[2 * strand + Strand.marks]! &= ~Mark.ended;
    ints[2 * strand + Strand.timeline] =
      state.books[bookOf(rows, at, state.slots[state.turns!.slot]!)]![toward]!.number;
    takePlace(rows, at, strand, timeline, 'none');
    return true;
  }
  const direction = directionNow(rows, at, strand, state);
  if (direction === timeline.direction) return false;
  report(rows, at, state.track, 2, timeline.direction, direction, 0);
  changeTimeline(rows, at, strand, state.books[timeline.book]![direction]!);
  return true;
}

/**
 * Shows the gait and the variant that signals pick, if the state has stayed: what is left is left in the gait it showed.
 *
 * @returns whether another flipbook shows than before
 */
export function changeBook(rows: Rows, at: number, strand: number): boolean {
  const timeline = timelineOf(rows, strand);
  const { of: state } = timeline;
  const slot = state.slots[state.slotOf[timeline.book]!]!;
  if (slot.axes.length === 0) return false;
  const book = bookOf(rows, at, slot);
  if (book === timeline.book) return false;
  const names = rows.controller.reportNames;
  const [before, after] = [state.bookNames[timeline.book]!, state.bookNames[book]!];
  if (before === after) {
    const same = state.books[book]![timeline.direction]!;
    rows.ints[2 * strand + Strand.timeline] = (timeline.isBackwards ? same.reverse! : same).number;
    return false;
  }
  report(rows, at, state.track, 3, names.bookIndex(before), names.bookIndex(after), 0);
  changeTimeline(rows, at, strand, state.books[book]![timeline.direction]!);
  return true;
}
