import { stateIn, statesIn } from '../controller/groups.js';
import type { DocumentState } from '../controller/groups.js';
import type { ControllerDefinition, HopDefinition, StateDefinition } from '../controller/definition.js';
import type { DocumentPath } from '../problem/problem.js';
import type { Change } from './change.js';
import { freeName } from './clips.js';
import type { Edit } from './history.js';

/*
 * What one does to states: each gives an edit, as data, from the document as it is.
 */

/** Where states stand beside one another: those of a track, or of a group. */
const holderOf = ({ path }: DocumentState): DocumentPath => path.slice(0, -1);

const priorityOf = ({ definition }: DocumentState): number => definition.priority ?? 0;

/**
 * The states beside a state (itself too) from the highest rank down, as a ladder shows them: of equal ranks the one that is first in the
 * document stands above.
 */
function rungsBeside(definition: ControllerDefinition, state: DocumentState): DocumentState[] {
  const holder = holderOf(state).join('.');
  return statesIn(definition)
    .filter((one) => holderOf(one).join('.') === holder)
    .sort((one, other) => priorityOf(other) - priorityOf(one));
}

/**
 * Adds a state that shows a clip or flipbook. The very first state becomes the rest.
 *
 * @param holder where to put it: the document itself, or the path of a track or a group
 */
export function addState(
  definition: ControllerDefinition,
  wanted: string,
  state: StateDefinition,
  holder: DocumentPath = [],
): Edit {
  const all = Object.fromEntries(statesIn(definition).map((one) => [one.name, one]));
  const name = freeName(wanted, all);
  return {
    says: `make state ${name}`,
    changes: [{ op: 'set', path: [...holder, 'states', name], value: state }],
  };
}

/** Removes a state, with the hops and `then` that lead to it. Whatever else names it becomes a problem of the document. */
export function removeState(definition: ControllerDefinition, name: string): Edit {
  const gone = stateIn(definition, name);
  if (gone === undefined) return { says: '', changes: [] };
  const changes: Change[] = [];
  for (const { path, definition: state, name: other } of statesIn(definition)) {
    if (other === name) continue;
    if (state.then === name) changes.push({ op: 'remove', path: [...path, 'then'] });
    const left = state.hops?.filter(({ to }) => to !== name) ?? [];
    if (left.length !== (state.hops?.length ?? 0))
      changes.push(
        left.length === 0
          ? { op: 'remove', path: [...path, 'hops'] }
          : { op: 'set', path: [...path, 'hops'], value: left },
      );
  }
  return { says: `delete state ${name}`, changes: [...changes, { op: 'remove', path: gone.path }] };
}

/** Sets a field of a state. `undefined` removes it. */
export function setState<F extends keyof StateDefinition>(
  definition: ControllerDefinition,
  name: string,
  field: F,
  value: StateDefinition[F],
): Edit {
  const state = stateIn(definition, name);
  if (state === undefined) return { says: '', changes: [] };
  const path = [...state.path, field];
  return {
    says: value === undefined ? `take “${field}” from ${name}` : `“${field}” of ${name}`,
    changes: [value === undefined ? { op: 'remove', path } : { op: 'set', path, value }],
  };
}

/**
 * Replaces a hop of a state, adds one at the end, or removes one.
 *
 * @param at its index, from 0
 */
export function setHop(
  definition: ControllerDefinition,
  name: string,
  at: number,
  hop: HopDefinition | undefined,
): Edit {
  const hops = [...(stateIn(definition, name)?.definition.hops ?? [])];
  const before = hops[at];
  if (hop === undefined) hops.splice(at, 1);
  else hops[Math.min(at, hops.length)] = hop;
  const says =
    hop === undefined ? `no hop from ${name} to ${before?.to ?? ''}` : `hop from ${name} to ${hop.to}`;
  return { ...setState(definition, name, 'hops', hops.length === 0 ? undefined : hops), says };
}

/**
 * Moves a state to another rung of its ladder, and gives it a priority that fits. Other states keep theirs if there is a number free
 * between them; else those above move up.
 *
 * @param to its rung afterwards, 0 for the highest
 */
export function rankState(definition: ControllerDefinition, name: string, to: number): Edit {
  const nothing: Edit = { says: '', changes: [] };
  const state = stateIn(definition, name);
  if (state === undefined) return nothing;
  const beside = rungsBeside(definition, state);
  const others = beside.filter((one) => one.name !== name);
  const rung = Math.max(0, Math.min(to, others.length));
  if (beside.findIndex((one) => one.name === name) === rung) return nothing;
  const [above, below] = [others[rung - 1], others[rung]];
  const under = below === undefined ? undefined : priorityOf(below);
  const over = above === undefined ? undefined : priorityOf(above);
  const apart = 10;
  const priority =
    under === undefined
      ? over! - apart
      : over === undefined
        ? under + apart
        : over - under > 1
          ? Math.round((over + under) / 2)
          : under + 1;
  const put = ({ path }: DocumentState, value: number): Change => ({
    op: 'set',
    path: [...path, 'priority'],
    value,
  });
  const changes = [put(state, priority)];
  // From the rung above upwards, each that would not stand above any more.
  let least = priority;
  for (const one of others.slice(0, rung).reverse()) {
    if (priorityOf(one) > least) break;
    changes.push(put(one, ++least));
  }
  return { says: `rank ${name} ${priority}`, changes };
}
