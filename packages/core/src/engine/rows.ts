import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import { Row, TrackRow, targetDirectionShift } from '../controller/layout.js';
import { Reports, packed } from '../controller/reports.js';
import type { Situation, Situations } from '../controller/situations.js';
import type { Timeline } from '../controller/timeline.js';
import type { BitWords } from '../signal/condition.js';
import type { SignalTables } from '../signal/tables.js';

/**
 * Controllers with more timelines do not note what follows from each timeline in each situation. The notes would be too large.
 */
const mostPlain = 512;

/**
 * Bits of `Row.attention`: what the next step must do besides counting down the time. 0 for nothing. The bits above them belong to
 * `pace.ts`.
 */
export const enum Attention {
  /** Something was set that may change what is decided. */
  decide = 1,
  /** A number has left the interval in which nothing changes, so that the numbers are to be read. */
  read = 2,
  /** The latest step told something, which the next one has to forget. */
  told = 4,
  /** Somebody watches the performer. */
  watched = 8,
  /** It is a member of a troupe, which passes its time. */
  member = 16,
  /** Track rows are looked at although none is due: at the very first instant, where one has turned to run the other way, and where one is to be decided again. */
  border = 32,
}

/** Bits of `TrackRow.stateBits`. */
export const enum StateBit {
  /** The clip has been played to its end and stays there. */
  ended = 1,
  /** The very first instant is over. */
  begun = 2,
  /** A press is queued: the act is to be played again. */
  queued = 4,
  /** The state was reached by a step of a route. */
  underway = 8,
  /** It is decided although nothing has changed, because another version of the document has made the last decision. */
  undecided = 16,
  /** All five; the bits above them say where the compass points. */
  all = 31,
}

/** A crowd whose members pass their time together; see `Troupe`. */
export interface Crowd {
  /** The present instant of all members, in microseconds. */
  readonly clock: Float64Array;
  /** Called when a signal is set for a member that is not due yet. */
  tell(index: number): void;
  /** Called when the instant at which a member is due may have changed. */
  file(index: number): void;
  /** Called when a member is observed for the first time, or is no longer observed. */
  watch(index: number, isWatched: boolean): void;
}

/**
 * A block of rows side by side. A row holds everything that changes while one character plays: see `Layout`. The same buffer is read as
 * doubles and as integers. A row is named by the place at which it begins, counted in doubles: `at`.
 */
export class Rows {
  readonly doubles: Float64Array;
  readonly ints: Int32Array;
  /**
   * For each row the microseconds during which nothing is due. A step that is shorter only subtracts its length. 0 if the next step must
   * look, whatever its length. These numbers lie side by side and apart from the rows, because most steps touch nothing else.
   */
  readonly waits: Int32Array;
  /** The reports of each row. A troupe has one list for all rows, in the first place. A row that has reported nothing has none. */
  readonly reports: (Reports | undefined)[] = [];
  crowd: Crowd | null = null;

  // Where everything is, and what is looked up at every turn: taken from the controller once, because each step on the way there
  // would cost.
  readonly timelines: readonly Timeline[];
  readonly states: readonly State[];
  readonly situations: Situations;
  readonly watched: Controller['watched'];
  readonly regions: SignalTables['regions'];
  readonly computed: SignalTables['computed'];
  readonly computedBits: BitWords;
  readonly pulseBits: BitWords;
  readonly turning: Controller['turning'];
  readonly isTurningRead: boolean;
  readonly turnTimer: number;
  readonly hasFlipbookChoices: boolean;
  readonly lengths: number;
  readonly picks: number;
  readonly hasScrubs: boolean;
  readonly asksAnything: boolean;
  readonly size: number;
  readonly trackRowSize: number;
  readonly trackRowsEnd: number;
  readonly values: number;
  readonly timers: number;
  readonly set: number;
  readonly words: number;
  /** How many words there are. */
  readonly wordCount: number;
  readonly trackCount: number;
  /** Whether the outcome of a timeline in a situation is noted. Only with one track, and not with thousands of timelines. */
  readonly notesPlain: boolean;
  /** One over the size of a row: finding a row's number is then a multiplication and not a division. */
  private readonly part: number;

