import type { DocumentPath } from '../problem/problem.js';
import type {
  ControllerDefinition,
  GroupDefinition,
  StateDefinition,
  TrackDefinition,
} from './definition.js';

/** The track of the states that stand in the document itself. */
export const bodyTrack = 'body';

/** A group of a document, with its track and the groups around it, the outermost first. */
export interface PlacedGroup {
  readonly name: string;
  readonly path: DocumentPath;
  readonly definition: GroupDefinition;
}

/** A state of a document, with its track and its groups, the outermost first. */
export interface DocumentState {
  readonly name: string;
  readonly track: string;
  readonly path: DocumentPath;
  readonly definition: StateDefinition;
  readonly groups: readonly PlacedGroup[];
}

/** What a state says in a field that groups can say for it: its own, or that of the nearest group around it. */
export const saidOf = <F extends 'carry' | 'facing'>(
  { definition, groups }: Pick<DocumentState, 'definition' | 'groups'>,
  field: F,
): StateDefinition[F] =>
  definition[field] ?? groups.findLast((group) => group.definition[field] !== undefined)?.definition[field];

/** What holds states and groups of them. */
type Holder = Pick<TrackDefinition, 'groups'> & { states?: TrackDefinition['states'] | undefined };

/** The groups in a track or in a group, each before those in it. @param within those that it is in itself */
export function groupsIn(
  { groups = {} }: Holder,
  path: DocumentPath,
  within: readonly PlacedGroup[] = [],
): (readonly PlacedGroup[])[] {
  return Object.entries(groups).flatMap(([name, definition]) => {
    const chain = [...within, { name, path: [...path, 'groups', name], definition }];
    return [chain, ...groupsIn(definition, chain[chain.length - 1]!.path, chain)];
  });
}

/** The states of a track: its own, then those of its groups. */
export function statesOfTrack(track: string, holder: Holder, path: DocumentPath): DocumentState[] {
  const inside = (
    { states = {} }: Holder,
    at: DocumentPath,
    groups: readonly PlacedGroup[],
  ): DocumentState[] =>
    Object.entries(states).map(([name, definition]) => ({
      name,
      track,
      path: [...at, 'states', name],
      definition,
      groups,
    }));
  return [
    ...inside(holder, path, []),
    ...groupsIn(holder, path).flatMap((chain) => {
      const { definition, path: at } = chain[chain.length - 1]!;
      return inside(definition, at, chain);
    }),
  ];
}

/** Finds a state of a document by its name. */
export const stateIn = (definition: ControllerDefinition, name: string): DocumentState | undefined =>
  statesIn(definition).find((one) => one.name === name);

/** All states of a document, track by track. */
export function statesIn(definition: ControllerDefinition): DocumentState[] {
  const { tracks = {} } = definition;
  return [
    ...statesOfTrack(bodyTrack, definition, []),
    ...Object.entries(tracks).flatMap(([name, track]) => statesOfTrack(name, track, ['tracks', name])),
  ];
}
