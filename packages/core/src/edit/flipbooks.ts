import { writeCells } from '../clip/cells.js';
import type { ClipDefinition } from '../clip/definition.js';
import type { ControllerDefinition } from '../controller/definition.js';
import { plainClip } from '../gather/sequence.js';
import type { Change } from './change.js';
import { freeName, newClips, sheetOf } from './clips.js';
import { changedData } from './data.js';
import type { Edit } from './history.js';

/**
 * Sets the cells that a flipbook shows in one direction. If a clip of these cells exists that nothing shows, it is used. Else a new clip is
 * made, with the times of the clip that shows there now or in the first direction. A clip that stood alone first becomes a flipbook of the
 * same name, drawn for the direction `first`.
 *
 * @param shown a flipbook, or a clip that is shown in every direction
 * @param first the direction for which a single clip counts as drawn
 */
export function drawFor(
  definition: ControllerDefinition,
  shown: string,
  direction: string,
  sheet: string,
  cells: readonly number[],
  first: string,
): Edit {
  const says = `${shown} to the ${direction}`;
  const split = definition.flipbooks?.[shown] === undefined ? asFlipbook(definition, shown, first) : [];
  const now = changedData(definition, split);
  const flipbook = now.flipbooks?.[shown] ?? {};
  const [sample] = [flipbook[direction], ...Object.values(flipbook)].filter((name) => name !== undefined);
  const like = sample === undefined ? undefined : now.clips[sample];
  const name = freeName(`${shown}-${direction}`, now.clips);
  const timed = like && timedLike(like, cells.length);
  const idle = idleClip(now, sheet, cells);
  const clip: Change[] =
    idle === undefined
      ? newClips(now, sheet, { [name]: said({ ...plainClip(cells), ...timed }) })
      : [
          { op: 'rename', path: ['clips', idle], name },
          { op: 'set', path: ['clips', name], value: said({ ...now.clips[idle]!, ...timed }) },
        ];
  return {
    says,
    changes: [...split, ...clip, { op: 'set', path: ['flipbooks', shown, direction], value: name }],
  };
}

/** A clip of just these cells that nobody shows yet, such as one that was made of each row of the sheet. */
function idleClip(
  { sheets, clips, ...rest }: ControllerDefinition,
  sheet: string,
  cells: readonly number[],
): string | undefined {
  const wanted = JSON.stringify(writeCells(cells));
  // Names stand in many places: what is found nowhere is shown by nobody.
  const elsewhere = new Set(JSON.stringify(rest).match(/[\w-]+/g));
  return Object.keys(clips).find((name) => {
    const clip = clips[name]!;
    return (
      sheetOf({ sheets }, clip) === sheet &&
      JSON.stringify(clip.cells) === wanted &&
      clip.cues === undefined &&
      clip.spans === undefined &&
      !elsewhere.has(name)
    );
  });
}

/** How a clip is timed and goes on, where another one has that many frames. Cues and spans stand on drawings, and are set again. */
function timedLike(
  { fps, ms, lasts, hold, loop, stride }: ClipDefinition,
  frames: number,
): Partial<ClipDefinition> {
  const reach = Math.max(
    -1,
    ...Object.keys(hold ?? {}).map(Number),
    typeof loop === 'object' ? loop.from : -1,
  );
  const isAsLong = !Array.isArray(ms) || ms.length === frames;
  return reach < frames && isAsLong ? { fps, ms, lasts, hold, loop, stride } : { stride };
}

/** Without fields that say nothing. */
const said = <T extends object>(fields: T): T =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as T;

/** The changes that make a flipbook of a clip. What showed the clip then shows the flipbook. */
function asFlipbook({ clips, flipbooks = {} }: ControllerDefinition, clip: string, first: string): Change[] {
  const name = freeName(`${clip}-${first}`, clips);
  // What another flipbook shows is a clip.
  const inOthers = Object.entries(flipbooks).flatMap(([flipbook, all]) =>
    Object.entries(all).flatMap(([direction, one]): Change[] =>
      one === clip ? [{ op: 'set', path: ['flipbooks', flipbook, direction], value: name }] : [],
    ),
  );
  return [
    { op: 'rename', path: ['clips', clip], name },
    ...inOthers,
    { op: 'set', path: ['flipbooks', clip, first], value: name },
  ];
}
