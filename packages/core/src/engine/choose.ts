import type { State } from '../controller/controller.js';
import { Row, Strand } from '../controller/layout.js';
import { Rule } from '../controller/rule.js';
import type { Situation } from '../controller/situations.js';
import type { Timeline } from '../controller/timeline.js';
import { isOver, keptUntil } from './lengths.js';
import { Moment, notes, situationFor } from './notes.js';
import { advance } from './play.js';
import { Mark, situationOf, timelineOf } from './rows.js';
import type { Rows } from './rows.js';

/**
 * What the rule of decision gives, in one number: the rule (four bits), the index of the hop that is taken (eight), and above them
 * the state that shows next. It changes nothing, and is 0 at no time.
 */
export const enum Decision {
  /** To stay. */
  stay = -1,
  ruleBits = 15,
  hopShift = 4,
  hopBits = 255,
  stateShift = 12,
}

/** A decision to show a state. */
export const decided = (rule: number, state: number, hop = 0): number =>
  rule | (hop << Decision.hopShift) | (state << Decision.stateShift);

/** The state that a decision leads to. */
export const stateOfDecision = (decision: number): number => decision >> Decision.stateShift;

/**
 * What is decided for a strand now: see `docs/model.md`, "Deciding". Where it follows from the state and the situation alone it is
 * kept in the situation, and found there the next time.
 *
 * @param moment what happens in its clip
 */
export function choose(rows: Rows, at: number, strand: number, moment: number): number {
  const timeline = timelineOf(rows, strand);
  const { of: state } = timeline;
  const situation = situationFor(rows, at, state.track);
  const { ints } = rows;
  const ended = (ints[2 * strand + Strand.marks]! & Mark.ended) !== 0;
  const goal = ints[2 * strand + Strand.goal]!;
  const isKnown = state.isStatic && !notes.anyStarts && goal < 0 && !ended;
  if (isKnown) {
    if (situation.decided.length === 0) situation.decided = new Int32Array(rows.states.length);
    const known = situation.decided[state.index]!;
    if (known !== 0) return known;
  }
  const decision = decide(rows, at, strand, moment, timeline, situation);
  if (isKnown) situation.decided[state.index] = decision;
  return decision;
}

/** Whether it is known of a strand that it stays, so that it need not be asked. */
export function isKnownToStay(rows: Rows, at: number, strand: number): boolean {
  if (notes.anyStarts || notes.anySeen) return false;
  const { ints } = rows;
  if (ints[2 * strand + Strand.goal]! >= 0 || (ints[2 * strand + Strand.marks]! & Mark.ended) !== 0)
    return false;
  const { of: state } = timelineOf(rows, strand);
  return state.isStatic && situationOf(rows, at).decided[state.index] === Decision.stay;
}

/** The rule of decision. */
function decide(
  rows: Rows,
  at: number,
  strand: number,
  moment: number,
  timeline: Timeline,
  situation: Situation,
): number {
  const { states, ints } = rows;
  const { of: state } = timeline;
  const { rest } = state;
  advance(rows, at, strand, timeline);
  const marks = ints[2 * strand + Strand.marks]!;
  const segment = ints[2 * strand + Strand.segment]!;
  const ended = (marks & Mark.ended) !== 0;
  const over = isOver(rows, at, strand, state);
  const best = bestOf(rows, situation, state, over);
  if (!state.final && best >= 0 && states[best]!.rank > state.rank) return decided(Rule.rank, best);

  const goal = ints[2 * strand + Strand.goal]!;
  const leg = goal < 0 ? -1 : legNow(rows, strand, moment, timeline, situation, goal, over);
  if (leg >= 0) return decided(Rule.route, leg);
  const hop = state.hops.length === 0 ? Decision.stay : hopNow(rows, strand, moment, timeline, situation);
  if (hop !== Decision.stay) return hop;

  if (isKept(rows, at, strand, state)) return Decision.stay;
  const stands = situation.holds(state.while);
  if (over && stands && (marks & Mark.queued) !== 0) return decided(Rule.again, state.index);
  if (over && state.then >= 0 && situation.holds(states[state.then]!.while))
    return decided(Rule.then, state.then);
  if (!over && (stands || !mayLeave(timeline, segment, moment, ended))) {
    const yielded = state.index === rest ? best : yieldNow(rows, timeline, segment, situation, over);
    return yielded < 0 || yielded === state.index ? Decision.stay : decided(Rule.way, yielded);
  }
  if (best >= 0) return decided(Rule.way, best);
  return state.index === rest ? Decision.stay : decided(Rule.rest, rest);
}

