import { Row, Strand } from '../controller/layout.js';
import { expirePulses } from './hear.js';
import { Moment, forgetMoments, forgetSwitches, forgetSeen, forgetStarts, notes } from './notes.js';
import { keptUntil, overAt } from './lengths.js';
import { advance, bookOf, followsNumber, pickWay, placeByNumber, readRate, scrub } from './play.js';
import { reportCues, tellCues } from './cues.js';
import { Attention, Mark, stateOf, timelineOf } from './rows.js';
import type { Rows } from './rows.js';
import { settleAll, settleOne } from './switch.js';
import { changeBook, commit } from './turn.js';

// What happens at one instant, in the order that `docs/model.md` gives under "Time".

/**
 * Everything that happens at the present instant: what expires, what was set, the frames that begin or end, the decisions.
 *
 * @param isDue whether it was waited for; else only something was set, and where that changes nothing nothing happens
 */
export function decideInstant(rows: Rows, at: number, isDue: boolean): void {
  try {
    decideAll(rows, at, isDue);
  } finally {
    forgetSeen();
  }
}

function decideAll(rows: Rows, at: number, isDue: boolean): void {
  if (rows.doubles[at + Row.timer]! <= rows.doubles[at + Row.now]!) expirePulses(rows, at);
  forgetStarts();
  const changed = commit(rows, at);
  if (isDue || isToBeSeen(rows, at)) passBorders(rows, at, changed);
  else if (!changed) return;
  else {
    forgetMoments(rows);
    settleAll(rows, at);
  }
  if (rows.hasLooks) followBooks(rows, at);
}

/** Whether something may happen although nothing is due: at the very first, and where a number says the frame. */
function isToBeSeen(rows: Rows, at: number): boolean {
  if ((rows.ints[2 * at + Row.attention]! & Attention.border) !== 0) return true;
  if (!rows.hasScrubs) return false;
  const end = at + rows.strandsEnd;
  for (let strand = at + Row.strands; strand < end; strand += rows.strandSize)
    if (stateOf(rows, strand).scrub !== undefined) return true;
  return false;
}

/** Goes over the borders of all strands, in the order of the document, and decides. @param isChanged whether anything else has changed */
function passBorders(rows: Rows, at: number, isChanged: boolean): void {
  const { doubles, ints } = rows;
  const { moments } = notes;
  const now = doubles[at + Row.now]!;
  const first = at + Row.strands;
  const end = at + rows.strandsEnd;
  let changed = isChanged;
  forgetSwitches();
  ints[2 * at + Row.attention]! &= ~Attention.border;
  for (let strand = first, track = 0; strand < end; strand += rows.strandSize, track++) {
    const timeline = timelineOf(rows, strand);
    advance(rows, at, strand, timeline);
    const marks = 2 * strand + Strand.marks;
    if ((ints[marks]! & Mark.begun) === 0) {
      ints[marks]! |= Mark.begun;
      reportCues(rows, at, strand);
      changed = true;
    }
    const { of: state } = timeline;
    const { scrub: frames } = state;
    if (state.atLeast > 0 && keptUntil(rows, strand, state) === now) changed = true;
    if (overAt(rows, strand, state) === now) changed = true;
    const isInside = doubles[strand + Strand.position]! < timeline.ends[ints[2 * strand + Strand.segment]!]!;
    moments[track] = isInside && frames === undefined ? Moment.nothing : crossBorders(rows, at, strand);
    if (moments[track] !== Moment.nothing) changed = true;
  }
  // Where neither a bit nor a frame has changed, the last decision still stands.
  if (changed || notes.anySwitch) settleAll(rows, at);
}

/** Shows the gaits and variants that signals pick. Another clip may open hops and yields, so it is decided anew after that. */
function followBooks(rows: Rows, at: number): void {
  const end = at + rows.strandsEnd;
  forgetMoments(rows);
  let isChanged = false;
  for (let strand = at + Row.strands, track = 0; strand < end; strand += rows.strandSize, track++) {
    if (!changeBook(rows, at, strand)) continue;
    // What has ended goes on at once in a clip that loops, also while its rate is 0.
    notes.moments[track] = crossBorders(rows, at, strand);
    isChanged = true;
  }
  if (isChanged) settleAll(rows, at);
}

