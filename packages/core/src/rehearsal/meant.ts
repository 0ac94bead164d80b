import type { Controller } from '../controller/controller.js';

/** A state with the index of the track in which it shows. */
export interface Meant {
  readonly track: number;
  readonly state: string;
}

/**
 * Which state a rehearsal means: `swing1` by itself in its own track, `body.swing1` in the track that it has taken.
 *
 * @returns `undefined` for a name that is not there
 */
export function stateMeant({ stateNamed, tracks, states }: Controller, name: string): Meant | undefined {
  const own = stateNamed.get(name);
  if (own !== undefined) return { track: own.track, state: name };
  const track = tracks.find((one) => name.startsWith(`${one.name}.`));
  const state = name.slice((track?.name.length ?? 0) + 1);
  const isThere = track?.order.some((index) => states[index]!.name === state) === true;
  return isThere ? { track: track.index, state } : undefined;
}

/** Every name that a rehearsal can give a state. */
export function statesMeant({ stateNamed, tracks, states }: Controller): string[] {
  const withTracks = tracks.flatMap(({ name, order }) =>
    order.map((index) => `${name}.${states[index]!.name}`),
  );
  return tracks.length === 1 ? [...stateNamed.keys()] : [...stateNamed.keys(), ...withTracks];
}
