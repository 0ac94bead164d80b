import { isMap, isScalar, parseDocument, stringify } from 'yaml';
import type { Node, Pair, YAMLMap } from 'yaml';
import type { DocumentPath } from '../problem/problem.js';

/*
 * Changes of a document's text that touch only the lines of what they name: comments, order, quoting and blank lines
 * elsewhere stay byte for byte. A tree that is written out again would not do: it loses how people align and break lines.
 */

type Ranged = Node & { readonly range: readonly [number, number, number] };
type Item = Pair<Ranged, Ranged | null>;

/** How values are written: as JSON, or as YAML in one line. */
export type TextStyle = 'json' | 'yaml';

const keyText = (key: unknown): string => String(isScalar(key) ? key.value : key);

/** A value in one line, as it can stand inside braces and brackets. */
export function inlineText(value: unknown, style: TextStyle): string {
  if (style === 'json') return JSON.stringify(value);
  if (Array.isArray(value)) return `[${value.map((one) => inlineText(one, style)).join(', ')}]`;
  if (typeof value === 'object' && value !== null) {
    const fields = Object.entries(value).filter(([, one]) => one !== undefined);
    const list = fields.map(([name, one]) => `${inlineText(name, style)}: ${inlineText(one, style)}`);
    return list.length === 0 ? '{}' : `{ ${list.join(', ')} }`;
  }
  // Written inside brackets, so that a text with a comma or a brace gets its quotes.
  const text = stringify([value], { collectionStyle: 'flow', lineWidth: 0, flowCollectionPadding: false });
  return text.trimEnd().slice(1, -1);
}

function mapAt(root: unknown, path: DocumentPath): YAMLMap<Ranged, Ranged | null> | undefined {
  let node = root;
  for (const step of path) {
    if (!isMap(node)) return undefined;
    node = node.items.find(({ key }) => keyText(key) === String(step))?.value;
  }
  return isMap(node) ? (node as YAMLMap<Ranged, Ranged | null>) : undefined;
}

const itemOf = (map: YAMLMap<Ranged, Ranged | null>, name: string): Item | undefined =>
  map.items.find(({ key }) => keyText(key) === name);

/** Where the line ends in which a place lies, before its line break. */
function lineEnd(text: string, at: number): number {
  const found = text.indexOf('\n', at);
  return found < 0 ? text.length : found;
}

/** Where an entry ends: behind its value, or behind its key and colon where it has none. */
function endOf(text: string, { key, value }: Item): number {
  let end = value?.range[1] ?? text.indexOf(':', key.range[1]) + 1;
  // The range of a collection in lines of its own goes on to the next entry.
  while (end > 0 && /\s/.test(text[end - 1]!)) end--;
  return end;
}

/**
 * The text with a value put at a path, in place of what stood there or as a new entry behind the others.
 *
 * @param path names of maps, outermost first; those that are not there are made
 */
export function setIn(text: string, path: DocumentPath, value: unknown, style: TextStyle = 'yaml'): string {
  const root = parseDocument(text, { keepSourceTokens: false }).contents;
  for (let depth = path.length - 1; depth >= 0; depth--) {
    const map = mapAt(root, path.slice(0, depth));
    if (map === undefined) continue;
    const name = String(path[depth]);
    const inner = path.slice(depth + 1).reduceRight<unknown>((one, step) => ({ [step]: one }), value);
    const known = itemOf(map, name);
    return known === undefined ? insert(text, map, name, inner, style) : replace(text, known, inner, style);
  }
  return text;
}

function replace(text: string, item: Item, value: unknown, style: TextStyle): string {
  const written = inlineText(value, style);
  const { key } = item;
  const end = endOf(text, item);
  const colon = text.indexOf(':', key.range[1]);
  const start =
    item.value === null || item.value.range[0] === item.value.range[1] ? end : item.value.range[0];
  // What stood in lines of its own below the key comes up beside it.
  const below = text.slice(colon, start).includes('\n') && !text.slice(colon, start).includes('#');
  const from = below ? colon + 1 : start;
  const gap = /\s/.test(text[from - 1]!) ? '' : ' ';
  return text.slice(0, from) + gap + written + text.slice(end);
}

function insert(
  text: string,
  map: YAMLMap<Ranged, Ranged | null>,
  name: string,
  value: unknown,
  style: TextStyle,
): string {
  const entry = `${inlineText(name, style)}: ${inlineText(value, style)}`;
  const last = map.items[map.items.length - 1];
  if (last === undefined) {
    const [start, end] = (map as unknown as Ranged).range;
    return `${text.slice(0, start)}{ ${entry} }${text.slice(end)}`;
  }
  const end = endOf(text, last);
  if (map.flow === true) {
    const [open] = (map as unknown as Ranged).range;
    const isBroken = text.slice(open, map.items[0]!.key.range[0]).includes('\n');
    const indent = isBroken ? `\n${indentOf(text, map.items[0]!.key.range[0])}` : ' ';
    return `${text.slice(0, end)},${indent}${entry}${text.slice(end)}`;
  }
  const at = lineEnd(text, end);
  return `${text.slice(0, at)}\n${indentOf(text, last.key.range[0])}${entry}${text.slice(at)}`;
}

function indentOf(text: string, at: number): string {
  const start = text.lastIndexOf('\n', at - 1) + 1;
  return /^[ \t]*/.exec(text.slice(start, at))![0];
}

/** The text without an entry; as it is where there is none. */
export function removeIn(text: string, path: DocumentPath): string {
  const map = mapAt(parseDocument(text).contents, path.slice(0, -1));
  const name = String(path[path.length - 1]);
  const index = map?.items.findIndex(({ key }) => keyText(key) === name) ?? -1;
  if (map === undefined || index < 0) return text;
  const item = map.items[index]!;
  const [start, end] = [item.key.range[0], endOf(text, item)];
  if (map.flow === true) {
    const [before, after] = [map.items[index - 1], map.items[index + 1]];
    if (before !== undefined) return text.slice(0, endOf(text, before)) + text.slice(end);
    return after === undefined
      ? text.slice(0, start) + text.slice(end)
      : text.slice(0, start) + text.slice(after.key.range[0]);
  }
  const line = text.lastIndexOf('\n', start - 1) + 1;
  const below = Math.min(text.length, lineEnd(text, end) + 1);
  return text.slice(0, line) + text.slice(below);
}
