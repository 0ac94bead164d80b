import { createHash, randomBytes } from 'node:crypto';
import {
  existsSync,
  linkSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { hostname } from 'node:os';
import path from 'node:path';

/*
 * How several files are written as one. Each is written whole beside its place, as a draft. Then a list of all drafts and
 * their places is put there in one go: from that instant the files count as written. Then the drafts are moved to their
 * places, and the list is taken away. A process that is killed before the list is there leaves drafts, which the next call
 * sweeps; one that is killed after it leaves a list, which the next call carries out.
 */

const listName = '.dot-hop-list';
const draftName = /^\.([0-9a-f]{6})-(\d+)-[0-9a-f]+\.dot-hop-draft$/;
const host = createHash('sha256').update(hostname()).digest('hex').slice(0, 6);
/** Drafts of another machine on a shared disk are left alone for a day. */
const oldAge = 86_400_000;

/** A draft and the file that it is to become. */
export type Move = readonly [draft: string, file: string];

/** What is to be moved, and who does it. */
interface List {
  readonly host: string;
  readonly pid: number;
  readonly moves: readonly Move[];
}

/** A name for a draft in a folder. */
export const draftIn = (folder: string): string =>
  path.join(folder, `.${host}-${process.pid}-${randomBytes(6).toString('hex')}.dot-hop-draft`);

/**
 * Moves drafts to their places, all of them or none. Nothing of it waits for the event loop, so that no signal but a kill can
 * come in between. The list is a lock as well: of two writers into one folder the second waits until the first is done.
 *
 * @throws an error of the system, before anything was moved
 */
export function moveAll(moves: readonly Move[]): void {
  const [first] = moves;
  if (first === undefined) return;
  if (moves.length === 1) {
    renameSync(...first);
    return;
  }
  const folder = path.dirname(path.resolve(first[1]));
  const list = path.join(folder, listName);
  const draft = draftIn(folder);
  const here = (file: string): string => path.relative(folder, path.resolve(file));
  const text: List = { host, pid: process.pid, moves: moves.map(([from, to]) => [here(from), here(to)]) };
  try {
    writeFileSync(draft, JSON.stringify(text), { flag: 'wx' });
    takeName(draft, list);
  } finally {
    rmSync(draft, { force: true });
  }
  for (const move of moves) renameSync(...move);
  rmSync(list, { force: true });
}

/** Gives a file a name that no other process uses. Waits while another process uses it. */
function takeName(draft: string, list: string): void {
  for (let tries = 0; ; tries++)
    try {
      linkSync(draft, list);
      return;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST' || tries === 500) throw error;
      settleList(list);
      Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 10);
    }
}

/** Whether a process of this machine is there. One of another machine, on a shared disk, counts as there for a day. */
function isAtWork(madeOn: string, pid: number, file: string): boolean {
  const isRecent = Date.now() - statSync(file).mtimeMs < oldAge;
  if (madeOn !== host || pid === process.pid) return isRecent;
  try {
    process.kill(pid, 0);
    return isRecent;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code !== 'ESRCH' && isRecent;
  }
}

/** Carries out the list of a process that is not there any more. */
function settleList(list: string): void {
  try {
    const { host: madeOn, pid, moves } = JSON.parse(readFileSync(list, 'utf8')) as List;
    if (isAtWork(madeOn, pid, list)) return;
    const place = (file: string): string => path.resolve(path.dirname(list), file);
    // A draft that is not there was moved before the process was killed.
    for (const [draft, file] of moves) if (existsSync(place(draft))) renameSync(place(draft), place(file));
    rmSync(list, { force: true });
  } catch {
    // It is gone by now, or another call is at it, or the disk cannot be written.
  }
}

/** Ends what killed processes have left in a folder: carries their list out, sweeps their drafts. */
export function settle(folder: string): void {
  let names: string[];
  try {
    names = readdirSync(folder);
  } catch {
    return;
  }
  if (names.includes(listName)) settleList(path.join(folder, listName));
  for (const name of names) {
    const [, madeOn, pid] = draftName.exec(name) ?? [];
    const draft = path.join(folder, name);
    try {
      if (madeOn !== undefined && !isAtWork(madeOn, Number(pid), draft)) rmSync(draft, { force: true });
    } catch {
      // Another call has swept it.
    }
  }
}
