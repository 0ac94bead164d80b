import type { ControllerDefinition, StateDefinition } from '../controller/definition.js';
import { stateIn } from '../controller/groups.js';
import type { DocumentPath } from '../problem/problem.js';
import type { Change } from './change.js';
import { loopClip, removeClip } from './clips.js';
import { setVariant } from './groups.js';
import type { Edit } from './history.js';
import { valueAt } from './rename.js';
import { removeState, setState } from './states.js';

/*
 * What can be done about a finding without knowing what was meant: the remedy that its sentence names, as an edit.
 */

/** The parts of a finding of `dot-hop/check` that a remedy needs. */
export interface FindingData {
  readonly code: string;
  readonly path: DocumentPath;
  readonly values: Readonly<Record<string, unknown>>;
}

type Find = (definition: ControllerDefinition, finding: FindingData) => Edit | undefined;

/** How long a press is remembered, in milliseconds. */
const pressKept = 120;
/** How long two states that flicker are kept at least, in milliseconds. */
const leastShown = 80;

const takenOut = (what: string, path: DocumentPath): Edit => ({
  says: `take out ${what}`,
  changes: [{ op: 'remove', path }],
});

const literal = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** A text at a path with something else in it; `undefined` where that does not stand there. */
function rewritten(
  definition: ControllerDefinition,
  path: DocumentPath,
  from: RegExp,
  to: string,
): Change | undefined {
  const text = valueAt(definition, path);
  if (typeof text !== 'string') return undefined;
  const now = text.replace(from, to);
  return now === text ? undefined : { op: 'set', path, value: now };
}

/** Puts another comparison in place of one in the conditions of states. */
function compared(
  definition: ControllerDefinition,
  { name, value }: FindingData['values'],
  states: readonly unknown[],
  signs: Readonly<Record<string, string>>,
): Edit | undefined {
  for (const state of states) {
    const stated = stateIn(definition, String(state));
    for (const field of stated === undefined ? [] : (['while', 'when'] as const))
      for (const [from, to] of Object.entries(signs)) {
        const term = new RegExp(
          `(\\b${literal(String(name))}\\s*)${from}(\\s*${literal(String(value))})(?![\\d.])`,
        );
        const change = rewritten(definition, [...stated!.path, field], term, `$1${to}$2`);
        if (change !== undefined)
          return { says: `write ${to} in “${field}” of ${stated!.name}`, changes: [change] };
      }
  }
  return undefined;
}

/** Ranks a state above those that keep it out, where all of them stand beside one another. */
function rankedAbove(definition: ControllerDefinition, name: unknown, above: unknown): Edit | undefined {
  const state = stateIn(definition, String(name));
  const others = (above as readonly string[]).map((one) => stateIn(definition, one));
  const holder = state?.path.slice(0, -1).join('.');
  if (state === undefined || others.some((one) => one?.path.slice(0, -1).join('.') !== holder))
    return undefined;
  const rank = Math.max(...others.map((one) => one!.definition.priority ?? 0)) + 1;
  return { ...setState(definition, state.name, 'priority', rank), says: `rank ${state.name} ${rank}` };
}

/** Plays the clip once that a state shows. */
function playedOnce(definition: ControllerDefinition, name: unknown): Edit | undefined {
  const shows = stateIn(definition, String(name))?.definition.shows;
  if (typeof shows !== 'string' || definition.clips[shows] === undefined) return undefined;
  return { ...loopClip(shows, 'once'), says: `play ${shows} once` };
}

/** Writes `abs(...)` around something in an expression. */
function unsigned(definition: ControllerDefinition, path: DocumentPath, text: unknown): Edit | undefined {
  const change = rewritten(
    definition,
    path,
    new RegExp(`(?<![\\w.(])${literal(String(text))}(?![\\w.(])`, 'g'),
    `abs(${String(text)})`,
  );
  return change && { says: `write abs(${String(text)})`, changes: [change] };
}

/** The field of a state at a path without an item, or without itself where it was the last. */
function withoutItem(definition: ControllerDefinition, path: DocumentPath, what: string): Edit {
  const list = valueAt(definition, path.slice(0, -1));
  const isLast = Array.isArray(list) && list.length === 1;
  return takenOut(what, isLast ? path.slice(0, -1) : path);
}

