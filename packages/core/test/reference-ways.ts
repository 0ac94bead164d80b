import type { HopDefinition } from 'dot-hop';
import type { Ungrouped } from './reference-groups.js';
import { degreesOf } from './reference-signals.js';

/** The first step of the shortest way along hops and `then`: hops in order first, then `then`. */
export function firstStep(
  states: Readonly<Record<string, Ungrouped>>,
  from: string,
  goal: string,
): { to: string; hop: HopDefinition | undefined } | undefined {
  const far = new Map([[goal, 0]]);
  for (let distance = 0; distance < Object.keys(states).length; distance++)
    for (const [name, { hops = [], then }] of Object.entries(states))
      if (!far.has(name) && [...hops.map(({ to }) => to), then].some((to) => far.get(to!) === distance))
        far.set(name, distance + 1);
  const mine = far.get(from);
  if (mine === undefined) return undefined;
  const { hops = [], then } = states[from]!;
  const hop = hops.find(({ to }) => far.get(to) === mine - 1);
  return { to: hop?.to ?? then!, hop };
}

/** The next direction on the shorter way around. @param directions the name of an even compass */
export function nextOnTheWay(
  facing: string,
  toward: string,
  directions: string,
  names: readonly string[],
): string {
  const step = 360 / { sides: 2, four: 4, eight: 8 }[directions]!;
  const from = degreesOf(facing);
  const turn = (degreesOf(toward) - from + 360) % 360;
  // Half around: by the side that faces the viewer.
  const clockwise = turn < 180 || (turn === 180 && (from < 90 || from >= 270 || from === 90));
  const next = (from + (clockwise ? step : 360 - step)) % 360;
  return names.find((name) => degreesOf(name) === next)!;
}
