import type { Condition } from './condition.js';

/** Joins conditions to larger ones. */
export interface Joining {
  readonly not: (part: Condition) => Condition;
  readonly both: (left: Condition, right: Condition) => Condition;
  readonly either: (left: Condition, right: Condition) => Condition;
}

/**
 * Joins conditions as long as they do not grow too large: flags that are compared are written out, twice each.
 *
 * @param most of how many parts a condition may consist; a term is one
 * @param refuse what happens to a larger one
 */
export function joinedUpTo(most: number, refuse: () => never): Joining {
  const sizes = new WeakMap<Condition, number>();
  const sized = (condition: Condition, ...parts: readonly Condition[]): Condition => {
    const size = parts.reduce((sum, part) => sum + (sizes.get(part) ?? 1), 1);
    if (size > most) refuse();
    sizes.set(condition, size);
    return condition;
  };
  return {
    not: (part) => sized({ op: 'not', part }, part),
    both: (left, right) => sized({ op: 'and', left, right }, left, right),
    either: (left, right) => sized({ op: 'or', left, right }, left, right),
  };
}
