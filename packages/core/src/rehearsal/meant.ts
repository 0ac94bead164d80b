import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';

/** The states that a name stands for, with the index of the track in which they show. */
export interface Meant {
  readonly track: number;
  readonly states: ReadonlySet<string>;
}

/** The names by which a state is spoken of: its own, and those of its groups. */
const namesOf = ({ name, groups }: State): string[] => [name, ...groups.map((group) => group.name)];

/**
 * The states that a name in a rehearsal means. `swing1` is the state in its own track. `body.swing1` is the same state in the body, if it
 * has taken the body. The name of a group means each of its states.
 *
 * @returns `undefined` for an unknown name
 */
export function statesMeant({ tracks, states }: Controller, name: string): Meant | undefined {
  const spoken = tracks.find((one) => name.startsWith(`${one.name}.`));
  const inTrack = name.slice((spoken?.name.length ?? 0) + 1);
  const own = states.filter((one) => one.takenBy < 0 && namesOf(one).includes(name));
  const found =
    own.length > 0
      ? own
      : (spoken?.order ?? []).map((index) => states[index]!).filter((one) => namesOf(one).includes(inTrack));
  const [first] = found;
  return first && { track: first.track, states: new Set(found.map((one) => one.name)) };
}

/** Every name by which a rehearsal can mean a state. */
export function namesMeant({ tracks, states }: Controller): string[] {
  const own = states.filter(({ takenBy }) => takenBy < 0).flatMap(namesOf);
  const withTracks = tracks.flatMap(({ name, order }) =>
    order.flatMap((index) => namesOf(states[index]!).map((one) => `${name}.${one}`)),
  );
  return [...new Set(tracks.length === 1 ? own : [...own, ...withTracks])];
}
