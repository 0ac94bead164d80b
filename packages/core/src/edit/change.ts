import type { DocumentPath } from '../problem/problem.js';
import { pathText } from '../problem/problem.js';
import { containerAt, entryNamed, rootOf } from './tree.js';
import type { Container, Entry } from './tree.js';
import { entryText, inlineText, keyText } from './writing.js';
import type { TextStyle } from './writing.js';

/*
 * Changes of a document's text that touch only the lines of what they name: comments, order, quoting and blank lines
 * elsewhere stay byte for byte. A tree that is written out again would not do: it loses how people align and break lines.
 */

/** One change, as data. */
export type Change =
  /** Puts a value at a path: it replaces the value there, or becomes the last entry. Missing maps on the way are made. */
  | { readonly op: 'set'; readonly path: DocumentPath; readonly value: unknown }
  /** Removes an entry of a map or an item of a list. Does nothing if there is none. */
  | { readonly op: 'remove'; readonly path: DocumentPath }
  /** Inserts an item into a list, before the one with that index; or an entry into a map, as `name`. */
  | {
      readonly op: 'insert';
      readonly path: DocumentPath;
      readonly at: number;
      readonly value: unknown;
      readonly name?: string | undefined;
    }
  /** Moves an entry or item to another index of its map or list, counted without it. */
  | { readonly op: 'move'; readonly path: DocumentPath; readonly to: number }
  /** Gives an entry of a map another key. References to it stay; `renameChanges` changes them too. */
  | { readonly op: 'rename'; readonly path: DocumentPath; readonly name: string };

/** Thrown for a change at a path that does not exist. */
export class EditError extends Error {
  override readonly name = 'EditError';

  constructor(
    readonly change: Change,
    detail: string,
  ) {
    super(`${pathText(change.path)}: ${detail}`);
  }
}

/** A replacement in a text. */
export interface Splice {
  readonly at: number;
  readonly gone: string;
  readonly come: string;
}

/** What a change comes to: its splices, and the path below which the tree no longer fits the text. */
interface Cut {
  readonly splices: readonly { readonly at: number; readonly end: number; readonly come: string }[];
  readonly touched: DocumentPath;
}

/**
 * Makes changes in a text, one after the other.
 *
 * @throws {EditError} for a path that does not exist; then nothing changes
 */
export function changedText(text: string, changes: readonly Change[], style: TextStyle = 'yaml'): string {
  let now = text;
  // The text is read once for as many changes as do not touch each other, since reading it is what takes the time.
  for (let next = 0; next < changes.length;) {
    const root = rootOf(now) ?? emptyRoot(now);
    const touched = new Touched();
    const cuts: (Cut['splices'][number] & { readonly depth: number })[] = [];
    for (; next < changes.length; next++) {
      const change = changes[next]!;
      // What has another name now is met by that name, too.
      const renamed = change.op === 'rename' ? [...change.path.slice(0, -1), change.name] : undefined;
      if (touched.meets(change.path) || (renamed !== undefined && touched.meets(renamed))) break;
      const cut = cutOf(now, root, change, style);
      // The end of a map is the end of the maps around it, too: what comes into the inner one has to stand before the rest.
      const depth = cut.touched.length;
      const comesLate = cut.splices.some((one) =>
        cuts.some((other) => other.at === one.at && other.depth < depth),
      );
      if (touched.meets(cut.touched) || comesLate) break;
      touched.add(cut.touched);
      if (renamed !== undefined) touched.add(renamed);
      cuts.push(...cut.splices.map((one) => ({ ...one, depth })));
    }
    now = spliced(now, cuts);
  }
  return now;
}

/** A text without a map is one to which everything is added. */
const emptyRoot = (text: string): Container => ({
  kind: 'map',
  flow: false,
  start: text.length,
  end: text.length,
  entries: [],
});

/** Paths that were touched; what lies on the way to one or below one meets it. */
class Touched {
  private readonly whole = new Set<string>();
  private readonly onTheWay = new Set<string>();

