import type { Controller } from './controller.js';
import type { State } from './state.js';
import type { ControllerDefinition } from './definition.js';
import { statesIn } from './groups.js';
import type { DocumentState } from './groups.js';

/** The states of each document by their places, found once. */
const known = new WeakMap<ControllerDefinition, ReadonlyMap<string, DocumentState>>();

/** The state of the document behind a compiled state. `undefined` if another track has taken it, or if the document has no states. */
export function documentStateOf({ definition }: Controller, { path }: State): DocumentState | undefined {
  let stated = known.get(definition);
  if (stated === undefined) {
    stated = new Map(statesIn(definition).map((one) => [one.path.join('.'), one]));
    known.set(definition, stated);
  }
  return stated.get(path.join('.'));
}
