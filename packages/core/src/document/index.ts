import { readJsonTree } from './json-tree.js';
import { readWith } from './read.js';
import type { CharacterDocument } from './read.js';
import type { ReadTree } from './tree.js';
import { soundPartWith } from './sound-part.js';
import type { SoundPart } from './sound-part.js';
import { readYamlTree } from './yaml-tree.js';

export { documentJsonSchema } from './json-schema.js';
export { compileDocument } from './read.js';
export type { CharacterDocument } from './read.js';
export type { FileProblemCode } from './sentences.js';
export { DocumentError, Source } from './source.js';
export type { Place, PlacedProblem } from './source.js';
export { nearestName } from '../problem/nearest.js';
export type { SoundPart } from './sound-part.js';
export { ecmascriptOf } from '../signal/ecmascript.js';

/**
 * Reads a character's document from YAML or JSON.
 *
 * @param file its name, for errors; a name ending in `.json` must hold JSON
 * @throws {DocumentError} with every fault of its structure, each with file, line, column, path, the value received
 *   and the nearest known name
 */
export const readDocument = (text: string, file?: string): CharacterDocument =>
  readWith(treeReader(file), text, file);

/**
 * Reads what of a character's document has the right shape, and leaves out what has not: for whoever shows a document while it
 * is being written.
 *
 * @throws {DocumentError} when the text is no YAML or JSON at all, or of another version
 */
export const readSoundPart = (text: string, file?: string): SoundPart =>
  soundPartWith(treeReader(file), text, file);

const treeReader = (file: string | undefined): ReadTree => (isJson(file) ? readJsonTree : readYamlTree);

const isJson = (file: string | undefined): boolean => file?.toLowerCase().endsWith('.json') === true;