  add(path: DocumentPath): void {
    this.whole.add(keyOf(path));
    for (let i = 0; i < path.length; i++) this.onTheWay.add(keyOf(path.slice(0, i)));
  }

  meets(path: DocumentPath): boolean {
    if (this.onTheWay.has(keyOf(path))) return true;
    for (let i = 0; i <= path.length; i++) if (this.whole.has(keyOf(path.slice(0, i)))) return true;
    return false;
  }
}

const keyOf = (path: DocumentPath): string => JSON.stringify(path.map(String));

function spliced(text: string, cuts: readonly Cut['splices'][number][]): string {
  let from = 0;
  let now = '';
  // Of two at one place the first stays the first: entries are added in the order in which they were given.
  for (const { at, end, come } of [...cuts].sort((a, b) => a.at - b.at)) {
    now += text.slice(from, at) + come;
    from = end;
  }
  return now + text.slice(from);
}

/** Finds the smallest piece in which two texts differ. */
export function spliceBetween(before: string, after: string): Splice {
  let at = 0;
  while (at < before.length && at < after.length && before[at] === after[at]) at++;
  let [end, last] = [before.length, after.length];
  while (end > at && last > at && before[end - 1] === after[last - 1]) [end, last] = [end - 1, last - 1];
  return { at, gone: before.slice(at, end), come: after.slice(at, last) };
}

function cutOf(text: string, root: Container, change: Change, style: TextStyle): Cut {
  const { path } = change;
  switch (change.op) {
    case 'set':
      return setCut(text, root, path, change.value, style);
    case 'insert': {
      const { at, value, name } = change;
      const container = containerAt(root, path);
      if (container === undefined) {
        const made = name === undefined ? [value] : { [name]: value };
        return setCut(text, root, path, made, style);
      }
      if ((name === undefined) !== (container.kind === 'list'))
        throw new EditError(change, name === undefined ? 'it is no list' : 'it is no map');
      if (name !== undefined && entryNamed(container, name) !== undefined)
        throw new EditError(change, `it has "${name}" already`);
      return { splices: [insertCut(text, container, path, at, name, value, style)], touched: path };
    }
    case 'remove': {
      const around = path.slice(0, -1);
      const container = containerAt(root, around);
      const index = container?.entries.findIndex(
        ({ name }) => String(name) === String(path[path.length - 1]),
      );
      if (container === undefined || index === undefined || index < 0) return { splices: [], touched: path };
      const parent = containerAt(root, path.slice(0, -2));
      if (container.entries.length === 1 && parent !== undefined && path.length > 1) {
        const empty = container.kind === 'map' ? {} : [];
        const entry = entryNamed(parent, path[path.length - 2]!)!;
        return { splices: [replaceCut(text, parent, entry, around, empty, style)], touched: around };
      }
      const splice = removeCut(text, container, index);
      // Whole lines do not touch each other, so that many of them go at once; the last one of all goes by itself.
      const isLine = !container.flow && isLineStart(text, splice.at) && index > 0;
      return { splices: [splice], touched: isLine ? path : around };
    }
    case 'move': {
      const container = containerAt(root, path.slice(0, -1));
      const from = container?.entries.findIndex(({ name }) => String(name) === String(path[path.length - 1]));
      if (container === undefined || from === undefined || from < 0)
        throw new EditError(change, 'there is nothing to move');
      return { splices: moveCuts(text, container, from, change.to), touched: path.slice(0, -1) };
    }
    case 'rename': {
      const container = containerAt(root, path.slice(0, -1));
      const entry = container && entryNamed(container, path[path.length - 1]!);
      if (container?.kind !== 'map' || entry === undefined)
        throw new EditError(change, 'there is nothing to rename');
      if (entryNamed(container, change.name) !== undefined && change.name !== entry.name)
        throw new EditError(change, `there is "${change.name}" already`);
      const { start, end } = entry.key;
      const come = keyText(change.name, style);
      return { splices: [{ at: start, end, come }], touched: path };
    }
  }
}

