import { publishedSchemaOver } from '../shape/json-schema.js';
import { documentShape } from './shape.js';
import { documentExamples, documentWords } from './words.js';

/**
 * The JSON Schema (2020-12) of a document, with which editors complete, explain and underline. It is made from the shape that documents are
 * read with. Faults across fields (names, cells, kinds) are found by compiling only.
 */
export const documentJsonSchema = (): Record<string, unknown> =>
  publishedSchemaOver(
    'from',
    documentShape,
    { fields: documentWords, examples: documentExamples },
    'A character of Dot Hop',
    'One character: its sheets, clips, directions, signals and states.',
  );