/** Whether a state's `atLeast` is not over. */
const isKept = (rows: Rows, at: number, strand: number, state: State): boolean =>
  state.atLeast > 0 && rows.doubles[at + Row.now]! < keptUntil(rows, strand, state);

/** Whether a state that no longer stands may be left here. At a clip's end it always may, and during a bridge. */
function mayLeave(timeline: Timeline, segment: number, moment: number, ended: boolean): boolean {
  if (!timeline.of.leaves || timeline.bridge || ended) return true;
  if (moment === Moment.begins) return timeline.leavesAt[segment]!;
  return moment === Moment.ends && timeline.leavesAfter[segment]!;
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
 * has made false again starts nothing. One that is playing does not want in anew: it would hide others for one instant.
 */
const startsNow = (rows: Rows, situation: Situation, shown: State, state: number, over: boolean): boolean =>
  (state !== shown.index || over) && hasStarted(rows, situation, state);

/** Whether a state's `when` has just become true, and it may show. */
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
  strand: number,
  moment: number,
  timeline: Timeline,
  situation: Situation,
): number {
  const { ints, states } = rows;
  const { of: state } = timeline;
  const segment = ints[2 * strand + Strand.segment]!;
  const { ways, waysAt, waysAfter } = timeline;
  const open =
    moment === Moment.nothing
      ? ways[segment]!
      : moment === Moment.begins
        ? waysAt[segment]!
        : waysAfter[segment]!;
  for (const index of open) {
    const { to, if: condition, memory } = state.hops[index]!;
    const met =
      memory < 0
        ? situation.holds(condition)
        : (ints[2 * strand + Strand.words + (memory >> 5)]! & (1 << (memory & 31))) !== 0;
    if (met && situation.holds(states[to]!.while)) return decided(Rule.hop, to, index);
  }
  return Decision.stay;
}

/**
 * The next state of a route, if its way there is open now: at the hop's instant, whatever its condition; from a state
 * on the way whose hop has none, at the end of its clip's pass, so that each state is played.
 */
function legNow(
  rows: Rows,
  strand: number,
  moment: number,
  timeline: Timeline,
  situation: Situation,
  goal: number,
  over: boolean,
): number {
  const { routes, states } = rows.controller;
  const { of: state } = timeline;
  const segment = rows.ints[2 * strand + Strand.segment]!;
  const marks = rows.ints[2 * strand + Strand.marks]!;
  const ended = (marks & Mark.ended) !== 0;
  const leg = routes.leg(state.index, goal);
  if (leg === undefined || !situation.holds(states[leg.to]!.while)) return -1;
  const passed = ended || (moment === Moment.ends && segment === timeline.ends.length - 1);
  if (leg.hop < 0) return over ? leg.to : -1;
  if (state.hops[leg.hop]!.now) {
    return (marks & Mark.underway) === 0 || (passed && !timeline.bridge) ? leg.to : -1;
  }
  const instants = moment === Moment.begins ? timeline.hopsAt : timeline.hopsAfter;
  const isHere = moment !== Moment.nothing && instants[segment]!.includes(leg.hop);
  return ended || isHere ? leg.to : -1;
}

function yieldNow(
  rows: Rows,
  timeline: Timeline,
  segment: number,
  situation: Situation,
  over: boolean,
): number {
  const { of: state } = timeline;
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

/** Whether the rules would let a state in that is asked for now. */
export function grants(rows: Rows, at: number, strand: number, to: number): boolean {
  const situation = situationOf(rows, at);
  const timeline = timelineOf(rows, strand);
  const { of: state } = timeline;
  advance(rows, at, strand, timeline);
  const wanted = rows.controller.states[to]!;
  if (!situation.holds(wanted.while)) return false;
  if (!state.final && wanted.rank > state.rank) return true;
  if (isKept(rows, at, strand, state)) return false;
  if (state.index === state.rest) return true;
  const open = timeline.yielding[rows.ints[2 * strand + Strand.segment]!]!;
  return open.some((index) => {
    const { to: names, if: condition } = state.yields[index]!;
    return situation.holds(condition) && (names === undefined || names.has(to));
  });
}
