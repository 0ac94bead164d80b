import { bodyTrack, groupsIn, stateIn, statesIn } from '../controller/groups.js';
import type { PlacedGroup, DocumentState } from '../controller/groups.js';
import type {
  ControllerDefinition,
  GroupDefinition,
  StateDefinition,
  TrackDefinition,
} from '../controller/definition.js';
import type { DocumentPath } from '../problem/problem.js';
import type { Change } from './change.js';
import { freeName } from './clips.js';
import type { Edit } from './history.js';
import { valueAt } from './rename.js';

/*
 * What one does to groups of states and to tracks: each gives an edit, as data, from the document as it is.
 */

const nothing: Edit = { says: '', changes: [] };

const trackPath = (track: string): string[] => (track === bodyTrack ? [] : ['tracks', track]);

/** Lists the groups of a document, each with the groups around it, the outermost first. */
export const groupsOf = (definition: ControllerDefinition): (readonly PlacedGroup[])[] => [
  ...groupsIn(definition, []),
  ...Object.entries(definition.tracks ?? {}).flatMap(([name, track]) => groupsIn(track, trackPath(name))),
];

/** Finds a group of a document by its name. */
export const groupIn = (definition: ControllerDefinition, name: string): PlacedGroup | undefined =>
  groupsOf(definition)
    .map((chain) => chain[chain.length - 1]!)
    .find((one) => one.name === name);

/** A condition as a part of a longer one. */
const bracketed = (text: string): string => (/\bor\b|\|\||\?/.test(text) ? `(${text})` : text);

/** A state as it stands outside: what its group says for all it says itself. */
function outside({ definition, groups }: DocumentState): StateDefinition {
  const group = groups[groups.length - 1];
  if (group === undefined) return definition;
  const [shared, own] = [group.definition.while, definition.while];
  return {
    ...definition,
    while: own === undefined ? shared : `${bracketed(shared)} and ${bracketed(own)}`,
  };
}

/** Takes away what stands at a path, with the maps around it that would be empty. */
function removed(definition: ControllerDefinition, path: DocumentPath): Change {
  let gone = path;
  while (gone.length > 1 && Object.keys(valueAt(definition, gone.slice(0, -1)) ?? {}).length === 1)
    gone = gone.slice(0, -1);
  return { op: 'remove', path: gone };
}

/** Takes a state from where it stands: its group's rest is another one then, and a group without states is no group. */
function takenFrom(definition: ControllerDefinition, { name, path, groups }: DocumentState): Change[] {
  const group = groups[groups.length - 1];
  if (group === undefined) return [{ op: 'remove', path }];
  // What starts on a press cannot be at rest.
  const [next] = Object.entries(group.definition.states)
    .filter(([one]) => one !== name)
    .sort(([, one], [, other]) => Number(one.when !== undefined) - Number(other.when !== undefined))
    .map(([one]) => one);
  if (next === undefined && group.definition.groups === undefined) return [removed(definition, group.path)];
  const rest: Change = { op: 'set', path: [...group.path, 'rest'], value: next };
  return [...(group.definition.rest === name && next !== undefined ? [rest] : []), { op: 'remove', path }];
}

/**
 * Moves a state into a group of its track, or out of all groups. If the group does not exist, it is made: it takes over the state's
 * condition and rank, and the state becomes its rest.
 *
 * @param name of the state
 * @param group `undefined` to take it out of all groups
 */
