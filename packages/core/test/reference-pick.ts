import type { VarietyDefinition } from 'dot-hop';

/** Which of several flipbooks is picked: the next, or one by chance that is not the last. @param chance from 0 to under 1 */
export function pickedOf(
  { any: names, pick, repeats, weights = names.map(() => 1) }: VarietyDefinition,
  last: number | undefined,
  chance: () => number,
): number {
  if (pick !== 'chance') return last === undefined ? 0 : (last + 1) % names.length;
  const others = weights.filter((weight, i) => i !== last && weight > 0);
  const left = weights.map((weight, i) => (repeats !== true && i === last && others.length > 0 ? 0 : weight));
  let place = chance() * left.reduce((sum, one) => sum + one, 0);
  return left.findIndex((weight) => (place -= weight) < 0 && weight > 0);
}
