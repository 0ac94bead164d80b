import type { Controller, State } from '../controller/controller.js';
import { holds, pulsesRead, termsOf } from '../signal/condition.js';
import { ruleNames } from '../controller/rule.js';
import type { RuleName } from '../controller/rule.js';

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

/** One term of a condition and the signals it reads. */
export interface WhyTerm {
  readonly text: string;
  readonly on: boolean;
  readonly reads: readonly { readonly name: string; readonly value: number | boolean }[];
}

/** A condition with the truth of each of its terms. */
export interface WhyCondition {
  readonly text: string;
  readonly holds: boolean;
  readonly terms: readonly WhyTerm[];
}

/** One state's part of the answer. */
export interface WhyState {
  readonly name: string;
  readonly kind: State['kind'];
  readonly priority: number;
  readonly wantsIn: boolean;
  readonly keptOut: KeptOut;
  readonly while: WhyCondition | undefined;
  readonly when: WhyCondition | undefined;
}

/** Why a performer shows what it shows, as of its last decision. */
export interface Why {
  /** Milliseconds since the performer began. */
  readonly at: number;
  readonly state: string;
  /** Since when it shows, in milliseconds. */
  readonly since: number;
  /** How it came to show. */
  readonly last: {
    readonly from: string | undefined;
    readonly rule: RuleName;
    readonly used: readonly string[];
  };
  /** Every state, from the highest rank to the lowest. */
  readonly states: readonly WhyState[];
}

/** What the answer is made from. */
export interface Standing {
  readonly state: number;
  readonly flags: number;
  readonly terms: number;
  readonly ended: boolean;
  readonly at: number;
  readonly enteredAt: number;
  readonly from: number;
  readonly rule: number;
  readonly used: number;
  readonly value: (name: string) => number | boolean;
}

/** Explains a standing. Reads the same conditions and words of bits as the decision does. */
export function explain(controller: Controller, standing: Standing): Why {
  const { states, order, tables } = controller;
  const { flags, terms, used } = standing;
  const current = states[standing.state]!;

  const condition = (index: number): WhyCondition | undefined => {
    if (index < 0) return undefined;
    const read = controller.conditions[index]!;
    return {
      text: controller.conditionTexts[index]!,
      holds: holds(read, flags, terms),
      terms: termsOf(read).map((term) => ({
        text: term.text,
        on: ((term.word === 'flags' ? flags : terms) & term.bit) !== 0,
        reads: term.reads.map((name) => ({ name, value: standing.value(name) })),
      })),
    };
  };

  const stateOf = (index: number): WhyState => {
    const state = states[index]!;
    const [during, start] = [condition(state.while), condition(state.when)];
    const pulsed = state.when >= 0 && pulsesRead(controller.conditions[state.when]!, flags, terms) !== 0;
    const allowed = during?.holds ?? true;
    const wantsIn = allowed && (state.kind === 'posture' || pulsed);
    let keptOut: KeptOut = 'rank';
    if (state === current) keptOut = 'shows';
    else if (state.kind === 'bare') keptOut = 'no-condition';
    else if (!allowed || start?.holds === false) keptOut = 'condition';
    else if (!wantsIn) keptOut = 'not-new';
    else if (current.final && state.priority > current.priority) keptOut = 'final';
    const { name, kind, priority } = state;
    return { name, kind, priority, wantsIn, keptOut, while: during, when: start };
  };

  return {
    at: standing.at / 1000,
    state: current.name,
    since: standing.enteredAt / 1000,
    last: {
      from: standing.from < 0 ? undefined : states[standing.from]!.name,
      rule: ruleNames[standing.rule]!,
      used: tables.pulses.filter(({ bit }) => (bit & used) !== 0).map(({ name }) => name),
    },
    states: order.map(stateOf),
  };
}
