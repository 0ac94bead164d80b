import type { ControllerDefinition } from '../controller/definition.js';
import { askableOf, placeStates } from '../controller/tracks.js';
import type { Performer } from '../performer/performer.js';
import type { ProblemList } from '../problem/problem.js';
import type { DocumentPath } from '../problem/problem.js';
import { compare } from '../signal/comparison.js';
import { SignalCompiler } from '../signal/compiler.js';
import { parseExpression } from '../signal/expression.js';
import type { Expression, OptionsOf } from '../signal/expression.js';
import { functions } from '../signal/program.js';

type Value = number | boolean | string;

/** Adds what is wrong with a condition that a rehearsal waits for: unknown names, kinds that do not fit. */
export function checkQuestion(
  definition: ControllerDefinition,
  text: string,
  path: DocumentPath,
  problems: ProblemList,
): void {
  const { signals = {}, derived = {} } = definition;
  const askable = askableOf(placeStates(definition, problems), problems);
  new SignalCompiler(signals, derived, askable, problems).condition(text, path);
}

/**
 * Asks a performer whether a condition is true now. Read again each time, since rehearsals ask things that the document's
 * own conditions do not: what is asked must not change what is decided.
 */
export function isTrue(text: string, performer: Performer): boolean {
  return valueOf(parseExpression(text, optionsIn(performer)), performer) === true;
}

/** What choices and tracks of a performer can be compared with. */
function optionsIn({ controller }: Performer): OptionsOf {
  const { tables, tracks, states } = controller;
  return (name) => {
    const signal = tables.signals.get(name);
    if (signal !== undefined) return signal.kind === 'choice' ? signal.options : undefined;
    if (tables.derived.has(name)) return undefined;
    return tracks.find((one) => one.name === name)?.order.map((index) => states[index]!.name);
  };
}

function valueOf(expression: Expression, performer: Performer): Value {
  const value = (part: Expression): Value => valueOf(part, performer);
  const number = (part: Expression): number => Number(value(part));
  switch (expression.kind) {
    case 'number':
    case 'flag':
    case 'text':
      return expression.value;
    case 'name':
      return performer.value(expression.name) as Value;
    case 'unary':
      return expression.operator === '!' ? value(expression.part) !== true : -number(expression.part);
    case 'choose':
      return value(value(expression.test) === true ? expression.yes : expression.no);
    case 'call':
      return finite(called(expression.name, expression.parts.map(number)));
    case 'binary': {
      const { operator, left, right } = expression;
      if (operator === '&&') return value(left) === true && value(right) === true;
      if (operator === '||') return value(left) === true || value(right) === true;
      if (operator === '==') return value(left) === value(right);
      if (operator === '!=') return value(left) !== value(right);
      return finite(combined(operator, number(left), number(right)));
    }
  }
}

/** What is no finite number counts as 0, as in the conditions of a document. */
const finite = (value: Value): Value => (typeof value === 'number' && !Number.isFinite(value) ? 0 : value);

type Combining = Exclude<Extract<Expression, { kind: 'binary' }>['operator'], '&&' | '||' | '==' | '!='>;

function combined(operator: Combining, left: number, right: number): Value {
  switch (operator) {
    case '+':
      return left + right;
    case '-':
      return left - right;
    case '*':
      return left * right;
    case '/':
      return left / right;
    case '%':
      return left % right;
    default:
      return compare(operator, left, right);
  }
}

function called(name: string, parts: readonly number[]): number {
  if (!Object.hasOwn(functions, name)) throw new Error(`no function ${name}`);
  if (name === 'clamp') return Math.min(Math.max(parts[0]!, parts[1]!), parts[2]!);
  return (Math as unknown as Record<string, (...parts: number[]) => number>)[name]!(...parts);
}
