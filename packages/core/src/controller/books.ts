import type { Clip } from '../clip/clip.js';
import type { Compass } from '../compass/compass.js';
import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { ControllerDefinition } from './definition.js';

/** The drawing of one direction: a clip, mirrored or not. */
export interface Page {
  readonly clip: Clip;
  readonly mirrored: boolean;
}

interface BooksInput {
  readonly definition: ControllerDefinition;
  /** `undefined` for a clip that has problems of its own. */
  readonly clips: ReadonlyMap<string, Clip | undefined>;
  readonly compass: Compass;
  readonly problems: ProblemList;
}

/** What a clip or flipbook shows in each direction of the compass; empty after a problem. */
export function pagesOf(shows: string, path: DocumentPath, input: BooksInput): Page[] {
  const { clips, compass, problems, definition } = input;
  const { flipbooks = {} } = definition;
  const flipbook = Object.hasOwn(flipbooks, shows) ? flipbooks[shows]! : undefined;
  if (flipbook === undefined) {
    if (!clips.has(shows))
      problems.add('clip-unknown', path, {
        name: shows,
        known: [...clips.keys(), ...Object.keys(flipbooks)],
      });
    const clip = clips.get(shows);
    return clip === undefined
      ? []
      : compass.names.map((_, i) => ({ clip, mirrored: compass.mirrorOf[i]! >= 0 }));
  }
  const at = ['flipbooks', shows];
  for (const direction of Object.keys(flipbook))
    if (!compass.names.includes(direction))
      problems.add('direction-unknown', [...at, direction], { name: direction, known: compass.names });
  return compass.names.flatMap((direction, i) => {
    const drawn = flipbook[direction];
    const name = drawn ?? flipbook[compass.names[compass.mirrorOf[i]!] ?? ''];
    if (name === undefined) problems.add('flipbook-gap', at, { direction });
    else if (!clips.has(name))
      problems.add('clip-unknown', [...at, direction], { name, known: [...clips.keys()] });
    const clip = name === undefined ? undefined : clips.get(name);
    return clip === undefined ? [] : [{ clip, mirrored: drawn === undefined }];
  });
}
