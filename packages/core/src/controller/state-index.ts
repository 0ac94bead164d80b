import type { PlacedState, PlacedStates } from './tracks.js';

/** Finds the states of a document by name. Every name in a document is looked up, so this must not go through all states. */
export class StateIndex {
  private readonly own: readonly Map<string, number>[];
  private readonly withTaken: readonly Map<string, number>[];
  /** Of each track the state in which it rests; -1 for a name that is not there. */
  readonly rests: readonly number[];

  constructor({ tracks, states }: PlacedStates) {
    const mapsOf = (counts: (state: PlacedState) => boolean): Map<string, number>[] => {
      const maps = tracks.map(() => new Map<string, number>());
      states.forEach((state, i) => {
        const map = maps[state.track]!;
        if (counts(state) && !map.has(state.name)) map.set(state.name, i);
      });
      return maps;
    };
    this.own = mapsOf(({ taken }) => taken === undefined);
    this.withTaken = mapsOf(() => true);
    this.rests = tracks.map(({ rest }, track) => {
      const own = this.own[track]!;
      const [first = -1] = own.values();
      return rest === undefined ? first : (own.get(rest) ?? -1);
    });
  }

  /**
   * A state of a track; `undefined` for none.
   *
   * @param orTaken whether one of another track counts, too, that has taken this one
   */
  of(track: number, name: string, orTaken = false): number | undefined {
    return (orTaken ? this.withTaken : this.own)[track]!.get(name);
  }
}
