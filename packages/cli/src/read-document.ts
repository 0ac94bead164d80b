import path from 'node:path';
import { gatherBases, readDocument } from 'dot-hop/document';
import type { Bases, CharacterDocument } from 'dot-hop/document';
import { readBytes } from './files/reading.js';
import { namedFileTrouble } from './files/trouble.js';
import { isWithin } from './files/within.js';

/** A document with what it builds on. */
export interface ReadDocument {
  readonly document: CharacterDocument;
  /** The files of the documents that it builds on. */
  readonly baseFiles: readonly string[];
}

/**
 * Reads a document from its text, with the documents that it builds on. These are looked for below the folder in which the command works,
 * and below that of the document.
 *
 * @param file its name; `-` for standard input
 * @throws {DocumentError} with every problem of its structure
 */
export async function readDocumentText(file: string, text: string): Promise<ReadDocument> {
  const bases = await basesOf(file, text);
  const name = file === '-' ? '(standard input)' : file;
  return {
    document: readDocument(text, name, bases),
    baseFiles: [...bases.keys()].map((address) => baseFile(file, address)),
  };
}

/** The documents that a document builds on, by their address from it. */
export function basesOf(file: string, text: string): Promise<Bases> {
  return gatherBases(text, file === '-' ? undefined : file, async (address) => {
    const base = baseFile(file, address);
    if (!(await isWithin(base, ['.', path.dirname(file)])))
      throw new Error(
        'it lies outside the folder in which this command works, and outside that of the document; run the command in a folder above both',
      );
    try {
      return (await readBytes(base)).toString('utf8');
    } catch (error) {
      throw new Error(await namedFileTrouble(error, base), { cause: error });
    }
  });
}

const baseFile = (file: string, address: string): string =>
  path.join(file === '-' ? '.' : path.dirname(file), address);
