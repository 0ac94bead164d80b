import type { Clip } from '../clip/clip.js';
import type { Controller } from '../controller/controller.js';
import { ProblemList } from '../problem/problem.js';
import { compilePalettes } from './palette.js';
import { useWardrobeSentences } from './sentences.js';
import { compileWardrobe } from './wardrobe.js';
import type { Wardrobe } from './wardrobe.js';

useWardrobeSentences();

/** Each controller's, once it was asked for. */
const known = new WeakMap<Controller, Wardrobe | undefined>();

/**
 * The wardrobe of a controller; `undefined` where its document has none. It is compiled when it is first asked for, so that a
 * game without clothes carries nothing of them; a document that was read has it compiled with all else.
 *
 * @throws {DotHopError} with every problem of its wardrobe and palettes
 */
export function wardrobeOf(controller: Controller): Wardrobe | undefined {
  if (!known.has(controller)) known.set(controller, compiled(controller));
  return known.get(controller);
}

function compiled({ definition, sheets, clips, pages, compass, states }: Controller): Wardrobe | undefined {
  const { wardrobe, palettes: defined = {} } = definition;
  const problems = new ProblemList();
  const palettes = compilePalettes(defined, problems);
  if (wardrobe === undefined) {
    problems.throwIfAny();
    return undefined;
  }
  const named = new Map<string, ReadonlySet<Clip>>();
  for (const [name, clip] of clips) named.set(name, new Set([clip]));
  for (const [name, each] of pages) named.set(name, new Set(each.map(({ clip }) => clip)));
  const made = compileWardrobe({
    definition: wardrobe,
    palettes,
    sheets,
    bodySheets: new Set([...clips.values()].flatMap(({ frames }) => frames.map(({ sheet }) => sheet))),
    places: { states: [...new Set(states.map(({ name }) => name))], directions: compass.names, clips: named },
    firstCell: (shows, direction) =>
      pages.get(shows)?.[compass.names.indexOf(direction)]?.clip.cells[0] ?? clips.get(shows)?.cells[0],
    of: wardrobeOf,
    problems,
  });
  problems.throwIfAny();
  return made;
}
