import type { ControllerDefinition } from '../controller/definition.js';
import type { DocumentPath } from '../problem/problem.js';
import { buttonNames, quantityNames } from '../rehearsal/buttons.js';
import type { ButtonName, QuantityName } from '../rehearsal/buttons.js';
import type { RehearsalDefinition } from '../rehearsal/definition.js';
import { movingOf } from '../rehearsal/feeds.js';
import type { Change } from './change.js';
import type { Edit } from './history.js';
import { namesIn, namesInRehearsal, renamedExpression, renamedPlace } from './names.js';
import type { NameKind, NameSite, SpokenKind } from './names.js';

/** An old name and the new one. */
export interface Renaming {
  readonly kind: NameKind;
  readonly from: string;
  readonly to: string;
}

/** Renames something and all references to it: in `shows`, hops, tags, conditions and accepted findings. */
export function rename(definition: ControllerDefinition, renaming: Renaming): Edit {
  const { kind, from, to } = renaming;
  return {
    says: `rename ${kind} ${from} to ${to}`,
    changes: changesOf(namesIn(definition), definition, renaming, definition),
  };
}

/** Renames the same in a rehearsal of the character. */
export function renameInRehearsal(
  rehearsal: RehearsalDefinition,
  definition: ControllerDefinition,
  renaming: Renaming,
): Change[] {
  const changes = changesOf(namesInRehearsal(rehearsal), rehearsal, renaming, definition);
  const { kind, from, to } = renaming;
  const { body } = rehearsal;
  if (kind !== 'signal' || body === undefined || !isFedByName(from)) return changes;
  // A body feeds the signals that are called as what it tells. One that no longer is must be named.
  const { feeds = {} } = movingOf(body);
  if (Object.hasOwn(feeds, from) || Object.values(feeds).includes(from)) return changes;
  const path = ['body', Object.keys(body)[0]!, 'feeds', to];
  return [...changes, { op: 'set', path, value: from }];
}

const isFedByName = (name: string): name is QuantityName | ButtonName =>
  ([...quantityNames, ...buttonNames] as readonly string[]).includes(name);

function changesOf(
  sites: readonly NameSite[],
  data: unknown,
  { kind, from, to }: Renaming,
  definition: ControllerDefinition,
): Change[] {
  const tracks = ['body', ...Object.keys(definition.tracks ?? {})];
  const choices = Object.entries(definition.signals ?? {}).flatMap(([name, one]) =>
    'choice' in one ? [name] : [],
  );
  // Clips that `rows` wrote out have the directions behind their name.
  const rows = kind === 'clip' ? directionsOf(definition.clips[from]?.rows) : [];
  const renamed = (name: string): string => {
    if (name === from) return to;
    // A rehearsal may name a state with its track.
    const track = kind === 'state' ? tracks.find((one) => name === `${one}.${from}`) : undefined;
    if (track !== undefined) return `${track}.${to}`;
    const direction = rows.find((one) => name === `${from}-${one}`);
    return direction === undefined ? name : `${to}-${direction}`;
  };
  const nameExchanged = (text: string, as: NameSite['as']): string => {
    if (as === 'expression') return renamedExpression(text, kind as SpokenKind, from, to, tracks, choices);
    if (as === 'place') return renamedPlace(text, kind, renamed);
    if (as === 'track-of-state') return text.startsWith(`${from}.`) ? to + text.slice(from.length) : text;
    return renamed(text);
  };
  const values: Change[] = [];
  const keys: Change[] = [];
  for (const { path, as, kind: spoken } of sites) {
    if (spoken !== kind) continue;
    if (as === 'key') {
      const key = String(path[path.length - 1]);
      if (renamed(key) !== key) keys.push({ op: 'rename', path, name: renamed(key) });
      continue;
    }
    const value = valueAt(data, path);
    if (typeof value !== 'string') continue;
    const now = nameExchanged(value, as);
    if (now !== value) values.push({ op: 'set', path, value: now });
  }
  // Keys last, and the inner ones first: the paths of all others lead through the old ones.
  return [...values, ...keys.sort((a, b) => b.path.length - a.path.length)];
}

const directionsOf = (rows: unknown): string[] =>
  Array.isArray(rows) ? rows.map(String) : Object.keys((rows as object | undefined) ?? {});

/** What plain data holds at a path. */
export function valueAt(data: unknown, path: DocumentPath): unknown {
  let value = data;
  for (const step of path) {
    if (typeof value !== 'object' || value === null) return undefined;
    value = (value as Record<string | number, unknown>)[step];
  }
  return value;
}
