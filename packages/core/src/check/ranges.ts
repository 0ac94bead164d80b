import type { ControllerDefinition } from '../controller/definition.js';
import { parseExpression, partsOf } from '../signal/expression.js';
import type { Expression } from '../signal/expression.js';
import { askedBy, turnedBy, facedBy, madeOf, namesOf, saidIn } from './expressions.js';

/** The least and the greatest that a number can be. */
export interface Range {
  readonly low: number;
  readonly high: number;
}
export type RangeOfName = (name: string) => Range;

const any: Range = { low: -Infinity, high: Infinity };
const bit: Range = { low: 0, high: 1 };
const upwards: Range = { low: 0, high: Infinity };

const span = (...values: number[]): Range =>
  // Infinity less infinity, and the like: nothing is known.
  values.some(Number.isNaN) ? any : { low: Math.min(...values), high: Math.max(...values) };

const mapped = ({ low, high }: Range, of: (value: number) => number): Range => span(of(low), of(high));

const size = ({ low, high }: Range): Range => {
  const { low: near, high: far } = span(Math.abs(low), Math.abs(high));
  return { low: low <= 0 && high >= 0 ? 0 : near, high: far };
};

const product = (a: Range, b: Range): Range => {
  const times = (x: number, y: number): number => (x === 0 || y === 0 ? 0 : x * y);
  return span(times(a.low, b.low), times(a.low, b.high), times(a.high, b.low), times(a.high, b.high));
};

const inverse = ({ low, high }: Range): Range => {
  if (low > 0 || high < 0) return span(1 / low, 1 / high);
  // A division by 0 counts as 0.
  if (low === 0) return upwards;
  return high === 0 ? { low: -Infinity, high: 0 } : any;
};

/** The range of an expression, from those of its names (R. E. Moore, Interval Analysis, 1966). A flag is 0 or 1. */
export function rangeOf(expression: Expression, ofName: RangeOfName): Range {
  const of = (part: Expression): Range => rangeOf(part, ofName);
  switch (expression.kind) {
    case 'number':
      return span(expression.value);
    case 'name':
      return ofName(expression.name);
    case 'unary':
      return expression.operator === '-' ? mapped(of(expression.part), (value) => -value) : bit;
    case 'choose': {
      const [yes, no] = [of(expression.yes), of(expression.no)];
      return span(yes.low, yes.high, no.low, no.high);
    }
    case 'call':
      return rangeOfCall(expression.name, expression.parts.map(of));
    case 'binary':
      return rangeOfBinary(expression.operator, of(expression.left), of(expression.right));
    default:
      return bit;
  }
}

function rangeOfBinary(operator: string, a: Range, b: Range): Range {
  switch (operator) {
    case '+':
      return span(a.low + b.low, a.high + b.high);
    case '-':
      return span(a.low - b.high, a.high - b.low);
    case '*':
      return product(a, b);
    case '/':
      return product(a, inverse(b));
    case '%':
      // The sign of a remainder is that of what is divided (ECMA-262, 6.1.6.1.6).
      return { low: Math.min(0, a.low), high: Math.max(0, a.high) };
    default:
      return bit;
  }
}

function rangeOfCall(name: string, parts: readonly Range[]): Range {
  const [first = any, least = any, most = any] = parts;
  const clamp = (value: number, low: number, high: number): number => Math.min(Math.max(value, low), high);
  switch (name) {
    case 'abs':
      return size(first);
    case 'sign':
      return mapped(first, Math.sign);
    case 'floor':
      return mapped(first, Math.floor);
    case 'ceil':
      return mapped(first, Math.ceil);
    case 'round':
      return mapped(first, Math.round);
    case 'min':
      return span(Math.min(...parts.map(({ low }) => low)), Math.min(...parts.map(({ high }) => high)));
    case 'max':
      return span(Math.max(...parts.map(({ low }) => low)), Math.max(...parts.map(({ high }) => high)));
    case 'clamp':
      return span(clamp(first.low, least.low, most.low), clamp(first.high, least.high, most.high));
    default:
      // hypot, and sqrt: of a negative number it counts as 0.
      return upwards;
  }
}