  /**
   * @param count how many rows there is room for
   * @param firstIndex the index of its first row in the crowd that it is a block of
   */
  constructor(
    readonly controller: Controller,
    count: number,
    readonly firstIndex = 0,
  ) {
    const { layout, timelines, tables, tracks } = controller;
    this.timelines = timelines;
    this.states = controller.states;
    this.situations = controller.situations;
    this.watched = controller.watched;
    this.regions = tables.regions;
    this.computed = tables.computed;
    this.computedBits = tables.computedBits;
    this.pulseBits = tables.pulseBits;
    this.turning = controller.turning;
    this.isTurningRead = controller.isTurningRead;
    this.turnTimer = controller.turnTimer;
    this.hasFlipbookChoices = layout.hasFlipbookChoices;
    this.lengths = layout.lengths;
    this.picks = layout.picks;
    this.hasScrubs = layout.hasScrubs;
    this.asksAnything = layout.asksAnything;
    this.size = layout.size;
    this.trackRowSize = layout.trackRowSize;
    this.trackRowsEnd = layout.trackRowsEnd;
    this.values = layout.values;
    this.timers = layout.timers;
    this.set = layout.set;
    this.words = layout.words;
    this.wordCount = tables.words;
    this.trackCount = tracks.length;
    this.notesPlain = tracks.length === 1 && timelines.length <= mostPlain;
    this.part = 1 / layout.size;
    this.doubles = new Float64Array(count * controller.layout.size);
    this.ints = new Int32Array(this.doubles.buffer);
    this.waits = new Int32Array(count);
  }

  /** Makes a row begin again. Its observers and its troupe stay. */
  clear(at: number): void {
    const place = 2 * at + Row.attention;
    const kept = this.ints[place]! & (Attention.watched | Attention.member);
    this.doubles.set(this.controller.layout.first, at);
    this.ints[place] = kept | Attention.decide | Attention.read | Attention.border;
    this.waits[this.indexOf(at)] = 0;
  }

  /** The number of the row that begins at a place, from 0. */
  indexOf(at: number): number {
    return (at * this.part + 0.5) | 0;
  }

  /** The reports of a row. */
  reportsOf(at: number): Reports {
    return this.reportsAt(this.crowd === null ? this.indexOf(at) : 0);
  }

  reportsAt(place: number): Reports {
    return (this.reports[place] ??= new Reports(this.controller.reportNames));
  }
}

/** Writes the present instant of a row, or of its troupe, to the place where it is read. Nothing is due before that instant. */
export function catchUp(rows: Rows, at: number): void {
  const { crowd, doubles, waits } = rows;
  if (crowd !== null) {
    doubles[at + Row.now] = crowd.clock[0]!;
    return;
  }
  const wait = waits[rows.indexOf(at)]!;
  if (wait > 0) doubles[at + Row.now] = doubles[at + Row.due]! - wait;
}

/** Makes the next step look, whatever its length. */
export function stopWaiting(rows: Rows, at: number): void {
  catchUp(rows, at);
  rows.waits[rows.indexOf(at)] = 0;
}

/** The place where the track row of a track begins. */
export const trackRowAt = ({ trackRowSize }: Rows, at: number, track: number): number =>
  at + Row.trackRows + track * trackRowSize;

/** The timeline that a track row shows. */
export const timelineOf = ({ timelines, ints }: Rows, trackRow: number): Timeline =>
  timelines[ints[2 * trackRow + TrackRow.timeline]!]!;

/** The state that a track row shows. */
export const stateOf = (rows: Rows, trackRow: number): State => timelineOf(rows, trackRow).state;

/** The direction to which the compass of a track row points. */
export const targetDirectionOf = ({ ints }: Rows, trackRow: number): number =>
  ints[2 * trackRow + TrackRow.stateBits]! >> targetDirectionShift;

export function setTargetDirection({ ints }: Rows, trackRow: number, direction: number): void {
  const stateBits = 2 * trackRow + TrackRow.stateBits;
  ints[stateBits] = (ints[stateBits]! & StateBit.all) | (direction << targetDirectionShift);
}

/** The situation that was read last. */
export function situationOf(rows: Rows, at: number): Situation {
  const number = rows.ints[2 * at + Row.situation]!;
  return number < 0 ? rows.situations.find(rows.ints, 2 * at + rows.words) : rows.situations.list[number]!;
}

/**
 * Finds the situation of a row's words, which have changed.
 *
 * @param before the situation until now
 */
export function findSituation(rows: Rows, at: number, before?: Situation): Situation {
  const { ints } = rows;
  const words = 2 * at + rows.words;
  const next = before?.followed;
  const isNext =
    next !== undefined && next.first === ints[words] && (rows.wordCount === 1 || next.isOf(ints, words));
  const found = isNext ? next : rows.situations.find(ints, words);
  ints[2 * at + Row.situation] = found.number;
  // One that is not kept in the list would live on in it.
  if (!isNext && before !== undefined && found.number >= 0) before.followed = found;
  return found;
}

/**
 * Adds a report of the present instant.
 *
 * @param kind 0 a cue, 1 a switch, 2 a turn, 3 a change of flipbook
 */
export function report(
  rows: Rows,
  at: number,
  track: number,
  kind: 0 | 1 | 2 | 3,
  from: number,
  to: number,
  rule: number,
): void {
  rows.ints[2 * at + Row.attention]! |= Attention.told;
  const index = rows.indexOf(at);
  const place = rows.crowd === null ? index : 0;
  const reports = rows.reports[place] ?? rows.reportsAt(place);
  reports.add(packed(kind, from, rule, track), to, rows.firstIndex + index, rows.doubles, at + Row.now);
}
