import type { Clip } from '../clip/clip.js';
import { compileWith } from '../controller/compile.js';
import type { CompileOptions, CompiledParts } from '../controller/compile.js';
import type { Controller } from '../controller/controller.js';
import { statesIn } from '../controller/groups.js';
import type { ControllerDefinition } from '../controller/definition.js';
import { ProblemList } from '../problem/problem.js';
import { checkShape } from '../shape/check.js';
import { compilePalettes } from './palette.js';
import { wornShapes } from './shape.js';
import { useWardrobeSentences } from './sentences.js';
import { compileWardrobe } from './wardrobe.js';
import type { Wardrobe } from './layer.js';

useWardrobeSentences();

/** Each controller's, once it was asked for. */
const known = new WeakMap<Controller, Wardrobe | undefined>();

/**
 * The wardrobe of a controller; `undefined` if its document has none. It is compiled when you first ask for it, so that a game without
 * clothes carries no code for them. If you read the document with `dot-hop/document`, it is compiled then.
 *
 * @throws {DotHopError} with every problem of its wardrobe and palettes
 */
export function wardrobeOf(controller: Controller): Wardrobe | undefined {
  if (!known.has(controller)) {
    const problems = new ProblemList();
    const made = compiled(controller, problems);
    problems.throwIfAny();
    known.set(controller, made);
  }
  return known.get(controller);
}

/** A document with its wardrobe: the problems of both are told at once. */
export function compileWorn(definition: ControllerDefinition, options?: CompileOptions): Controller {
  let made: Wardrobe | undefined;
  const controller = compileWith(definition, options, (parts, problems) => {
    made = compiled(parts, problems);
  });
  known.set(controller, made);
  return controller;
}

function compiled(
  { definition, sheets, clips, flipbooks, compass }: CompiledParts,
  problems: ProblemList,
): Wardrobe | undefined {
  const { wardrobe, palettes: defined = {} } = definition;
  const before = problems.problems.length;
  checkShape(defined, wornShapes.palettes, ['palettes'], problems);
  if (wardrobe !== undefined) checkShape(wardrobe, wornShapes.wardrobe, ['wardrobe'], problems);
  if (problems.problems.length > before) return undefined;
  const palettes = compilePalettes(defined, problems);
  if (wardrobe === undefined) return undefined;
  const named = new Map<string, ReadonlySet<Clip>>();
  for (const [name, clip] of clips) named.set(name, new Set(clip && [clip]));
  for (const [name, each] of flipbooks) named.set(name, new Set(each.map(({ clip }) => clip)));
  // Those of clips with a fault count too: what is worn over them is not at fault.
  const [firstSheet = ''] = sheets.keys();
  const bodySheets = [...clips].flatMap(([name, clip]) =>
    clip === undefined
      ? [definition.clips[name]?.sheet ?? firstSheet]
      : clip.frames.map(({ sheet }) => sheet),
  );
  return compileWardrobe({
    definition: wardrobe,
    palettes,
    sheets,
    bodySheets: new Set(bodySheets),
    places: { states: namesIn(definition), directions: compass.names, clips: named },
    firstCell: (shows, direction) =>
      flipbooks.get(shows)?.[compass.names.indexOf(direction)]?.clip.cells[0] ?? clips.get(shows)?.cells[0],
    of: wardrobeOf,
    problems,
  });
}

/** The names of the states of all tracks; of a document without any those of its clips. */
function namesIn(definition: ControllerDefinition): string[] {
  const names = statesIn(definition).map(({ name }) => name);
  return definition.states === undefined ? [...names, ...Object.keys(definition.clips)] : names;
}
