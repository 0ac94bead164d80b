import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { Signal, SignalDefinition } from './definition.js';

/** A signal has no controller yet when it is read. */
const nobody = {};

/** Written out: an object spread into another is made anew field by field, which at start-up takes most of the time. */
function made(
  name: string,
  kind: Signal['kind'],
  first: Signal['first'],
  options: Signal['options'] = [],
  keep = 0,
): Signal {
  return { owner: nobody, name, kind, slot: -1, place: 0, word: 0, bit: 0, timer: -1, keep, first, options };
}

/** Reads one signal; its places are given by the compiler. */
export function readSignal(
  name: string,
  definition: SignalDefinition,
  path: DocumentPath,
  problems: ProblemList,
): Signal {
  if ('number' in definition) return made(name, 'number', [definition.number]);
  if ('vector' in definition) return made(name, 'vector', definition.vector);
  if ('choice' in definition) {
    const { choice, first } = definition;
    const received = choice.length;
    if (received < 2 || new Set(choice).size < received)
      problems.add('choice-few', [...path, 'choice'], { received: choice });
    if (first !== undefined && !choice.includes(first))
      problems.add('choice-unknown', [...path, 'first'], { choice: name, name: first, known: choice });
    return made(name, 'choice', [Math.max(0, choice.indexOf(first ?? ''))], choice);
  }
  if ('flag' in definition) return made(name, 'flag', [definition.flag ? 1 : 0]);
  const keep = definition.pulse === true ? 0 : (definition.pulse.keep ?? 0);
  return made(name, 'pulse', [0], [], Math.max(1, Math.round(keep * 1000)));
}
