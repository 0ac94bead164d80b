import { ProblemList } from '../problem/problem.js';
import type { Problem } from '../problem/problem.js';
import { checkShape, isMap } from '../shape/check.js';
import type { Shape } from '../shape/shape.js';

/** The kinds of file there are, by the field that each begins with. */
const kinds: Readonly<Record<string, string>> = {
  dotHop: "character's document",
  dotHopRehearsal: 'rehearsal',
};

/** One problem in place of many where a file is of another kind than the one wanted. */
export function otherKind(data: unknown, field: string): Problem | undefined {
  if (!isMap(data) || Object.hasOwn(data, field)) return undefined;
  const found = Object.keys(kinds).find((kind) => Object.hasOwn(data, kind));
  if (found === undefined) return undefined;
  return { code: 'other-kind', path: [], values: { received: kinds[found], expected: kinds[field], field } };
}

/**
 * Checks a file's data against its shape.
 *
 * @param field the field that a file of this kind begins with
 * @returns the problems in it; none where it fits
 */
export function validate(shape: Shape, data: unknown, field: string): readonly Problem[] {
  const other = otherKind(data, field);
  if (other !== undefined) return [other];
  const found = new ProblemList();
  checkShape(data, shape, [], found);
  return found.problems;
}
