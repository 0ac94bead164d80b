import type { ControllerDefinition } from '../controller/definition.js';
import type { DerivedDefinition, SignalDefinition } from '../signal/definition.js';
import { freeName } from './clips.js';
import type { Edit } from './history.js';

/*
 * What one does to signals: each gives an edit, as data, from the document as it is.
 */

const placeOf = ({ derived = {} }: ControllerDefinition, name: string): 'derived' | 'signals' =>
  Object.hasOwn(derived, name) ? 'derived' : 'signals';

/** A new signal that the game sets, under its name or, where that is taken, another one. */
export function addSignal(definition: ControllerDefinition, wanted: string, signal: SignalDefinition): Edit {
  const name = freeName(wanted, { ...definition.signals, ...definition.derived });
  return { says: `make signal ${name}`, changes: [{ op: 'set', path: ['signals', name], value: signal }] };
}

/** A new signal that follows from others. */
export function addDerived(
  definition: ControllerDefinition,
  wanted: string,
  derived: DerivedDefinition,
): Edit {
  const name = freeName(wanted, { ...definition.signals, ...definition.derived });
  return { says: `make ${name}`, changes: [{ op: 'set', path: ['derived', name], value: derived }] };
}

/** Says anew what a signal is, be it set by the game or derived. */
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

/** Takes a signal away. What reads it is told as a problem of the document. */
export function removeSignal(definition: ControllerDefinition, name: string): Edit {
  return {
    says: `delete signal ${name}`,
    changes: [{ op: 'remove', path: [placeOf(definition, name), name] }],
  };
}
