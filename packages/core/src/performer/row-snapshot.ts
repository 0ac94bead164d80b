import { Row, Strand as Place } from '../controller/layout.js';
import { findFirstStates, wouldSwitch } from '../engine/begin.js';
import { phaseOf, signalValue } from '../engine/inspect.js';
import { beginLengths, keptUntil, overAt } from '../engine/lengths.js';
import { paceOf, restOf, setPace } from '../engine/pace.js';
import { findDue, findTimer } from '../engine/pass.js';
import { readRate } from '../engine/play.js';
import { readSignals } from '../engine/read.js';
import {
  catchUp,
  Attention,
  Mark,
  findSituation,
  pointStrand,
  situationOf,
  strandAt,
  timelineOf,
  towardOf,
} from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';
import { placeOf } from '../signal/program.js';
import { readSnapshot, writeSnapshot } from './snapshot.js';
import type { PerformerSnapshot, Standstill, Strand } from './snapshot.js';

// Where a row stands, as data with names, and back.

export function snapshotOf(rows: Rows, at: number): PerformerSnapshot {
  const { controller, doubles, ints } = rows;
  const { layout, tables, tracks } = controller;
  catchUp(rows, at);
  const words = (from: number): Int32Array => ints.slice(2 * at + from, 2 * at + from + tables.words);
  const timers = at + layout.timers;
  const still: Standstill = {
    time: doubles[at + Row.now]!,
    set: words(layout.set),
    words: words(layout.words),
    values: tables.regions.map((_, slot) => doubles[at + layout.values + placeOf(slot)]!),
    timers: [...doubles.subarray(timers, timers + tables.timers)],
    strands: tracks.map(({ index }) => strandOf(rows, at, index)),
    changed: (ints[2 * at + Row.attention]! & (Attention.decide | Attention.read)) !== 0,
    pace: paceOf(rows, at),
    paceRest: restOf(rows, at),
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

/** The hops that a strand remembers, by index. */
export function rememberedBy(rows: Rows, strand: number): number[] {
  const { ints } = rows;
  return timelineOf(rows, strand).of.hops.flatMap(({ memory }, hop) =>
    memory >= 0 && (ints[2 * strand + Place.words + (memory >> 5)]! & (1 << (memory & 31))) !== 0
      ? [hop]
      : [],
  );
}

/** The words of the pulses that were used for the latest switch of a strand. */
export function usedBy({ ints, controller }: Rows, strand: number): Int32Array {
  const first = 2 * strand + Place.words + controller.layout.memories;
  return ints.slice(first, first + controller.tables.words);
}

function strandOf(rows: Rows, at: number, track: number): Strand {
  const { doubles, ints } = rows;
  const strand = strandAt(rows, at, track);
  // Brings its place up to now.
  phaseOf(rows, at, strand);
  const { state, book, direction, of, isBackwards } = timelineOf(rows, strand);
  const last = ints[2 * strand + Place.last]!;
  return {
    state,
    entered: doubles[strand + Place.entered]!,
    book,
    direction,
    toward: towardOf(rows, strand),
    place: doubles[strand + Place.position]!,
    segment: ints[2 * strand + Place.segment]!,
    marks: ints[2 * strand + Place.marks]! & Mark.all,
    backwards: isBackwards,
    remembered: rememberedBy(rows, strand),
    goal: ints[2 * strand + Place.goal]!,
    from: (last >> 4) - 1,
    rule: last & 15,
    used: usedBy(rows, strand),
    over: of.lasts === undefined ? undefined : overAt(rows, strand, of),
    kept: of.keeps === undefined ? undefined : keptUntil(rows, strand, of),
  };
}

/**
 * Goes back to where a snapshot was taken.
 *
 * @param adopt whether it may be of another version of the document: then names are found as far as they are there, and what is not
 *   there begins anew
 * @throws {DotHopError} when it is no snapshot, or of another version; nothing is changed then
 */
export function restoreRow(rows: Rows, at: number, snapshot: PerformerSnapshot, adopt: boolean): void {
  const still = readSnapshot(rows.controller, snapshot, adopt);
  stand(rows, at, still);
  if (!adopt) return;
  readSignals(rows, at, situationOf(rows, at));
  rows.ints[2 * at + Row.attention]! |= Attention.decide | Attention.read;
  if (still.unknown.length === 0) return;
  for (const track of still.unknown) {
    const strand = strandAt(rows, at, track);
    rows.ints[2 * strand + Place.segment] = 0;
    rows.ints[2 * strand + Place.marks]! &= ~Mark.all;
    rows.doubles[strand + Place.position] = 0;
  }
  findFirstStates(rows, at, still.unknown);
}

function stand(rows: Rows, at: number, still: Standstill): void {
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
  still.strands.forEach((strand, track) => standIn(rows, at, track, strand, still.time));
  ints.set(still.set, 2 * at + layout.set);
  ints.set(still.words, 2 * at + layout.words);
  const before = findSituation(rows, at);
  still.strands.forEach((saved, track) => {
    const strand = strandAt(rows, at, track);
    const { of: state } = timelineOf(rows, strand);
    // What the snapshot does not say, such as one of another version, begins now.
    beginLengths(rows, at, strand, state);
    if (state.lasts !== undefined && saved.over !== undefined) doubles[strand + layout.lengths] = saved.over;
    if (state.keeps !== undefined && saved.kept !== undefined)
      doubles[strand + layout.lengths + 1] = saved.kept;
  });
  doubles[at + Row.timer] = still.time;
  findTimer(rows, at);
  for (const { index } of controller.tracks) readRate(rows, at, strandAt(rows, at, index), false);
  if (still.changed) return;
  // Nothing is waiting to be decided: reading finds the intervals and changes no bit. Where it does, or where what shows
  // would give way, the snapshot was changed by hand: then the next step decides.
  if (readSignals(rows, at, before) !== before || wouldSwitch(rows, at))
    ints[2 * at + Row.attention]! |= Attention.decide | Attention.read;
  else findDue(rows, at);
}

function standIn(rows: Rows, at: number, track: number, saved: Strand, time: number): void {
  const { doubles, ints, controller } = rows;
  const strand = strandAt(rows, at, track);
  const state = controller.states[saved.state]!;
  doubles[strand + Place.marked] = time;
  doubles[strand + Place.entered] = saved.entered;
  doubles[strand + Place.position] = saved.place;
  const forwards = state.books[saved.book]![saved.direction]!;
  ints[2 * strand + Place.timeline] = (saved.backwards ? forwards.reverse! : forwards).number;
  ints[2 * strand + Place.segment] = saved.segment;
  ints[2 * strand + Place.marks] = saved.marks;
  pointStrand(rows, strand, saved.toward);
  ints[2 * strand + Place.last] = ((saved.from + 1) << 4) | saved.rule;
  ints[2 * strand + Place.goal] = saved.goal;
  const words = 2 * strand + Place.words;
  for (const hop of saved.remembered) {
    const { memory } = state.hops[hop]!;
    ints[words + (memory >> 5)]! |= 1 << (memory & 31);
  }
  ints.set(saved.used, words + controller.layout.memories);
}
