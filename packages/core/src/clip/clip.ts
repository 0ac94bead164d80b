import type { DocumentPath, ProblemList } from '../problem/problem.js';
import { markCell } from '../sheet/sheet.js';
import type { Cell, Sheet } from '../sheet/sheet.js';
import { cellNumbers, readFrameRange } from './cells.js';
import type { FrameRange } from './cells.js';
import type { ClipDefinition } from './definition.js';
import type { ClipRow } from './rows.js';
import { frameDurations, frameOrder } from './timing.js';

/**
 * A clip ready to play. Loops back and forth and repeats are unrolled into *showings*, in the order of time. Each showing shows one frame.
 */
export interface Clip {
  readonly name: string;
  /** The clip of the document that it comes from. For `walk-south`, which the `rows` of `walk` made, that is `walk`. */
  readonly of: string;
  /** The direction for which it is drawn, if `rows` made it. */
  readonly direction: string | undefined;
  /** The cells of its frames. */
  readonly frames: readonly Cell[];
  /** The frame of each showing. */
  readonly order: readonly number[];
  /** The cell of each showing. */
  readonly cells: readonly Cell[];
  /** For each showing the instant at which it ends, in whole microseconds from the clip's start. */
  readonly ends: readonly number[];
  /** The showing that follows the last one; -1 if the clip stays on the last. */
  readonly loopFrom: number;
  /** For each showing the cues it reports, in the document's order. */
  readonly cues: readonly (readonly string[])[];
  /** Ranges of frames by name. */
  readonly spans: ReadonlyMap<string, FrameRange>;
  readonly stride: number | undefined;
}

/** Builds a clip, or one row of it; adds a problem for each thing that is wrong and then returns `undefined`. */
export function buildClip(
  name: string,
  { definition, of, direction, row, path }: ClipRow,
  sheets: ReadonlyMap<string, Sheet | undefined>,
  problems: ProblemList,
): Clip | undefined {
  const before = problems.problems.length;
  const sheetName = definition.sheet ?? [...sheets.keys()][0];
  if (definition.sheet !== undefined && !sheets.has(definition.sheet))
    problems.add('sheet-unknown', [...path, 'sheet'], { name: definition.sheet, known: [...sheets.keys()] });
  const sheet = sheetName === undefined ? undefined : sheets.get(sheetName);
  const picked = sheet && pickCells(definition, row, sheet, path, problems);
  if (picked === undefined) return undefined;
  const count = picked.length;
  const frames = picked.map((cell, i) =>
    markCell(markCell(cell, definition), definition.perFrame?.[i] ?? {}, true),
  );
  for (const frame of Object.keys(definition.perFrame ?? {}))
    if (frames[Number(frame)] === undefined)
      problems.add('frame-range', [...path, 'perFrame', frame], { received: frame, frames: count });
  const durations = frameDurations(definition, count, path, problems);
  const { frames: order, loopFrom } = frameOrder(definition.loop, count, [...path, 'loop'], problems);
  const cues = frameCues(definition, count, path, problems);
  const spans = frameSpans(definition, count, path, problems);
  if (problems.problems.length > before) return undefined;
  return {
    name,
    of,
    direction,
    frames,
    order,
    cells: order.map((frame) => frames[frame]!),
    ends: roundedEnds(definition, order, durations),
    loopFrom,
    cues: order.map((frame) => cues[frame]!),
    spans,
    stride: definition.stride,
  };
}

/** Each border is rounded from the exact sum, once, so that a clip of any length is at most half a microsecond off. */
function roundedEnds(
  { fps, hold }: ClipDefinition,
  order: readonly number[],
  durations: readonly number[],
): number[] {
  // Multiplied before it is divided, so that 12 frames at 12 a second are one second to the microsecond.
  if (fps !== undefined && hold === undefined)
    return order.map((_, i) => Math.round(((i + 1) * 1_000_000) / fps));
  let sum = 0;
  return order.map((frame) => Math.round((sum += durations[frame]! * 1000)));
}

function pickCells(
  { cells, every = -1, rows }: ClipDefinition,
  row: number,
  sheet: Sheet,
  clip: DocumentPath,
  problems: ProblemList,
): Cell[] | undefined {
  const path = [...clip, 'cells'];
  const first = cellNumbers(cells, sheet.columns, sheet.cells.length);
  const isLine = [cells].flat().some((part) => typeof part === 'object' && Object.values(part)[0] !== 0);
  if (first === undefined) problems.add('clip-cells', path, { received: cells });
  else if (isLine && sheet.columns >= sheet.cells.length && sheet.cells.length > 1) {
    problems.add('clip-row', path, { received: cells, sheet: sheet.name });
    return undefined;
  }
  if (first?.length === 0) problems.add('clip-empty', path);
  if (first === undefined || first.length === 0) return undefined;
  const step = every >= 0 ? every : sheet.columns;
  if (every !== -1 && (!Number.isInteger(every) || every < 1 || rows === undefined))
    problems.add('rows-every', [...clip, 'every'], { received: every });
  const numbers = first.map((cell) => cell + row * step);
  const missing = numbers.filter((cell) => sheet.cells[cell] === undefined);
  if (missing.length > 0) {
    const values = {
      cell: missing[0],
      more: missing.length - 1,
      sheet: sheet.name,
      count: sheet.cells.length,
    };
    problems.add('cell-range', path, values);
    return undefined;
  }
  return numbers.map((cell) => sheet.cells[cell]!);
}

function frameCues(
  definition: ClipDefinition,
  frames: number,
  path: DocumentPath,
  problems: ProblemList,
): string[][] {
  const cues = Array.from({ length: frames }, (): string[] => []);
  for (const [cue, at] of Object.entries(definition.cues ?? {}))
    for (const frame of typeof at === 'number' ? [at] : at) {
      const list = cues[frame];
      if (list === undefined)
        problems.add('frame-range', [...path, 'cues', cue], { received: frame, frames });
      else list.push(cue);
    }
  return cues;
}

function frameSpans(
  definition: ClipDefinition,
  frames: number,
  path: DocumentPath,
  problems: ProblemList,
): Map<string, FrameRange> {
  const spans = new Map<string, FrameRange>();
  for (const [span, text] of Object.entries(definition.spans ?? {})) {
    const range = readFrameRange(text);
    if (range === undefined || range.last >= frames)
      problems.add('span-range', [...path, 'spans', span], { received: text, frames });
    else spans.set(span, range);
  }
  return spans;
}

/** The index of the interval that a place lies in, by the intervals' ends. At or past the last end: the last interval. */
export function indexAt(ends: readonly number[], place: number): number {
  let low = 0;
  let high = ends.length - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (place < ends[middle]!) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * Finds the showing of a clip at a time, if the clip began at 0.
 *
 * @param ms milliseconds from its start, 0 or more, without a limit; rounded to whole microseconds
 * @returns the index into `order` and `cells`; at a border that of the showing that begins there
 */
export function showingAt({ ends, loopFrom }: Clip, ms: number): number {
  const time = Math.round(ms * 1000);
  const length = ends[ends.length - 1]!;
  if (time < length || loopFrom < 0) return indexAt(ends, time);
  const start = loopFrom === 0 ? 0 : ends[loopFrom - 1]!;
  return indexAt(ends, start + ((time - start) % (length - start)));
}

/** The duration of each showing, in milliseconds, exactly. */
export function durationsOf({ ends }: Clip): number[] {
  return ends.map((end, i) => (end - (ends[i - 1] ?? 0)) / 1000);
}
