import { randomUUID } from 'node:crypto';
import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { text } from 'node:stream/consumers';
import { Misuse } from './misuse.js';

/** Why the system refused a file, in words. */
export function fileTrouble(error: unknown): string {
  const code = (error as NodeJS.ErrnoException).code;
  const words: Record<string, string> = {
    ENOENT: 'there is no such file',
    EACCES: 'reading it is not allowed',
    EISDIR: 'it is a folder',
    ENOTDIR: 'its folder is a file',
    ENOSPC: 'the disk is full',
    EROFS: 'the disk cannot be written',
  };
  return words[code ?? ''] ?? (error instanceof Error ? error.message : String(error));
}

/**
 * Reads a text file, or standard input for `-`.
 *
 * @throws {Misuse} when it cannot be read
 */
export async function readText(file: string): Promise<string> {
  if (file === '-') return text(process.stdin);
  try {
    return await readFile(file, 'utf8');
  } catch (error) {
    throw new Misuse(`${file}: ${fileTrouble(error)}`);
  }
}

/**
 * Writes a file whole or not at all: beside its place first, then moved there.
 *
 * @throws {Misuse} when it cannot be written; nothing is left behind
 */
export async function writeWhole(file: string, content: Uint8Array | string): Promise<void> {
  const draft = path.join(path.dirname(file), `.${path.basename(file)}.${randomUUID().slice(0, 8)}`);
  try {
    await writeFile(draft, content);
    await rename(draft, file);
  } catch (error) {
    await rm(draft, { force: true }).catch(() => undefined);
    throw new Misuse(`${file}: cannot be written: ${fileTrouble(error)}`);
  }
}
