import type { ClipDefinition, LoopDefinition } from '../clip/definition.js';
import type { ControllerDefinition, VarietyDefinition } from '../controller/definition.js';
import { plainClip } from '../gather/sequence.js';
import type { Change } from './change.js';
import { frameChanges, framesOf } from './frames.js';
import type { Frame, SheetSize } from './frames.js';
import type { Edit } from './history.js';

/*
 * What one does to clips: each gives an edit, as data, from the document as it is. Frames are counted from 0 here and from 1
 * in words, as people count the drawings of a strip.
 */

const framesText = (frames: readonly number[], clip: string): string =>
  frames.length === 1 ? `frame ${frames[0]! + 1} of ${clip}` : `${frames.length} frames of ${clip}`;

/** The edit that gives a clip other frames. */
function withFrames(
  definition: ControllerDefinition,
  clip: string,
  size: SheetSize,
  says: string,
  change: (frames: Frame[]) => readonly Frame[],
): Edit {
  const frames = change([...(framesOf(definition.clips[clip]!, size) ?? [])]);
  const left = frames.flatMap(({ cues }) => cues);
  return {
    says,
    changes: [...frameChanges(definition, clip, frames, size), ...withoutUnplaced(definition, clip, left)],
  };
}

/** Finds a name that is free: `walk`, else `walk-2` and so on. */
export function freeName(wanted: string, taken: Readonly<Record<string, unknown>> | undefined): string {
  const has = (name: string): boolean => taken !== undefined && Object.hasOwn(taken, name);
  if (!has(wanted)) return wanted;
  for (let i = 2; ; i++) if (!has(`${wanted}-${i}`)) return `${wanted}-${i}`;
}

/** The sheet of a clip: the document's first by default. */
export const sheetOf = (
  { sheets }: Pick<ControllerDefinition, 'sheets'>,
  clip: ClipDefinition,
): string | undefined => clip.sheet ?? Object.keys(sheets)[0];

/** Adds clips to a sheet. If a name is taken, the clip gets another one. */
export function newClips(
  { sheets, clips }: Pick<ControllerDefinition, 'sheets' | 'clips'>,
  sheet: string,
  made: Readonly<Record<string, ClipDefinition>>,
): Change[] {
  const first = Object.keys(sheets)[0];
  return Object.entries(made).map(([name, clip]) => ({
    op: 'set',
    path: ['clips', freeName(name, clips)],
    value: first === undefined || first === sheet ? clip : { sheet, ...clip },
  }));
}

/** Adds a clip of some cells, at ten frames a second. */
export function addClip(
  definition: ControllerDefinition,
  name: string,
  sheet: string,
  cells: readonly number[],
): Edit {
  const free = freeName(name, definition.clips);
  return { says: `make clip ${free}`, changes: newClips(definition, sheet, { [free]: plainClip(cells) }) };
}

/** Removes a clip. A state that shows it becomes a problem of the document. */
export const removeClip = (definition: ControllerDefinition, clip: string): Edit => ({
  says: `delete clip ${clip}`,
  changes: [{ op: 'remove', path: ['clips', clip] }, ...withoutUnplaced(definition, clip, [])],
});

/** Takes away how cues are told that stand on no frame any more. @param left the cues that a clip still has */
function withoutUnplaced(
  { clips, cues = {} }: ControllerDefinition,
  clip: string,
  left: readonly string[],
): Change[] {
  const others = Object.entries(clips).filter(([name]) => name !== clip);
  const placed = new Set([...left, ...others.flatMap(([, one]) => Object.keys(one.cues ?? {}))]);
  const gone = Object.keys(cues).filter((cue) => !placed.has(cue));
  if (gone.length > 0 && gone.length === Object.keys(cues).length) return [{ op: 'remove', path: ['cues'] }];
  return gone.map((cue) => ({ op: 'remove', path: ['cues', cue] }));
}

/** Sets the names of a cue, of which one is told each time. With fewer than two names, the cue is told by its own name. */
export function tellCue({ cues = {} }: ControllerDefinition, cue: string, variety: VarietyDefinition): Edit {
  const says = `how cue ${cue} is told`;
  const path = ['cues', cue];
  if (variety.any.length >= 2) return { says, changes: [{ op: 'set', path, value: variety }] };
  if (!Object.hasOwn(cues, cue)) return { says, changes: [] };
  return { says, changes: [{ op: 'remove', path: Object.keys(cues).length === 1 ? ['cues'] : path }] };
}

/** Copies a clip under another name, behind it. */
export function duplicateClip({ clips }: ControllerDefinition, clip: string): Edit {
  const name = freeName(`${clip}-copy`, clips);
  const at = Object.keys(clips).indexOf(clip) + 1;
  return {
    says: `duplicate clip ${clip}`,
    changes: [{ op: 'insert', path: ['clips'], at, name, value: clips[clip] }],
  };
}

/** Moves a clip to another place in the list. */
export const moveClip = (clip: string, to: number): Edit => ({
  says: `move clip ${clip}`,
  changes: [{ op: 'move', path: ['clips', clip], to }],
});

