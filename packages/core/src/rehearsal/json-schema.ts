import { publishedSchema } from '../shape/json-schema.js';
import { rehearsalFieldExamples } from './field-examples.js';
import { rehearsalShape } from './shape.js';
import { rehearsalWords } from './words.js';

/** The JSON Schema (2020-12) of a rehearsal, made from the shape that rehearsals are read with. */
export const rehearsalJsonSchema = (): Record<string, unknown> =>
  publishedSchema(
    rehearsalShape,
    { fields: rehearsalWords, fieldExamples: rehearsalFieldExamples },
    'A rehearsal of Dot Hop',
    'A script of signals and buttons for one character, and what is expected of it.',
  );
