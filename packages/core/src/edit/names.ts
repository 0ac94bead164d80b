import type { ControllerDefinition, StateDefinition } from '../controller/definition.js';
import type { DocumentPath } from '../problem/problem.js';
import type { RehearsalDefinition } from '../rehearsal/definition.js';
import { parseExpression, partsOf } from '../signal/expression.js';
import type { Expression } from '../signal/expression.js';

/** The kinds of names that can be renamed with all their references. */
export type NameKind = 'sheet' | 'clip' | 'cue' | 'span' | 'box' | 'point' | 'signal' | 'state' | 'tag';

/** A place where a name stands. */
export interface NameSite {
  readonly path: DocumentPath;
  /** The kinds of names that may stand there; a state shows clips. */
  readonly kind: NameKind;
  /** Whether the name is the key at the path, its value, or part of an expression or dotted path that is its value. */
  readonly as: 'key' | 'value' | 'expression' | 'dotted';
}

type Visit = (kind: NameKind, path: DocumentPath, as?: NameSite['as']) => void;
type Data = Readonly<Record<string, unknown>>;

const isData = (value: unknown): value is Data =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const keysOf = (value: unknown): string[] => (isData(value) ? Object.keys(value) : []);
const itemsOf = (value: unknown): unknown[] => (Array.isArray(value) ? (value as unknown[]) : []);

/** Every place of a document where a name of the animator's stands. */
export function namesIn(definition: ControllerDefinition): NameSite[] {
  const sites: NameSite[] = [];
  const visit: Visit = (kind, path, as = 'value') => sites.push({ kind, path, as });
  for (const [name, sheet] of Object.entries(definition.sheets)) {
    const path = ['sheets', name];
    visit('sheet', path, 'key');
    visitMarks(sheet, path, visit);
    for (const [part, value] of Object.entries(sheet.parts ?? {})) {
      if (!isData(value)) continue;
      if (value.joint !== undefined) visit('point', [...path, 'parts', part, 'joint']);
      for (const [field, kind] of [
        ['boxes', 'box'],
        ['points', 'point'],
      ] as const)
        itemsOf(value[field]).forEach((_, i) => visit(kind, [...path, 'parts', part, field, i]));
    }
    for (const cell of keysOf(sheet.perCell))
      visitMarks(sheet.perCell![cell], [...path, 'perCell', cell], visit);
  }
  for (const [name, clip] of Object.entries(definition.clips)) {
    const path = ['clips', name];
    visit('clip', path, 'key');
    if (clip.sheet !== undefined) visit('sheet', [...path, 'sheet']);
    for (const cue of keysOf(clip.cues)) visit('cue', [...path, 'cues', cue], 'key');
    for (const span of keysOf(clip.spans)) visit('span', [...path, 'spans', span], 'key');
    visitMarks(clip, path, visit);
    for (const frame of keysOf(clip.perFrame))
      visitMarks(clip.perFrame![frame], [...path, 'perFrame', frame], visit);
  }
  for (const [name, { any }] of Object.entries(definition.cues ?? {})) {
    visit('cue', ['cues', name], 'key');
    any.forEach((_, i) => visit('cue', ['cues', name, 'any', i]));
  }
  for (const [name, flipbook] of Object.entries(definition.flipbooks ?? {})) {
    visit('clip', ['flipbooks', name], 'key');
    for (const direction of keysOf(flipbook)) visit('clip', ['flipbooks', name, direction]);
  }
  visitVector(definition.compass?.by, ['compass', 'by'], visit);
  for (const name of keysOf(definition.signals)) visit('signal', ['signals', name], 'key');
  for (const [name, derived] of Object.entries(definition.derived ?? {})) {
    visit('signal', ['derived', name], 'key');
    visitExpression(['derived', name, ...(typeof derived === 'string' ? [] : ['of'])], visit);
    for (const [field, length] of Object.entries(derived))
      if ((field === 'linger' || field === 'settle') && typeof length === 'string')
        visitExpression(['derived', name, field], visit);
  }
  visitHolder(definition, [], visit);
  for (const [name, track] of Object.entries(definition.tracks ?? {}))
    visitHolder(track, ['tracks', name], visit);
  for (const [signal, maps] of Object.entries(definition.variants ?? {})) {
    const path = ['variants', signal];
    visit('signal', path, 'key');
    for (const [key, one] of Object.entries(maps)) visitVariants(one, [...path, key], visit);
  }
  visitWardrobe(definition, visit);
  (definition.accept ?? []).forEach(({ at }, i) => {
    const kind = at === undefined ? undefined : dottedKind(at);
    if (kind !== undefined) visit(kind, ['accept', i, 'at'], 'dotted');
  });
  return sites;
}

