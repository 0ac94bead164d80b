import type { ControllerDefinition, StateDefinition } from 'dot-hop';

/** One flipbook or one state, looked at by itself. */
export interface Single {
  readonly kind: 'flipbook' | 'state';
  readonly name: string;
}

/** What a state shows and how, without what lets it in or leads on from it. */
const bare = ({ shows, gaits, rate, scrub, facing, turns, tags }: StateDefinition): StateDefinition => ({
  shows,
  gaits,
  rate,
  scrub,
  facing,
  turns,
  tags,
});

/**
 * A character that shows one flipbook or state and never leaves it. All its states are there, so that tags and names in expressions
 * mean what they did; further tracks go on as they do, and take nothing.
 */
export function alone(definition: ControllerDefinition, { kind, name }: Single): ControllerDefinition {
  const states = Object.fromEntries(
    Object.entries(definition.states ?? {}).map(([key, state]) => [key, bare(state)]),
  );
  if (kind === 'flipbook') states[name] = { shows: name, tags: states[name]?.tags };
  const tracks = Object.fromEntries(
    Object.entries(definition.tracks ?? {}).map(([key, track]) => [
      key,
      {
        ...track,
        states: Object.fromEntries(
          Object.entries(track.states).map(([own, state]) => [own, { ...state, takes: undefined }]),
        ),
      },
    ]),
  );
  return {
    ...definition,
    states,
    rest: name,
    ...(definition.tracks === undefined ? {} : { tracks }),
    accept: undefined,
  };
}

/** The flipbooks and states that can be looked at by themselves. */
export const singlesOf = ({ flipbooks = {}, states = {} }: ControllerDefinition): Single[] => [
  ...Object.keys(flipbooks).map((name): Single => ({ kind: 'flipbook', name })),
  ...Object.keys(states).map((name): Single => ({ kind: 'state', name })),
];

export const isThere = (definition: ControllerDefinition | undefined, { kind, name }: Single): boolean =>
  Object.hasOwn((kind === 'state' ? definition?.states : definition?.flipbooks) ?? {}, name);
