import { compileController } from '../controller/compile.js';
import type { CompileOptions } from '../controller/compile.js';
import type { Controller } from '../controller/controller.js';
import type { ControllerDefinition } from '../controller/definition.js';
import { documentSchema } from './schema/document.js';
import { Source } from './source.js';
import { validate } from './validate.js';
import { broughtUp } from './versions.js';
import { wardrobeOf } from '../wardrobe/of.js';

export { documentJsonSchema } from './json-schema.js';
export { DocumentError, Source } from './source.js';
export type { Place, PlacedProblem } from './source.js';
export { validate } from './validate.js';
export { nearestName } from '../problem/nearest.js';
export { ecmascriptOf } from '../signal/ecmascript.js';

/** A character's document, read. */
export interface CharacterDocument {
  readonly source: Source;
  readonly definition: ControllerDefinition;
}

/**
 * Reads a character's document from YAML or JSON.
 *
 * @param file its name, for errors; a name ending in `.json` must hold JSON
 * @throws {DocumentError} with every fault of its structure, each with file, line, column, path, the value received
 *   and the nearest known name
 */
export function readDocument(text: string, file?: string): CharacterDocument {
  const source = new Source(text, file);
  const now = broughtUp(source.value, 'dotHop');
  if ('problem' in now) throw source.placed([now.problem]);
  const read = validate(documentSchema, now.data, 'dotHop');
  if ('problems' in read) throw source.placed(read.problems);
  return { source, definition: read.value };
}

/**
 * Compiles a document that was read.
 *
 * @throws {DocumentError} with every fault of its meaning, placed like those of {@link readDocument}
 */
export function compileDocument(document: CharacterDocument, options?: CompileOptions): Controller {
  return document.source.placing(() => {
    const controller = compileController(document.definition, options);
    wardrobeOf(controller);
    return controller;
  });
}
