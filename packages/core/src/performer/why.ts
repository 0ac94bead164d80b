import type { State } from '../controller/state.js';
import { Row, TrackRow } from '../controller/layout.js';
import { ruleNames } from '../controller/rule.js';
import { rankText } from '../controller/rank.js';
import type { RuleName } from '../controller/rule.js';
import { segmentNow, valueNamed } from '../engine/inspect.js';
import { isKept, isOver } from '../engine/lengths.js';
import { paceOf, gamePace } from '../engine/pace.js';
import { StateBit, catchUp, situationOf, trackRowAt, timelineOf } from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';
import { holds, isOn, readsPulse, termsOf } from '../signal/condition.js';
import type { Condition, Term } from '../signal/condition.js';
import type { SignalValue } from '../signal/definition.js';
import { parseExpression } from '../signal/expression.js';
import type { Expression } from '../signal/expression.js';
import { rememberedBy, usedBy } from './row-snapshot.js';

/** What keeps a state from showing. */
export type KeptOut =
  /** Nothing: it shows. */
  | 'shows'
  /** Its condition is not true. */
  | 'condition'
  /** Its `when` is true, but has been so for a while; an act starts only when it becomes true. */
  | 'not-new'
  /** It wants in, but does not rank above the state that shows, which does not give way now. */
  | 'rank'
  /** It wants in and ranks above the state that shows, but that one is final. */
  | 'final'
  /** It has no condition: it is reached by hops and `then`, or is the rest. */
  | 'no-condition';

/** One term of a condition, with the signals it reads. */
export interface WhyTerm {
  readonly text: string;
  readonly on: boolean;
  /** For a band: it turns on above the first number, and off below the second. */
  readonly band: { readonly above: number; readonly below: number } | undefined;
  readonly reads: readonly { readonly name: string; readonly value: SignalValue }[];
}

/** A part of a condition as it stands there, such as `!airborne`, between its `&&`, `||`, `?` and `:`. */
export interface WhyPart {
  readonly text: string;
  /** Whether the part is true as it is written. */
  readonly on: boolean;
  /** The terms in it. */
  readonly terms: readonly WhyTerm[];
}

/** A condition with the truth of each of its parts, and of each term in them. */
export interface WhyCondition {
  readonly text: string;
  readonly holds: boolean;
  readonly parts: readonly WhyPart[];
  readonly terms: readonly WhyTerm[];
}

/** One state's part of the answer. */
export interface WhyState {
  readonly name: string;
  /** The track whose state it is, where that one has taken this track. */
  readonly takenBy: string | undefined;
  readonly kind: State['kind'];
  readonly priority: number;
  /** Its rank in words: the priority, after those of its groups. */
  readonly rank: string;
  readonly wantsIn: boolean;
  readonly keptOut: KeptOut;
  readonly while: WhyCondition | undefined;
  readonly when: WhyCondition | undefined;
}

/** What keeps a hop of the state that shows from being taken. */
export type HopKept =
  /** Nothing: it is taken at its instant. */
  | 'open'
  /** Its condition is not true. */
  | 'condition'
  /** Play is outside the span within which its condition counts. */
  | 'span'
  /** Its instant is yet to come; its condition is true, or was and is remembered. */
  | 'instant'
  /** The `while` of the state it leads to is not true. */
  | 'while';

/** One hop of the state that shows. */
export interface WhyHop {
  readonly to: string;
  readonly if: WhyCondition | undefined;
  readonly kept: HopKept;
  /** Whether its condition was true within its span and is remembered until its instant. */
  readonly remembered: boolean;
}

/** What holds a state that would give way. */
export type Holding =
  /** Its `atLeast` is not over. */
  | 'atLeast'
  /** Its condition has turned false, but its `leaves` has not come. */
  | 'leaves';

/** Why a performer shows what it shows, as of its last decision. */
export interface Why {
  /** Milliseconds since the performer began. */
  readonly at: number;
  /** How fast its own time runs; 1 is as the game's. */
  readonly pace: number;
  /** The track it speaks of. */
  readonly track: string;
  readonly state: string;
  /** Since when it shows, in milliseconds. */
  readonly since: number;
  /** How it came to show. */
  readonly last: {
    readonly from: string | undefined;
    readonly rule: RuleName;
    readonly used: readonly string[];
  };
  /** What holds it although it would give way. */
  readonly holding: Holding | undefined;
  /** Whether a press is queued that plays it again. */
  readonly queued: boolean;
  /** The state that a route is on its way to. */
  readonly routeTo: string | undefined;
  /** The hops of the state that shows, in order. */
  readonly hops: readonly WhyHop[];
  /** Every state of the track, from the highest rank to the lowest. */
  readonly states: readonly WhyState[];
}

