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

/** Everything that states and groups say. */
export function saidIn(definition: ControllerDefinition): StateDefinition[] {
  const states = statesIn(definition);
  const groups = new Set(states.flatMap((one) => one.groups.map((group) => group.definition)));
  // Of a group what states say too is looked at.
  return [...states.map((one) => one.definition), ...groups];
}

/** The options and states with which choices and tracks are compared. Such a name is not a signal, even if a signal has the same name. */
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

/** The expressions of a state: its conditions, and the numbers that it follows. */
export const askedBy = (state: StateDefinition, optionsOf?: OptionsOf): Expression[] =>
  expressionsIn(state, stateShape, optionsOf, ([field]) => field !== 'facing');

/** The two expressions of a state's own vector. */
export const facedBy = ({ facing }: StateDefinition): Expression[] => expressionsIn({ facing }, stateShape);

/** The two expressions of the vector that turns a character. */
export const turnedBy = ({ compass }: ControllerDefinition): Expression[] =>
  expressionsIn(compass, compassShape);

/** The expressions of a derived signal. */
export const madeOf = (derived: DerivedDefinition, optionsOf?: OptionsOf): Expression[] =>
  expressionsIn(derived, derivedShape, optionsOf);

/** Every name in an expression. `aim.x` and `arms.swing` are one name each. */
export const namesOf = (expression: Expression): string[] =>
  expression.kind === 'name' ? [expression.name] : partsOf(expression).flatMap(namesOf);
