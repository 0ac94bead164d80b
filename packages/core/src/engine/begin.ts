import { Row, TrackRow } from '../controller/layout.js';
import { Rule } from '../controller/rule.js';
import { Decision, choose, decided, grants } from './choose.js';
import { decideInstant } from './instant.js';
import { beginLengths } from './lengths.js';
import { ClipEvent, clearClipEvents, clearSharedPulses, makeRoom, notes } from './notes.js';
import { findDue, findTimer } from './pass.js';
import { pickNext } from './pick.js';
import { flipbookOf, followsNumber, pickWay, placeByNumber, readRate } from './play.js';
import { readSignals } from './read.js';
import { Attention, findSituation, stateOf, trackRowAt, targetDirectionOf } from './rows.js';
import type { Rows } from './rows.js';
import { enter, switchAll } from './switch.js';

// Where a row begins, and what a game asks for outside of the rules.

/**
 * Finds the states in which a row begins. A condition that is true at the very start does not count as having just become true.
 *
 * @param only the tracks to look at; default: all
 */
export function findFirstStates(rows: Rows, at: number, only?: readonly number[]): void {
  const { controller } = rows;
  const { tracks } = controller;
  makeRoom(controller);
  const meant = only ?? tracks.map(({ index }) => index);
  // All numbers are read, whatever their intervals.
  rows.ints[2 * at + Row.attention]! |= Attention.read;
  const situation = readSignals(rows, at, findSituation(rows, at));
  for (const track of meant) {
    const best = situation.bestOf(track);
    showNow(rows, at, track, best < 0 ? tracks[track]!.rest : best);
  }
  // Their tags and the numbers they read count from the beginning too.
  readSignals(rows, at, situation);
  for (const track of meant) {
    const trackRow = trackRowAt(rows, at, track);
    const { index, variety } = stateOf(rows, trackRow);
    if (variety !== undefined) pickNext(rows, at, variety);
    showNow(rows, at, track, index);
    beginLengths(rows, at, trackRow, stateOf(rows, trackRow));
    pickWay(rows, at, trackRow);
    readRate(rows, at, trackRow);
    if (followsNumber(rows, trackRow)) placeByNumber(rows, at, trackRow);
  }
  findTimer(rows, at);
  rows.ints[2 * at + Row.attention]! |= Attention.decide | Attention.read | Attention.border;
}

function showNow(rows: Rows, at: number, track: number, index: number): void {
  const trackRow = trackRowAt(rows, at, track);
  const state = rows.controller.states[index]!;
  const timeline =
    state.flipbooks[flipbookOf(rows, at, state.slots[0]!)]![targetDirectionOf(rows, trackRow)]!;
  rows.ints[2 * trackRow + TrackRow.timeline] = timeline.number;
}

/** Decides about the new values, even if there are none, before a request is granted or refused at the present instant. */
export function decideNow(rows: Rows, at: number): void {
  rows.ints[2 * at + Row.attention]! |= Attention.decide | Attention.read;
  decideInstant(rows, at, false);
  findDue(rows, at);
}

/** Enters a state in a track at the present instant. */
export function request(rows: Rows, at: number, state: number, rule: number): void {
  const { track } = rows.controller.states[state]!;
  const begins = enter(rows, at, trackRowAt(rows, at, track), decided(rule, state));
  decideAfterRequest(rows, at, track, begins ? ClipEvent.begins : ClipEvent.nothing);
}

/**
 * Enters a state if the rules allow it.
 *
 * @returns whether it shows
 */
export function ask(rows: Rows, at: number, state: number): boolean {
  const { track } = rows.controller.states[state]!;
  const trackRow = trackRowAt(rows, at, track);
  if (stateOf(rows, trackRow).index === state) return true;
  const isGranted = grants(rows, at, trackRow, state);
  if (isGranted) request(rows, at, state, Rule.ask);
  return isGranted;
}

/**
 * Makes a track go to a state along hops.
 *
 * @returns whether there is a way
 */
export function route(rows: Rows, at: number, state: number): boolean {
  const { states, routes } = rows.controller;
  const { track } = states[state]!;
  const trackRow = trackRowAt(rows, at, track);
  const from = stateOf(rows, trackRow).index;
  if (state === from) return true;
  if (routes.step(from, state) === undefined) return false;
  rows.ints[2 * trackRow + TrackRow.goal] = state;
  decideAfterRequest(rows, at, track, ClipEvent.nothing);
  return true;
}

/** Decides after a request, at the present instant. @param clipEvent what happens in the clip of the track that was asked for */
function decideAfterRequest(rows: Rows, at: number, track: number, clipEvent: number): void {
  clearClipEvents(rows);
  notes.clipEvents[track] = clipEvent;
  try {
    switchAll(rows, at);
  } finally {
    clearSharedPulses();
  }
}

/** Whether any track would switch at this instant. */
export function wouldSwitch(rows: Rows, at: number): boolean {
  return rows.controller.tracks.some(
    ({ index }) => choose(rows, at, trackRowAt(rows, at, index), ClipEvent.nothing) !== Decision.stay,
  );
}
