import type { Layers } from '../document/layers.js';
import type { DocumentPath } from '../problem/problem.js';
import { isMap } from '../shape/check.js';
import type { Change } from './change.js';
import { changedData } from './data.js';

type Data = Readonly<Record<string, unknown>>;

/**
 * Turns changes of a whole document into changes of its own text, if it builds on others. An inherited value that is changed is written
 * into the document's own text; an inherited value that is removed is written as empty there.
 *
 * @param whole the document with everything that it inherits, for which the changes were made
 */
export function changesOver({ own, below }: Layers, whole: unknown, changes: readonly Change[]): Change[] {
  return changesBetween(own, laidOver(below, changedData(whole, changes), own));
}

/** Finds the changes that turn one document's data into another's. Lists are replaced whole. */
export function changesBetween(from: unknown, to: unknown): Change[] {
  const found: Change[] = [];
  differences(from, to, [], found);
  return found;
}

/** What has to be laid over `below` so that `whole` comes of it; what `own` says already is said again. */
function laidOver(below: unknown, whole: unknown, own: unknown): unknown {
  if (!isMap(below) || !isMap(whole)) return whole;
  const said: Data = isMap(own) ? own : {};
  const found: Record<string, unknown> = {};
  // In the order in which it says things already.
  const keys = new Set([...Object.keys(said), ...Object.keys(whole), ...Object.keys(below)]);
  for (const key of keys) {
    if (!Object.hasOwn(whole, key)) {
      if (key === 'from') found[key] = said[key];
      else if (Object.hasOwn(below, key)) found[key] = null;
    } else if (!Object.hasOwn(below, key)) found[key] = whole[key];
    else if (isMap(below[key]) && isMap(whole[key])) {
      const inner = laidOver(below[key], whole[key], said[key]) as Data;
      if (Object.keys(inner).length > 0 || Object.hasOwn(said, key)) found[key] = inner;
    } else if (Object.hasOwn(said, key) || !isSame(below[key], whole[key])) found[key] = whole[key];
  }
  return found;
}

function differences(from: unknown, to: unknown, path: DocumentPath, found: Change[]): void {
  const before: Data = isMap(from) ? from : {};
  const after = to as Data;
  for (const key of Object.keys(before))
    if (!Object.hasOwn(after, key)) found.push({ op: 'remove', path: [...path, key] });
  for (const [key, value] of Object.entries(after)) {
    const at = [...path, key];
    if (!Object.hasOwn(before, key)) found.push({ op: 'set', path: at, value });
    else if (isMap(before[key]) && isMap(value)) differences(before[key], value, at, found);
    else if (!isSame(before[key], value)) found.push({ op: 'set', path: at, value });
  }
}

function isSame(a: unknown, b: unknown): boolean {
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((one, i) => isSame(one, b[i]));
  if (!isMap(a) || !isMap(b)) return a === b;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((key) => Object.hasOwn(b, key) && isSame(a[key], b[key]))
  );
}
