import { z } from 'zod';
import { documentSchema } from './schema/document.js';

/**
 * The JSON Schema (2020-12) of a character's document: what an editor completes, explains and underlines by. It is made
 * from the schema that documents are read with; what goes across fields (names, cells, kinds) only reading and compiling find.
 */
export function documentJsonSchema(): Record<string, unknown> {
  const { $schema, ...schema } = z.toJSONSchema(documentSchema, { target: 'draft-2020-12', io: 'input' });
  return {
    $schema,
    title: 'A character of Dot Hop',
    description: 'One character: its sheets, clips, directions, signals and states.',
    ...schema,
  };
}
