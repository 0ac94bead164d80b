import type { Clip } from '../clip/clip.js';
import { readFrameRange } from '../clip/cells.js';
import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { Shown } from '../performer/outfit.js';
import type { WhereDefinition } from '../controller/wardrobe-definition.js';

/** The names with which a place can be described. */
export interface PlaceNames {
  readonly states: readonly string[];
  readonly directions: readonly string[];
  /** For each name the clips that it stands for: itself, or those of a flipbook. */
  readonly clips: ReadonlyMap<string, ReadonlySet<Clip>>;
}

/** Whether something holds at a place. */
export type Where = (shown: Shown) => boolean;

/** Compiles a description of places. Problems are added to the list. */
export function compileWhere(
  definition: WhereDefinition,
  names: PlaceNames,
  path: DocumentPath,
  problems: ProblemList,
): Where {
  const { states, directions, clips, frames, span, from, until } = definition;
  const look = (
    what: 'state' | 'direction' | 'clip',
    key: string,
    list: readonly string[] | undefined,
    known: readonly string[],
  ): void => {
    list?.forEach((name, i) => {
      if (!known.includes(name)) problems.add(`${what}-unknown`, [...path, key, i], { name, known });
    });
  };
  look('state', 'states', states, names.states);
  look('direction', 'directions', directions, names.directions);
  look('clip', 'clips', clips, [...names.clips.keys()]);
  const all = new Set([...names.clips.values()].flatMap((some) => [...some]));
  const meant =
    clips === undefined ? all : new Set(clips.flatMap((name) => [...(names.clips.get(name) ?? [])]));
  const range = frames === undefined ? undefined : readFrameRange(frames);
  if (frames !== undefined && range === undefined)
    problems.add('field-kind', [...path, 'frames'], { expected: 'frames such as 2-3', received: frames });
  const has = (test: (clip: Clip) => boolean): boolean => [...meant].some(test);
  if (span !== undefined && !has((clip) => clip.spans.has(span)))
    problems.add('span-unknown', [...path, 'span'], {
      name: span,
      known: [...new Set([...meant].flatMap((clip) => [...clip.spans.keys()]))],
    });
  for (const [key, cue] of [
    ['from', from],
    ['until', until],
  ] as const)
    if (cue !== undefined && !has((clip) => clip.cues.some((cues) => cues.includes(cue))))
      problems.add('cue-unknown', [...path, key], {
        name: cue,
        known: [...new Set([...meant].flatMap((clip) => clip.cues.flat()))],
      });
  return ({ states: shown, direction, drawnFor, clip, frame }) => {
    if (states !== undefined && !states.some((one) => shown.includes(one))) return false;
    if (directions !== undefined && !directions.includes(direction) && !directions.includes(drawnFor))
      return false;
    if (!meant.has(clip)) return false;
    if (range !== undefined && (frame < range.first || frame > range.last)) return false;
    const spanned = span === undefined ? undefined : clip.spans.get(span);
    if (span !== undefined && (spanned === undefined || frame < spanned.first || frame > spanned.last))
      return false;
    const cueAt = (cue: string): number => {
      const showing = clip.cues.findIndex((cues) => cues.includes(cue));
      return showing < 0 ? -1 : clip.order[showing]!;
    };
    if (from !== undefined && (cueAt(from) < 0 || frame < cueAt(from))) return false;
    return until === undefined || cueAt(until) < 0 || frame < cueAt(until);
  };
}
