import type { Controller, State } from './controller.js';
import { Rule } from './rule.js';
import type { Situation } from './situations.js';

/** What is decided in a situation: codes that are kept in it for each timeline. From `switches` on: see below. */
export const Verdict = {
  /** Not asked yet. */
  unknown: 0,
  /** The whole rule must be gone through: something besides the situation counts. */
  open: 1,
  /** The state stays. */
  stays: 2,
  /** Three codes for each state to switch to, by which of three rules. */
  switches: 3,
} as const;

const rules = [Rule.rank, Rule.way, Rule.rest] as const;

/** The state that a code switches to. */
export const targetOf = (code: number): number => ((code - Verdict.switches) / 3) | 0;

/** The rule by which a code switches. */
export const ruleOf = (code: number): number => rules[(code - Verdict.switches) % 3]!;

/**
 * What the rule of decision gives for a state in a situation, if that follows from the two alone: no hop, yield, span,
 * pulse or time has a say. Only then it is kept and found again, and all of the rule need not be gone through.
 */
export function verdictOf(controller: Controller, state: State, situation: Situation): number {
  const { states, tables } = controller;
  if (!isStatic(state)) return Verdict.open;
  const code = staticVerdict(controller, state, situation);
  if (code === Verdict.stays) return code;
  const to = states[targetOf(code)]!;
  const enters =
    isStatic(to) &&
    to.tagBits === state.tagBits &&
    to.reads.length === 0 &&
    to.rate === undefined &&
    to.gaits.length === 0 &&
    to.bridges[state.index] === undefined;
  const pulsed = (situation.flags & tables.pulseBits) !== 0;
  // Where the next state would not stay either, the chain is gone through.
  const ends = staticVerdict(controller, to, situation) === Verdict.stays;
  return enters && ends && !pulsed ? code : Verdict.open;
}

function isStatic({ isPlain, leaves, atLeast, hears }: State): boolean {
  return isPlain && !leaves && atLeast === 0 && !hears;
}

function staticVerdict({ states, rest }: Controller, state: State, situation: Situation): number {
  const { best } = situation;
  const by = (rule: number, to: number): number => Verdict.switches + to * 3 + rule;
  if (!state.final && best >= 0 && states[best]!.priority > state.priority) return by(0, best);
  if (situation.holds(state.while)) {
    const gives = state.index === rest && best >= 0 && best !== rest;
    return gives ? by(1, best) : Verdict.stays;
  }
  if (best >= 0) return by(1, best);
  return state.index === rest ? Verdict.stays : by(2, rest);
}