/** What the first name of a dotted path such as `states.rise.hops` is. */
function dottedKind(text: string): NameKind | undefined {
  const head = /^(?:(?:tracks|groups)\.[^.]+\.)*(sheets|clips|flipbooks|states|signals|derived)\./.exec(
    text,
  )?.[1];
  const kinds: Record<string, NameKind> = {
    sheets: 'sheet',
    clips: 'clip',
    flipbooks: 'clip',
    states: 'state',
    signals: 'signal',
    derived: 'signal',
  };
  return head === undefined ? undefined : kinds[head];
}

/** Which clips stand for which: of a choice in a map for each option, of a flag in one. */
function visitVariants(one: unknown, path: DocumentPath, visit: Visit): void {
  if (isData(one)) for (const [from, to] of Object.entries(one)) visitVariants(to, [...path, from], visit);
  else {
    visit('clip', path, 'key');
    visit('clip', path);
  }
}

function visitMarks(marks: unknown, path: DocumentPath, visit: Visit): void {
  if (!isData(marks)) return;
  for (const box of keysOf(marks.boxes)) visit('box', [...path, 'boxes', box], 'key');
  for (const point of keysOf(marks.points)) visit('point', [...path, 'points', point], 'key');
}

/** An expression speaks of signals, of tags and of states with their tracks. */
function visitExpression(path: DocumentPath, visit: Visit): void {
  for (const kind of ['signal', 'tag', 'state'] as const) visit(kind, path, 'expression');
}

function visitVector(by: unknown, path: DocumentPath, visit: Visit): void {
  if (typeof by === 'string') visitExpression(path, visit);
  itemsOf(by).forEach((part, i) => {
    if (typeof part === 'string') visitExpression([...path, i], visit);
  });
}

function visitAt(at: unknown, path: DocumentPath, visit: Visit): void {
  if (typeof at === 'string' && at !== 'now' && at !== 'end') visit('cue', path);
  if (isData(at)) for (const end of ['start', 'end']) if (end in at) visit('span', [...path, end]);
}

/** What holds states: a document, a track, a group. Groups have their names beside those of states. */
function visitHolder(
  { states, groups, rest }: Pick<ControllerDefinition, 'states' | 'groups' | 'rest'>,
  root: DocumentPath,
  visit: Visit,
): void {
  visitStates(states, [...root, 'states'], visit);
  if (rest !== undefined) visit('state', [...root, 'rest']);
  for (const [name, group] of Object.entries(groups ?? {})) {
    const path = [...root, 'groups', name];
    visit('state', path, 'key');
    visitExpression([...path, 'while'], visit);
    itemsOf(group.tags).forEach((_, i) => visit('tag', [...path, 'tags', i]));
    for (const from of keysOf(group.carry)) visit('state', [...path, 'carry', from], 'key');
    if (isData(group.facing)) visitVector(group.facing.by, [...path, 'facing', 'by'], visit);
    visitHolder(group, path, visit);
  }
}

function visitStates(
  states: Readonly<Record<string, StateDefinition>> | undefined,
  root: DocumentPath,
  visit: Visit,
): void {
  for (const [name, state] of Object.entries(states ?? {})) {
    const path = [...root, name];
    visit('state', path, 'key');
    if (typeof state.shows === 'string') visit('clip', [...path, 'shows']);
    else itemsOf(state.shows?.any).forEach((_, i) => visit('clip', [...path, 'shows', 'any', i]));
    if (state.gaits !== undefined) {
      visitExpression([...path, 'gaits', 'by'], visit);
      itemsOf(state.gaits.shows).forEach((_, i) => visit('clip', [...path, 'gaits', 'shows', i]));
    }
    for (const field of ['while', 'when', 'lasts', 'atLeast'] as const)
      if (typeof state[field] === 'string') visitExpression([...path, field], visit);
    if (state.then !== undefined) visit('state', [...path, 'then']);
    (state.hops ?? []).forEach((hop, i) => {
      const at = [...path, 'hops', i];
      visit('state', [...at, 'to']);
      if (hop.if !== undefined) visitExpression([...at, 'if'], visit);
      if (hop.during !== undefined) visit('span', [...at, 'during']);
      visitAt(hop.at, [...at, 'at'], visit);
    });
    (state.yields ?? []).forEach((one, i) => {
      const at = [...path, 'yields', i];
      itemsOf(one.to).forEach((_, n) => visit('state', [...at, 'to', n]));
      if (one.if !== undefined) visitExpression([...at, 'if'], visit);
      if (one.during !== undefined) visit('span', [...at, 'during']);
    });
    for (const from of keysOf(state.carry)) visit('state', [...path, 'carry', from], 'key');
    if (typeof state.rate === 'string') visitExpression([...path, 'rate'], visit);
    else if (isData(state.rate)) visitExpression([...path, 'rate', 'travel'], visit);
    if (state.scrub !== undefined) visitExpression([...path, 'scrub', 'by'], visit);
    for (const [from, bridge] of Object.entries(state.bridges ?? {})) {
      visit('state', [...path, 'bridges', from], 'key');
      if (typeof bridge === 'string') visit('clip', [...path, 'bridges', from]);
      for (const gait of keysOf(bridge)) {
        visit('clip', [...path, 'bridges', from, gait], 'key');
        visit('clip', [...path, 'bridges', from, gait]);
      }
    }
    visitAt(state.leaves, [...path, 'leaves'], visit);
    itemsOf(state.tags).forEach((_, i) => visit('tag', [...path, 'tags', i]));
    if (isData(state.facing)) visitVector(state.facing.by, [...path, 'facing', 'by'], visit);
    if (state.turns !== undefined) visit('clip', [...path, 'turns', 'shows']);
    for (const track of keysOf(state.takes)) visitExpression([...path, 'takes', track], visit);
  }
}

