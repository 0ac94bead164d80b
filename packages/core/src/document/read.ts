import type { CompileOptions } from '../controller/compile.js';
import type { Controller } from '../controller/controller.js';
import type { ControllerDefinition } from '../controller/definition.js';
import { compileWorn } from '../wardrobe/of.js';
import { documentShape } from './shape.js';
import { Source } from './source.js';
import type { ReadTree } from './tree.js';
import { validate } from './validate.js';
import { broughtUp } from './versions.js';

/** A character's document, read. */
export interface CharacterDocument {
  readonly source: Source;
  readonly definition: ControllerDefinition;
}

/** Reads a document with a reader of its format; see `readDocument`. */
export function readWith(read: ReadTree, text: string, file?: string): CharacterDocument {
  const source = new Source(text, read, file);
  const now = broughtUp(source.value, 'dotHop');
  if ('problem' in now) throw source.placed([now.problem]);
  if (Object.hasOwn(Object(now.data) as object, 'dotHopCompiled'))
    throw source.placed([{ code: 'document-compiled', path: ['dotHopCompiled'], values: {} }]);
  const problems = validate(documentShape, now.data, 'dotHop');
  if (problems.length > 0) throw source.placed(problems);
  return { source, definition: now.data as ControllerDefinition };
}

/**
 * Compiles a document that was read, with its wardrobe.
 *
 * @throws {DocumentError} with every fault of its meaning, each with file, line, column, path, the value received and the
 *   nearest known name
 */
export function compileDocument(document: CharacterDocument, options?: CompileOptions): Controller {
  return document.source.placing(() => compileWorn(document.definition, options));
}
