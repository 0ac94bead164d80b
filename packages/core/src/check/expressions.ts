import type { ControllerDefinition, StateDefinition } from '../controller/definition.js';
import { statesIn } from '../controller/groups.js';
import { choiceOf } from '../signal/signals.js';
import type { DerivedDefinition } from '../signal/definition.js';
import { parseExpression, partsOf } from '../signal/expression.js';
import type { Expression, OptionsOf } from '../signal/expression.js';

/** What all states and groups say. */
export function saidIn(definition: ControllerDefinition): StateDefinition[] {
  const states = statesIn(definition);
  const groups = new Set(states.flatMap((one) => one.groups.map((group) => group.definition)));
  // Of a group what states say too is looked at.
  return [...states.map((one) => one.definition), ...groups];
}

/** What choices and tracks are compared with, which is no signal whatever it is called. */
export const optionsIn =
  ({ signals = {}, tracks = {} }: ControllerDefinition): OptionsOf =>
  (name) => {
    if (Object.hasOwn(signals, name)) return choiceOf(signals, name);
    return name === 'body' || Object.hasOwn(tracks, name) ? [] : undefined;
  };

/** Every expression in a part of a definition: a text, or texts in lists and maps. */
export function expressionsIn(part: unknown, optionsOf?: OptionsOf): Expression[] {
  if (typeof part === 'string') return [parseExpression(part, optionsOf)];
  if (typeof part !== 'object' || part === null) return [];
  return Object.values(part).flatMap((inner) => expressionsIn(inner, optionsOf));
}

/** What a state asks: its conditions, and the numbers that it follows. */
export function askedBy(
  { while: during, when, hops, yields, rate, gaits, scrub, takes, lasts, atLeast }: StateDefinition,
  optionsOf?: OptionsOf,
): Expression[] {
  const conditions = [...(hops ?? []), ...(yields ?? [])].map((one) => one.if);
  const travel = typeof rate === 'object' ? rate.travel : rate;
  const taking = Array.isArray(takes) ? [] : takes;
  return expressionsIn(
    [during, when, conditions, travel, gaits?.by, scrub?.by, taking, lasts, atLeast],
    optionsOf,
  );
}

/** The parts of the vector of its own that a state faces by. */
export const facedBy = ({ facing }: StateDefinition): Expression[] =>
  expressionsIn(typeof facing === 'object' ? facing.by : undefined);

/** What a derived signal is made of. */
export const madeOf = (derived: DerivedDefinition, optionsOf?: OptionsOf): Expression[] =>
  expressionsIn(typeof derived === 'string' ? derived : Object.values(derived), optionsOf);

/** Every name that an expression reads; of `aim.x` or `arms.swing` the whole. */
export const namesOf = (expression: Expression): string[] =>
  expression.kind === 'name' ? [expression.name] : partsOf(expression).flatMap(namesOf);