function visitWardrobe({ wardrobe }: ControllerDefinition, visit: Visit): void {
  const visitWhere = (where: unknown, path: DocumentPath): void => {
    if (!isData(where)) return;
    itemsOf(where.states).forEach((_, i) => visit('state', [...path, 'states', i]));
    itemsOf(where.clips).forEach((_, i) => visit('clip', [...path, 'clips', i]));
    if (where.span !== undefined) visit('span', [...path, 'span']);
    for (const field of ['from', 'until']) if (where[field] !== undefined) visit('cue', [...path, field]);
  };
  for (const [layer, { pieces, hidden }] of Object.entries(wardrobe?.layers ?? {})) {
    const root = ['wardrobe', 'layers', layer];
    for (const [name, piece] of Object.entries(pieces)) {
      const path = [...root, 'pieces', name];
      if (typeof piece.sheet === 'string') visit('sheet', [...path, 'sheet']);
      for (const body of keysOf(piece.sheet)) {
        visit('sheet', [...path, 'sheet', body], 'key');
        visit('sheet', [...path, 'sheet', body]);
      }
      if (piece.at !== undefined) visit('point', [...path, 'at']);
      itemsOf(piece.clips).forEach((_, i) => visit('clip', [...path, 'clips', i]));
      if (isData(piece.otherwise)) visit('clip', [...path, 'otherwise', 'clip']);
    }
    (hidden ?? []).forEach((where, i) => visitWhere(where, [...root, 'hidden', i]));
  }
  (wardrobe?.orders ?? []).forEach((where, i) => visitWhere(where, ['wardrobe', 'orders', i]));
}

/** Every place of a rehearsal where a name of its character's stands. */
export function namesInRehearsal({ script, expect, body }: RehearsalDefinition): NameSite[] {
  const sites: NameSite[] = [];
  const visit: Visit = (kind, path, as = 'value') => sites.push({ kind, path, as });
  const visitNames = (kind: NameKind, value: unknown, path: DocumentPath): void => {
    if (typeof value === 'string') visit(kind, path);
    itemsOf(value).forEach((_, i) => visit(kind, [...path, i]));
  };
  const visitExpected = (expected: unknown, path: DocumentPath): void => {
    if (!isData(expected)) return;
    if (expected.state !== undefined) visit('state', [...path, 'state']);
    visitNames('state', expected.passes, [...path, 'passes']);
    visitNames('state', expected.never, [...path, 'never']);
    for (const cue of keysOf(expected.cues)) visit('cue', [...path, 'cues', cue], 'key');
  };
  script.forEach((line, i) => {
    const path = ['script', i];
    if (typeof line.until === 'string') visitExpression([...path, 'until'], visit);
    else if (isData(line.until))
      for (const kind of ['state', 'cue'] as const)
        if (kind in line.until) visit(kind, [...path, 'until', kind]);
    for (const field of ['set', 'ramp'] as const)
      for (const name of keysOf(line[field])) visit('signal', [...path, field, name], 'key');
    visitNames('signal', line.pulse, [...path, 'pulse']);
    for (const field of ['ask', 'cut', 'route'] as const)
      if (line[field] !== undefined) visit('state', [...path, field]);
    visitExpected(line.expect, [...path, 'expect']);
  });
  (expect ?? []).forEach((expected, i) => visitExpected(expected, ['expect', i]));
  for (const [kind, moving] of Object.entries(body ?? {})) {
    for (const name of keysOf((moving as Data).feeds)) visit('signal', ['body', kind, 'feeds', name], 'key');
    if ((moving as Data).leapAt !== undefined) visit('cue', ['body', kind, 'leapAt']);
  }
  return sites;
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
  kind: 'signal' | 'tag' | 'state',
  from: string,
  to: string,
  tracks: readonly string[],
  choices: readonly string[],
): string {
  let read: Expression;
  try {
    read = parseExpression(text, (name) =>
      tracks.includes(name) || choices.includes(name) ? [] : undefined,
    );
  } catch {
    return text;
  }
  const words: Word[] = [];
  const visit = (part: Expression): void => {
    if (part.kind === 'name') {
      const [head, tail] = part.name.split('.') as [string, string | undefined];
      const { at, end } = part;
      if (kind !== 'state' && head === from)
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
