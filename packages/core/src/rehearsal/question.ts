import type { ControllerDefinition } from '../controller/definition.js';
import { askableOf, placeStates } from '../controller/tracks.js';
import type { Performer } from '../performer/performer.js';
import type { ProblemList } from '../problem/problem.js';
import type { DocumentPath } from '../problem/problem.js';
import { SignalCompiler } from '../signal/compiler.js';
import { parseExpression, partsOf } from '../signal/expression.js';
import type { Expression, OptionsOf } from '../signal/expression.js';
import { Op, valueOf } from '../signal/program.js';
import { opOf } from '../signal/writer.js';

/** Adds the problems of a condition that a rehearsal waits for: unknown names, kinds that do not fit. */
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
 * Asks a performer whether a condition is true now. Rehearsals ask conditions that the document does not have, and asking must not change
 * what is decided. So the condition is written as a program each time, with the performer's values in place of names.
 */
export function isTrue(text: string, performer: Performer): boolean {
  const code: number[] = [];
  const constants: number[] = [];
  const emit = (expression: Expression): void => {
    const known = valueIn(expression, performer);
    if (known !== undefined) {
      code.push(Op.constant, constants.push(Number(known)) - 1);
      return;
    }
    partsOf(expression).forEach(emit);
    code.push(opOf(expression), 0);
  };
  emit(parseExpression(text, optionsIn(performer)));
  return valueOf({ code, constants }, noNumbers, 0, noWords) !== 0;
}

const noNumbers = new Float64Array(0);
const noWords = new Int32Array(0);

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

/** What a part of an expression is without computing: written there, said by the performer, or a text compared with what it says. */
function valueIn(expression: Expression, performer: Performer): number | boolean | undefined {
  switch (expression.kind) {
    case 'number':
    case 'flag':
      return expression.value;
    case 'name':
      return performer.value(expression.name) as number | boolean;
    case 'binary': {
      const { left, right, operator } = expression;
      const [text, name] = left.kind === 'text' ? [left, right] : [right, left];
      if (text.kind !== 'text' || name.kind !== 'name') return undefined;
      return (performer.value(name.name) === text.value) === (operator === '==');
    }
    default:
      return undefined;
  }
}