const remedies: Readonly<Record<string, Find>> = {
  'signal-unused': (_, { path, values }) => takenOut(`the signal ${String(values.name)}`, path),
  'derived-unused': (_, { path, values }) => takenOut(String(values.name), path),
  'clip-unused': (definition, { values }) => removeClip(definition, String(values.name)),
  'variant-unused': (definition, { path }) => {
    const [, signal, ...rest] = path.map(String);
    return setVariant(
      definition,
      signal!,
      rest.length > 1 ? rest[0] : undefined,
      rest[rest.length - 1]!,
      undefined,
    );
  },
  'state-unreachable': (definition, { values }) => removeState(definition, String(values.state)),
  'state-never': (definition, { values }) => rankedAbove(definition, values.state, values.by),
  'follow-up-overtaken': (definition, { values }) => rankedAbove(definition, values.to, values.by),
  'state-stuck': (definition, { values }) => playedOnce(definition, values.state),
  'then-endless': (definition, { values }) =>
    values.scrubbed === true ? undefined : playedOnce(definition, values.state),
  'threshold-gap': (definition, { values }) =>
    compared(definition, values, [values.above, values.below], { '>': '>=', '<': '<=' }),
  'threshold-overlap': (definition, { values }) =>
    compared(definition, values, [values.above, values.below], { '>=': '>', '<=': '<' }),
  flicker: (definition, { values }) => {
    const states = [values.below, values.above].flatMap((name) => stateIn(definition, String(name)) ?? []);
    const short = states.filter(({ definition: state }) => state.atLeast === undefined);
    if (short.length === 0) return undefined;
    return {
      says: `show ${short.map(({ name }) => name).join(' and ')} for at least ${leastShown} ms`,
      changes: short.map(({ path }) => ({ op: 'set', path: [...path, 'atLeast'], value: leastShown })),
    };
  },
  'one-sided': (definition, { path, values }) => {
    const text = valueAt(definition, path);
    return typeof text === 'string' ? unsigned(definition, path, values.name) : undefined;
  },
  'rate-below-zero': (definition, { path, values }) => {
    const rate = valueAt(definition, path);
    return typeof rate === 'string' ? unsigned(definition, path, values.text) : undefined;
  },
  'hop-never': (definition, { path, values }) =>
    typeof path[path.length - 1] === 'number'
      ? withoutItem(definition, path, `the hop to ${String(values.to)}`)
      : undefined,
  'then-never': (_, { path, values }) => takenOut(`“then: ${String(values.to)}”`, path),
  'yield-needless': (definition, { path, values }) => {
    const given = valueAt(definition, path) as NonNullable<StateDefinition['yields']>[number] | undefined;
    const to = given?.to?.filter((name) => name !== values.to) ?? [];
    if (to.length === 0) return withoutItem(definition, path, `the yield to ${String(values.to)}`);
    return {
      says: `take ${String(values.to)} out of “yields”`,
      changes: [{ op: 'set', path: [...path, 'to'], value: to }],
    };
  },
  'press-lost': (_, { values }) => ({
    says: `remember ${String(values.pulse)} for ${pressKept} ms`,
    changes: [{ op: 'set', path: ['signals', String(values.pulse), 'pulse'], value: { keep: pressKept } }],
  }),
  'accept-unused': (definition, { path }) => withoutItem(definition, path, 'what accepts nothing'),
};

/** The edit that mends a finding, if there is one. */
export const remedyOf = (definition: ControllerDefinition, finding: FindingData): Edit | undefined => {
  const edit = Object.hasOwn(remedies, finding.code)
    ? remedies[finding.code]!(definition, finding)
    : undefined;
  return edit === undefined || edit.changes.length === 0 ? undefined : edit;
};

/** Accepts what a check has found at a place of a document, with the reason. @param at where; anywhere without it */
export function acceptFinding(
  { accept = [] }: ControllerDefinition,
  finding: string,
  at: string | undefined,
  because: string,
): Edit {
  const value = { finding, ...(at !== undefined && { at }), because };
  return {
    says: `accept ${finding}`,
    changes: [
      accept.length === 0
        ? { op: 'set', path: ['accept'], value: [value] }
        : { op: 'insert', path: ['accept'], at: accept.length, value },
    ],
  };
}

/** Takes back that something is accepted. @param place which of them, from 0 */
export const acceptNoMore = (definition: ControllerDefinition, place: number): Edit =>
  withoutItem(definition, ['accept', place], 'what was accepted');