/** Goes over the borders of a strand that lie at or before its place. @returns what of the clip happened last */
function crossBorders(rows: Rows, at: number, strand: number): number {
  const { doubles, ints } = rows;
  const position = strand + Strand.position;
  const place = 2 * strand + Strand.segment;
  const marks = 2 * strand + Strand.marks;
  let moment: number = Moment.nothing;
  for (;;) {
    const timeline = timelineOf(rows, strand);
    if (followsNumber(rows, strand)) return scrub(rows, at, strand) ? Moment.begins : moment;
    const segment = ints[place]!;
    if ((ints[marks]! & Mark.ended) !== 0 || doubles[position]! < timeline.ends[segment]!) return moment;
    if (moment !== Moment.nothing && settleOne(rows, at, strand, moment)) {
      moment = Moment.nothing;
      continue;
    }
    const isLast = segment + 1 === timeline.ends.length;
    if (isLast && timeline.bridge) crossBridge(rows, at, strand);
    else if (isLast && !timeline.loops) {
      doubles[position] = timeline.length;
      ints[marks]! |= Mark.ended;
      return Moment.ends;
    } else {
      // What is to be decided at an end comes before the next frame: a hop taken there must not let it begin.
      const decides = isLast || timeline.hopsAfter[segment]!.length > 0 || timeline.leavesAfter[segment]!;
      if (decides && settleOne(rows, at, strand, Moment.ends)) {
        moment = Moment.nothing;
        continue;
      }
      if (isLast) doubles[position]! -= timeline.length - timeline.loopStart;
      ints[place] = isLast ? timeline.loopFrom : segment + 1;
    }
    reportCues(rows, at, strand);
    moment = Moment.begins;
  }
}

/** The state's own clip begins after its bridge. */
function crossBridge(rows: Rows, at: number, strand: number): void {
  const { doubles, ints } = rows;
  const timeline = timelineOf(rows, strand);
  const { of: state } = timeline;
  doubles[strand + Strand.position]! -= timeline.length;
  const book = bookOf(rows, at, state.slots[0]!);
  ints[2 * strand + Strand.timeline] = state.books[book]![timeline.direction]!.number;
  ints[2 * strand + Strand.segment] = 0;
  pickWay(rows, at, strand);
  readRate(rows, at, strand);
  if (followsNumber(rows, strand)) placeByNumber(rows, at, strand);
}

/**
 * Passes borders at which only cues are told, where that is all that happens at the present instant. Most instants are such.
 *
 * @returns whether that was all; if not, what is left to be done is for {@link decideInstant}
 */
export function passQuietly(rows: Rows, at: number): boolean {
  const { doubles, ints, strandSize } = rows;
  if (doubles[at + Row.timer]! <= doubles[at + Row.now]!) return false;
  const end = at + rows.strandsEnd;
  // In the order of the document, as whatever is to be decided would be.
  for (let strand = at + Row.strands; strand < end; strand += strandSize) {
    const marks = ints[2 * strand + Strand.marks]!;
    if ((marks & Mark.begun) === 0 || ints[2 * strand + Strand.goal]! >= 0) return false;
    const timeline = timelineOf(rows, strand);
    advance(rows, at, strand, timeline);
    if (ints[2 * strand + Strand.rate] === 0 || (marks & Mark.ended) !== 0) continue;
    const segment = ints[2 * strand + Strand.segment]!;
    const position = doubles[strand + Strand.position]!;
    if (position < timeline.ends[segment]!) continue;
    const next = timeline.quiet[segment]!;
    if (next < 0) return false;
    if (next <= segment)
      doubles[strand + Strand.position] = position - (timeline.length - timeline.loopStart);
    ints[2 * strand + Strand.segment] = next;
    tellCues(rows, at, timeline.of.track, timeline.cues[next]!);
  }
  return true;
}
