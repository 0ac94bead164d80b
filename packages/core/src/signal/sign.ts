import type { Expression } from './expression.js';
import type { Scope } from './scope.js';

/** Whether a number is at no time below 0, as far as its expression and the bounds of its signals show. */
export function isFromZero(expression: Expression, scope: Scope): boolean {
  const are = (...parts: readonly Expression[]): boolean => parts.every((part) => isFromZero(part, scope));
  switch (expression.kind) {
    case 'number':
      return expression.value >= 0;
    case 'name': {
      const derived = scope.derivedNumbers.get(expression.name);
      if (derived !== undefined) return are(derived);
      const { from = -1 } = scope.signals.get(expression.name)?.bounds ?? {};
      return from >= 0;
    }
    case 'choose':
      return are(expression.yes, expression.no);
    case 'binary':
      return /^[+*/%]$/.test(expression.operator) && are(expression.left, expression.right);
    case 'call':
      return /^(?:abs|sqrt|hypot)$/.test(expression.name) || are(...expression.parts);
    default:
      return false;
  }
}
