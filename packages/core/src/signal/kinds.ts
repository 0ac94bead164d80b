import type { ProblemCode, ValuesOf } from '../problem/sentences.js';
import { isComparison } from './comparison.js';
import type { Expression } from './expression.js';
import { functions } from './program.js';
import type { Scope } from './scope.js';

/** What an expression gives. A choice can only be compared with a text, a vector only be read by its parts. */
export type Kind = 'number' | 'flag' | 'choice' | 'vector' | 'text';

export type BinaryExpression = Extract<Expression, { kind: 'binary' }>;

/** The most parts that a condition or a number may consist of once it is written out. */
export const mostParts = 2000;

/** What checking an expression needs of the one who reads it. */
export interface KindReader {
  readonly scope: Scope;
  /** The whole expression as it was written. */
  readonly text: string;
  /** The kind of a derived signal, which may have to be read first. */
  derivedKind(name: string): Kind;
  /** Adds a problem and stops the reading of this expression. */
  refuse<C extends ProblemCode>(code: C, values: ValuesOf<C>, at?: number): never;
}

/** The kind of an expression; refuses one whose parts do not fit together. */
export function kindOf(expression: Expression, reader: KindReader): Kind {
  switch (expression.kind) {
    case 'number':
    case 'flag':
    case 'text':
      return expression.kind;
    case 'name':
      return kindOfName(expression, reader);
    case 'call':
      return kindOfCall(expression, reader);
    case 'unary':
      return want(expression.part, expression.operator === '!' ? 'flag' : 'number', reader);
    case 'choose':
      want(expression.test, 'flag', reader);
      return want(expression.no, kindOf(expression.yes, reader), reader);
    case 'binary':
      return kindOfBinary(expression, reader);
  }
}

/** Refuses an expression of another kind, and says how it could be meant. */
export function want(
  expression: Expression,
  expected: Kind,
  reader: KindReader,
  received: Kind = kindOf(expression, reader),
): Kind {
  if (received === expected) return received;
  const part = reader.text.slice(expression.at, expression.end);
  const option = expression.kind === 'name' ? reader.scope.optionsOf(expression.name)?.[0] : '';
  const remedies: Partial<Record<Kind, string>> = {
    number: expected === 'flag' ? `compare it, such as ${part} > 0` : '',
    choice: `compare it, such as ${part} == ${/^\w+$/.test(option ?? '') ? option : `'${option}'`}`,
    vector: `read one of its parts, ${part}.x or ${part}.y`,
    text: 'a text is only compared with a choice',
  };
  return reader.refuse(
    'expression-kind',
    { part, received, expected, remedy: remedies[received] ?? '' },
    expression.at,
  );
}

function kindOfName({ name, at }: Extract<Expression, { kind: 'name' }>, reader: KindReader): Kind {
  const { scope } = reader;
  const signal = scope.signals.get(name);
  if (signal !== undefined) return signal.kind === 'pulse' ? 'flag' : signal.kind;
  if (scope.slotOf(name) !== undefined) return 'number';
  if (Object.hasOwn(scope.derived, name)) return reader.derivedKind(name);
  if (scope.tagNames.has(name) || scope.isState(name)) return 'flag';
  if (scope.optionsOf(name) !== undefined) return 'choice';
  return reader.refuse('signal-unknown', { name, known: scope.names() }, at);
}

function kindOfCall({ name, parts, at }: Extract<Expression, { kind: 'call' }>, reader: KindReader): Kind {
  const known = Object.hasOwn(functions, name) ? functions[name] : undefined;
  if (known === undefined)
    return reader.refuse('function-unknown', { name, known: Object.keys(functions) }, at);
  if (known.takes !== parts.length)
    reader.refuse('function-count', { name, expected: known.takes, received: parts.length }, at);
  for (const part of parts) want(part, 'number', reader);
  return 'number';
}

function kindOfBinary(expression: BinaryExpression, reader: KindReader): Kind {
  const { operator, left, right } = expression;
  if (operator === '&&' || operator === '||') {
    want(left, 'flag', reader);
    return want(right, 'flag', reader);
  }
  if (operator === '==' || operator === '!=') {
    if (choiceTested(expression, reader) !== undefined) return 'flag';
    // Asked once: asked twice at each part of a chain, it would take twice as long with every part.
    const kind = kindOf(left, reader);
    const both = kind === 'number' || kind === 'flag' ? kind : 'number';
    want(right, both, reader);
    want(left, both, reader, kind);
  } else {
    want(left, 'number', reader);
    want(right, 'number', reader);
  }
  return isComparison(operator) ? 'flag' : 'number';
}

/** A choice compared with one of its options, or a track with one of its states. Refuses a text that is none. */
export function choiceTested(
  { left, right }: BinaryExpression,
  reader: KindReader,
): { readonly choice: string; readonly option: string } | undefined {
  const [name, text] = left.kind === 'text' ? [right, left] : [left, right];
  if (name.kind !== 'name' || text.kind !== 'text') return undefined;
  const [choice, option] = [name.name, text.value];
  const known = reader.scope.optionsOf(choice);
  if (known === undefined) return undefined;
  if (!known.includes(option))
    reader.refuse(
      reader.scope.signals.has(choice) ? 'choice-unknown' : 'state-unknown',
      { choice, name: option, known },
      text.at,
    );
  return { choice, option };
}
