import { controllerShape } from '../controller/shape.js';
import type { FieldsShape } from '../shape/shape.js';
import { wornShapes } from '../wardrobe/shape.js';

/** What a character's document must look like, clothes and all. */
export const documentShape: FieldsShape = {
  ...controllerShape,
  may: { ...controllerShape.may, ...wornShapes },
};
