import type { Controller } from 'dot-hop';
import { Misuse } from '../misuse.js';
import { idOf } from './reader.js';

/** What an identifier of a state chart can be (xs:NCName, W3C XML Namespaces 1.0), without what would end a text in quotes. */
const isId = (name: string): boolean => /^[\p{L}_][\p{L}\p{N}_.-]*$/u.test(name);

/** Words that no variable can be called by. (ECMA-262, 12.7.2) */
const reserved = new Set(
  `await break case catch class const continue debugger default delete do else enum export extends false finally for function if
  implements import in instanceof interface let new null package private protected public return static super switch this throw true
  try typeof var void while with yield arguments eval undefined In _event _sessionid _name _ioprocessors _x`.split(
    /\s+/,
  ),
);

/**
 * Refuses names that a state chart or its expressions cannot hold.
 *
 * @throws {Misuse} naming the first of them
 */
export function checkChartNames({ states, tracks, cueNames, definition }: ChartNames): void {
  const refuse = (what: string, name: string, why: string): never => {
    throw new Misuse(`the ${what} ${JSON.stringify(name)} cannot stand in a state chart: ${why}; rename it`);
  };
  const letters = 'it must begin with a letter and go on with letters, digits, "_", "-" or "."';
  for (const { name } of states) if (!isId(name)) refuse('state', name, letters);
  for (const { groups } of states)
    for (const { name } of groups) if (!isId(name)) refuse('group', name, letters);
  for (const { name } of tracks) if (!isId(name)) refuse('track', name, letters);
  for (const name of cueNames) if (!isId(name)) refuse('cue', name, letters);
  for (const [what, names] of [
    ['signal', Object.keys(definition.signals ?? {})],
    ['derived signal', Object.keys(definition.derived ?? {})],
  ] as const)
    for (const name of names) if (reserved.has(name)) refuse(what, name, 'it is a word of ECMAScript');
  const ids = new Map<string, string>();
  for (const state of states) {
    const other = ids.get(idOf(state));
    if (other !== undefined && other !== state.name)
      refuse('state', state.name, `a variable of it would be called as one of "${other}"`);
    ids.set(idOf(state), state.name);
  }
}

/** What of a controller has names. */
type ChartNames = Pick<Controller, 'states' | 'tracks' | 'cueNames' | 'definition'>;
