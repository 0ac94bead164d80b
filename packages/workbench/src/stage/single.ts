import type { ControllerDefinition, StateDefinition, TrackDefinition } from 'dot-hop';
import { statesIn } from 'dot-hop/explain';
import type { DocumentState } from 'dot-hop/explain';

/** One flipbook or one state, looked at by itself. */
export interface Single {
  readonly kind: 'flipbook' | 'state';
  readonly name: string;
}

/** What a state shows and how, without what lets it in or leads on from it. */
function bare({ definition, groups }: DocumentState): StateDefinition {
  const { shows, gaits, rate, scrub, turns, tags = [] } = definition;
  const said = groups.map((group) => group.definition);
  return {
    ...{ shows, gaits, rate, scrub, turns },
    facing: definition.facing ?? said.findLast(({ facing }) => facing !== undefined)?.facing,
    tags: [...said.flatMap((group) => group.tags ?? []), ...tags],
  };
}

/** The states of a track and of its groups, none of which takes another track. */
function takingNothing<T extends Pick<TrackDefinition, 'states' | 'groups'>>(holder: T): T {
  const { states, groups } = holder;
  const each = <V>(map: Readonly<Record<string, V>>, change: (one: V) => V): Record<string, V> =>
    Object.fromEntries(Object.entries(map).map(([name, one]) => [name, change(one)]));
  return {
    ...holder,
    states: each(states, (state) => ({ ...state, takes: undefined })),
    ...(groups && { groups: each(groups, takingNothing) }),
  };
}

/**
 * A character that shows one flipbook or state and never leaves it. All its states are there, so that tags and names in expressions
 * mean what they did; further tracks go on as they do, and take nothing.
 */
export function showingOnly(definition: ControllerDefinition, { kind, name }: Single): ControllerDefinition {
  const own = statesOfBody(definition);
  const states = Object.fromEntries(own.map((one) => [one.name, bare(one)]));
  if (kind === 'flipbook') states[name] = { shows: name, tags: states[name]?.tags };
  const [clip = ''] = Object.keys(definition.clips);
  // Groups are there for their names: none of their states shows.
  const names = new Set(own.flatMap(({ groups }) => groups.map((group) => group.name)));
  const groups = Object.fromEntries(
    [...names].map((group) => {
      const rest = `the rest of ${group}`;
      return [group, { while: 'false', rest, states: { [rest]: { shows: clip } } }];
    }),
  );
  const tracks = Object.entries(definition.tracks ?? {}).map(([key, track]) => [key, takingNothing(track)]);
  return {
    ...definition,
    states,
    groups,
    rest: name,
    ...(definition.tracks === undefined
      ? {}
      : { tracks: Object.fromEntries(tracks) as typeof definition.tracks }),
    accept: undefined,
  };
}

const statesOfBody = (definition: ControllerDefinition): DocumentState[] =>
  statesIn(definition).filter(({ track }) => track === 'body');

/** The flipbooks and states that can be looked at by themselves. */
export const singlesOf = (definition: ControllerDefinition): Single[] => [
  ...Object.keys(definition.flipbooks ?? {}).map((name): Single => ({ kind: 'flipbook', name })),
  ...statesOfBody(definition).map(({ name }): Single => ({ kind: 'state', name })),
];

export const isThere = (definition: ControllerDefinition | undefined, { kind, name }: Single): boolean =>
  definition !== undefined && singlesOf(definition).some((one) => one.kind === kind && one.name === name);
