import { rmSync } from 'node:fs';
import { mkdir, open, readFile, readlink, realpath, stat } from 'node:fs/promises';
import path from 'node:path';
import { Misuse } from '../misuse.js';
import { draftIn, moveAll, settle } from './drafts.js';
import type { Move } from './drafts.js';
import { contentFor, contentOf } from './kinds.js';
import { readNameOf } from './reading.js';
import { fileTrouble } from './trouble.js';

/** A file that is to be written. */
export interface NewFile {
  readonly file: string;
  readonly content: Uint8Array | string;
}

/** The drafts that are being written now. */
const pending = new Set<string>();
let isSweeping = false;

/** From the first draft on a signal takes away what is half written. Listeners that came and went would swallow a signal. */
function sweepOnSignal(): void {
  if (isSweeping) return;
  isSweeping = true;
  for (const [signal, code] of [
    ['SIGINT', 130],
    ['SIGTERM', 143],
  ] as const)
    process.on(signal, () => {
      for (const draft of pending) rmSync(draft, { force: true });
      // Whoever else listens, such as --watch, ends the process in its own way.
      if (process.listenerCount(signal) === 1) process.exit(code);
    });
}

/**
 * Writes files, all of them whole or none; a folder that is not there is made. A symbolic link is written through, and a
 * file that was there keeps its mode. This is the one place that says what a command may write: never a file that this
 * call has read, never a file of another kind than its ending says, never a folder or a device.
 *
 * @param files in the order in which they take their places
 * @param edited a file that is read in order to be written again, such as a document that is brought up to date
 * @throws {Misuse} when one may not or cannot be written; no file is left behind then
 */
export async function writeFiles(files: readonly NewFile[], edited?: string): Promise<void> {
  const places: { readonly to: string; readonly mode: number | undefined }[] = [];
  for (const { file } of files)
    places.push(await told(file, () => placeOf(file, edited === file ? 'edited' : 'new')));
  const drafts: string[] = [];
  sweepOnSignal();
  try {
    const moves: Move[] = [];
    for (const [i, { file, content }] of files.entries()) {
      const { to, mode } = places[i]!;
      const folder = path.dirname(to);
      await told(file, async () => {
        await mkdir(folder, { recursive: true });
        settle(folder);
        const draft = draftIn(folder);
        drafts.push(draft);
        pending.add(draft);
        const handle = await open(draft, 'wx', mode);
        try {
          if (mode !== undefined) await handle.chmod(mode);
          await handle.writeFile(content);
          await handle.sync();
        } finally {
          await handle.close();
        }
        moves.push([draft, to]);
      });
    }
    await told(files.map(({ file }) => file).join(', '), () => moveAll(moves));
  } finally {
    for (const draft of drafts) {
      rmSync(draft, { force: true });
      pending.delete(draft);
    }
  }
}

/** Writes one file; see {@link writeFiles}. */
export const writeWhole = (
  file: string,
  content: Uint8Array | string,
  how: 'new' | 'edited' = 'new',
): Promise<void> => writeFiles([{ file, content }], how === 'edited' ? file : undefined);

async function told<T>(file: string, act: () => T | Promise<T>): Promise<T> {
  try {
    return await act();
  } catch (error) {
    if (error instanceof Misuse) throw error;
    throw new Misuse(`${file}: cannot be written: ${fileTrouble(error)}`);
  }
}

/** Where a file is really written, and the mode it keeps. */
async function placeOf(
  file: string,
  how: 'new' | 'edited',
): Promise<{ to: string; mode: number | undefined }> {
  const found = await stat(file, { bigint: true }).catch((error: unknown) => {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined;
    throw error;
  });
  if (found === undefined) {
    // A link to a file that is not there yet makes it.
    const link = await readlink(file).catch(() => undefined);
    return { to: link === undefined ? file : path.resolve(path.dirname(file), link), mode: undefined };
  }
  if (found.isDirectory()) throw new Misuse(`${file}: cannot be written: it is a folder`);
  if (!found.isFile()) throw new Misuse(`${file}: cannot be written: it is not an ordinary file`);
  const readAs = readNameOf(found);
  if (readAs !== undefined && how === 'new')
    throw new Misuse(
      `${file}: nothing is written over ${readAs === file ? 'this file' : `${readAs}, the same file`}, because it is read here; name another file`,
    );
  const wanted = contentFor(file);
  const holds = found.size === 0n ? wanted : contentOf(await readFile(file));
  // A document that is edited may be half written at any moment, and what it is was told when it was opened.
  if (how === 'new' && wanted !== undefined && holds !== wanted)
    throw new Misuse(
      `${file}: nothing is written, because the file that is there holds ${holds}, not ${wanted}; name another file, or take it away`,
    );
  return { to: await realpath(file), mode: Number(found.mode) & 0o7777 };
}
