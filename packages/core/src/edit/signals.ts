import type { ControllerDefinition } from '../controller/definition.js';
import type { DerivedDefinition, SignalDefinition } from '../signal/definition.js';
import { freeName } from './clips.js';
import type { Edit } from './history.js';

/*
 * What one does to signals: each gives an edit, as data, from the document as it is.
 */

const placeOf = ({ derived = {} }: ControllerDefinition, name: string): 'derived' | 'signals' =>
  Object.hasOwn(derived, name) ? 'derived' : 'signals';

/** Adds a signal that the game sets. If its name is taken, it gets another one. */
export function addSignal(definition: ControllerDefinition, wanted: string, signal: SignalDefinition): Edit {
  const name = freeName(wanted, { ...definition.signals, ...definition.derived });
  return { says: `make signal ${name}`, changes: [{ op: 'set', path: ['signals', name], value: signal }] };
}

/** Adds a derived signal. */
export function addDerived(
  definition: ControllerDefinition,
  wanted: string,
  derived: DerivedDefinition,
): Edit {
  const name = freeName(wanted, { ...definition.signals, ...definition.derived });
  return { says: `make ${name}`, changes: [{ op: 'set', path: ['derived', name], value: derived }] };
}

/** Replaces the definition of a signal, plain or derived. */
export function setSignal(
  definition: ControllerDefinition,
  name: string,
  signal: SignalDefinition | DerivedDefinition,
): Edit {
  return {
    says: `what ${name} is`,
    changes: [{ op: 'set', path: [placeOf(definition, name), name], value: signal }],
  };
}

/** Removes a signal. Every reference to it becomes a problem of the document. */
export function removeSignal(definition: ControllerDefinition, name: string): Edit {
  return {
    says: `delete signal ${name}`,
    changes: [{ op: 'remove', path: [placeOf(definition, name), name] }],
  };
}
