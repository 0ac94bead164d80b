import type { DocumentPath } from '../problem/problem.js';
import { isMap } from '../shape/check.js';
import type { Origin } from './source.js';

// Documents are laid over one another, and of each value it is known from which of them it is.

/** What a document says itself, and what its bases say. */
export interface Layers {
  readonly own: unknown;
  readonly below: unknown;
}

/** What a text says with all that it builds on. */
export interface Built {
  readonly value: unknown;
  readonly origin: Origin;
  /** Of a document that builds on others. */
  readonly layers?: Layers;
}

/**
 * One over the other: maps by name, and whatever else replaces. `null` takes away what is below.
 *
 * @param nothing is told where there is nothing to take away
 */
export function over(
  below: Built,
  above: Built,
  nothing: (path: DocumentPath, known: readonly string[]) => void,
  path: DocumentPath = [],
): Built {
  if (!isMap(below.value) || !isMap(above.value)) return above;
  const value = new Map(Object.entries(below.value));
  const inner = new Map(Object.keys(below.value).map((key) => [key, innerOf(below.origin, key)]));
  for (const [key, one] of Object.entries(above.value)) {
    const at = [...path, key];
    const isThere = value.has(key);
    if (one === null) {
      if (!isThere) nothing(at, Object.keys(below.value));
      value.delete(key);
      inner.delete(key);
      continue;
    }
    const here: Built = { value: one, origin: innerOf(above.origin, key) };
    const under = isThere ? { value: value.get(key), origin: inner.get(key)! } : empty(one, here.origin);
    const both = over(under, here, nothing, at);
    value.set(key, both.value);
    inner.set(key, both.origin);
  }
  return { value: Object.fromEntries(value), origin: { text: above.origin.text, inner } };
}

/** What a value is laid over where there is nothing: a map, so that nothing can be taken away in it either. */
const empty = (value: unknown, origin: Origin): Built => ({
  value: isMap(value) ? {} : undefined,
  origin,
});

const innerOf = (origin: Origin, key: string): Origin => origin.inner?.get(key) ?? { text: origin.text };
