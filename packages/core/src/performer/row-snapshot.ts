import { Row, TrackRow } from '../controller/layout.js';
import { findFirstStates, wouldSwitch } from '../engine/begin.js';
import { phaseOf, signalValue } from '../engine/inspect.js';
import { beginLengths } from '../engine/lengths.js';
import { paceOf, paceRemainderOf, setPace } from '../engine/pace.js';
import { findDue, findTimer } from '../engine/pass.js';
import { readRate } from '../engine/play.js';
import { readSignals } from '../engine/read.js';
import {
  catchUp,
  Attention,
  StateBit,
  findSituation,
  setTargetDirection,
  situationOf,
  trackRowAt,
  timelineOf,
  targetDirectionOf,
} from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';
import { placeOf } from '../signal/program.js';
import { readSnapshot, writeSnapshot } from './snapshot.js';
import type { PerformerSnapshot, DecodedSnapshot, DecodedTrack } from './snapshot-data.js';

// Where a row stands, as data with names, and back.

export function snapshotOf(rows: Rows, at: number): PerformerSnapshot {
  const { controller, doubles, ints } = rows;
  const { layout, tables, tracks } = controller;
  catchUp(rows, at);
  const words = (from: number): Int32Array => ints.slice(2 * at + from, 2 * at + from + tables.words);
  const timers = at + layout.timers;
  const still: DecodedSnapshot = {
    time: doubles[at + Row.now]!,
    set: words(layout.set),
    words: words(layout.words),
    values: tables.regions.map((_, slot) => doubles[at + layout.values + placeOf(slot)]!),
    timers: [...doubles.subarray(timers, timers + tables.timers)],
    tracks: tracks.map(({ index }) => decodedTrackOf(rows, at, index)),
    changed: (ints[2 * at + Row.attention]! & (Attention.decide | Attention.read)) !== 0,
    pace: paceOf(rows, at),
    paceRest: paceRemainderOf(rows, at),
    seed: layout.picks < 0 ? 1 : ints[2 * at + layout.picks]! >>> 0,
    picks: varieties(controller).map((one) => ints[2 * at + layout.picks + 1 + one]!),
  };
  return writeSnapshot(controller, still, (signal) => signalValue(rows, at, signal));
}

/** The numbers of the varieties of a controller. */
const varieties = ({ states, cueVarieties }: Rows['controller']): number[] =>
  [...states.map(({ variety }) => variety), ...cueVarieties]
    .flatMap((one) => one?.index ?? [])
    .sort((a, b) => a - b);

/** The hops that a track row remembers, by index. */
export function rememberedBy(rows: Rows, trackRow: number): number[] {
  const { ints } = rows;
  return timelineOf(rows, trackRow).state.hops.flatMap(({ memory }, hop) =>
    memory >= 0 && (ints[2 * trackRow + TrackRow.words + (memory >> 5)]! & (1 << (memory & 31))) !== 0
      ? [hop]
      : [],
  );
}

/** The words of the pulses that were used for the latest switch of a track row. */
export function usedBy({ ints, controller }: Rows, trackRow: number): Int32Array {
  const first = 2 * trackRow + TrackRow.words + controller.layout.memories;
  return ints.slice(first, first + controller.tables.words);
}

function decodedTrackOf(rows: Rows, at: number, track: number): DecodedTrack {
  const { doubles, ints } = rows;
  const trackRow = trackRowAt(rows, at, track);
  // Brings its place up to now.
  phaseOf(rows, at, trackRow);
  const { stateIndex, flipbook, direction, state, isBackwards } = timelineOf(rows, trackRow);
  const last = ints[2 * trackRow + TrackRow.lastSwitch]!;
  return {
    state: stateIndex,
    entered: doubles[trackRow + TrackRow.entered]!,
    flipbook,
    direction,
    targetDirection: targetDirectionOf(rows, trackRow),
    place: doubles[trackRow + TrackRow.position]!,
    segment: ints[2 * trackRow + TrackRow.segment]!,
    stateBits: ints[2 * trackRow + TrackRow.stateBits]! & StateBit.all,
    backwards: isBackwards,
    remembered: rememberedBy(rows, trackRow),
    goal: ints[2 * trackRow + TrackRow.goal]!,
    from: (last >> 4) - 1,
    rule: last & 15,
    used: usedBy(rows, trackRow),
    over: state.lasts === undefined ? undefined : doubles[trackRow + rows.lengths]!,
    kept: state.keeps === undefined ? undefined : doubles[trackRow + rows.lengths + 1]!,
  };
}

