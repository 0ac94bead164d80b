import type { SignalFacts } from '../explain/describe.js';

export const listText = (names: Iterable<string>): string => [...names].join(', ');

/** What a signal takes, in a few words: for the programmer who sets it. */
export function signalText({ kind, options, bounds, keep }: SignalFacts): string {
  if (kind === 'choice') return `one of ${listText(options)}`;
  if (kind === 'pulse') return keep === 0 ? 'a press' : `a press, remembered for ${keep} ms`;
  if (kind === 'flag') return 'on or off';
  if (kind === 'vector') return 'a vector: x and y';
  const { from, to, unit, whole } = bounds ?? {};
  const span = from === undefined && to === undefined ? '' : ` from ${from ?? 'any'} to ${to ?? 'any'}`;
  return `a ${whole === true ? 'whole ' : ''}number${span}${unit === undefined ? '' : `, ${unit}`}`;
}