function setCut(text: string, root: Container, path: DocumentPath, value: unknown, style: TextStyle): Cut {
  for (let depth = path.length - 1; depth >= 0; depth--) {
    const container = containerAt(root, path.slice(0, depth));
    if (container === undefined) continue;
    const name = path[depth]!;
    const inner = path.slice(depth + 1).reduceRight<unknown>((one, step) => ({ [step]: one }), value);
    const known = entryNamed(container, name);
    const touched = path.slice(0, depth + 1);
    if (known !== undefined)
      return { splices: [replaceCut(text, container, known, touched, inner, style)], touched };
    if (container.kind === 'list') throw new EditError({ op: 'set', path, value }, 'the list is not so long');
    const parent = depth > 0 ? containerAt(root, path.slice(0, depth - 1)) : undefined;
    if (container.entries.length === 0 && parent !== undefined) {
      // Written again with its first entry, in lines where these are usual.
      const around = path.slice(0, depth);
      const entry = entryNamed(parent, path[depth - 1]!)!;
      const splice = replaceCut(text, parent, entry, around, { [name]: inner }, style);
      return { splices: [splice], touched: around };
    }
    const cut = insertCut(
      text,
      container,
      path.slice(0, depth),
      container.entries.length,
      String(name),
      inner,
      style,
    );
    // Two that are added to an empty map would both be its first.
    return { splices: [cut], touched: container.entries.length === 0 ? path.slice(0, depth) : touched };
  }
  throw new EditError({ op: 'set', path, value }, 'there is no document');
}

function replaceCut(
  text: string,
  container: Container,
  { key, end, value: spot }: Entry,
  path: DocumentPath,
  value: unknown,
  style: TextStyle,
): Cut['splices'][number] {
  const was = spot === undefined ? '' : text.slice(spot.start, spot.end);
  if (container.kind === 'list') return { at: key.start, end, come: valueText(value, was, style) };
  const colon = text.indexOf(':', key.end);
  // What stands in lines stays in lines.
  const isJsonLines = style === 'json' && was.includes('\n');
  const isEmpty = spot?.inner?.entries.length === 0;
  if (isJsonLines || (!container.flow && (isEmpty || spot?.inner?.flow !== true))) {
    const whole = entryText(path, value, indentAt(text, key.start), style);
    if (whole.includes('\n')) return { at: key.start, end, come: whole };
  }
  const written = valueText(value, was, style);
  const start = spot?.start ?? end;
  // What stood in lines of its own below the key comes up beside it.
  const between = text.slice(colon, start);
  const from = between.includes('\n') && !between.includes('#') ? colon + 1 : start;
  const gap = /\s/.test(text[from - 1]!) ? '' : ' ';
  return { at: from, end, come: gap + written };
}

