import type { StateDefinition, TrackDefinition } from 'dot-hop';

/** A state with all that its groups say for it, as if there were none. */
export interface Ungrouped extends StateDefinition {
  /** Whether it never wants in, although it may say while what it may show. */
  readonly isBare: boolean;
  /** A number of which the larger ranks higher. */
  readonly rank: number;
  /** The groups that it is in. */
  readonly groups: readonly string[];
}

type Holder = Pick<TrackDefinition, 'groups'> & { states?: TrackDefinition['states'] | undefined };

/** Groups stand at most so deep in one another in these tests, and ranks lie between -100 and 100. */
const deepest = 3;

/** The states of a track with those of its groups. */
export function ungrouped(holder: Holder): Record<string, Ungrouped> {
  const flat: Record<string, Ungrouped> = {};
  const visit = (
    { states = {}, groups = {} }: Holder,
    within: [string, NonNullable<typeof groups>[string]][],
  ): void => {
    for (const [name, state] of Object.entries(states)) {
      const inner = within[within.length - 1]?.[1];
      const isRest = inner?.rest === name;
      const conditions = [...within.map(([, group]) => group.while), state.while];
      const parts = conditions.flatMap((text) => (text === undefined ? [] : [`(${text})`]));
      const ranks = [...within.map(([, group]) => group.priority ?? 0), isRest ? -99 : (state.priority ?? 0)];
      const weights = Array.from({ length: deepest }, (_, i) => (ranks[i] ?? 0) * 1000 ** (deepest - 1 - i));
      const near = within.map(([, group]) => group).reverse();
      flat[name] = {
        ...state,
        while: parts.length === 0 ? undefined : within.length === 0 ? state.while : parts.join(' && '),
        tags: [...within.flatMap(([, group]) => group.tags ?? []), ...(state.tags ?? [])],
        carry: state.carry ?? near.find(({ carry }) => carry !== undefined)?.carry,
        facing: state.facing ?? near.find(({ facing }) => facing !== undefined)?.facing,
        isBare: state.when === undefined && state.while === undefined && !isRest,
        rank: weights.reduce((sum, one) => sum + one, 0),
        groups: within.map(([one]) => one),
      };
    }
    for (const [name, group] of Object.entries(groups)) visit(group, [...within, [name, group]]);
  };
  visit(holder, []);
  const inside = (name: string): string[] =>
    Object.keys(flat).filter((one) => one === name || flat[one]!.groups.includes(name));
  const spread = <T>(map: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(
      Object.entries(map)
        .sort(([one], [other]) => inside(other).length - inside(one).length)
        .sort(([one], [other]) => Number(one in flat) - Number(other in flat))
        .flatMap(([name, value]) => inside(name).map((one) => [one, value])),
    );
  const entered = (name: string): string[] =>
    name in flat
      ? [name]
      : inside(name)
          .filter((one) => !flat[one]!.isBare && flat[one]!.when === undefined)
          .sort((one, other) => flat[other]!.rank - flat[one]!.rank);
  for (const [name, state] of Object.entries(flat))
    flat[name] = {
      ...state,
      hops: (state.hops ?? []).flatMap((hop) => entered(hop.to).map((to) => ({ ...hop, to }))),
      yields: state.yields?.map((one) => ({
        ...one,
        to: one.to?.flatMap(inside).filter((to) => to !== name),
      })),
      carry: typeof state.carry === 'object' ? spread(state.carry) : state.carry,
      bridges: state.bridges && spread(state.bridges),
    };
  return flat;
}