/** The names that a definition takes for signed numbers. */
function signedNames(definition: ControllerDefinition): Set<string> {
  const { derived = {} } = definition;
  const states = saidIn(definition);
  const turning = [...turnedBy(definition), ...states.flatMap(facedBy)];
  const signed = new Set(turning.flatMap(namesOf));
  for (const one of [
    ...Object.values(derived).flatMap((one) => madeOf(one)),
    ...states.flatMap((state) => askedBy(state)),
  ])
    signedIn(one, signed);
  return signed;
}

/** The value of an expression that reads nothing. */
function constantOf(expression: Expression): number | undefined {
  const { low, high } = rangeOf(expression, () => any);
  return low === high ? low : undefined;
}

/** The names that an expression takes for signed numbers. */
function signedIn(expression: Expression, into: Set<string>): void {
  const mark = (part: Expression): void => {
    if (part.kind === 'name') into.add(part.name);
  };
  if (expression.kind === 'call' && ['abs', 'sign', 'hypot'].includes(expression.name))
    expression.parts.forEach(mark);
  if (expression.kind === 'unary' && expression.operator === '-') mark(expression.part);
  if (expression.kind === 'binary') {
    const { left, right, operator } = expression;
    const asksBelow = (bound: Expression, below: string): boolean => {
      const value = constantOf(bound) ?? 1;
      return /^[<>=!]/.test(operator) && (value < 0 || (value === 0 && operator === below));
    };
    if (asksBelow(right, '<')) mark(left);
    if (asksBelow(left, '>')) mark(right);
  }
  for (const part of partsOf(expression)) signedIn(part, into);
}

/** What the parts of a condition that must all hold say of numbers: `vx > 3` that vx is above 3. */
function narrowed(condition: Expression, known: Map<string, Range>): void {
  if (condition.kind !== 'binary') return;
  const { operator, left, right } = condition;
  if (operator === '&&') {
    narrowed(left, known);
    narrowed(right, known);
    return;
  }
  const note = (name: Expression, bound: Expression, isAbove: boolean): void => {
    if (name.kind !== 'name') return;
    const { low, high } = rangeOf(bound, () => any);
    const before = known.get(name.name) ?? any;
    known.set(
      name.name,
      isAbove
        ? { ...before, low: Math.max(before.low, low) }
        : { ...before, high: Math.min(before.high, high) },
    );
  };
  if (/^[<>]/.test(operator)) {
    note(left, right, operator.startsWith('>'));
    note(right, left, operator.startsWith('<'));
  }
}

/**
 * The ranges of the names in a definition, as far as the definition shows them. A number counts as never negative unless the
 * definition treats it as signed: its first value is below 0, it stands in `abs`, `sign` or `hypot` or behind a minus, it is
 * compared with something below 0, or it turns the character. A part of a vector is always signed.
 *
 * @returns the range of a name, while some conditions hold
 */
export function rangesOf(
  definition: ControllerDefinition,
): (...conditions: readonly (string | undefined)[]) => RangeOfName {
  const { signals = {}, derived = {} } = definition;
  const signed = signedNames(definition);
  return (...conditions) => {
    const known = new Map<string, Range>();
    for (const condition of conditions)
      if (condition !== undefined) narrowed(parseExpression(condition), known);
    const found = new Map<string, Range>();
    const ofName: RangeOfName = (name) => {
      const before = found.get(name);
      if (before !== undefined) return before;
      const [whole, narrow] = [wholeOf(name), known.get(name) ?? any];
      const both = { low: Math.max(whole.low, narrow.low), high: Math.min(whole.high, narrow.high) };
      // Conditions that exclude one another are another finding.
      const range = both.low > both.high ? whole : both;
      found.set(name, range);
      return range;
    };
    const wholeOf = (name: string): Range => {
      if (name.includes('.')) return any;
      const made = Object.hasOwn(derived, name) ? derived[name]! : undefined;
      if (typeof made === 'string') return rangeOf(parseExpression(made), ofName);
      const signal = made === undefined && Object.hasOwn(signals, name) ? signals[name]! : undefined;
      if (signal === undefined || !('number' in signal)) return bit;
      const { number, from, to = Infinity } = signal;
      if (from !== undefined) return { low: from, high: to };
      return { low: signed.has(name) || number < 0 ? -Infinity : 0, high: to };
    };
    return ofName;
  };
}