/** A value in the kind of quotes that stood there before. */
function valueText(value: unknown, before: string, style: TextStyle): string {
  const quote = before[0];
  const keeps = typeof value === 'string' && (quote === "'" || (quote === '"' && style === 'yaml'));
  return keeps && !/['"\\\n]/.test(value) ? `${quote}${value}${quote}` : inlineText(value, style);
}

function insertCut(
  text: string,
  container: Container,
  path: DocumentPath,
  at: number,
  name: string | undefined,
  value: unknown,
  style: TextStyle,
): Cut['splices'][number] {
  const { entries, flow, start, end } = container;
  const inline = name === undefined ? '' : `${keyText(name, style)}: `;
  const inlined = `${inline}${inlineText(value, style)}`;
  if (entries.length === 0) {
    if (flow) return { at: start, end, come: name === undefined ? `[${inlined}]` : `{ ${inlined} }` };
    const break_ = text === '' || text.endsWith('\n') ? '' : '\n';
    return { at: end, end, come: `${break_}${entryText([name!], value, '', style)}\n` };
  }
  const before = entries[at];
  if (flow) {
    const first = entries[0]!.start;
    const isBroken = text.slice(start, first).includes('\n');
    const indent = indentAt(text, first);
    const gap = isBroken ? `\n${indent}` : ' ';
    const isJsonLine = style === 'json' && isBroken && name !== undefined;
    const written = isJsonLine ? entryText([...path, name], value, indent, style) : inlined;
    if (before === undefined) {
      const last = entries[entries.length - 1]!.end;
      return { at: last, end: last, come: `,${gap}${written}` };
    }
    return { at: before.start, end: before.start, come: `${written},${gap}` };
  }
  const first = entries[0]!.start;
  // The first key of a list's item stands behind its dash.
  const indent = ' '.repeat(first - lineStart(text, first));
  const dash = name === undefined ? text.lastIndexOf('-', first) : first;
  const margin = name === undefined ? text.slice(lineStart(text, dash), dash).replace(/[^ ]/g, ' ') : indent;
  const written =
    name === undefined ? `- ${inlineText(value, style)}` : entryText([...path, name], value, indent, style);
  if (before === undefined) {
    const last = lineEnd(text, entries[entries.length - 1]!.end);
    return { at: last, end: last, come: `\n${margin}${written}` };
  }
  if (name === undefined) {
    const from = text.lastIndexOf('-', before.start);
    return { at: from, end: from, come: `${written}\n${margin}` };
  }
  const from = pieceStart(text, before, lineStart(text, before.start) + margin.length === before.start);
  return { at: from, end: from, come: `${written}\n${margin}` };
}

function removeCut(
  text: string,
  { entries, flow, start, end, kind }: Container,
  index: number,
): Cut['splices'][number] {
  const entry = entries[index]!;
  const [before, after] = [entries[index - 1], entries[index + 1]];
  if (entries.length === 1) return { at: start, end, come: kind === 'map' ? '{}' : '[]' };
  if (flow)
    return before === undefined
      ? { at: entry.start, end: after!.start, come: '' }
      : { at: before.end, end: entry.end, come: '' };
  const from = kind === 'list' ? text.lastIndexOf('-', entry.start) : entry.start;
  const line = lineStart(text, from);
  // The first key behind a dash: the next one takes its place.
  if (text.slice(line, from).trim() !== '' && after !== undefined)
    return { at: entry.start, end: after.start, come: '' };
  return { at: line, end: Math.min(text.length, lineEnd(text, entry.end) + 1), come: '' };
}

/** Puts the texts of entries into another order; what stands between them stays where it is. */
function moveCuts(text: string, { entries, flow }: Container, from: number, to: number): Cut['splices'] {
  const order = entries.map((_, i) => i);
  order.splice(from, 1);
  order.splice(to, 0, from);
  const pieces = entries.map((entry, i) => {
    const start = flow || i === 0 ? entry.start : pieceStart(text, entry, true);
    return { start, end: flow ? entry.end : lineEnd(text, entry.end) };
  });
  return pieces.flatMap(({ start, end }, place) => {
    const other = pieces[order[place]!]!;
    if (order[place] === place) return [];
    return [{ at: start, end, come: text.slice(other.start, other.end) }];
  });
}

/** Where an entry in lines begins, with comments in lines of their own right above it. */
function pieceStart(text: string, { start }: Entry, ownLine: boolean): number {
  if (!ownLine) return start;
  let from = start;
  const indent = text.slice(lineStart(text, start), start);
  if (indent.trim() !== '') return start;
  for (;;) {
    const above = lineStart(text, lineStart(text, from) - 1);
    if (lineStart(text, from) === 0 || !text.startsWith(`${indent}#`, above)) return from;
    from = above + indent.length;
  }
}

/** Where the line ends in which a place lies, before its line break. */
function lineEnd(text: string, at: number): number {
  const found = text.indexOf('\n', at);
  return found < 0 ? text.length : found;
}

const isLineStart = (text: string, at: number): boolean => at === 0 || text[at - 1] === '\n';

const lineStart = (text: string, at: number): number => (at <= 0 ? 0 : text.lastIndexOf('\n', at - 1) + 1);

function indentAt(text: string, at: number): string {
  return /^[ \t]*/.exec(text.slice(lineStart(text, at), at))![0];
}
