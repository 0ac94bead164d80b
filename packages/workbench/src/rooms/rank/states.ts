import type { ControllerDefinition, StateDefinition } from 'dot-hop';
import { showsOf, statesIn } from 'dot-hop/explain';
import type { DocumentState } from 'dot-hop/explain';
import type { Holder } from '../../character/store.js';

/** What lets a state in, in a word. */
export function kindOf({ while: during, when }: StateDefinition): string {
  if (when !== undefined) return 'starts when';
  return during === undefined ? 'by hops, or at rest' : 'as long as';
}

/** The first flipbook that a state shows, for a picture of it. */
export const firstShown = (state: StateDefinition): string | undefined => showsOf(state)[0];

/** One line of the ladder: a state, or the group that those below it are in. */
export interface Rung {
  readonly id: string;
  readonly kind: 'state' | 'group' | 'track';
  readonly name: string;
  readonly depth: number;
  readonly priority: number;
  readonly state?: DocumentState;
}

/** What stands on one level of a track: a state, or a group with what is in it. */
interface Level {
  readonly name: string;
  readonly priority: number;
  readonly state?: DocumentState;
  readonly inside?: Level[];
}

/** The key of the rung of what holds states, so that a state of the same name has another one. */
export const idOf = ({ kind, name }: Holder): string => `${kind} ${name}`;

/** The ladder from the highest rank down, track by track, groups as rungs with rungs of their own. */
export function rungsOf(definition: ControllerDefinition): Rung[] {
  const all = statesIn(definition);
  const tracks = [...new Set(all.map(({ track }) => track))];
  const rungs: Rung[] = [];
  for (const track of tracks) {
    if (tracks.length > 1)
      rungs.push({
        id: idOf({ kind: 'track', name: track }),
        kind: 'track',
        name: track,
        depth: 0,
        priority: 0,
      });
    const top: Level[] = [];
    for (const state of all.filter((one) => one.track === track)) {
      let level = top;
      for (const { name, definition: group } of state.groups) {
        let found = level.find((one) => one.inside !== undefined && one.name === name);
        if (found === undefined) level.push((found = { name, priority: group.priority ?? 0, inside: [] }));
        level = found.inside!;
      }
      level.push({ name: state.name, priority: state.definition.priority ?? 0, state });
    }
    const climb = (levels: readonly Level[], depth: number): void => {
      // At the same rank what stands in a group counts by its rank there, and what stands alone as 0.
      const sorted = [...levels].sort(
        (a, b) => b.priority - a.priority || Number(b.inside !== undefined) - Number(a.inside !== undefined),
      );
      for (const { name, priority, state, inside } of sorted) {
        if (state !== undefined) rungs.push({ id: name, kind: 'state', name, depth, priority, state });
        else {
          rungs.push({ id: idOf({ kind: 'group', name }), kind: 'group', name, depth, priority });
          climb(inside!, depth + 1);
        }
      }
    };
    climb(top, 0);
  }
  return rungs;
}

/** The other states of the track that a state is in, by name. */
export const othersOf = (definition: ControllerDefinition, { name, track }: DocumentState): string[] =>
  statesIn(definition)
    .filter((one) => one.track === track && one.name !== name)
    .map((one) => one.name);

/** Where states stand beside one another, as text: only among those can one be moved. */
export const besideOf = ({ path }: DocumentState): string => path.slice(0, -1).join('.');
