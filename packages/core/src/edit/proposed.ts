import type { ControllerDefinition } from '../controller/definition.js';
import { statesIn } from '../controller/groups.js';
import { documentShape } from '../document/shape.js';
import type { DocumentPath } from '../problem/problem.js';
import { isMap } from '../shape/check.js';
import type { Shape, TextRole } from '../shape/shape.js';
import { valueAt } from './rename.js';

/** Names that may stand at a place of a document. */
export interface ProposedNames {
  /** As the value, or inside it: an expression uses signals and tags. */
  readonly values: readonly string[];
  /** As keys of the map at the place. */
  readonly keys: readonly string[];
}

/**
 * The names of a character that fit at a place, for an editor to propose.
 *
 * @param path the keys under which the place stands, outermost first, without the numbers of list items
 */
export function proposedNames(definition: ControllerDefinition, path: readonly string[]): ProposedNames {
  let shapes = flat(documentShape);
  for (const step of path) shapes = shapes.flatMap((shape) => flat(within(shape, step)));
  const found = (roles: (TextRole | 'none' | undefined)[]): string[] => [
    ...new Set(
      roles.flatMap((role) => (role === undefined || role === 'none' ? [] : namesOf(definition, role, path))),
    ),
  ];
  return {
    values: found(shapes.map((shape) => (shape.kind === 'text' ? shape.role : undefined))),
    // Where names come from, they are not there before.
    keys: found(
      shapes.map((shape) => (shape.kind === 'map' && shape.owns !== true ? shape.keys : undefined)),
    ),
  };
}

/** The shapes that something may have: of a choice each, of a list that of its items. */
function flat(shape: Shape | undefined): Shape[] {
  if (shape === undefined) return [];
  if (shape.kind === 'any') return shape.of.flatMap(flat);
  if (shape.kind === 'list') return flat(shape.of);
  return shape.kind === 'tuple' ? shape.of.flatMap(flat) : [shape];
}

function within(shape: Shape, step: string): Shape | undefined {
  if (shape.kind === 'map') return shape.of;
  if (shape.kind !== 'fields') return undefined;
  return Object.hasOwn(shape.must, step)
    ? shape.must[step]
    : Object.hasOwn(shape.may, step)
      ? shape.may[step]
      : undefined;
}

const keysOf = (value: unknown): string[] => (isMap(value) ? Object.keys(value) : []);

/** The names that the values of maps have as keys. */
const keysIn = (values: Readonly<Record<string, object>>, field: string): string[] =>
  Object.values(values).flatMap((one) => keysOf((one as Readonly<Record<string, unknown>>)[field]));

function namesOf(definition: ControllerDefinition, role: TextRole, path: readonly string[]): string[] {
  const { sheets, clips, flipbooks = {}, signals = {}, derived = {}, tracks = {} } = definition;
  switch (role) {
    case 'sheet':
      return Object.keys(sheets);
    case 'part':
      return keysIn(sheets, 'parts');
    case 'clip':
      return Object.keys(clips);
    case 'shown':
      return [...Object.keys(clips), ...Object.keys(flipbooks)];
    case 'cue':
    case 'told':
      return keysIn(clips, 'cues');
    case 'instant':
      return ['now', 'end', ...keysIn(clips, 'cues')];
    case 'span':
      return keysIn(clips, 'spans');
    case 'box':
      return [...keysIn(sheets, 'boxes'), ...keysIn(clips, 'boxes')];
    case 'point':
      return [...keysIn(sheets, 'points'), ...keysIn(clips, 'points')];
    case 'signal':
      return Object.keys(signals);
    case 'state':
      return enterable(definition, path[0] === 'tracks' ? path[1] : 'body');
    case 'ownState':
      return keysOf(valueAt(definition, [...path.slice(0, -1), 'states']));
    case 'stateAnywhere':
      return ['body', ...Object.keys(tracks)].flatMap((track) => enterable(definition, track));
    case 'tag':
      return tagsOf(definition);
    case 'track':
      return ['body', ...Object.keys(tracks)];
    case 'expression':
      return [...Object.keys(signals), ...Object.keys(derived), ...tagsOf(definition)];
    default:
      return [];
  }
}

/** The states and groups of a track. */
function enterable(definition: ControllerDefinition, track: string | undefined): string[] {
  const states = statesIn(definition).filter(({ path }) => trackOf(path) === track);
  return [
    ...states.map(({ name }) => name),
    ...states.flatMap(({ groups }) => groups.map(({ name }) => name)),
  ];
}

const trackOf = (path: DocumentPath): unknown => (path[0] === 'tracks' ? path[1] : 'body');

const tagsOf = (definition: ControllerDefinition): string[] =>
  statesIn(definition).flatMap((one) => [
    ...(one.definition.tags ?? []),
    ...one.groups.flatMap((group) => group.definition.tags ?? []),
  ]);