export function groupState(definition: ControllerDefinition, name: string, group: string | undefined): Edit {
  const state = stateIn(definition, name);
  if (state === undefined || state.groups[state.groups.length - 1]?.name === group) return nothing;
  const own = trackPath(state.track);
  if (group === undefined) {
    const path = [...own, 'states', name];
    return {
      says: `${name} out of ${state.groups[state.groups.length - 1]!.name}`,
      changes: [...takenFrom(definition, state), { op: 'set', path, value: outside(state) }],
    };
  }
  const says = `${name} into ${group}`;
  const known = groupIn(definition, group);
  if (known !== undefined) {
    const path = [...known.path, 'states', name];
    const { while: during, ...rest } = outside(state);
    // What the group says for all need not be said again.
    const value =
      during === undefined || during === known.definition.while ? rest : { ...rest, while: during };
    return { says, changes: [...takenFrom(definition, state), { op: 'set', path, value }] };
  }
  const { while: during = 'true', priority, ...rest } = outside(state);
  const made: GroupDefinition = {
    while: during,
    ...(priority !== undefined && { priority }),
    rest: name,
    states: { [name]: rest },
  };
  return {
    says,
    changes: [...takenFrom(definition, state), { op: 'set', path: [...own, 'groups', group], value: made }],
  };
}

/**
 * Sets a field of a group; `undefined` removes it.
 *
 * @param path the path of the group
 */
export function setGroup<F extends 'while' | 'priority' | 'rest' | 'tags' | 'facing' | 'carry'>(
  path: DocumentPath,
  field: F,
  value: GroupDefinition[F] | undefined,
): Edit {
  const at = [...path, field];
  return {
    says: `“${field}” of ${String(path[path.length - 1])}`,
    changes: [value === undefined ? { op: 'remove', path: at } : { op: 'set', path: at, value }],
  };
}

/** Adds a track. It begins with one state that is in step with the body. */
export function addTrack(definition: ControllerDefinition, wanted: string): Edit {
  const taken = [bodyTrack, ...Object.keys(definition.tracks ?? {})];
  // Conditions ask for the states of a track, so its name has letters and digits only.
  let name = wanted;
  for (let i = 2; taken.includes(name); i++) name = `${wanted}${i}`;
  const all = Object.fromEntries(statesIn(definition).map((one) => [one.name, one]));
  const value: TrackDefinition = { states: { [freeName(`${name}-along`, all)]: { inStep: bodyTrack } } };
  return { says: `make track ${name}`, changes: [{ op: 'set', path: ['tracks', name], value }] };
}

/** Removes a track with its states, also from the states that take it. Any other reference to it becomes a problem of the document. */
export function removeTrack(definition: ControllerDefinition, name: string): Edit {
  const { tracks = {} } = definition;
  if (!Object.hasOwn(tracks, name)) return nothing;
  const changes: Change[] = [];
  for (const { path, definition: state, track } of statesIn(definition)) {
    const { takes } = state;
    if (track === name || takes === undefined) continue;
    const left: StateDefinition['takes'] = Array.isArray(takes)
      ? takes.filter((one) => one !== name)
      : Object.fromEntries(Object.entries(takes).filter(([one]) => one !== name));
    const [before, now] = [Object.keys(takes).length, Object.keys(left).length];
    const at = [...path, 'takes'];
    if (now === before) continue;
    changes.push(now === 0 ? { op: 'remove', path: at } : { op: 'set', path: at, value: left });
  }
  const isLast = Object.keys(tracks).length === 1;
  return {
    says: `delete track ${name}`,
    changes: [...changes, { op: 'remove', path: isLast ? ['tracks'] : ['tracks', name] }],
  };
}

/**
 * Sets the flipbook that shows in place of another while a signal says so.
 *
 * @param option of a choice; `undefined` for a flag
 * @param from the flipbook that the states name
 * @param to the flipbook that shows instead; `undefined` removes the variant
 */
export function setVariant(
  definition: ControllerDefinition,
  signal: string,
  option: string | undefined,
  from: string,
  to: string | undefined,
): Edit {
  const says = to === undefined ? `no variant of ${from}` : `${to} in place of ${from}`;
  const path = ['variants', signal, ...(option === undefined ? [] : [option])];
  if (to !== undefined) return { says, changes: [{ op: 'set', path: [...path, from], value: to }] };
  return { says, changes: [removed(definition, [...path, from])] };
}