/** Inserts cells into a clip before a frame. Each shows as long as the frame beside it. */
export function insertFrames(
  definition: ControllerDefinition,
  clip: string,
  size: SheetSize,
  at: number,
  cells: readonly number[],
): Edit {
  const says = `add ${cells.length === 1 ? 'a frame' : `${cells.length} frames`} to ${clip}`;
  return withFrames(definition, clip, size, says, (frames) => {
    const beside = frames[Math.max(0, at - 1)] ?? { ms: 100, spans: [] };
    // What comes between two frames of a span is part of it.
    const spans = (frames[at - 1]?.spans ?? []).filter((name) => frames[at]?.spans.includes(name));
    const come = cells.map((cell): Frame => ({ cell, ms: beside.ms, cues: [], spans, marks: undefined }));
    return [...frames.slice(0, at), ...come, ...frames.slice(at)];
  });
}

/** Removes frames of a clip, with their cues. The last one stays. */
export function removeFrames(
  definition: ControllerDefinition,
  clip: string,
  size: SheetSize,
  gone: readonly number[],
): Edit {
  return withFrames(definition, clip, size, `delete ${framesText(gone, clip)}`, (frames) => {
    const left = frames.filter((_, i) => !gone.includes(i));
    return left.length === 0 ? frames.slice(0, 1) : left;
  });
}

/** Moves a frame to another place, counted without it. Its cues and its time go with it. */
export function moveFrame(
  definition: ControllerDefinition,
  clip: string,
  size: SheetSize,
  from: number,
  to: number,
): Edit {
  return withFrames(definition, clip, size, `move frame ${from + 1} of ${clip}`, (frames) => {
    const [frame] = frames.splice(from, 1);
    frames.splice(to, 0, frame!);
    return frames;
  });
}

/** Duplicates a frame. Only the first of the two has its cues. */
export function duplicateFrame(
  definition: ControllerDefinition,
  clip: string,
  size: SheetSize,
  frame: number,
): Edit {
  return withFrames(definition, clip, size, `duplicate frame ${frame + 1} of ${clip}`, (frames) => {
    frames.splice(frame + 1, 0, { ...frames[frame]!, cues: [] });
    return frames;
  });
}

/** Sets the times of frames, in milliseconds. Other frames keep theirs. */
export function timeFrames(
  definition: ControllerDefinition,
  clip: string,
  size: SheetSize,
  times: Readonly<Record<number, number>>,
): Edit {
  const named = Object.keys(times).map(Number);
  return withFrames(definition, clip, size, `time ${framesText(named, clip)}`, (frames) =>
    frames.map((frame, i) => ({ ...frame, ms: Math.max(1, Math.round(times[i] ?? frame.ms)) })),
  );
}

/** One rate for all frames. */
export function rateClip({ clips }: ControllerDefinition, clip: string, fps: number): Edit {
  const { ms, lasts, hold } = clips[clip]!;
  const drop = (field: string): Change => ({ op: 'remove', path: ['clips', clip, field] });
  return {
    says: `time ${clip}`,
    changes: [
      ...(ms === undefined ? [] : [drop('ms')]),
      ...(lasts === undefined ? [] : [drop('lasts')]),
      ...(hold === undefined ? [] : [drop('hold')]),
      { op: 'set', path: ['clips', clip, 'fps'], value: fps },
    ],
  };
}

/** Sets what happens after the last frame. */
export const loopClip = (clip: string, loop: LoopDefinition): Edit => ({
  says: `loop of ${clip}`,
  changes: [
    loop === 'forever'
      ? { op: 'remove', path: ['clips', clip, 'loop'] }
      : { op: 'set', path: ['clips', clip, 'loop'], value: loop },
  ],
});

/** Sets how far the body travels in one pass, in pixels. `undefined` removes it. */
export const strideClip = (clip: string, stride: number | undefined): Edit => ({
  says: `stride of ${clip}`,
  changes: [
    stride === undefined
      ? { op: 'remove', path: ['clips', clip, 'stride'] }
      : { op: 'set', path: ['clips', clip, 'stride'], value: stride },
  ],
});

/** Sets the frames that report a cue. None removes it. */
export function placeCue(
  definition: ControllerDefinition,
  clip: string,
  cue: string,
  frames: readonly number[],
): Edit {
  const { cues = {} } = definition.clips[clip]!;
  const path = ['clips', clip, 'cues', cue];
  const at = [...new Set(frames)].sort((a, b) => a - b);
  if (at.length === 0) {
    const others = Object.keys(cues).filter((one) => one !== cue);
    return {
      says: `delete cue ${cue} of ${clip}`,
      changes: [
        { op: 'remove', path: others.length === 0 ? path.slice(0, -1) : path },
        ...withoutUnplaced(definition, clip, others),
      ],
    };
  }
  const value = at.length === 1 ? at[0] : at;
  return { says: `place cue ${cue} of ${clip}`, changes: [{ op: 'set', path, value }] };
}

/** Sets the frames of a span, first and last included. `undefined` removes it. */
export function placeSpan(
  { clips }: ControllerDefinition,
  clip: string,
  span: string,
  range: { readonly first: number; readonly last: number } | undefined,
): Edit {
  const path = ['clips', clip, 'spans', span];
  if (range === undefined) {
    const isLast = Object.keys(clips[clip]!.spans ?? {}).length <= 1;
    return {
      says: `delete span ${span} of ${clip}`,
      changes: [{ op: 'remove', path: isLast ? path.slice(0, -1) : path }],
    };
  }
  const [first, last] = [Math.min(range.first, range.last), Math.max(range.first, range.last)];
  const value = first === last ? first : `${first}-${last}`;
  return { says: `place span ${span} of ${clip}`, changes: [{ op: 'set', path, value }] };
}
