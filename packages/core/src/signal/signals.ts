import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { NumberBounds, Signal, SignalDefinition } from './definition.js';

/** The options of a choice; `undefined` if the signal is no choice. */
export function choiceOf(
  signals: Readonly<Record<string, SignalDefinition>>,
  name: string,
): readonly string[] | undefined {
  const signal = Object.hasOwn(signals, name) ? signals[name]! : undefined;
  return signal !== undefined && 'choice' in signal ? signal.choice : undefined;
}

/** Whether a number stays within its bounds. */
export const isWithin = (value: number, bounds: NumberBounds | undefined): boolean =>
  bounds === undefined ||
  (value >= (bounds.from ?? -Infinity) &&
    value <= (bounds.to ?? Infinity) &&
    (bounds.whole !== true || Number.isInteger(value)));

/** The bounds of a number in words: `0 to 100 px/s`. */
export function boundsText({ from, to, whole, unit }: NumberBounds): string {
  const span =
    from === undefined
      ? to === undefined
        ? 'any'
        : `at most ${to}`
      : to === undefined
        ? `${from} or more`
        : `${from} to ${to}`;
  return [span, ...(unit === undefined ? [] : [unit]), ...(whole === true ? ['whole'] : [])]
    .join(', ')
    .replace(/, (?!whole)/, ' ');
}

/** A signal has no controller yet when it is read. */
const nobody = {};

/** Written out: an object spread into another is made again field by field, which at start-up takes most of the time. */
function made(
  name: string,
  kind: Signal['kind'],
  first: Signal['first'],
  options: Signal['options'] = [],
  keep = 0,
  bounds?: Signal['bounds'],
): Signal {
  return {
    owner: nobody,
    name,
    kind,
    slot: -1,
    place: 0,
    word: 0,
    bit: 0,
    timer: -1,
    keep,
    first,
    options,
    bounds,
  };
}

/** Reads one signal; its places are given by the compiler. */
export function readSignal(
  name: string,
  definition: SignalDefinition,
  path: DocumentPath,
  problems: ProblemList,
): Signal {
  if ('number' in definition) {
    const { number, from, to, whole, unit } = definition;
    const isBound = from !== undefined || to !== undefined || whole === true || unit !== undefined;
    const bounds = isBound ? { from, to, whole, unit } : undefined;
    if ((from ?? -Infinity) > (to ?? Infinity)) problems.add('signal-bounds', path, { from, to });
    else if (!isWithin(number, bounds))
      problems.add('signal-first', [...path, 'number'], {
        received: number,
        bounds: boundsText(bounds!),
      });
    return made(name, 'number', [number], [], 0, bounds);
  }
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
