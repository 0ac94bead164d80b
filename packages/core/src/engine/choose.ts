import type { State } from '../controller/state.js';
import { TrackRow } from '../controller/layout.js';
import { Rule } from '../controller/rule.js';
import type { Situation } from '../controller/situations.js';
import type { Timeline } from '../controller/timeline.js';
import { isKept, isOver } from './lengths.js';
import { ClipEvent, notes, situationFor } from './notes.js';
import { advance } from './play.js';
import { StateBit, situationOf, timelineOf } from './rows.js';
import type { Rows } from './rows.js';

/**
 * The result of the rule of decision, packed into one number: the rule (four bits), the index of the hop that is taken (eight), and above
 * them the state that shows next. It is never 0.
 */
export const enum Decision {
  /** To stay. */
  stay = -1,
  ruleBits = 15,
  hopShift = 4,
  hopBits = 255,
  stateShift = 12,
}

/** Packs a decision to show a state. */
export const decided = (rule: number, state: number, hop = 0): number =>
  rule | (hop << Decision.hopShift) | (state << Decision.stateShift);

/** The state to which a decision leads. */
export const stateOfDecision = (decision: number): number => decision >> Decision.stateShift;

/**
 * Decides for a track row now: see `docs/model.md`, "Deciding". If the decision follows from the state and the situation alone, the
 * situation keeps it, and the next time it is found there.
 *
 * @param clipEvent what happens in its clip
 */
export function choose(rows: Rows, at: number, trackRow: number, clipEvent: number): number {
  const timeline = timelineOf(rows, trackRow);
  const { state } = timeline;
  const situation = situationFor(rows, at, state.track);
  const { ints } = rows;
  const ended = (ints[2 * trackRow + TrackRow.stateBits]! & StateBit.ended) !== 0;
  const goal = ints[2 * trackRow + TrackRow.goal]!;
  const isKnown = state.isStatic && !notes.anyStarts && goal < 0 && !ended;
  if (isKnown) {
    if (situation.decided.length === 0) situation.decided = new Int32Array(rows.states.length);
    const known = situation.decided[state.index]!;
    if (known !== 0) return known;
  }
  const decision = decide(rows, at, trackRow, clipEvent, timeline, situation);
  if (isKnown) situation.decided[state.index] = decision;
  return decision;
}

/** Whether the situation already says that a track row stays, so that nothing need be decided. */
export function isKnownToStay(rows: Rows, at: number, trackRow: number): boolean {
  if (notes.anyStarts || notes.anyShared) return false;
  const { ints } = rows;
  if (
    ints[2 * trackRow + TrackRow.goal]! >= 0 ||
    (ints[2 * trackRow + TrackRow.stateBits]! & StateBit.ended) !== 0
  )
    return false;
  const { state } = timelineOf(rows, trackRow);
  return state.isStatic && situationOf(rows, at).decided[state.index] === Decision.stay;
}

/** The rule of decision. */
function decide(
  rows: Rows,
  at: number,
  trackRow: number,
  clipEvent: number,
  timeline: Timeline,
  situation: Situation,
): number {
  const { states, ints } = rows;
  const { state } = timeline;
  const { rest } = state;
  advance(rows, at, trackRow, timeline);
  const stateBits = ints[2 * trackRow + TrackRow.stateBits]!;
  const segment = ints[2 * trackRow + TrackRow.segment]!;
  const ended = (stateBits & StateBit.ended) !== 0;
  const over = isOver(rows, at, trackRow, state);
  const best = bestOf(rows, situation, state, over);
  if (!state.final && best >= 0 && states[best]!.rank > state.rank) return decided(Rule.rank, best);

  const goal = ints[2 * trackRow + TrackRow.goal]!;
  const routeStep = goal < 0 ? -1 : routeStepNow(rows, trackRow, clipEvent, timeline, situation, goal, over);
  if (routeStep >= 0) return decided(Rule.route, routeStep);
  const hop =
    state.hops.length === 0 ? Decision.stay : hopNow(rows, trackRow, clipEvent, timeline, situation);
  if (hop !== Decision.stay) return hop;

  if (isKept(rows, at, trackRow, state)) return Decision.stay;
  const stands = situation.holds(state.while);
  if (over && stands && (stateBits & StateBit.queued) !== 0) return decided(Rule.again, state.index);
  if (over && state.then >= 0 && situation.holds(states[state.then]!.while))
    return decided(Rule.then, state.then);
  if (!over && (stands || !mayLeave(timeline, segment, clipEvent, ended))) {
    const yielded = state.index === rest ? best : yieldNow(rows, timeline, segment, situation, over);
    return yielded < 0 || yielded === state.index ? Decision.stay : decided(Rule.way, yielded);
  }
  if (best >= 0) return decided(Rule.way, best);
  return state.index === rest ? Decision.stay : decided(Rule.rest, rest);
}

/** Whether a state that no longer stands may be left here. At a clip's end it always may, and during a bridge. */
function mayLeave(timeline: Timeline, segment: number, clipEvent: number, ended: boolean): boolean {
  if (!timeline.state.leaves || timeline.bridge || ended) return true;
  if (clipEvent === ClipEvent.begins) return timeline.leavesAt[segment]!;
  return clipEvent === ClipEvent.ends && timeline.leavesAfter[segment]!;
}

