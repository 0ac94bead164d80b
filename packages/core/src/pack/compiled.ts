import { compiledOf } from '../compiled/write.js';
import type { CompiledDocument } from '../compiled/format.js';
import { compileController } from '../controller/compile.js';
import type { Controller } from '../controller/controller.js';
import type { ControllerDefinition } from '../controller/definition.js';
import type { Picture } from '../pixels/picture.js';
import { without } from './pack.js';
import type { Packed } from './pack.js';

/** A character without its wardrobe, which a compiled document does not hold. @param images by file, for their sizes */
export const withoutWardrobe = (controller: Controller, images: ReadonlyMap<string, Picture>): Controller =>
  controller.hasWardrobe
    ? compileController(without(controller.definition, 'wardrobe'), { images: Object.fromEntries(images) })
    : controller;

/** The compiled document of what was packed. */
export function compiledPack({ definition, images }: Packed): CompiledDocument {
  const sizes = Object.fromEntries(images.map(({ file, atlas }) => [file, atlas]));
  // As it is read from a file: fields that are left out are none.
  const plain = JSON.parse(JSON.stringify(definition)) as ControllerDefinition;
  return compiledOf(compileController(plain, { images: sizes }));
}
