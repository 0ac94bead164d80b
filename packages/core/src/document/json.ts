import { readJsonTree } from './json-tree.js';
import { gatherWith } from './bases.js';
import type { Bases } from './bases.js';
import { readWith } from './read.js';
import type { CharacterDocument } from './read.js';

export { compileDocument } from './read.js';
export type { CharacterDocument } from './read.js';
export type { BaseText, Bases } from './bases.js';
export type { Layers } from './layers.js';
export { DocumentError, Source } from './source.js';
export type { Place, PlacedProblem } from './source.js';

/**
 * Reads a character's document from JSON, as `readDocument` of `dot-hop/document` does, but without the code that reads YAML.
 *
 * @param file its name, for errors
 * @param bases the documents that it builds on, which {@link gatherJsonBases} reads
 * @throws {DocumentError} with every fault of its structure
 */
export const readJsonDocument = (text: string, file?: string, bases?: Bases): CharacterDocument =>
  readWith(() => readJsonTree, text, file, bases);

/** Reads the documents in JSON that a document in JSON builds on; see `gatherBases` of `dot-hop/document`. */
export const gatherJsonBases = (
  text: string,
  readText: (address: string) => Promise<string>,
): Promise<Bases> => gatherWith(() => readJsonTree, text, undefined, readText);