/** The highest-ranked state that wants in; -1 for none. */
function bestOf(rows: Rows, situation: Situation, state: State, over: boolean): number {
  const best = situation.bestOf(state.track);
  if (!notes.anyStarts) return best;
  const { tracks, places } = rows.controller;
  const place = best < 0 ? Infinity : places[best]!;
  for (const one of tracks[state.track]!.watched) {
    if (one.place >= place) return best;
    if (startsNow(rows, situation, state, one.state, over)) return one.state;
  }
  return best;
}

/**
 * Whether a state wants in because its `when` has just become true, and still is: what another switch of the same instant
 * has made false again starts nothing. One that is playing does not want in again: it would hide others for one instant.
 */
const startsNow = (rows: Rows, situation: Situation, shown: State, state: number, over: boolean): boolean =>
  (state !== shown.index || over) && hasStarted(rows, situation, state);

/** Whether a state's `when` has just become true, and its other conditions hold. */
export function hasStarted({ controller }: Rows, situation: Situation, state: number): boolean {
  if (!notes.anyStarts || notes.starts[state] === 0) return false;
  const { when, while: during } = controller.states[state]!;
  return situation.holds(when) && situation.holds(during);
}

/** The highest-ranked state that wants in of some, or of all; -1 for none. */
function bestAmong(
  rows: Rows,
  situation: Situation,
  state: State,
  among: ReadonlySet<number> | undefined,
  over: boolean,
): number {
  if (among === undefined) return bestOf(rows, situation, state, over);
  const { order } = rows.controller.tracks[state.track]!;
  for (const index of order) {
    if (!among.has(index)) continue;
    if (situation.wantsIn(index) || startsNow(rows, situation, state, index, over)) return index;
  }
  return -1;
}

/** The first hop that is taken now. */
function hopNow(
  rows: Rows,
  trackRow: number,
  clipEvent: number,
  timeline: Timeline,
  situation: Situation,
): number {
  const { ints, states } = rows;
  const { state } = timeline;
  const segment = ints[2 * trackRow + TrackRow.segment]!;
  const { ways, waysAt, waysAfter } = timeline;
  const open =
    clipEvent === ClipEvent.nothing
      ? ways[segment]!
      : clipEvent === ClipEvent.begins
        ? waysAt[segment]!
        : waysAfter[segment]!;
  for (const index of open) {
    const { to, if: condition, memory } = state.hops[index]!;
    const met =
      memory < 0
        ? situation.holds(condition)
        : (ints[2 * trackRow + TrackRow.words + (memory >> 5)]! & (1 << (memory & 31))) !== 0;
    if (met && situation.holds(states[to]!.while)) return decided(Rule.hop, to, index);
  }
  return Decision.stay;
}

/**
 * The next state of a route, if its hop is open now. The hop is taken at its own instant, whatever its condition. A hop without
 * an instant, from a state on the way, is taken at the end of a pass, so that each state of the way is played.
 */
function routeStepNow(
  rows: Rows,
  trackRow: number,
  clipEvent: number,
  timeline: Timeline,
  situation: Situation,
  goal: number,
  over: boolean,
): number {
  const { routes, states } = rows.controller;
  const { state } = timeline;
  const segment = rows.ints[2 * trackRow + TrackRow.segment]!;
  const stateBits = rows.ints[2 * trackRow + TrackRow.stateBits]!;
  const ended = (stateBits & StateBit.ended) !== 0;
  const routeStep = routes.step(state.index, goal);
  if (routeStep === undefined || !situation.holds(states[routeStep.to]!.while)) return -1;
  const passed = ended || (clipEvent === ClipEvent.ends && segment === timeline.ends.length - 1);
  if (routeStep.hop < 0) return over ? routeStep.to : -1;
  if (state.hops[routeStep.hop]!.now) {
    return (stateBits & StateBit.underway) === 0 || (passed && !timeline.bridge) ? routeStep.to : -1;
  }
  const instants = clipEvent === ClipEvent.begins ? timeline.hopsAt : timeline.hopsAfter;
  const isHere = clipEvent !== ClipEvent.nothing && instants[segment]!.includes(routeStep.hop);
  return ended || isHere ? routeStep.to : -1;
}

function yieldNow(
  rows: Rows,
  timeline: Timeline,
  segment: number,
  situation: Situation,
  over: boolean,
): number {
  const { state } = timeline;
  const { yields } = state;
  if (yields.length === 0) return -1;
  const open = timeline.yielding[segment]!;
  for (const index of open) {
    const { to, if: condition } = yields[index]!;
    if (!situation.holds(condition)) continue;
    const best = bestAmong(rows, situation, state, to, over);
    if (best >= 0) return best;
  }
  return -1;
}

/** Whether the rules let a state in that the game asks for now. */
export function grants(rows: Rows, at: number, trackRow: number, to: number): boolean {
  const situation = situationOf(rows, at);
  const timeline = timelineOf(rows, trackRow);
  const { state } = timeline;
  advance(rows, at, trackRow, timeline);
  const wanted = rows.controller.states[to]!;
  if (!situation.holds(wanted.while)) return false;
  if (!state.final && wanted.rank > state.rank) return true;
  if (isKept(rows, at, trackRow, state)) return false;
  if (state.index === state.rest) return true;
  const open = timeline.yielding[rows.ints[2 * trackRow + TrackRow.segment]!]!;
  return open.some((index) => {
    const { to: names, if: condition } = state.yields[index]!;
    return situation.holds(condition) && (names === undefined || names.has(to));
  });
}
