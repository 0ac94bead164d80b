import type { Expression } from './expression.js';

/** What a name can be compared with: the options of a choice, the states of a track; `undefined` for any other name. */
export type OptionsOf = (name: string) => readonly string[] | undefined;

/**
 * An expression in which whatever a choice or a track is compared with is a text: `mode == ladder` is `mode == 'ladder'`. Quotes are
 * needed only for an option that is no plain word.
 */
export function withOptions(expression: Expression, optionsOf: OptionsOf): Expression {
  const inner = (part: Expression): Expression => withOptions(part, optionsOf);
  switch (expression.kind) {
    case 'unary':
      return { ...expression, part: inner(expression.part) };
    case 'call':
      return { ...expression, parts: expression.parts.map(inner) };
    case 'choose':
      return {
        ...expression,
        test: inner(expression.test),
        yes: inner(expression.yes),
        no: inner(expression.no),
      };
    case 'binary': {
      const [left, right] = [inner(expression.left), inner(expression.right)];
      if (expression.operator !== '==' && expression.operator !== '!=') return { ...expression, left, right };
      const hasOptions = (part: Expression): boolean =>
        part.kind === 'name' && optionsOf(part.name) !== undefined;
      const [isLeft, isRight] = [hasOptions(left), hasOptions(right)];
      return {
        ...expression,
        left: isRight && !isLeft ? asText(left) : left,
        right: isLeft ? asText(right) : right,
      };
    }
    default:
      return expression;
  }
}

const asText = (part: Expression): Expression =>
  part.kind === 'name' ? { kind: 'text', value: part.name, at: part.at, end: part.end } : part;
