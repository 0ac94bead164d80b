import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { Cell, Sheet } from '../sheet/sheet.js';
import { readCells, readFrameRange } from './cells.js';
import type { CellsDefinition, FrameRange } from './cells.js';

/** What happens at a clip's last frame: begin again, or stay. */
export type LoopRule = 'forever' | 'once';

/** A clip as it stands in a document. */
export interface ClipDefinition {
  /** The sheet its cells are on. Default: the first sheet of the document. */
  sheet?: string | undefined;
  cells: CellsDefinition;
  /** Frames a second, over 0 and at most 1000. */
  fps?: number | undefined;
  /** Milliseconds of each frame, or of every frame when it is one number; from 1 to an hour. */
  ms?: number | readonly number[] | undefined;
  /** Default: `forever`. */
  loop?: LoopRule | undefined;
  /** Cue names with the frames (from 0) that report them. */
  cues?: Readonly<Record<string, number | readonly number[]>> | undefined;
  /** Span names with their range of frames, such as `2-3`. */
  spans?: Readonly<Record<string, string | number>> | undefined;
  /** Pixels that the body travels during one pass. */
  stride?: number | undefined;
}

/** A clip ready to play. */
export interface Clip {
  readonly name: string;
  readonly cells: readonly Cell[];
  /** For each frame the instant at which it ends, in whole microseconds from the clip's start. */
  readonly ends: readonly number[];
  readonly loop: LoopRule;
  /** For each frame the cues it reports, in the document's order. */
  readonly cues: readonly (readonly string[])[];
  readonly spans: ReadonlyMap<string, FrameRange>;
  readonly stride: number | undefined;
}

/** The shortest frame, in milliseconds; no display shows a shorter one. */
const shortestFrame = 1;

/** The longest frame, in milliseconds: an hour. */
const longestFrame = 3_600_000;

/** How long a one-cell clip's frame counts when no time is said, in microseconds: a tenth of a second. */
const stillFrame = 100_000;

/** Builds a clip; adds a problem for each thing that is wrong and then returns `undefined`. */
export function buildClip(
  name: string,
  definition: ClipDefinition,
  sheets: ReadonlyMap<string, Sheet | undefined>,
  path: DocumentPath,
  problems: ProblemList,
): Clip | undefined {
  const before = problems.problems.length;
  const sheetName = definition.sheet ?? [...sheets.keys()][0];
  if (definition.sheet !== undefined && !sheets.has(definition.sheet))
    problems.add('sheet-unknown', [...path, 'sheet'], { name: definition.sheet, known: [...sheets.keys()] });
  const sheet = sheetName === undefined ? undefined : sheets.get(sheetName);
  const cells = pickCells(definition.cells, sheet, [...path, 'cells'], problems);
  if (cells === undefined) return undefined;
  const ends = frameEnds(definition, cells.length, path, problems);
  const cues = frameCues(definition, cells.length, path, problems);
  const spans = frameSpans(definition, cells.length, path, problems);
  if (problems.problems.length > before) return undefined;
  return { name, cells, ends, loop: definition.loop ?? 'forever', cues, spans, stride: definition.stride };
}

function pickCells(
  definition: CellsDefinition,
  sheet: Sheet | undefined,
  path: DocumentPath,
  problems: ProblemList,
): Cell[] | undefined {
  const numbers = readCells(definition);
  if (numbers === undefined) problems.add('clip-cells', path, { received: definition });
  else if (numbers.length === 0) problems.add('clip-empty', path);
  if (numbers === undefined || numbers.length === 0 || sheet === undefined) return undefined;
  const missing = numbers.find((cell) => sheet.cells[cell] === undefined);
  if (missing !== undefined) {
    problems.add('cell-range', path, { cell: missing, sheet: sheet.name, count: sheet.cells.length });
    return undefined;
  }
  return numbers.map((cell) => sheet.cells[cell]!);
}

/** Each boundary is rounded from the exact sum, once, so that the error of a long clip stays under a microsecond. */
function frameEnds(
  definition: ClipDefinition,
  frames: number,
  path: DocumentPath,
  problems: ProblemList,
): number[] {
  const { fps, ms } = definition;
  if (fps !== undefined && ms !== undefined) problems.add('clip-timing-both', path);
  if (fps !== undefined) {
    if (!(fps > 0 && fps <= 1000)) problems.add('fps-range', [...path, 'fps'], { received: fps });
    return Array.from({ length: frames }, (_, frame) => Math.round(((frame + 1) * 1_000_000) / fps));
  }
  if (ms === undefined) {
    if (frames > 1) problems.add('clip-timing-none', path);
    return Array.from({ length: frames }, (_, frame) => (frame + 1) * stillFrame);
  }
  const each = typeof ms === 'number' ? new Array<number>(frames).fill(ms) : ms;
  if (each.length !== frames)
    problems.add('clip-ms-count', [...path, 'ms'], { received: each.length, frames });
  let sum = 0;
  return each.map((duration, index) => {
    const at = typeof ms === 'number' ? [...path, 'ms'] : [...path, 'ms', index];
    const usable = duration >= shortestFrame && duration <= longestFrame;
    if (!usable && (index === 0 || typeof ms !== 'number'))
      problems.add('duration', at, { received: duration, least: shortestFrame, most: longestFrame });
    sum += duration * 1000;
    return Math.round(sum);
  });
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
