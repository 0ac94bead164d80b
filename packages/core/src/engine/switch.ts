import type { State } from '../controller/state.js';
import { Row, TrackRow } from '../controller/layout.js';
import { Rule } from '../controller/rule.js';
import type { Timeline } from '../controller/timeline.js';
import { callError } from '../problem/error.js';
import { addPulsesRead } from '../signal/condition.js';
import { Decision, choose, decided, hasStarted, isKnownToStay, stateOfDecision } from './choose.js';
import { usePulses } from './write-signals.js';
import { ClipEvent, clearSharedPulses, notes, sharePulses, situationFor, clearStartOf } from './notes.js';
import { beginLengths, isOver } from './lengths.js';
import { pickNext } from './pick.js';
import { Plain, switchPlainly } from './plain-switch.js';
import { advance, flipbookOf, takePlace } from './play.js';
import { differs, readCompass } from './read.js';
import { StateBit, report, stateOf, trackRowAt, timelineOf } from './rows.js';
import type { Rows } from './rows.js';
import { commit, directionNow } from './turn.js';

// States are entered, until nothing switches any more at an instant.

/** The track whose frames a track shows: itself, or the one with which it is in step; -1 if nobody leads it any more. */
export function leadOf(rows: Rows, at: number, track: number): number {
  let lead = track;
  for (let steps = rows.trackCount; steps > 0; steps--) {
    const { inStep } = stateOf(rows, trackRowAt(rows, at, lead));
    if (inStep < 0) return lead;
    lead = inStep;
  }
  return -1;
}

/**
 * Leaves the state that shows. What is in step with another track leaves that one's place.
 *
 * @returns the timeline whose place is kept where the next state says so
 */
function leave(rows: Rows, at: number, trackRow: number): Timeline {
  const { doubles, ints } = rows;
  const timeline = timelineOf(rows, trackRow);
  const { state } = timeline;
  const lead = state.inStep < 0 ? -1 : leadOf(rows, at, state.track);
  if (lead < 0) return timeline;
  const leading = trackRowAt(rows, at, lead);
  advance(rows, at, leading);
  const left = timelineOf(rows, leading);
  ints[2 * trackRow + TrackRow.timeline] = state.flipbooks[timeline.flipbook]![left.direction]!.number;
  ints[2 * trackRow + TrackRow.segment] = ints[2 * leading + TrackRow.segment]!;
  ints[2 * trackRow + TrackRow.stateBits]! |= ints[2 * leading + TrackRow.stateBits]! & StateBit.ended;
  doubles[trackRow + TrackRow.position] = doubles[leading + TrackRow.position]!;
  return left;
}

/**
 * Enters a state.
 *
 * @param decision the state, and the rule behind the switch
 * @returns whether a segment of its clip begins
 */
export function enter(rows: Rows, at: number, trackRow: number, decision: number): boolean {
  const { doubles, ints, states } = rows;
  const to = stateOfDecision(decision);
  const rule = decision & Decision.ruleBits;
  const { state: from } = timelineOf(rows, trackRow);
  const state = states[to]!;
  const carry = to === from.index ? 'none' : (state.carry[from.index] ?? state.carryElse);
  const hasPulse = isPulsed(rows, at);
  notes.anySwitch = true;
  const goal = 2 * trackRow + TrackRow.goal;
  const stateBits = 2 * trackRow + TrackRow.stateBits;
  advance(rows, at, trackRow);
  const left = leave(rows, at, trackRow);
  // What was in step with another track faces as that one does.
  const before = timelineOf(rows, trackRow);
  forgetUsed();
  if (hasPulse || notes.anyShared) {
    addPulsesOf(rows, at, trackRow, state, decision);
    use(rows, at, from.track);
  }
  clearStartOf(rows, to);
  report(rows, at, state.track, 1, from.index, to, rule);
  ints[stateBits]! &= ~(StateBit.ended | StateBit.queued | StateBit.underway);
  if (rule === Rule.route && to !== ints[goal]) ints[stateBits]! |= StateBit.underway;
  else ints[goal] = -1;
  noteSwitch(rows, trackRow, from.index, rule);
  const now = doubles[at + Row.now]!;
  doubles[trackRow + TrackRow.entered] = now;
  beginLengths(rows, at, trackRow, state);
  if (state.facesBy !== from.facesBy) readCompass(rows, at, trackRow, state);
  const direction = state.held ? before.direction : directionNow(rows, at, trackRow, state);
  if (direction !== before.direction) report(rows, at, state.track, 2, before.direction, direction, 0);
  // Nothing is bridged out of a bridge.
  const bridge = before.bridge ? undefined : state.bridges[from.index]?.[before.flipbook % from.gaitCount];
  if (state.variety !== undefined) pickNext(rows, at, state.variety);
  const flipbook = flipbookOf(rows, at, state.slots[bridge ?? 0]!);
  ints[2 * trackRow + TrackRow.timeline] = state.flipbooks[flipbook]![direction]!.number;
  const begins = takePlace(rows, at, trackRow, left, carry);
  // Its tags, the pulses that were used and the numbers it reads may change what holds.
  if (state.reads.length > 0 || ((rows.asksAnything || hasPulse || rows.trackCount > 1) && differs(rows, at)))
    commit(rows, at);
  return begins;
}

