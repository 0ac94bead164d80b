import { isAlias, isMap, isScalar, isSeq } from 'yaml';
import type { Node } from 'yaml';
import type { DocumentPath } from '../problem/problem.js';
import type { TextFault } from './tree.js';

/*
 * YAML gives some signs a meaning of its own: `!` begins a tag, `&` an anchor, `*` an alias, and inside braces a comma ends a
 * value. A condition that is written without quotes can lose its beginning or its end by that, and nothing would say so. So
 * all of them are refused, with the line as it must be written.
 */

const meanings: Readonly<Record<string, string>> = { '!': 'a tag', '&': 'an anchor', '*': 'an alias' };

/** Finds what YAML would read otherwise than it is written. */
export function findTraps(text: string, root: unknown): TextFault[] {
  const faults: TextFault[] = [];
  visit(root, [], false);
  return faults;

  function visit(node: unknown, path: DocumentPath, inFlow: boolean, key?: string): void {
    const { tag, anchor, range } = (node ?? {}) as Node & { anchor?: string; tag?: string };
    // A quoted text has a tag too once it is resolved; only what is written stands before the range.
    const begin = range ? beginOf(text, range[0], isAlias(node)) : -1;
    if (begin >= 0 && (isAlias(node) || tag !== undefined || anchor !== undefined)) {
      trap(text[begin]!, begin, path, isScalar(node) || isAlias(node), inFlow, key);
      return;
    }
    if (isMap(node)) {
      const flow = inFlow || node.flow === true;
      let cut: { at: number; path: DocumentPath; name: string } | undefined;
      for (const pair of node.items) {
        const name = String(isScalar(pair.key) ? pair.key.value : pair.key);
        const at = (pair.key as Node | null)?.range?.[0] ?? 0;
        if (name === '<<' && isAlias(pair.value))
          faults.push({ code: 'yaml-merge', at, path: [...path, name], values: {} });
        // What follows a cut value is the rest of it, up to the bracket that it lacks.
        else if (cut !== undefined && pair.value === null) continue;
        else {
          cut = undefined;
          visit(pair.value, [...path, name], flow, name);
          if (flow && isOpen(pair.value)) {
            cut = { at: (pair.value as Node).range![0], path: [...path, name], name };
            comma(cut.at, cut.path, cut.name);
          }
        }
      }
    } else if (isSeq(node)) {
      const flow = inFlow || node.flow === true;
      let isCut = false;
      node.items.forEach((item, i) => {
        const at = (item as Node | null)?.range?.[0] ?? 0;
        if (isCut) isCut = !closes(item);
        else if (flow && isOpen(item)) {
          isCut = true;
          comma(at, [...path, i], undefined);
        } else visit(item, [...path, i], flow);
      });
    }
  }

  function trap(
    sign: string,
    at: number,
    path: DocumentPath,
    isText: boolean,
    inFlow: boolean,
    key: string | undefined,
  ): void {
    const line = isText ? quotedLine(text, at, inFlow, key) : undefined;
    faults.push({ code: 'yaml-sign', at, path, values: { sign, meaning: meanings[sign], line } });
  }

  function comma(at: number, path: DocumentPath, key: string | undefined): void {
    faults.push({ code: 'yaml-comma', at, path, values: { line: quotedLine(text, at, true, key) } });
  }
}

/** Where the tags and anchors of a node begin; -1 where it has none. */
function beginOf(text: string, at: number, isAliased: boolean): number {
  if (isAliased) return at;
  let begin = -1;
  for (let end = at; ;) {
    while (end > 0 && /[ \t\r\n]/.test(text[end - 1]!)) end--;
    let start = end;
    while (start > 0 && !/[\s,[\]{}]/.test(text[start - 1]!)) start--;
    if (start === end || !/[!&]/.test(text[start]!)) return begin;
    begin = end = start;
  }
}

const depthOf = (text: string): number => (text.match(/\(/g)?.length ?? 0) - (text.match(/\)/g)?.length ?? 0);

const plainText = (node: unknown): string =>
  isScalar(node) && node.type === 'PLAIN' && typeof node.value === 'string' ? node.value : '';
/** Whether a plain text has an opening bracket that nothing closes. */
const isOpen = (node: unknown): boolean => depthOf(plainText(node)) > 0;
const closes = (node: unknown): boolean => depthOf(plainText(node)) < 0;

/** A value as it is meant, in quotes, behind its key. */
export function quotedLine(text: string, at: number, inFlow: boolean, key: string | undefined): string {
  let depth = 0;
  let end = at;
  for (; end < text.length && text[end] !== '\n'; end++) {
    const sign = text[end]!;
    if ('([{'.includes(sign)) depth++;
    if (sign === '#' && /\s/.test(text[end - 1] ?? '')) break;
    if (inFlow && depth === 0 && ',]}'.includes(sign)) break;
    if (')]}'.includes(sign)) depth--;
  }
  const value = text.slice(at, end).trim();
  return `${key === undefined ? '' : `${key}: `}${quoted(value)}`;
}

const quoted = (value: string): string => (value.includes("'") ? JSON.stringify(value) : `'${value}'`);