/**
 * Goes back to where a snapshot was taken.
 *
 * @param adopt whether it may be of another version of the document: then names are found as far as they are there, and what is not
 *   there begins again
 * @throws {DotHopError} when it is no snapshot, or of another version; nothing is changed then
 */
export function restoreRow(rows: Rows, at: number, snapshot: PerformerSnapshot, adopt: boolean): void {
  const still = readSnapshot(rows.controller, snapshot, adopt);
  stand(rows, at, still);
  if (!adopt) return;
  readSignals(rows, at, situationOf(rows, at));
  decideAnew(rows, at);
  if (still.unknown.length === 0) return;
  for (const track of still.unknown) {
    const trackRow = trackRowAt(rows, at, track);
    rows.ints[2 * trackRow + TrackRow.segment] = 0;
    rows.ints[2 * trackRow + TrackRow.stateBits]! &= ~StateBit.all;
    rows.doubles[trackRow + TrackRow.position] = 0;
  }
  findFirstStates(rows, at, still.unknown);
}

/** Makes the next step decide, although nothing was set since. */
function decideAnew(rows: Rows, at: number): void {
  rows.ints[2 * at + Row.attention]! |= Attention.decide | Attention.read | Attention.border;
  for (const { index } of rows.controller.tracks)
    rows.ints[2 * trackRowAt(rows, at, index) + TrackRow.stateBits]! |= StateBit.undecided;
}

function stand(rows: Rows, at: number, still: DecodedSnapshot): void {
  const { doubles, ints, controller } = rows;
  const { layout } = controller;
  rows.clear(at);
  setPace(rows, at, still.pace, still.paceRest);
  still.values.forEach((value, slot) => (doubles[at + layout.values + placeOf(slot)] = value));
  still.timers.forEach((instant, timer) => (doubles[at + layout.timers + timer] = instant));
  if (layout.picks >= 0) {
    ints[2 * at + layout.picks] = still.seed;
    ints.set(still.picks, 2 * at + layout.picks + 1);
  }
  doubles[at + Row.now] = still.time;
  doubles[at + Row.due] = still.time;
  still.tracks.forEach((saved, track) => standIn(rows, at, track, saved, still.time));
  ints.set(still.set, 2 * at + layout.set);
  ints.set(still.words, 2 * at + layout.words);
  const before = findSituation(rows, at);
  still.tracks.forEach((saved, track) => {
    const trackRow = trackRowAt(rows, at, track);
    const { state } = timelineOf(rows, trackRow);
    // What the snapshot does not say, such as one of another version, begins now.
    beginLengths(rows, at, trackRow, state);
    if (state.lasts !== undefined && saved.over !== undefined)
      doubles[trackRow + layout.lengths] = saved.over;
    if (state.keeps !== undefined && saved.kept !== undefined)
      doubles[trackRow + layout.lengths + 1] = saved.kept;
  });
  doubles[at + Row.timer] = still.time;
  findTimer(rows, at);
  for (const { index } of controller.tracks) readRate(rows, at, trackRowAt(rows, at, index), false);
  if (still.changed) return;
  // Nothing is waiting to be decided: reading finds the intervals and changes no bit. Where it does, or where what shows
  // would give way, the snapshot was changed by hand: then the next step decides.
  if (readSignals(rows, at, before) !== before || wouldSwitch(rows, at)) decideAnew(rows, at);
  else findDue(rows, at);
}

function standIn(rows: Rows, at: number, track: number, saved: DecodedTrack, time: number): void {
  const { doubles, ints, controller } = rows;
  const trackRow = trackRowAt(rows, at, track);
  const state = controller.states[saved.state]!;
  doubles[trackRow + TrackRow.positionTime] = time;
  doubles[trackRow + TrackRow.entered] = saved.entered;
  doubles[trackRow + TrackRow.position] = saved.place;
  const forwards = state.flipbooks[saved.flipbook]![saved.direction]!;
  ints[2 * trackRow + TrackRow.timeline] = (saved.backwards ? forwards.reverse! : forwards).number;
  ints[2 * trackRow + TrackRow.segment] = saved.segment;
  ints[2 * trackRow + TrackRow.stateBits] = saved.stateBits;
  setTargetDirection(rows, trackRow, saved.targetDirection);
  ints[2 * trackRow + TrackRow.lastSwitch] = ((saved.from + 1) << 4) | saved.rule;
  ints[2 * trackRow + TrackRow.goal] = saved.goal;
  const words = 2 * trackRow + TrackRow.words;
  for (const hop of saved.remembered) {
    const { memory } = state.hops[hop]!;
    ints[words + (memory >> 5)]! |= 1 << (memory & 31);
  }
  ints.set(saved.used, words + controller.layout.memories);
}
