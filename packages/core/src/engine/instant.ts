import { Row, TrackRow } from '../controller/layout.js';
import { expirePulses } from './write-signals.js';
import { ClipEvent, clearClipEvents, clearSwitches, clearSharedPulses, clearStarts, notes } from './notes.js';
import { endsLengthNow } from './lengths.js';
import { advance, flipbookOf, followsNumber, pickWay, placeByNumber, readRate, scrub } from './play.js';
import { reportCues, tellCues } from './cues.js';
import { Attention, StateBit, stateOf, timelineOf } from './rows.js';
import type { Rows } from './rows.js';
import { switchAll, switchOne } from './switch.js';
import { changeFlipbook, commit } from './turn.js';

// What happens at one instant, in the order that `docs/model.md` gives under "Time".

/**
 * Does everything that happens at the present instant: pulses expire, new values count, frames end and begin, states are decided.
 *
 * @param isDue whether something was due now. If not, only values were set, and nothing happens unless they change something
 */
export function decideInstant(rows: Rows, at: number, isDue: boolean): void {
  try {
    decideAll(rows, at, isDue);
  } finally {
    clearSharedPulses();
  }
}

function decideAll(rows: Rows, at: number, isDue: boolean): void {
  if (rows.doubles[at + Row.timer]! <= rows.doubles[at + Row.now]!) expirePulses(rows, at);
  clearStarts();
  const changed = commit(rows, at);
  if (isDue || isToBeSeen(rows, at)) passBorders(rows, at, changed);
  else if (!changed) return;
  else {
    clearClipEvents(rows);
    switchAll(rows, at);
  }
  if (rows.hasFlipbookChoices) followFlipbooks(rows, at);
}

/** Whether something may happen although nothing is due: at the very first, and where a number says the frame. */
function isToBeSeen(rows: Rows, at: number): boolean {
  if ((rows.ints[2 * at + Row.attention]! & Attention.border) !== 0) return true;
  if (!rows.hasScrubs) return false;
  const end = at + rows.trackRowsEnd;
  for (let trackRow = at + Row.trackRows; trackRow < end; trackRow += rows.trackRowSize)
    if (stateOf(rows, trackRow).scrub !== undefined) return true;
  return false;
}

/** Goes over the borders of all track rows, in the order of the document, and decides. @param isChanged whether anything else has changed */
function passBorders(rows: Rows, at: number, isChanged: boolean): void {
  const { doubles, ints } = rows;
  const { clipEvents } = notes;
  const first = at + Row.trackRows;
  const end = at + rows.trackRowsEnd;
  let changed = isChanged;
  clearSwitches();
  ints[2 * at + Row.attention]! &= ~Attention.border;
  for (let trackRow = first, track = 0; trackRow < end; trackRow += rows.trackRowSize, track++) {
    const timeline = timelineOf(rows, trackRow);
    advance(rows, at, trackRow, timeline);
    const stateBits = 2 * trackRow + TrackRow.stateBits;
    const bits = ints[stateBits]!;
    if ((bits & (StateBit.begun | StateBit.undecided)) !== StateBit.begun) {
      ints[stateBits] = (bits | StateBit.begun) & ~StateBit.undecided;
      if ((bits & StateBit.begun) === 0) reportCues(rows, at, trackRow);
      changed = true;
    }
    const { state } = timeline;
    const { scrub: frames } = state;
    if (endsLengthNow(rows, at, trackRow, state)) changed = true;
    const isInside =
      doubles[trackRow + TrackRow.position]! < timeline.ends[ints[2 * trackRow + TrackRow.segment]!]!;
    clipEvents[track] =
      isInside && frames === undefined ? ClipEvent.nothing : crossBorders(rows, at, trackRow);
    if (clipEvents[track] !== ClipEvent.nothing) changed = true;
  }
  // Where neither a bit nor a frame has changed, the last decision still stands.
  if (changed || notes.anySwitch) switchAll(rows, at);
}

/** Shows the gaits and variants that signals pick. Another clip may open hops and yields, so it is decided again after that. */
function followFlipbooks(rows: Rows, at: number): void {
  const end = at + rows.trackRowsEnd;
  clearClipEvents(rows);
  let isChanged = false;
  for (let trackRow = at + Row.trackRows, track = 0; trackRow < end; trackRow += rows.trackRowSize, track++) {
    if (!changeFlipbook(rows, at, trackRow)) continue;
    // What has ended goes on at once in a clip that loops, also while its rate is 0.
    notes.clipEvents[track] = crossBorders(rows, at, trackRow);
    isChanged = true;
  }
  if (isChanged) switchAll(rows, at);
}