/** Why a track shows what it shows. Reads the same conditions and words of bits as the decision does. */
export function whyOf(rows: Rows, at: number, track: number): Why {
  const { doubles, ints, controller } = rows;
  catchUp(rows, at);
  const { states, tracks, tables } = controller;
  const trackRow = trackRowAt(rows, at, track);
  const situation = situationOf(rows, at);
  const timeline = timelineOf(rows, trackRow);
  const segment = segmentNow(rows, at, trackRow);
  const now = doubles[at + Row.now]!;
  const entered = doubles[trackRow + TrackRow.entered]!;
  const marks = ints[2 * trackRow + TrackRow.stateBits]!;
  const last = ints[2 * trackRow + TrackRow.lastSwitch]!;
  const hopsRemembered = rememberedBy(rows, trackRow);
  const used = usedBy(rows, trackRow);
  const { words } = situation;
  const current = timeline.state;

  const condition = (index: number): WhyCondition | undefined => {
    if (index < 0) return undefined;
    const [read, text] = [controller.conditions[index]!, controller.conditionTexts[index]!];
    const parts = partsAsWritten(text, read).map(([part, inner]) => ({
      text: part,
      on: holds(inner, words),
      terms: termsOf(inner).map(termNow),
    }));
    return { text, holds: holds(read, words), parts, terms: termsOf(read).map(termNow) };
  };
  const termNow = (term: Term): WhyTerm => {
    return {
      text: term.text,
      on: isOn(term, words),
      band: tables.bands.get(term.text),
      reads: term.reads.map((name) => ({ name, value: valueNamed(rows, at, name) })),
    };
  };

  const stateOf = (index: number): WhyState => {
    const state = states[index]!;
    const [during, start] = [condition(state.while), condition(state.when)];
    const pulsed = state.when >= 0 && readsPulse(controller.conditions[state.when]!, words);
    const allowed = during?.holds ?? true;
    const wantsIn = allowed && (state.kind === 'posture' || pulsed);
    let keptOut: KeptOut = 'rank';
    if (state === current) keptOut = 'shows';
    else if (!allowed || start?.holds === false) keptOut = 'condition';
    else if (state.kind === 'bare') keptOut = 'no-condition';
    else if (!wantsIn) keptOut = 'not-new';
    else if (current.final && state.rank > current.rank) keptOut = 'final';
    const { name, kind, priority } = state;
    const takenBy = tracks[states[state.takenBy]?.track ?? -1]?.name;
    const rank = rankText(states[state.takenBy] ?? state);
    return { name, takenBy, kind, priority, rank, wantsIn, keptOut, while: during, when: start };
  };

  const hopOf = ({ to, if: test, memory, now }: State['hops'][number], index: number): WhyHop => {
    const remembered = hopsRemembered.includes(index);
    const within = timeline.armed[segment]!.includes(index);
    const met = memory >= 0 ? remembered : within && situation.holds(test);
    let kept: HopKept = now ? 'open' : 'instant';
    if (!met) kept = within ? 'condition' : 'span';
    else if (!situation.holds(states[to]!.while)) kept = 'while';
    return { to: states[to]!.name, if: condition(test), kept, remembered };
  };

  const over = isOver(rows, at, trackRow, current);
  const stands = situation.holds(current.while);
  const held = isKept(rows, at, trackRow, current);
  return {
    at: now / 1000,
    pace: paceOf(rows, at) / gamePace,
    track: tracks[current.track]!.name,
    state: current.name,
    since: entered / 1000,
    last: {
      from: states[(last >> 4) - 1]?.name,
      rule: ruleNames[last & 15]!,
      used: tables.pulses.filter((pulse) => isOn(pulse, used)).map(({ name }) => name),
    },
    holding: stands && !over ? undefined : held ? 'atLeast' : stands ? undefined : leavesLater(current),
    queued: (marks & StateBit.queued) !== 0,
    routeTo: states[ints[2 * trackRow + TrackRow.goal]!]?.name,
    hops: current.hops.map(hopOf),
    states: tracks[current.track]!.order.map(stateOf),
  };
}

/**
 * The parts of a condition, each with what it was compiled to. The text and the compiled condition are walked side by side, so
 * that the answer names exactly what decided.
 */
function partsAsWritten(text: string, whole: Condition): [string, Condition][] {
  const found: [string, Condition][] = [];
  const visit = (part: Expression, condition: Condition): void => {
    if (part.kind === 'binary' && /&&|\|\|/.test(part.operator) && 'left' in condition) {
      visit(part.left, condition.left);
      visit(part.right, condition.right);
    } else if (part.kind === 'choose' && 'left' in condition && 'left' in condition.left) {
      visit(part.test, condition.left.left);
      visit(part.yes, condition.left.right);
      visit(part.no, (condition.right as typeof condition.left).right);
    } else found.push([text.slice(part.at, part.end), condition]);
  };
  visit(parseExpression(text), whole);
  return found;
}

function leavesLater({ leaves }: State): Holding | undefined {
  return leaves ? 'leaves' : undefined;
}
