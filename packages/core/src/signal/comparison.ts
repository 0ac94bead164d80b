import type { BinaryOperator, Comparison } from './expression.js';
import { Op } from './program.js';
import type { Program } from './program.js';

/** How a number enters a comparison that can be cut into regions: as it was set, its negative, or its size. */
export type PlainShape = 'plain' | 'negated' | 'absolute';

const comparisons: ReadonlySet<BinaryOperator> = new Set<BinaryOperator>(['<', '<=', '>', '>=', '==', '!=']);
export const isComparison = (operator: BinaryOperator): operator is Comparison => comparisons.has(operator);

const compareOps: Record<Comparison, number> = {
  '<': Op.less,
  '<=': Op.lessEqual,
  '>': Op.more,
  '>=': Op.moreEqual,
  '==': Op.equal,
  '!=': Op.notEqual,
};

/** The comparison that says the same with its sides exchanged. */
export const flipped: Record<Comparison, Comparison> = {
  '<': '>',
  '<=': '>=',
  '>': '<',
  '>=': '<=',
  '==': '==',
  '!=': '!=',
};

/** The instruction of each operator. */
export const valueOps: Partial<Record<BinaryOperator, number>> = {
  '+': Op.add,
  '-': Op.subtract,
  '*': Op.multiply,
  '/': Op.divide,
  '%': Op.remainder,
  '&&': Op.and,
  '||': Op.or,
  ...compareOps,
};

export function compare(operator: Comparison, left: number, right: number): boolean {
  switch (operator) {
    case '<':
      return left < right;
    case '<=':
      return left <= right;
    case '>':
      return left > right;
    case '>=':
      return left >= right;
    case '==':
      return left === right;
    case '!=':
      return left !== right;
  }
}

/** A number in its shape. */
export const shaped = (shape: PlainShape, value: number): number =>
  shape === 'plain' ? value : shape === 'negated' ? -value : Math.abs(value);

/** A compiled number with what else is known of it. */
export class NumberExpression {
  constructor(
    readonly program: Program,
    /** Set when the number is a signal as it was set, its negative or its size. */
    readonly plain: { readonly slot: number; readonly shape: PlainShape } | undefined,
    readonly constant: number | undefined,
  ) {}
}
