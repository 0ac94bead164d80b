import { controllerShape } from '../controller/shape.js';
import { any, list, text } from '../shape/shape.js';
import type { FieldsShape } from '../shape/shape.js';
import { wornShapes } from '../wardrobe/shape.js';

const base = text('a document, such as ../common/mover.dothop.yaml');

/** What a character's document must look like, clothes and all. What it builds on is laid under it before it is checked. */
export const documentShape: FieldsShape = {
  ...controllerShape,
  may: {
    from: any('a document, or a list of documents', base, list(base, 'a list of documents')),
    ...controllerShape.may,
    ...wornShapes,
  },
};
