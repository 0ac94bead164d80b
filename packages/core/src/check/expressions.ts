import type { ControllerDefinition, StateDefinition } from '../controller/definition.js';
import type { DerivedDefinition } from '../signal/definition.js';
import { parseExpression, partsOf } from '../signal/expression.js';
import type { Expression } from '../signal/expression.js';

/** The states of all tracks. */
export const statesIn = ({ states = {}, tracks = {} }: ControllerDefinition): StateDefinition[] =>
  [states, ...Object.values(tracks).map((track) => track.states)].flatMap((own) => Object.values(own));

/** Every expression in a part of a definition: a text, or texts in lists and maps. */
export function expressionsIn(part: unknown): Expression[] {
  if (typeof part === 'string') return [parseExpression(part)];
  return typeof part === 'object' && part !== null ? Object.values(part).flatMap(expressionsIn) : [];
}

/** What a state asks: its conditions, and the numbers that it follows. */
export function askedBy({
  while: during,
  when,
  hops,
  yields,
  rate,
  gaits,
  scrub,
  takes,
}: StateDefinition): Expression[] {
  const conditions = [...(hops ?? []), ...(yields ?? [])].map((one) => one.if);
  const travel = typeof rate === 'object' ? rate.travel : rate;
  const taking = Array.isArray(takes) ? [] : takes;
  return expressionsIn([during, when, conditions, travel, gaits?.by, scrub?.by, taking]);
}

/** The parts of the vector of its own that a state faces by. */
export const facedBy = ({ facing }: StateDefinition): Expression[] =>
  expressionsIn(typeof facing === 'object' ? facing.by : undefined);

/** What a derived signal is made of. */
export const madeOf = (derived: DerivedDefinition): Expression[] =>
  expressionsIn(typeof derived === 'string' ? derived : derived.of);

/** Every name that an expression reads; of `aim.x` or `arms.swing` the whole. */
export const namesOf = (expression: Expression): string[] =>
  expression.kind === 'name' ? [expression.name] : partsOf(expression).flatMap(namesOf);