/** Notes by which rule and from which state another was entered, which pulses were used for it, and that no hop is remembered. */
function noteSwitch(rows: Rows, trackRow: number, from: number, rule: number): void {
  const { ints, wordCount } = rows;
  const { memories } = rows.controller.layout;
  const words = 2 * trackRow + TrackRow.words;
  ints[2 * trackRow + TrackRow.lastSwitch] = ((from + 1) << 4) | rule;
  for (let i = 0; i < memories; i++) ints[words + i] = 0;
  const { used } = notes;
  for (let i = 0; i < wordCount; i++) ints[words + memories + i] = used[i]!;
}

/** Whether any pulse counted when it was decided last. */
function isPulsed({ ints, words: offset, pulseBits }: Rows, at: number): boolean {
  const words = 2 * at + offset;
  for (let i = 0; i < pulseBits.length; i++) if ((ints[words + i]! & pulseBits[i]!) !== 0) return true;
  return false;
}

function forgetUsed(): void {
  const { used } = notes;
  for (let i = 0; i < used.length; i++) used[i] = 0;
}

/** Uses the pulses that are noted. */
function use(rows: Rows, at: number, track: number): void {
  if (rows.trackCount > 1) sharePulses(rows, at, track);
  usePulses(rows, at, notes.used);
}

/** Notes the pulses that entering a state uses: those of the hop's own condition, else of the state's. */
function addPulsesOf(rows: Rows, at: number, trackRow: number, state: State, decision: number): void {
  const { state: from } = timelineOf(rows, trackRow);
  const isHop = (decision & Decision.ruleBits) === Rule.hop;
  const hop = isHop ? from.hops[(decision >> Decision.hopShift) & Decision.hopBits]! : undefined;
  if (hop === undefined || (hop.memory < 0 && hop.if < 0)) addOwnPulses(rows, at, from.track, state);
  else if (hop.memory < 0) addPulsesIn(rows, at, from.track, hop.if);
}

function addOwnPulses(rows: Rows, at: number, track: number, state: State): void {
  addPulsesIn(rows, at, track, state.when);
  addPulsesIn(rows, at, track, state.while);
}

/** @returns whether there is any */
function addPulsesIn(rows: Rows, at: number, track: number, condition: number): boolean {
  if (condition < 0) return false;
  const { words } = situationFor(rows, at, track);
  return addPulsesRead(rows.controller.conditions[condition]!, words, 0, notes.used);
}

/** Remembers the hops whose condition is true within their span, and uses its pulses. @returns whether a pulse was */
function remember(rows: Rows, at: number, trackRow: number): boolean {
  const { ints } = rows;
  const timeline = timelineOf(rows, trackRow);
  const { state, hearing } = timeline;
  advance(rows, at, trackRow, timeline);
  const open = hearing[ints[2 * trackRow + TrackRow.segment]!]!;
  if (open.length === 0) return false;
  const situation = situationFor(rows, at, state.track);
  let isUsed = false;
  forgetUsed();
  for (const index of open) {
    const { memory, if: condition } = state.hops[index]!;
    const place = 2 * trackRow + TrackRow.words + (memory >> 5);
    const bit = 1 << (memory & 31);
    if ((ints[place]! & bit) !== 0 || !situation.holds(condition)) continue;
    ints[place]! |= bit;
    if (addPulsesIn(rows, at, state.track, condition)) isUsed = true;
  }
  if (!isUsed) return false;
  use(rows, at, state.track);
  commit(rows, at);
  return true;
}

/** Whether the act that plays is pressed again. */
function isPressedAgain(rows: Rows, at: number, trackRow: number, state: State): boolean {
  const { index, kind, again, track } = state;
  if (kind !== 'act' || again === 'ignore') return false;
  if (isOver(rows, at, trackRow, state)) return false;
  const situation = situationFor(rows, at, track);
  return situation.wantsIn(index) || hasStarted(rows, situation, index);
}

/** Queues a press of an act that says so. @returns whether a press was used */
function queuePress(rows: Rows, at: number, trackRow: number): boolean {
  const state = stateOf(rows, trackRow);
  if (state.again !== 'queue' || !isPressedAgain(rows, at, trackRow, state)) return false;
  rows.ints[2 * trackRow + TrackRow.stateBits]! |= StateBit.queued;
  notes.starts[state.index] = 0;
  forgetUsed();
  addOwnPulses(rows, at, state.track, state);
  use(rows, at, state.track);
  commit(rows, at);
  return true;
}

