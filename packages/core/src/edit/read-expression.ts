import { ExpressionError, parseExpression } from '../signal/expression.js';
import type { Expression, OptionsOf } from '../signal/expression.js';

/** An expression of a document that is being edited; `undefined` where it cannot be read just now. */
export function readExpression(text: string, optionsOf?: OptionsOf): Expression | undefined {
  try {
    return parseExpression(text, optionsOf);
  } catch (error) {
    if (error instanceof ExpressionError) return undefined;
    throw error;
  }
}
