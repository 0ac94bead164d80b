import type { ControllerDefinition } from '../controller/definition.js';
import { documentShape } from '../document/shape.js';
import type { DocumentPath } from '../problem/problem.js';
import { isButton } from '../rehearsal/buttons.js';
import type { RehearsalDefinition } from '../rehearsal/definition.js';
import { rehearsalShape } from '../rehearsal/shape.js';
import type { TextRole } from '../shape/shape.js';
import { textsIn } from '../shape/texts.js';
import type { PlacedText } from '../shape/texts.js';
import { partsOf } from '../signal/expression.js';
import type { Expression } from '../signal/expression.js';
import { readExpression } from './read-expression.js';

/** The kinds of names that can be renamed with all their references. */
export type NameKind =
  'sheet' | 'part' | 'clip' | 'cue' | 'span' | 'box' | 'point' | 'signal' | 'state' | 'tag' | 'track';
/** The kinds of names that an expression speaks of. */
export type SpokenKind = 'signal' | 'tag' | 'state' | 'track';

/** A place where a name stands. */
export interface NameSite {
  readonly path: DocumentPath;
  /** The kinds of names that may stand there; a state shows clips. */
  readonly kind: NameKind;
  /**
   * Whether the name is the key at the path, its value, the track before a state in its value (`arms.swing`), or part of an
   * expression or a place that is its value.
   */
  readonly as: 'key' | 'value' | 'track-of-state' | 'expression' | 'place';
}

/** The kinds of names that a text with a role can be. */
const kindsOf: Readonly<Partial<Record<TextRole, readonly NameKind[]>>> = {
  sheet: ['sheet'],
  part: ['part'],
  clip: ['clip'],
  shown: ['clip'],
  cue: ['cue'],
  told: ['cue'],
  instant: ['cue'],
  span: ['span'],
  box: ['box'],
  point: ['point'],
  signal: ['signal'],
  pressed: ['signal'],
  state: ['state'],
  ownState: ['state'],
  stateAnywhere: ['state'],
  tag: ['tag'],
  track: ['track'],
  expression: ['signal', 'tag', 'state', 'track'],
};

const sitesOf = (texts: readonly PlacedText[]): NameSite[] =>
  texts.flatMap(({ path, role, as, text }) => {
    if (role === 'place') return placeKinds.map((kind): NameSite => ({ path, kind, as: 'place' }));
    if (role === 'instant' && (text === 'now' || text === 'end')) return [];
    const sites = (kindsOf[role] ?? []).map((kind): NameSite => ({
      ...{ path, kind },
      as: role === 'expression' ? role : as,
    }));
    // A state may be told with its track.
    if ((role === 'state' || role === 'stateAnywhere') && as === 'value')
      sites.push({ path, kind: 'track', as: 'track-of-state' });
    return sites;
  });

/** Every place of a document where a name of the animator's stands. */
export function namesIn(definition: ControllerDefinition): NameSite[] {
  const sites = sitesOf(textsIn(definition, documentShape));
  // Of a choice the options stand over the clips; of a flag the clips themselves are the keys.
  for (const [signal, clips] of Object.entries(definition.variants ?? {}))
    for (const [clip, other] of Object.entries(clips))
      if (typeof other === 'string')
        sites.push({ kind: 'clip', path: ['variants', signal, clip], as: 'key' });
  return sites;
}

/** What the keys of the maps are that a place such as `tracks.arms.states.swing.hops` leads through. */
const mapKinds: Readonly<Record<string, NameKind>> = {
  sheets: 'sheet',
  clips: 'clip',
  flipbooks: 'clip',
  states: 'state',
  groups: 'state',
  signals: 'signal',
  derived: 'signal',
  tracks: 'track',
};
const placeKinds = [...new Set(Object.values(mapKinds))];

/** A place with a name in it exchanged: `groups.high.states.rise.hops[0]` leads by two names of states. */
export function renamedPlace(text: string, kind: NameKind, renamed: (name: string) => string): string {
  const steps = text.split('.');
  for (let i = 0; i + 1 < steps.length; i += 2) {
    const map = mapKinds[steps[i]!];
    if (map === undefined) break;
    if (map === kind) steps[i + 1] = steps[i + 1]!.replace(/^[^[]+/, renamed);
    // Below these there are maps again.
    if (map !== 'track' && steps[i] !== 'groups') break;
  }
  return steps.join('.');
}

/** Every place of a rehearsal where a name of its character's stands. */
export function namesInRehearsal(rehearsal: RehearsalDefinition): NameSite[] {
  const texts = textsIn(rehearsal, rehearsalShape);
  const isButtonOfBody = (name: string): boolean => rehearsal.body !== undefined && isButton(name);
  return sitesOf(texts.filter(({ role, text }) => role !== 'pressed' || !isButtonOfBody(text)));
}

/** A name in an expression, in characters from 0. */
interface Word {
  readonly at: number;
  readonly end: number;
  readonly come: string;
}

/**
 * An expression with a name in it exchanged; as it is where it cannot be read.
 *
 * @param tracks the tracks of the character, by whose names states are spoken of
 * @param choices the signals that are compared with options, which are no signals
 */
export function renamedExpression(
  text: string,
  kind: SpokenKind,
  from: string,
  to: string,
  tracks: readonly string[],
  choices: readonly string[],
): string {
  const read = readExpression(text, (name) =>
    tracks.includes(name) || choices.includes(name) ? [] : undefined,
  );
  if (read === undefined) return text;
  const words: Word[] = [];
  const visit = (part: Expression): void => {
    if (part.kind === 'name') {
      const [head, tail] = part.name.split('.') as [string, string | undefined];
      const { at, end } = part;
      if (kind === 'track') {
        if (head === from) words.push({ at, end, come: tail === undefined ? to : `${to}.${tail}` });
      } else if (kind !== 'state' && head === from)
        words.push({ at, end, come: tail === undefined ? to : `${to}.${tail}` });
      if (kind === 'state' && tail === from && tracks.includes(head))
        words.push({ at, end, come: /^\w+$/.test(to) ? `${head}.${to}` : `${head} == '${to}'` });
    } else if (kind === 'state' && part.kind === 'binary' && /^[!=]=$/.test(part.operator)) {
      const asked = [part.left, part.right].some((one) => one.kind === 'name' && tracks.includes(one.name));
      for (const one of [part.left, part.right])
        if (asked && one.kind === 'text' && one.value === from) {
          const isQuoted = one.end - one.at > one.value.length;
          const [at, end] = isQuoted ? [one.at + 1, one.end - 1] : [one.at, one.end];
          words.push({ at, end, come: isQuoted || /^\w+$/.test(to) ? to : `'${to}'` });
        }
    }
    partsOf(part).forEach(visit);
  };
  visit(read);
  return words
    .sort((a, b) => b.at - a.at)
    .reduce((now, { at, end, come }) => now.slice(0, at) + come + now.slice(end), text);
}
