import { publishedSchemaOver } from '../shape/json-schema.js';
import { documentShape } from './shape.js';
import { documentExamples, documentWords } from './words.js';

/**
 * The JSON Schema (2020-12) of a character's document: what an editor completes, explains and underlines by. It is made
 * from the shape that documents are read with; what goes across fields (names, cells, kinds) only compiling finds.
 */
export const documentJsonSchema = (): Record<string, unknown> =>
  publishedSchemaOver(
    'from',
    documentShape,
    { fields: documentWords, examples: documentExamples },
    'A character of Dot Hop',
    'One character: its sheets, clips, directions, signals and states.',
  );
