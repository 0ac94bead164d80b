import type { BigIntStats } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { text } from 'node:stream/consumers';
import { Misuse } from '../misuse.js';
import { namedFileTrouble } from './trouble.js';

/**
 * The files that this call of the command has read, by what the system knows them by, so that none of them is written over.
 * One record for the process, because a command is one process: a list handed from function to function could be forgotten
 * by one of them, and a drawing would be lost.
 */
const readSoFar = new Map<string, string>();

/** Two spellings of one file, a symbolic link and a hard link all have one identity. */
const identityOf = ({ dev, ino }: BigIntStats): string => `${dev}:${ino}`;

/** Begins a call: what an earlier one in this process has read may be written again. */
export function forgetReads(): void {
  readSoFar.clear();
}

/** The name by which this call has read a file; `undefined` for one that it has not. */
export const readNameOf = (found: BigIntStats): string | undefined => readSoFar.get(identityOf(found));

/**
 * Reads a file and remembers that it was read.
 *
 * @throws an error of the system; or one that says so where the file is a pipe, a device or anything else without an end
 */
export async function readBytes(file: string): Promise<Buffer> {
  const found = await stat(file, { bigint: true });
  if (!found.isFile() && !found.isDirectory())
    throw new Error('it is not an ordinary file but a pipe or a device, which may never end');
  readSoFar.set(identityOf(found), file);
  return readFile(file);
}

/**
 * Reads a text file, or standard input for `-`.
 *
 * @throws {Misuse} when it cannot be read
 */
export async function readText(file: string): Promise<string> {
  if (file === '-') return text(process.stdin);
  try {
    return (await readBytes(file)).toString('utf8');
  } catch (error) {
    throw new Misuse(`${file}: ${await namedFileTrouble(error, file)}`);
  }
}
