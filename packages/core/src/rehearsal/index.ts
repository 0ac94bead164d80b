import { readJsonTree } from '../document/json-tree.js';
import { Source } from '../document/source.js';
import { validate } from '../document/validate.js';
import { readYamlTree } from '../document/yaml-tree.js';
import type { RehearsalDefinition } from './definition.js';
import { rehearsalShape } from './shape.js';

export { rehearsalJsonSchema } from './json-schema.js';
export { shortened } from './shorten.js';
export { runRehearsal } from './run.js';
export type { RehearsalOptions } from './run.js';
export type { RehearsalScript } from './definition.js';
export { FeedingBody } from './feeds.js';
export { buttonNames } from './buttons.js';
export type { ButtonName } from './buttons.js';
export type { GroundDefinition, GroundPiece, LevelPiece } from './ground.js';
export { Recording } from './recording.js';
export { expectationsSeen } from './seen.js';
export { assertRehearsal, toGoAsRehearsed, unmetText } from './report.js';
export type { Outcome, RehearsalResult, Sample, TraceEntry, PathPoint, TrailPoint } from './trace.js';
export type {
  BodyDefinition,
  Expectation,
  RehearsalDefinition,
  ScriptLine,
  StepsDefinition,
} from './definition.js';

/** Whether a file is a rehearsal, judged by its name: `lamps.rehearsal.yaml` or `.json`. */
export const isRehearsalFile = (name: string): boolean => /\.rehearsal\.(?:ya?ml|json)$/i.test(name);

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
  const isJson = file?.toLowerCase().endsWith('.json') === true;
  const source = Source.of(text, isJson ? readJsonTree : readYamlTree, file);
  const problems = validate(rehearsalShape, source.value, 'dotHopRehearsal');
  if (problems.length > 0) throw source.placed(problems);
  return { source, definition: source.value as RehearsalDefinition };
}
