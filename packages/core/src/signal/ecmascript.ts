import { parseExpression } from './expression.js';
import type { Expression } from './expression.js';

/**
 * Writes an expression of a document as ECMAScript.
 *
 * @param nameOf what stands for a name: a signal, a derived signal, a tag, a state with its track
 * @param isTrack whether a name is a track's: `arms == 'swing'` is the name `arms.swing` then
 * @param isChoice whether a name is a choice's
 */
export function ecmascriptOf(
  text: string,
  nameOf: (name: string) => string,
  isTrack: (name: string) => boolean = () => false,
  isChoice: (name: string) => boolean = () => false,
): string {
  const read = parseExpression(text, (name) => (isTrack(name) || isChoice(name) ? [] : undefined));
  return writtenOut(read, nameOf, isTrack);
}

function writtenOut(
  expression: Expression,
  nameOf: (name: string) => string,
  isTrack: (name: string) => boolean,
): string {
  const part = (inner: Expression): string => {
    const out = writtenOut(inner, nameOf, isTrack);
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
      const parts = expression.parts.map((one) => writtenOut(one, nameOf, isTrack));
      if (expression.name === 'clamp') return `Math.min(Math.max(${parts[0]}, ${parts[1]}), ${parts[2]})`;
      return `Math.${expression.name}(${parts.join(', ')})`;
    }
    case 'binary': {
      const { operator, left, right } = expression;
      const [name, state] = left.kind === 'text' ? [right, left] : [left, right];
      if (name.kind === 'name' && state.kind === 'text' && isTrack(name.name))
        return `${operator === '==' ? '' : '!'}${nameOf(`${name.name}.${state.value}`)}`;
      // What is no finite number counts as 0 here, and does not in ECMAScript.
      if (operator === '/' || operator === '%')
        return `(${part(right)} === 0 ? 0 : ${part(left)} ${operator} ${part(right)})`;
      const strict = operator === '==' ? '===' : operator === '!=' ? '!==' : operator;
      return `${part(left)} ${strict} ${part(right)}`;
    }
  }
}
