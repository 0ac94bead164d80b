import { publishedSchemaOver } from '../shape/json-schema.js';
import { documentShape } from './shape.js';
import { documentFieldExamples } from './field-examples.js';
import { documentExamples, documentWords } from './words.js';

/**
 * The JSON Schema (2020-12) of a document. Editors complete, explain and underline with it. It is made from the shape with which documents
 * are read. Only the compiler finds faults across fields (names, cells, kinds).
 */
export const documentJsonSchema = (): Record<string, unknown> =>
  publishedSchemaOver(
    'from',
    documentShape,
    { fields: documentWords, fieldExamples: documentFieldExamples, examples: documentExamples },
    'A character of Dot Hop',
    'One character: its sheets, clips, directions, signals and states.',
  );
