import { readJsonTree } from './json-tree.js';
import { readWith } from './read.js';
import type { CharacterDocument } from './read.js';

export { compileDocument } from './read.js';
export type { CharacterDocument } from './read.js';
export { DocumentError, Source } from './source.js';
export type { Place, PlacedProblem } from './source.js';

/**
 * Reads a character's document from JSON, as `readDocument` of `dot-hop/document` does, without carrying a reader of YAML.
 *
 * @param file its name, for errors
 * @throws {DocumentError} with every fault of its structure
 */
export const readJsonDocument = (text: string, file?: string): CharacterDocument =>
  readWith(readJsonTree, text, file);
