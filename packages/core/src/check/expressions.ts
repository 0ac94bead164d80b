import type { ControllerDefinition, StateDefinition } from '../controller/definition.js';
import { compassShape } from '../compass/shape.js';
import { statesIn } from '../controller/groups.js';
import { stateShape } from '../controller/state-shape.js';
import type { DocumentPath } from '../problem/problem.js';
import type { Shape } from '../shape/shape.js';
import { textsIn } from '../shape/texts.js';
import { derivedShape } from '../signal/shape.js';
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

/** Every expression in data, by its shape. @param isAt whether one at a path is wanted */
function expressionsIn(
  data: unknown,
  shape: Shape,
  optionsOf?: OptionsOf,
  isAt: (path: DocumentPath) => boolean = () => true,
): Expression[] {
  return textsIn(data, shape)
    .filter(({ role, path }) => role === 'expression' && isAt(path))
    .map(({ text }) => parseExpression(text, optionsOf));
}

/** What a state asks: its conditions, and the numbers that it follows. */
export const askedBy = (state: StateDefinition, optionsOf?: OptionsOf): Expression[] =>
  expressionsIn(state, stateShape, optionsOf, ([field]) => field !== 'facing');

/** The parts of the vector of its own that a state faces by. */
export const facedBy = ({ facing }: StateDefinition): Expression[] => expressionsIn({ facing }, stateShape);

/** The parts of the vector that turns a character. */
export const turnedBy = ({ compass }: ControllerDefinition): Expression[] =>
  expressionsIn(compass, compassShape);

/** What a derived signal is made of. */
export const madeOf = (derived: DerivedDefinition, optionsOf?: OptionsOf): Expression[] =>
  expressionsIn(derived, derivedShape, optionsOf);

/** Every name that an expression reads; of `aim.x` or `arms.swing` the whole. */
export const namesOf = (expression: Expression): string[] =>
  expression.kind === 'name' ? [expression.name] : partsOf(expression).flatMap(namesOf);
