import type { Condition } from './condition.js';
import type { Comparison, Expression } from './expression.js';
import type { Joining } from './joining.js';
import { choiceTested, kindOf } from './kinds.js';
import type { BinaryExpression } from './kinds.js';
import type { ProgramReader } from './writer.js';

/** Makes the terms into which a condition is split. */
export interface TermReader extends ProgramReader {
  readonly joining: Joining;
  flagNamed(name: string): Condition;
  /** The condition that a choice is one of its options, or that a track shows one of its states. */
  optionTest(choice: string, option: string): Condition;
  /** The condition that compares two numbers. */
  comparison(expression: BinaryExpression, operator: Comparison): Condition;
}

/**
 * Splits an expression into terms.
 *
 * @param expression a flag, already checked
 */
export function conditionOf(expression: Expression, terms: TermReader): Condition {
  const { not, both, either } = terms.joining;
  const of = (part: Expression): Condition => conditionOf(part, terms);
  switch (expression.kind) {
    case 'flag':
      return { op: 'constant', value: expression.value };
    case 'name':
      return terms.flagNamed(expression.name);
    case 'unary':
      return not(of(expression.part));
    case 'choose': {
      const test = of(expression.test);
      return either(both(test, of(expression.yes)), both(not(test), of(expression.no)));
    }
    case 'binary': {
      const { operator, left, right } = expression;
      if (operator === '&&') return both(of(left), of(right));
      if (operator === '||') return either(of(left), of(right));
      const tested = choiceTested(expression, terms);
      if (tested !== undefined) {
        const is = terms.optionTest(tested.choice, tested.option);
        return operator === '==' ? is : not(is);
      }
      if (kindOf(left, terms) === 'number') return terms.comparison(expression, operator as Comparison);
      const [a, b] = [of(left), of(right)];
      const same = either(both(a, b), both(not(a), not(b)));
      return operator === '==' ? same : not(same);
    }
    default:
      throw new Error(`a ${expression.kind} is no condition`);
  }
}
