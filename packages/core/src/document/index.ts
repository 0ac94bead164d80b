import { readJsonTree } from './json-tree.js';
import { readWith } from './read.js';
import type { CharacterDocument } from './read.js';
import { readYamlTree } from './yaml-tree.js';

export { documentJsonSchema } from './json-schema.js';
export { compileDocument } from './read.js';
export type { CharacterDocument } from './read.js';
export type { FileProblemCode } from './sentences.js';
export { DocumentError, Source } from './source.js';
export type { Place, PlacedProblem } from './source.js';
export { nearestName } from '../problem/nearest.js';
export { ecmascriptOf } from '../signal/ecmascript.js';

/**
 * Reads a character's document from YAML or JSON.
 *
 * @param file its name, for errors; a name ending in `.json` must hold JSON
 * @throws {DocumentError} with every fault of its structure, each with file, line, column, path, the value received
 *   and the nearest known name
 */
export const readDocument = (text: string, file?: string): CharacterDocument =>
  readWith(isJson(file) ? readJsonTree : readYamlTree, text, file);

const isJson = (file: string | undefined): boolean => file?.toLowerCase().endsWith('.json') === true;
