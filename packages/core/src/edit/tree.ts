import { isMap, isScalar, isSeq, parseDocument } from 'yaml';
import type { Node, Pair, YAMLMap, YAMLSeq } from 'yaml';
import type { DocumentPath } from '../problem/problem.js';

/*
 * A document's text as a tree of places. JSON is read as the YAML that it is, so that one way of editing serves both.
 */

/** An entry of a map or an item of a list, from where its key or value begins to where its value ends. */
export interface Entry {
  /** The key of a map's entry, or the number of a list's item. */
  readonly name: string | number;
  readonly start: number;
  readonly end: number;
  /** Where the value is; `undefined` for a key without one. */
  readonly value: Spot | undefined;
  /** Where the key is; of a list's item where the value is. */
  readonly key: { readonly start: number; readonly end: number };
}

/** A map or a list, and where it is. */
export interface Container {
  readonly kind: 'map' | 'list';
  /** Whether it stands in braces or brackets rather than in lines. */
  readonly flow: boolean;
  readonly start: number;
  readonly end: number;
  readonly entries: readonly Entry[];
}

/** Where a value is, and what it holds. */
export interface Spot {
  readonly start: number;
  readonly end: number;
  readonly inner: Container | undefined;
}

type Ranged = Node & { readonly range: readonly [number, number, number] };

/** The text's outermost map; `undefined` when it holds none. */
export function rootOf(text: string): Container | undefined {
  const { contents } = parseDocument(text, { keepSourceTokens: false, logLevel: 'silent' });
  return isMap(contents) ? containerOf(text, contents) : undefined;
}

/** The end of a value without the space behind it: the range of what stands in lines goes on to the next entry. */
function trimmed(text: string, start: number, end: number): number {
  let at = end;
  while (at > start && /\s/.test(text[at - 1]!)) at--;
  return at;
}

function spotOf(text: string, node: Ranged | null): Spot | undefined {
  if (node === null || node.range[0] === node.range[1]) return undefined;
  const [start, valueEnd] = node.range;
  const inner =
    isMap(node) || isSeq(node)
      ? containerOf(text, node as YAMLMap<Ranged, Ranged | null> | YAMLSeq<Ranged>)
      : undefined;
  // A comment inside a block belongs to its range; the last entry says where the block itself ends.
  const last = inner?.flow === false ? inner.entries[inner.entries.length - 1] : undefined;
  return { start, end: last?.end ?? trimmed(text, start, valueEnd), inner };
}

function containerOf(text: string, node: YAMLMap<Ranged, Ranged | null> | YAMLSeq<Ranged>): Container {
  const [start, valueEnd] = (node as unknown as Ranged).range;
  const entries = isMap(node)
    ? node.items.map((pair) => entryOf(text, pair))
    : (node.items as readonly Ranged[]).map((item, i): Entry => {
        const value = spotOf(text, item);
        const [from, to] = [item.range[0], value?.end ?? item.range[0]];
        return { name: i, start: from, end: to, value, key: { start: from, end: to } };
      });
  const flow = node.flow === true;
  return {
    kind: isMap(node) ? 'map' : 'list',
    flow,
    start,
    end: flow ? valueEnd : (entries[entries.length - 1]?.end ?? valueEnd),
    entries,
  };
}

function entryOf(text: string, { key, value }: Pair<Ranged, Ranged | null>): Entry {
  const spot = spotOf(text, value);
  const [start, keyEnd] = key.range;
  const end = spot?.end ?? text.indexOf(':', keyEnd) + 1;
  return {
    name: String(isScalar(key) ? key.value : text.slice(start, keyEnd)),
    start,
    end,
    value: spot,
    key: { start, end: keyEnd },
  };
}

/** The entry of a container with a name or number; `undefined` where there is none. */
export const entryNamed = (container: Container, name: string | number): Entry | undefined =>
  container.entries.find((entry) => String(entry.name) === String(name));

/** The map or list at a path; `undefined` where there is none. */
export function containerAt(root: Container, path: DocumentPath): Container | undefined {
  let found: Container | undefined = root;
  for (const step of path) {
    if (found === undefined) return undefined;
    found = entryNamed(found, step)?.value?.inner;
  }
  return found;
}
