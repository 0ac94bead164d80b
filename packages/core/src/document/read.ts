import type { CompileOptions } from '../controller/compile.js';
import type { Controller } from '../controller/controller.js';
import type { DocumentPath } from '../problem/problem.js';
import { imagesOf } from '../sheet/images.js';
import type { ControllerDefinition } from '../controller/definition.js';
import { compileWorn } from '../wardrobe/of.js';
import { buildWith, withNearNames } from './bases.js';
import type { Bases } from './bases.js';
import type { Layers } from './layers.js';
import { documentShape } from './shape.js';
import type { Source } from './source.js';
import type { ReadTree } from './tree.js';
import { validate } from './validate.js';

/** A character's document, read. */
export interface CharacterDocument {
  readonly source: Source;
  /** The whole document, with everything that it inherits. */
  readonly definition: ControllerDefinition;
  /** The images of its sheets and of their parts, each with the first path that names it. */
  readonly images: ReadonlyMap<string, DocumentPath>;
  /** If the document builds on others: what it says itself, and what it inherits. */
  readonly layers?: Layers | undefined;
}

/** Which reader a file's name asks for. */
export type ReaderOf = (file: string) => ReadTree;

/** Reads a document with readers of its format and its bases'; see `readDocument`. */
export function readWith(
  readerOf: ReaderOf,
  text: string,
  file: string | undefined,
  bases: Bases | undefined,
): CharacterDocument {
  const { source, layers } = buildWith(readerOf, text, file, bases);
  if (Object.hasOwn(Object(source.value) as object, 'dotHopCompiled'))
    throw source.placed([{ code: 'document-compiled', path: ['dotHopCompiled'], values: {} }]);
  const problems = validate(documentShape, source.value, 'dotHop');
  if (problems.length > 0) throw source.placed(withNearNames(problems, layers));
  const definition = source.value as ControllerDefinition;
  return { source, definition, images: imagesOf(definition.sheets), layers };
}

/**
 * Compiles a document and its wardrobe.
 *
 * @throws {DocumentError} with every fault of its meaning, each with file, line, column, path, the value received and the nearest known
 *   name
 */
export function compileDocument(document: CharacterDocument, options?: CompileOptions): Controller {
  return document.source.placing(() => compileWorn(document.definition, options));
}
