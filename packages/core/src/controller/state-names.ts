import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { PlacedStates } from './tracks.js';

/** Looks states and groups up by their names. */
export class StateNames {
  /** States by track and name: every name is looked up. */
  private readonly named = new Map<string, number>();

  constructor(
    private readonly placed: PlacedStates,
    private readonly problems: ProblemList,
  ) {
    // A name that is there twice is told elsewhere.
    placed.states.forEach(({ track, name }, i) => this.named.set(`${track} ${name}`, i));
  }

  /**
   * A state of a track by name.
   *
   * @param orTaken whether one of another track is meant, too, that has taken this one
   * @param known what may stand there, for who misspells it
   */
  one(
    track: number,
    name: string,
    path: DocumentPath,
    orTaken = false,
    known: (track: number) => string[] = this.statesOf,
  ): number {
    const { states, tracks } = this.placed;
    const index = this.named.get(`${track} ${name}`);
    if (index !== undefined && (orTaken || states[index]!.taken === undefined)) return index;
    if (states.length === 0) return -1;
    const other = states.find((one) => one.name === name && one.taken === undefined);
    if (other === undefined) this.problems.add('state-unknown', path, { name, known: known(track) });
    else {
      const values = { name, track: tracks[other.track]!.name, known: known(track) };
      this.problems.add('state-other-track', path, values);
    }
    return -1;
  }

  /** The states that a name stands for: of a group all that are in it. */
  all(track: number, name: string, path: DocumentPath, orTaken = false): number[] {
    const inside = this.placed.members.get(name);
    const found = (inside ?? [name]).map((one) => this.one(track, one, path, orTaken, this.ledTo));
    return found.filter((index) => index >= 0);
  }

  /** What a hop can lead to: the states of a track, and its groups. */
  readonly ledTo = (track: number): string[] => {
    const groups = this.placed.states.flatMap((one) => (one.track === track ? one.groups : []));
    return [...this.statesOf(track), ...new Set(groups.map(({ name }) => name))];
  };

  private readonly statesOf = (track: number): string[] =>
    this.placed.states.flatMap((one) => (one.track === track && one.taken === undefined ? [one.name] : []));

  /** What is said of states and of groups, the widest groups first: what is said of a state counts more, and comes after it. */
  fromWidest<T>(said: Readonly<Record<string, T>>): [string, T][] {
    const { members } = this.placed;
    // A group stands before those in it.
    const groups = [...members.keys()].filter((name) => Object.hasOwn(said, name));
    const states = Object.keys(said).filter((name) => !members.has(name));
    return [...groups, ...states].map((name) => [name, said[name]!]);
  }
}
