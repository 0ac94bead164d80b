import { Source, validate } from '../document/index.js';
import { rehearsalSchema } from './definition.js';
import type { RehearsalDefinition } from './definition.js';

export { rehearsalJsonSchema } from './json-schema.js';
export { runRehearsal } from './run.js';
export type { RehearsalOptions, RehearsalScript } from './run.js';
export { Recording } from './recording.js';
export { assertRehearsal, toGoAsRehearsed, unmetText } from './report.js';
export type { Outcome, RehearsalResult, Sample, TraceEntry, TrailPoint } from './trace.js';
export type {
  BodyDefinition,
  Expectation,
  RehearsalDefinition,
  ScriptLine,
  StepsDefinition,
} from './definition.js';

/** A rehearsal's file, read. */
export interface RehearsalDocument {
  readonly source: Source;
  readonly definition: RehearsalDefinition;
}

/**
 * Reads a rehearsal from YAML or JSON.
 *
 * @throws {DocumentError} with every fault of its structure
 */
export function readRehearsal(text: string, file?: string): RehearsalDocument {
  const source = new Source(text, file);
  const read = validate(rehearsalSchema, source.value, 'dotHopRehearsal');
  if ('problems' in read) throw source.placed(read.problems);
  return { source, definition: read.value };
}
