import type { DocumentPath } from '../problem/problem.js';
import type { Change } from './change.js';

type Map = Readonly<Record<string, unknown>>;

/**
 * Makes changes in plain data, as `changedText` makes them in its text. It is fast, so an edit can show at once while the text is still
 * being written. The given data is not changed; unchanged parts are shared.
 */
export function changedData<T>(data: T, changes: readonly Change[]): T {
  return changes.reduce<unknown>((now, change) => changedAt(now, change, change.path), data) as T;
}

function changedAt(data: unknown, change: Change, path: DocumentPath): unknown {
  const isHere = change.op === 'insert' ? path.length === 0 : path.length === 1;
  if (isHere) return changedHere(data, change);
  const [step, ...rest] = path as [string | number, ...(string | number)[]];
  if (Array.isArray(data))
    return (data as unknown[]).map((one, i) => (i === Number(step) ? changedAt(one, change, rest) : one));
  const known = isMap(data) ? data : {};
  if (!Object.hasOwn(known, step) && change.op !== 'set' && change.op !== 'insert') return data;
  return { ...known, [step]: changedAt(known[step], change, rest) };
}

const isMap = (data: unknown): data is Map => typeof data === 'object' && data !== null;

function changedHere(data: unknown, change: Change): unknown {
  if (Array.isArray(data)) return changedList(data, change);
  const entries = Object.entries(isMap(data) ? data : {});
  const last = String(change.path[change.path.length - 1]);
  const at = entries.findIndex(([name]) => name === last);
  switch (change.op) {
    case 'set':
      return { ...(data as Map | undefined), [last]: change.value };
    case 'insert':
      if (change.name === undefined) return [change.value];
      entries.splice(change.at, 0, [change.name, change.value]);
      return Object.fromEntries(entries);
    case 'remove':
      return Object.fromEntries(entries.filter((_, i) => i !== at));
    case 'move':
      if (at >= 0) entries.splice(change.to, 0, ...entries.splice(at, 1));
      return Object.fromEntries(entries);
    case 'rename':
      return Object.fromEntries(entries.map(([name, one], i) => [i === at ? change.name : name, one]));
  }
}

function changedList(data: readonly unknown[], change: Change): unknown[] {
  const list = [...data];
  const at = Number(change.path[change.path.length - 1]);
  switch (change.op) {
    case 'set':
      list[at] = change.value;
      break;
    case 'insert':
      list.splice(change.at, 0, change.value);
      break;
    case 'remove':
      list.splice(at, 1);
      break;
    case 'move':
      list.splice(change.to, 0, ...list.splice(at, 1));
      break;
    case 'rename':
      break;
  }
  return list;
}
