import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { Signal, SignalDefinition } from './definition.js';

/** Reads one signal; its places are given by the compiler. */
export function readSignal(
  name: string,
  definition: SignalDefinition,
  path: DocumentPath,
  problems: ProblemList,
): Signal {
  const none = { name, slot: -1, place: 0, bit: 0, timer: -1, keep: 0, first: [], options: [] };
  if ('number' in definition) {
    checkFinite(definition.number, [...path, 'number'], problems);
    return { ...none, kind: 'number', first: [definition.number] };
  }
  if ('vector' in definition) {
    definition.vector.forEach((part, i) => checkFinite(part, [...path, 'vector', i], problems));
    return { ...none, kind: 'vector', first: definition.vector };
  }
  if ('choice' in definition) {
    const { choice, first } = definition;
    const received = choice.length;
    if (received < 2 || new Set(choice).size < received)
      problems.add('choice-few', [...path, 'choice'], { received: choice });
    if (first !== undefined && !choice.includes(first))
      problems.add('choice-unknown', [...path, 'first'], { choice: name, name: first, known: choice });
    return { ...none, kind: 'choice', options: choice, first: [Math.max(0, choice.indexOf(first ?? ''))] };
  }
  if ('flag' in definition) return { ...none, kind: 'flag', first: [definition.flag ? 1 : 0] };
  const keep = definition.pulse === true ? 0 : (definition.pulse.keep ?? 0);
  if (!(keep >= 0))
    problems.add('field-kind', [...path, 'pulse', 'keep'], { expected: '0 or more ms', received: keep });
  return { ...none, kind: 'pulse', first: [0], keep: Math.max(1, Math.round(keep * 1000)) };
}

function checkFinite(received: number, path: DocumentPath, problems: ProblemList): void {
  if (!Number.isFinite(received)) problems.add('field-kind', path, { expected: 'a finite number', received });
}
