import { Row, TrackRow } from '../controller/layout.js';
import { decideInstant, passQuietly } from './instant.js';
import { waitForLengths } from './lengths.js';
import { Units } from '../controller/timeline.js';
import { Attention, StateBit, stateOf, timelineOf } from './rows.js';
import type { Rows } from './rows.js';

/** The whole microseconds in which so many units have passed. A division that is a shift is left to be one. */
const timeFor = (units: number, rate: number): number =>
  Math.ceil(rate === Units.perMicrosecond ? units * (1 / Units.perMicrosecond) : units / rate);

/** The instant until which time passes, in microseconds. It is an array because V8 would box a double argument. */
export const passUntil = new Float64Array(1);

/** The longest that a row is left alone, in microseconds: so that what it has passed stays a whole number of units. */
const longest = 0x3fff_ffff;

/**
 * Lets time pass for a row, up to {@link passUntil}, with each thing at its own instant. This is the only place at which time passes. New
 * values count from the present instant on, before any time passes.
 */
export function pass(rows: Rows, at: number): void {
  const { doubles, ints } = rows;
  if ((ints[2 * at + Row.attention]! & (Attention.decide | Attention.read)) !== 0) {
    decideInstant(rows, at, false);
    findDue(rows, at);
  }
  while (doubles[at + Row.due]! <= passUntil[0]!) {
    doubles[at + Row.now] = doubles[at + Row.due]!;
    if (!passQuietly(rows, at)) decideInstant(rows, at, true);
    findDue(rows, at);
  }
  doubles[at + Row.now] = passUntil[0]!;
  // What was told is forgotten by the next step; who is watched, or passes with a crowd, is never left alone.
  rows.waits[rows.indexOf(at)] =
    ints[2 * at + Row.attention] === 0 ? doubles[at + Row.due]! - passUntil[0]! : 0;
}

/** Finds the first instant after the present one at which anything can change by itself. */
export function findDue(rows: Rows, at: number): void {
  const { doubles, ints } = rows;
  // The first timer may be one that no longer counts: then nothing happens at its instant but this.
  if (doubles[at + Row.timer]! <= doubles[at + Row.now]!) findTimer(rows, at);
  let due = Math.min(doubles[at + Row.timer]!, doubles[at + Row.now]! + longest);
  const end = at + rows.trackRowsEnd;
  for (let trackRow = at + Row.trackRows; trackRow < end; trackRow += rows.trackRowSize) {
    const timeline = timelineOf(rows, trackRow);
    const rate = ints[2 * trackRow + TrackRow.rate]!;
    if (rate === 0 || (ints[2 * trackRow + TrackRow.stateBits]! & StateBit.ended) !== 0) continue;
    const segment = ints[2 * trackRow + TrackRow.segment]!;
    // On a route it is decided at every border; else only some are noticed.
    const silent = ints[2 * trackRow + TrackRow.goal]! >= 0 ? 0 : timeline.ahead[segment]!;
    const left = timeline.ends[segment]! - doubles[trackRow + TrackRow.position]! + silent;
    const border = doubles[trackRow + TrackRow.positionTime]! + timeFor(left, rate);
    if (border < due) due = border;
  }
  doubles[at + Row.due] = due;
}

/** Finds the next instant of pulses, lasting flags, turns, `atLeast` and `lasts`. */
export function findTimer(rows: Rows, at: number): void {
  const { doubles } = rows;
  const { tables } = rows.controller;
  const timer = at + Row.timer;
  doubles[timer] = Infinity;
  const first = at + rows.timers;
  for (let i = first; i < first + tables.timers; i++)
    if (doubles[i]! < doubles[timer]) doubles[timer] = doubles[i]!;
  const end = at + rows.trackRowsEnd;
  for (let trackRow = at + Row.trackRows; trackRow < end; trackRow += rows.trackRowSize) {
    const state = stateOf(rows, trackRow);
    if (state.atLeast > 0 || state.lasts !== undefined) waitForLengths(rows, at, trackRow, state);
  }
}