/** Goes over the borders of a track row that lie at or before its place. @returns what of the clip happened last */
function crossBorders(rows: Rows, at: number, trackRow: number): number {
  const { doubles, ints } = rows;
  const position = trackRow + TrackRow.position;
  const place = 2 * trackRow + TrackRow.segment;
  const stateBits = 2 * trackRow + TrackRow.stateBits;
  let clipEvent: number = ClipEvent.nothing;
  for (;;) {
    const timeline = timelineOf(rows, trackRow);
    if (followsNumber(rows, trackRow)) return scrub(rows, at, trackRow) ? ClipEvent.begins : clipEvent;
    const segment = ints[place]!;
    if ((ints[stateBits]! & StateBit.ended) !== 0 || doubles[position]! < timeline.ends[segment]!)
      return clipEvent;
    if (clipEvent !== ClipEvent.nothing && switchOne(rows, at, trackRow, clipEvent)) {
      clipEvent = ClipEvent.nothing;
      continue;
    }
    const isLast = segment + 1 === timeline.ends.length;
    if (isLast && timeline.bridge) crossBridge(rows, at, trackRow);
    else if (isLast && !timeline.loops) {
      doubles[position] = timeline.length;
      ints[stateBits]! |= StateBit.ended;
      return ClipEvent.ends;
    } else {
      // What is to be decided at an end comes before the next frame: a hop taken there must not let it begin.
      const decides = isLast || timeline.hopsAfter[segment]!.length > 0 || timeline.leavesAfter[segment]!;
      if (decides && switchOne(rows, at, trackRow, ClipEvent.ends)) {
        clipEvent = ClipEvent.nothing;
        continue;
      }
      if (isLast) doubles[position]! -= timeline.length - timeline.loopStart;
      ints[place] = isLast ? timeline.loopFrom : segment + 1;
    }
    reportCues(rows, at, trackRow);
    clipEvent = ClipEvent.begins;
  }
}

/** The state's own clip begins after its bridge. */
function crossBridge(rows: Rows, at: number, trackRow: number): void {
  const { doubles, ints } = rows;
  const timeline = timelineOf(rows, trackRow);
  const { state } = timeline;
  doubles[trackRow + TrackRow.position]! -= timeline.length;
  const flipbook = flipbookOf(rows, at, state.slots[0]!);
  ints[2 * trackRow + TrackRow.timeline] = state.flipbooks[flipbook]![timeline.direction]!.number;
  ints[2 * trackRow + TrackRow.segment] = 0;
  pickWay(rows, at, trackRow);
  readRate(rows, at, trackRow);
  if (followsNumber(rows, trackRow)) placeByNumber(rows, at, trackRow);
}

/**
 * Crosses frame borders at which only cues are told, if nothing else happens at the present instant. Most instants are like that.
 *
 * @returns whether that was all. If not, {@link decideInstant} must do the rest
 */
export function passQuietly(rows: Rows, at: number): boolean {
  const { doubles, ints, trackRowSize } = rows;
  if (doubles[at + Row.timer]! <= doubles[at + Row.now]!) return false;
  const end = at + rows.trackRowsEnd;
  // In the order of the document, as whatever is to be decided would be.
  for (let trackRow = at + Row.trackRows; trackRow < end; trackRow += trackRowSize) {
    const stateBits = ints[2 * trackRow + TrackRow.stateBits]!;
    if ((stateBits & StateBit.begun) === 0 || ints[2 * trackRow + TrackRow.goal]! >= 0) return false;
    const timeline = timelineOf(rows, trackRow);
    advance(rows, at, trackRow, timeline);
    if (ints[2 * trackRow + TrackRow.rate] === 0 || (stateBits & StateBit.ended) !== 0) continue;
    const segment = ints[2 * trackRow + TrackRow.segment]!;
    const position = doubles[trackRow + TrackRow.position]!;
    if (position < timeline.ends[segment]!) continue;
    const next = timeline.quiet[segment]!;
    if (next < 0) return false;
    // What goes round quietly has no intro.
    if (next <= segment) doubles[trackRow + TrackRow.position] = position - timeline.length;
    ints[2 * trackRow + TrackRow.segment] = next;
    tellCues(rows, at, timeline.state.track, timeline.cues[next]!);
  }
  return true;
}