/** The decision to begin an act again by a press; to stay if there is none. */
function restart(rows: Rows, at: number, trackRow: number): number {
  const state = stateOf(rows, trackRow);
  if (state.again !== 'restart' || !isPressedAgain(rows, at, trackRow, state)) return Decision.stay;
  return decided(Rule.again, state.index);
}

/**
 * Decides in one track until it no longer switches at this instant.
 *
 * @returns whether it switched
 */
export function switchOne(rows: Rows, at: number, trackRow: number, clipEvent: number): boolean {
  if (!rows.notesPlain) return switchFully(rows, at, trackRow, clipEvent, false);
  const timeline = 2 * trackRow + TrackRow.timeline;
  const before = rows.ints[timeline];
  const plain = switchPlainly(rows, at, trackRow);
  if (plain === Plain.stays) return rows.ints[timeline] !== before;
  const begun = plain >= 0;
  return switchFully(rows, at, trackRow, begun ? ClipEvent.begins : clipEvent, begun);
}

/** @param begun whether it has switched already */
function switchFully(rows: Rows, at: number, trackRow: number, clipEvent: number, begun: boolean): boolean {
  const { states } = rows;
  let now = clipEvent;
  for (let switches = begun ? 1 : 0; ;) {
    let decision = choose(rows, at, trackRow, now);
    if (decision === Decision.stay) {
      if (!stateOf(rows, trackRow).remembersPresses) return switches > 0;
      if (remember(rows, at, trackRow) || queuePress(rows, at, trackRow)) continue;
      decision = restart(rows, at, trackRow);
      if (decision === Decision.stay) return switches > 0;
    }
    if (++switches > states.length) throw circleError(rows, at, decision);
    now = enter(rows, at, trackRow, decision) ? ClipEvent.begins : ClipEvent.nothing;
  }
}

/**
 * Decides in all tracks until none of them switches. The switch to the highest rank is made first, then all decide again. If one track uses
 * a pulse, the others still see it until then. `notes.clipEvents` says what happens in their clips.
 */
export function switchAll(rows: Rows, at: number): void {
  const { trackCount, states } = rows;
  const { clipEvents } = notes;
  if (trackCount === 1) {
    switchOne(rows, at, at + Row.trackRows, clipEvents[0]!);
    return;
  }
  for (let switches = 0; ;) {
    let decision: number = Decision.stay;
    let most = -Infinity;
    for (let track = 0; track < trackCount; track++) {
      const trackRow = trackRowAt(rows, at, track);
      if (isKnownToStay(rows, at, trackRow)) continue;
      const one = choose(rows, at, trackRow, clipEvents[track]!);
      if (one === Decision.stay) continue;
      const { rank } = states[stateOfDecision(one)]!;
      if (rank <= most) continue;
      most = rank;
      decision = one;
    }
    if (decision === Decision.stay) {
      if (hearPresses(rows, at)) continue;
      decision = pressed(rows, at);
      if (decision === Decision.stay && !clearSharedPulses()) return;
      if (decision === Decision.stay) continue;
    }
    if (++switches > states.length) throw circleError(rows, at, decision);
    const { track } = states[stateOfDecision(decision)]!;
    const begins = enter(rows, at, trackRowAt(rows, at, track), decision);
    clipEvents[track] = begins ? ClipEvent.begins : ClipEvent.nothing;
  }
}

/** Makes the tracks in which nothing switches remember hops and queue presses. @returns whether a pulse was used */
function hearPresses(rows: Rows, at: number): boolean {
  let isHeard = false;
  for (let track = 0; track < rows.trackCount; track++) {
    const trackRow = trackRowAt(rows, at, track);
    if (!stateOf(rows, trackRow).remembersPresses) continue;
    if (remember(rows, at, trackRow) || queuePress(rows, at, trackRow)) isHeard = true;
  }
  return isHeard;
}

/** The decision to begin the first act again that is pressed. */
function pressed(rows: Rows, at: number): number {
  for (let track = 0; track < rows.trackCount; track++) {
    const trackRow = trackRowAt(rows, at, track);
    if (!stateOf(rows, trackRow).remembersPresses) continue;
    const decision = restart(rows, at, trackRow);
    if (decision !== Decision.stay) return decision;
  }
  return Decision.stay;
}

/** States lead to one another without taking time. */
function circleError(rows: Rows, at: number, decision: number): Error {
  const { states } = rows.controller;
  const index = rows.firstIndex + rows.indexOf(at);
  const reports = rows.reportsOf(at);
  const names: string[] = [];
  for (let i = 0; i < reports.count; i++)
    if (reports.kind(i) === 'switch' && reports.memberAt(i) === index) names.push(reports.name(i));
  const end = states[stateOfDecision(decision)]!.name;
  const begin = names.lastIndexOf(end);
  return callError('switch-cycle', { states: [...names.slice(Math.max(0, begin)), end] });
}
