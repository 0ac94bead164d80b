import { readJsonTree } from './json-tree.js';
import { gatherWith } from './bases.js';
import type { Bases } from './bases.js';
import { readWith } from './read.js';
import type { CharacterDocument } from './read.js';
import type { ReadTree } from './tree.js';
import { soundPartWith } from './sound-part.js';
import type { SoundPart } from './sound-part.js';
import { readYamlTree } from './yaml-tree.js';

export { documentJsonSchema } from './json-schema.js';
export { namedFrom } from './addresses.js';
export { compileDocument } from './read.js';
export { imagesOf } from '../sheet/images.js';
export type { CharacterDocument } from './read.js';
export type { FileProblemCode } from './sentences.js';
export type { BaseText, Bases } from './bases.js';
export type { Layers } from './layers.js';
export { DocumentError, Source } from './source.js';
export type { Place, PlacedProblem } from './source.js';
export { nearestName } from '../problem/nearest.js';
export { isForOthers } from './for-others.js';
export { nearestFile } from './nearest-file.js';
export type { SoundPart } from './sound-part.js';
export { ecmascriptOf } from '../signal/ecmascript.js';

/**
 * Reads a character's document from YAML or JSON.
 *
 * @param file its name, for errors. A file whose name ends in `.json` must hold JSON
 * @param bases the documents that it builds on, if it says `from`; {@link gatherBases} reads them
 * @throws {DocumentError} with every fault of its structure, each with file, line, column, path, the value received and the nearest known
 *   name
 */
export const readDocument = (text: string, file?: string, bases?: Bases): CharacterDocument =>
  readWith(readerOf, text, file, bases);

/**
 * Reads the bases of a document (`from`), and their bases.
 *
 * @param file the document's name
 * @param readText gives the text at an address, which counts from the folder of the document (`../common/mover.dothop.yaml`). If it throws,
 *   {@link readDocument} reports the error at the place where the document names the address
 * @returns the texts by address; empty if the document builds on none
 */
export const gatherBases = (
  text: string,
  file: string | undefined,
  readText: (address: string) => Promise<string>,
): Promise<Bases> => gatherWith(readerOf, text, file, readText);

/**
 * Reads the part of a document that has the right shape, and leaves out the rest. It is for tools that show a document while somebody
 * writes it.
 *
 * @param bases the documents that it builds on; see {@link readDocument}
 * @throws {DocumentError} when the text is not YAML or JSON at all, or of another version, or a document that it builds on is missing
 */
export const readSoundPart = (text: string, file?: string, bases?: Bases): SoundPart =>
  soundPartWith(readerOf, text, file, bases);

const readerOf = (file: string): ReadTree =>
  file.toLowerCase().endsWith('.json') ? readJsonTree : readYamlTree;
