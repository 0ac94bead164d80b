import type { State } from './state.js';

/** By which of two rank the higher is found: from the first priorities that differ. What has none there counts as 0. */
export function compareRanks(one: readonly number[], other: readonly number[]): number {
  for (let i = 0; i < Math.max(one.length, other.length); i++) {
    const [a, b] = [one[i] ?? 0, other[i] ?? 0];
    if (a !== b) return a < b ? -1 : 1;
  }
  return 0;
}

/** For each list of priorities a number of which the larger ranks higher. */
export function ranksOf(all: readonly (readonly number[])[]): number[] {
  if (all.every(({ length }) => length === 1)) return all.map(([only]) => only!);
  const order = all.map((_, i) => i).sort((a, b) => compareRanks(all[a]!, all[b]!));
  const ranks = new Array<number>(all.length).fill(0);
  order.forEach((one, i) => {
    const below = order[i - 1];
    if (below !== undefined) ranks[one] = ranks[below]! + Math.max(0, compareRanks(all[one]!, all[below]!));
  });
  return ranks;
}

/** A state's rank in words: its priority, in groups after those of the groups, such as `50 / 2`. */
export function rankText({
  groups,
  priority,
  isGroupRest,
}: Pick<State, 'groups' | 'priority' | 'isGroupRest'>): string {
  return [...groups.map((group) => group.priority), isGroupRest ? 'rest' : priority].join(' / ');
}
