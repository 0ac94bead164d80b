import { parseExpression } from './expression.js';
import type { Expression } from './expression.js';

/**
 * An expression of a document as ECMAScript.
 *
 * @param nameOf what stands for a name: a signal, a derived signal, a tag
 */
export function ecmascriptOf(text: string, nameOf: (name: string) => string): string {
  return writtenOut(parseExpression(text), nameOf);
}

function writtenOut(expression: Expression, nameOf: (name: string) => string): string {
  const part = (inner: Expression): string => {
    const out = writtenOut(inner, nameOf);
    return inner.kind === 'binary' || inner.kind === 'choose' ? `(${out})` : out;
  };
  switch (expression.kind) {
    case 'number':
    case 'flag':
      return String(expression.value);
    case 'text':
      return `'${expression.value.replace(/[\\']/g, '\\$&')}'`;
    case 'name':
      return nameOf(expression.name);
    case 'unary':
      return `${expression.operator}${part(expression.part)}`;
    case 'choose':
      return `${part(expression.test)} ? ${part(expression.yes)} : ${part(expression.no)}`;
    case 'call': {
      const parts = expression.parts.map((one) => writtenOut(one, nameOf));
      if (expression.name === 'clamp') return `Math.min(Math.max(${parts[0]}, ${parts[1]}), ${parts[2]})`;
      return `Math.${expression.name}(${parts.join(', ')})`;
    }
    case 'binary': {
      const { operator, left, right } = expression;
      const strict = operator === '==' ? '===' : operator === '!=' ? '!==' : operator;
      return `${part(left)} ${strict} ${part(right)}`;
    }
  }
}
