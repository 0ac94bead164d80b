import { isComparison, valueOps } from './comparison.js';
import { wordBits } from './condition.js';
import type { Condition } from './condition.js';
import { partsOf } from './expression.js';
import type { Expression } from './expression.js';
import { choiceTested } from './kinds.js';
import { mostParts } from './kinds.js';
import type { KindReader } from './kinds.js';
import { Op, functions } from './program.js';
import type { Program } from './program.js';

/** What is needed to write a program, besides its expression. */
export interface ProgramReader extends KindReader {
  /** A flag, already checked, as a condition. */
  conditionOf(expression: Expression): Condition;
}

/** The instruction that computes an expression from the values of its parts. */
export function opOf(expression: Expression): number {
  switch (expression.kind) {
    case 'call':
      return functions[expression.name]!.op;
    case 'unary':
      return expression.operator === '!' ? Op.not : Op.negate;
    case 'choose':
      return Op.choose;
    case 'binary':
      return valueOps[expression.operator]!;
    default:
      throw new Error(`a ${expression.kind} has no parts`);
  }
}

/** Writes an expression as a program. @param expression already checked */
export function programOf(expression: Expression, reader: ProgramReader): Program {
  const code: number[] = [];
  const constants: number[] = [];
  const emit = (part: Expression): void => {
    // A derived number is written out wherever it is read, so that a few lines can stand for a great deal.
    if (code.length > 2 * mostParts) reader.refuse('expression-large', { most: mostParts });
    if (part.kind === 'name') {
      const slot = reader.scope.slotOf(part.name);
      const derived = reader.scope.derivedNumbers.get(part.name);
      if (derived !== undefined) emit(derived);
      else if (slot !== undefined) code.push(Op.number, slot);
      else emitCondition(reader.conditionOf(part));
      return;
    }
    if (part.kind === 'number' || part.kind === 'flag') {
      code.push(Op.constant, constants.push(Number(part.value)) - 1);
      return;
    }
    if (part.kind === 'binary' && isComparison(part.operator) && choiceTested(part, reader) !== undefined) {
      emitCondition(reader.conditionOf(part));
      return;
    }
    partsOf(part).forEach(emit);
    code.push(opOf(part), 0);
  };
  const emitCondition = (condition: Condition): void => {
    if (condition.op === 'term') {
      const { word, bit } = condition.term;
      code.push(Op.bit, word * wordBits + 31 - Math.clz32(bit));
    } else if (condition.op === 'constant')
      code.push(Op.constant, constants.push(condition.value ? 1 : 0) - 1);
    else if (condition.op === 'not') {
      emitCondition(condition.part);
      code.push(Op.not, 0);
    } else {
      emitCondition(condition.left);
      emitCondition(condition.right);
      code.push(condition.op === 'and' ? Op.and : Op.or, 0);
    }
  };
  emit(expression);
  return { code, constants };
}
