import type { ControllerDefinition, StateDefinition } from '../controller/definition.js';
import { saidOf, stateIn } from '../controller/groups.js';
import type { DocumentPath } from '../problem/problem.js';
import { partsOf, written } from '../signal/expression.js';
import type { Expression } from '../signal/expression.js';
import type { BinaryExpression } from '../signal/kinds.js';
import { constantOf } from '../signal/scope.js';
import { loopClip, removeClip } from './clips.js';
import { setVariant } from './groups.js';
import type { Edit } from './history.js';
import { readExpression } from './read-expression.js';
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

/** An expression with a part of it written otherwise. */
const spliced = (text: string, at: number, end: number, now: string): string =>
  text.slice(0, at) + now + text.slice(end);

/** The comparison in an expression that a threshold finding speaks of, on whichever side its number stands. */
function comparisonOf(
  expression: Expression,
  values: FindingData['values'],
  signs: Readonly<Record<string, string>>,
): BinaryExpression | undefined {
  if (expression.kind === 'binary' && Object.hasOwn(signs, expression.operator)) {
    const { left, right } = expression;
    const isMeant = (named: Expression, number: Expression): boolean =>
      written(named) === values.name && constantOf(number) === values.value;
    if (isMeant(left, right) || isMeant(right, left)) return expression;
  }
  for (const part of partsOf(expression)) {
    const found = comparisonOf(part, values, signs);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** Puts another comparison in place of one in the conditions of states. */
function compared(
  definition: ControllerDefinition,
  values: FindingData['values'],
  states: readonly unknown[],
  signs: Readonly<Record<string, string>>,
): Edit | undefined {
  for (const name of states) {
    const state = stateIn(definition, String(name));
    for (const field of state === undefined ? [] : (['while', 'when'] as const)) {
      const path = [...state!.path, field];
      const text = valueAt(definition, path);
      const read = typeof text === 'string' ? readExpression(text) : undefined;
      const found = read && comparisonOf(read, values, signs);
      if (found === undefined) continue;
      const { left, right, operator } = found;
      const between = String(text).slice(left.end, right.at).replace(operator, signs[operator]!);
      return {
        says: `write ${signs[operator]!} in “${field}” of ${state!.name}`,
        changes: [{ op: 'set', path, value: spliced(String(text), left.end, right.at, between) }],
      };
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

/** Writes `abs(...)` around something wherever an expression reads it, unless that is there already. */
function unsigned(definition: ControllerDefinition, path: DocumentPath, what: unknown): Edit | undefined {
  const text = valueAt(definition, path);
  if (typeof text !== 'string' || typeof what !== 'string') return undefined;
  const [whole, signed] = [readExpression(text), readExpression(what)];
  if (whole === undefined || signed === undefined) return undefined;
  const meant = written(signed);
  let now = text;
  const visit = (part: Expression): void => {
    if (part.kind === 'call' && part.name === 'abs') return;
    if (written(part) === meant) now = spliced(now, part.at, part.end, `abs(${bare(text, part)})`);
    // From the last part to the first, so that the places of those before it still hold.
    else [...partsOf(part)].reverse().forEach(visit);
  };
  visit(whole);
  return now === text
    ? undefined
    : { says: `write abs(${what})`, changes: [{ op: 'set', path, value: now }] };
}

/** A part as it was written, without brackets of its own. */
function bare(text: string, part: Expression): string {
  const [first] = partsOf(part);
  const isBracketed = text[part.at] === '(' && first?.at !== part.at;
  return isBracketed ? text.slice(part.at + 1, part.end - 1) : text.slice(part.at, part.end);
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
  'one-sided': (definition, { path, values }) => unsigned(definition, path, values.name),
  'rate-below-zero': (definition, { path, values }) => unsigned(definition, path, values.text),
  'feet-jump': (definition, { values }) => {
    const state = stateIn(definition, String(values.state));
    if (state === undefined) return undefined;
    const from = values.from as readonly string[];
    const path = [...state.path, 'carry'];
    const said = saidOf(state, 'carry');
    // What a state says takes the place of what its group says, so that is said again.
    const kept = Object.fromEntries(from.map((name) => [name, 'phase']));
    return {
      says: `keep the phase in ${state.name}`,
      changes:
        typeof state.definition.carry === 'object'
          ? from.map((name) => ({ op: 'set', path: [...path, name], value: 'phase' }))
          : [{ op: 'set', path, value: typeof said === 'object' ? { ...said, ...kept } : 'phase' }],
    };
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

/**
 * Accepts a finding, with the reason.
 *
 * @param at the path at which it is accepted. Without it: everywhere
 */
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

/**
 * Takes back the acceptance of a finding.
 *
 * @param place its index in `accept`, from 0
 */
export const acceptNoMore = (definition: ControllerDefinition, place: number): Edit =>
  withoutItem(definition, ['accept', place], 'what was accepted');
