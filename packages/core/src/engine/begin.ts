import { Row, Strand } from '../controller/layout.js';
import { Rule } from '../controller/rule.js';
import { Decision, choose, decided, grants } from './choose.js';
import { decideInstant } from './instant.js';
import { beginLengths } from './lengths.js';
import { Moment, forgetMoments, forgetSeen, makeRoom, notes } from './notes.js';
import { findDue, findTimer } from './pass.js';
import { pickNext } from './pick.js';
import { bookOf, followsNumber, pickWay, placeByNumber, readRate } from './play.js';
import { readSignals } from './read.js';
import { Attention, findSituation, stateOf, strandAt, towardOf } from './rows.js';
import type { Rows } from './rows.js';
import { enter, settleAll } from './switch.js';

// Where a row begins, and what a game asks for outside of the rules.

/**
 * Finds the states that a row begins in. What is true at the very start has not just become true.
 *
 * @param among the tracks that are meant; by default all
 */
export function findFirstStates(rows: Rows, at: number, among?: readonly number[]): void {
  const { controller } = rows;
  const { tracks } = controller;
  makeRoom(controller);
  const meant = among ?? tracks.map(({ index }) => index);
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
    const strand = strandAt(rows, at, track);
    const { index, variety } = stateOf(rows, strand);
    if (variety !== undefined) pickNext(rows, at, variety);
    showNow(rows, at, track, index);
    beginLengths(rows, at, strand, stateOf(rows, strand));
    pickWay(rows, at, strand);
    readRate(rows, at, strand);
    if (followsNumber(rows, strand)) placeByNumber(rows, at, strand);
  }
  findTimer(rows, at);
  rows.ints[2 * at + Row.attention]! |= Attention.decide | Attention.read | Attention.border;
}

function showNow(rows: Rows, at: number, track: number, index: number): void {
  const strand = strandAt(rows, at, track);
  const state = rows.controller.states[index]!;
  const timeline = state.books[bookOf(rows, at, state.slots[0]!)]![towardOf(rows, strand)]!;
  rows.ints[2 * strand + Strand.timeline] = timeline.number;
}

/** Decides upon what was set, whether anything was or not, before something is asked for at the present instant. */
export function decideNow(rows: Rows, at: number): void {
  rows.ints[2 * at + Row.attention]! |= Attention.decide | Attention.read;
  decideInstant(rows, at, false);
  findDue(rows, at);
}

/** Puts a state there at the present instant. */
export function request(rows: Rows, at: number, state: number, rule: number): void {
  const { track } = rows.controller.states[state]!;
  const begins = enter(rows, at, strandAt(rows, at, track), decided(rule, state));
  settleNow(rows, at, track, begins ? Moment.begins : Moment.nothing);
}

/** Lets a state in if the rules allow it. @returns whether it shows */
export function ask(rows: Rows, at: number, state: number): boolean {
  const { track } = rows.controller.states[state]!;
  const strand = strandAt(rows, at, track);
  if (stateOf(rows, strand).index === state) return true;
  const isGranted = grants(rows, at, strand, state);
  if (isGranted) request(rows, at, state, Rule.ask);
  return isGranted;
}

/** Has a track go to a state along hops. @returns whether there is a way */
export function route(rows: Rows, at: number, state: number): boolean {
  const { states, routes } = rows.controller;
  const { track } = states[state]!;
  const strand = strandAt(rows, at, track);
  const from = stateOf(rows, strand).index;
  if (state === from) return true;
  if (routes.leg(from, state) === undefined) return false;
  rows.ints[2 * strand + Strand.goal] = state;
  settleNow(rows, at, track, Moment.nothing);
  return true;
}

/** Decides after a request, at the present instant. @param moment what happens in the clip of the track that was asked for */
function settleNow(rows: Rows, at: number, track: number, moment: number): void {
  forgetMoments(rows);
  notes.moments[track] = moment;
  try {
    settleAll(rows, at);
  } finally {
    forgetSeen();
  }
}

/** Whether any track would switch at this instant. */
export function wouldSwitch(rows: Rows, at: number): boolean {
  return rows.controller.tracks.some(
    ({ index }) => choose(rows, at, strandAt(rows, at, index), Moment.nothing) !== Decision.stay,
  );
}
