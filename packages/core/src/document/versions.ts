import type { Problem } from '../problem/problem.js';

/** Turns data of one version of a format into that of the next. The data given is not changed. */
export type Upgrade = (data: Readonly<Record<string, unknown>>) => Record<string, unknown>;

/** The n-th turns version n + 1 into version n + 2. The format has had one version so far. */
export const upgrades: readonly Upgrade[] = [];

/**
 * Brings data of an older version of a format up to the one that is read now.
 *
 * @param field the field that holds the version
 * @param steps one for each version that there was before the current one
 * @returns the data, as it is when its version is the current one or none that a number says; or the problem that it is
 *   of a version that came later
 */
export function broughtUp(
  data: unknown,
  field: string,
  steps: readonly Upgrade[] = upgrades,
): { data: unknown } | { problem: Problem } {
  if (typeof data !== 'object' || data === null || !Object.hasOwn(data, field)) return { data };
  const version = (data as Record<string, unknown>)[field];
  const current = steps.length + 1;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) return { data };
  if (version > current)
    return {
      problem: {
        code: 'document-version',
        path: [field],
        values: { field, received: version, current },
      },
    };
  let now = data as Record<string, unknown>;
  for (const step of steps.slice(version - 1)) now = step(now);
  return { data: version === current ? now : { ...now, [field]: current } };
}
