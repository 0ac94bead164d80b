import { z } from 'zod';
import { rehearsalSchema } from './definition.js';

/** The JSON Schema (2020-12) of a rehearsal's file, made from the one it is read with. */
export function rehearsalJsonSchema(): Record<string, unknown> {
  const { $schema, ...schema } = z.toJSONSchema(rehearsalSchema, { target: 'draft-2020-12', io: 'input' });
  return {
    $schema,
    title: 'A rehearsal of Dot Hop',
    description: 'A script of signals and buttons for one character, and what is expected of it.',
    ...schema,
  };
}
