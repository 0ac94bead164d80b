import { isMap, isScalar, isSeq, parseDocument } from 'yaml';
import type { Document, Node } from 'yaml';
import type { DocumentPath } from '../problem/problem.js';
import { deepest } from './tree.js';
import type { SourceTree, Span, TextFault } from './tree.js';
import { findTraps, quotedLine } from './yaml-traps.js';

/** Reads YAML 1.2. Tags, anchors, aliases and merge keys are refused: every line says what it does. */
export function readYamlTree(text: string): SourceTree | readonly TextFault[] {
  const syntax = (at: number, detail: string): TextFault[] => [
    { code: 'document-syntax', at, path: [], values: { format: 'YAML', detail } },
  ];
  const deep = deepAt(text);
  if (deep >= 0) return syntax(deep, `its lists and maps lie more than ${deepest} deep`);
  const tree = parseDocument(text, { prettyErrors: false, logLevel: 'silent' });
  const traps = findTraps(text, tree.contents);
  if (traps.length > 0) return traps;
  const [fault] = tree.errors;
  if (fault !== undefined) return syntax(fault.pos[0], fault.message + remedyOf(text, fault));
  const { contents } = tree;
  if (contents === null || (isScalar(contents) && contents.value === null))
    return [{ code: 'document-empty', at: 0, path: [], values: {} }];
  return { value: tree.toJS(), find: (path, part) => findIn(tree, path, part) };
}

/** Where brackets lie deeper than any document: a reader that calls itself for each would end the program. */
function deepAt(text: string): number {
  let depth = 0;
  for (let i = 0; i < text.length; i++) {
    if (text[i] === '[' || text[i] === '{') depth++;
    else if (text[i] === ']' || text[i] === '}') depth = Math.max(0, depth - 1);
    if (depth > deepest) return i;
    // Lists and keys can also open one another in lines: `- - - -`, and ever deeper indents.
    if (i === 0 || text[i - 1] === '\n') {
      const opens = /^(?:[ \t]|[-?:](?=\s))*/.exec(text.slice(i, i + 4 * deepest))![0];
      if (opens.length > 2 * deepest) return i;
    }
  }
  return -1;
}

/** What helps where a text without quotes is read as several things. */
function remedyOf(
  text: string,
  { code, pos }: { readonly code: string; readonly pos: readonly number[] },
): string {
  if (
    !['BLOCK_AS_IMPLICIT_KEY', 'BLOCK_IN_FLOW', 'BAD_SCALAR_START', 'MULTILINE_IMPLICIT_KEY'].includes(code)
  )
    return '';
  const at = pos[0]!;
  const start = text.lastIndexOf('\n', Math.max(0, at - 1)) + 1;
  const line = text.slice(start).split('\n', 1)[0]!;
  // The value that the fault is in: of a line of its own, or of the nearest key before it within the same braces.
  const alone = /^\s*(?:- )?([\w-]+):\s+(?=[^'"{[#|>\s])/.exec(line);
  const inFlow = /([\w-]+):\s+[^{}[\],'"]*$/.exec(text.slice(start, at));
  const found = alone ?? inFlow;
  if (found === null) return '; a text with such signs is written in quotes';
  const value = start + found.index + /^.*?:\s+/.exec(found[0])![0].length;
  return `; if it is one text, write it in quotes: ${quotedLine(text, value, alone === null, found[1])}`;
}

function findIn({ contents }: Document, path: DocumentPath, part: 'value' | 'key'): Span {
  let node: unknown = contents;
  let at = 0;
  for (const step of path) {
    const next = isMap(node)
      ? node.items.find((pair) => keyOf(pair.key) === String(step))
      : isSeq(node)
        ? { key: null, value: node.items[Number(step)] }
        : undefined;
    if (next?.value === undefined || next.value === null) {
      at = startOf(next?.key) ?? at;
      break;
    }
    node = next.value;
    at = (part === 'key' ? startOf(next.key) : undefined) ?? startOf(node) ?? at;
  }
  const isQuoted = isScalar(node) && (node.type === 'QUOTE_DOUBLE' || node.type === 'QUOTE_SINGLE');
  return { at, quotes: isQuoted ? 1 : 0 };
}

const keyOf = (key: unknown): string => String(isScalar(key) ? key.value : key);

const startOf = (node: unknown): number | undefined => (node as Node | null | undefined)?.range?.[0];
