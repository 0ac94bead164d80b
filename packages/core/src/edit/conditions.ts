import type { Expression } from '../signal/expression.js';
import { readExpression } from './read-expression.js';

/*
 * A condition as it is put together by hand: terms, joined by `and` and `or`, and nested where it has brackets. What a person
 * typed and what was put together are the same thing, seen in two ways.
 */

/** A condition as a tree: parts joined by `and` or `or`, which may be joined themselves. */
export type ConditionTree =
  | { readonly kind: 'term'; readonly text: string; readonly not: boolean }
  | {
      readonly kind: 'all' | 'any';
      readonly parts: readonly ConditionTree[];
      readonly not: boolean;
    };

/**
 * Reads a condition as a tree, split at its `and`, `or` and `not`.
 *
 * @returns `undefined` for a text that is no expression
 */
export function conditionTree(text: string): ConditionTree | undefined {
  const read = readExpression(text);
  return read && treeOf(read, text, false);
}

function treeOf(part: Expression, text: string, not: boolean): ConditionTree {
  if (part.kind === 'unary' && part.operator === '!') return treeOf(part.part, text, !not);
  if (part.kind !== 'binary' || (part.operator !== '&&' && part.operator !== '||'))
    return { kind: 'term', text: withoutBrackets(text.slice(part.at, part.end)), not };
  const kind = part.operator === '&&' ? 'all' : 'any';
  const sides = [treeOf(part.left, text, false), treeOf(part.right, text, false)];
  // A chain of the same word is one row of parts.
  const parts = sides.flatMap((side) =>
    side.kind !== 'term' && side.kind === kind && !side.not ? side.parts : [side],
  );
  return { kind, parts, not };
}

/** A text without brackets that stand around all of it. */
function withoutBrackets(text: string): string {
  if (!text.startsWith('(')) return text;
  let depth = 0;
  for (let i = 0; i < text.length - 1; i++) {
    if (text[i] === '(') depth++;
    else if (text[i] === ')') depth--;
    if (depth === 0) return text;
  }
  return withoutBrackets(text.slice(1, -1).trim());
}

/**
 * Writes a condition with `and`, `or` and `not`, and with brackets only where they are needed. A join of nothing is no condition: an empty
 * text.
 */
export function conditionText(tree: ConditionTree): string {
  const inner = innerText(tree);
  if (!tree.not) return inner;
  return isSimple(tree) ? `not ${inner}` : `not (${inner})`;
}

/** Whether `not` before it speaks of all of it. */
const isSimple = (tree: ConditionTree): boolean =>
  tree.kind === 'term'
    ? /^[\w.]+$/.test(tree.text) || /^\w+\(.*\)$/.test(tree.text)
    : tree.parts.length === 1;

function innerText(tree: ConditionTree): string {
  if (tree.kind === 'term') return tree.text;
  const { kind, parts } = tree;
  const [only] = parts;
  if (parts.length === 1) return conditionText(only!);
  return parts
    .map((part) => {
      const words = conditionText(part);
      const isJoined = part.kind !== 'term' && part.kind !== kind && part.parts.length > 1 && !part.not;
      // A term with a choice in it (`a ? b : c`) would take what follows it for its last part.
      return isJoined || (part.kind === 'term' && !part.not && part.text.includes('?'))
        ? `(${words})`
        : words;
    })
    .filter((words) => words !== '' && words !== '()')
    .join(kind === 'all' ? ' and ' : ' or ');
}
