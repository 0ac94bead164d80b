import type { Clip } from '../clip/clip.js';
import type { Box, Cell } from '../sheet/sheet.js';
import { inkOf } from './picture.js';
import type { Ink, Picture } from './picture.js';

/** The ink of a cell in pixels from its pivot, right and down positive. */
export interface CellMeasure {
  readonly cell: Cell;
  /** Absent for a cell without ink. */
  readonly ink: Ink | undefined;
  /** How far below the pivot the lowest ink ends, in pixels; 0 if it stands on the pivot. */
  readonly foot: number;
  /** The middle of the ink, in pixels from the pivot. */
  readonly centre: number;
  /** The edges of the cell that the ink touches. */
  readonly touches: readonly ('left' | 'right' | 'top' | 'bottom')[];
}

/** The code of a finding about a drawing. */
export type MeasureCode =
  | 'foot-line'
  | 'clip-foot-line'
  | 'centre-jump'
  | 'width-jump'
  | 'box-differs'
  | 'cell-empty'
  | 'cells-equal'
  | 'cell-cut'
  | 'cell-size';

/** One finding of {@link measureClips}. */
export interface MeasureFinding {
  readonly code: MeasureCode;
  /** The clip with the fault; or the sheet, if the fault is in cells. */
  readonly subject: string;
  /** The frames of that clip, from 0. Empty if the fault is in cells. */
  readonly frames: readonly number[];
  /** The cells with the fault. */
  readonly cells: readonly number[];
  /** A length in pixels; 0 if the fault is not a length. */
  readonly pixels: number;
  /** The sentence: what was found and what to do. */
  readonly text: string;
}

/** Less is the grain of pixel drawings, not a slip. */
const leastJump = 2;

/** Measures one cell on its picture. */
export function measureCell(cell: Cell, picture: Picture): CellMeasure {
  const ink = inkOf(picture, cell);
  if (ink === undefined) return { cell, ink, foot: 0, centre: 0, touches: [] };
  const touches = [
    ...(ink.x === 0 ? (['left'] as const) : []),
    ...(ink.x + ink.width === cell.width ? (['right'] as const) : []),
    ...(ink.y === 0 ? (['top'] as const) : []),
    ...(ink.y + ink.height === cell.height ? (['bottom'] as const) : []),
  ];
  return {
    cell,
    ink,
    foot: cell.offsetY + ink.y + ink.height - cell.pivotY,
    centre: cell.offsetX + ink.centreX - cell.pivotX,
    touches,
  };
}

/** The value that most of a list have, with how many; the first of equally frequent ones. */
function mostCommon(values: readonly number[]): { value: number; count: number } {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  const [best] = [...counts].sort((a, b) => b[1] - a[1]);
  return best === undefined ? { value: 0, count: 0 } : { value: best[0], count: best[1] };
}

/** How many groups of equal cells one sentence names. */
const mostGroups = 6;

/** Numbers in a sentence; of many the first. */
const list = (numbers: readonly number[]): string =>
  numbers.length > 12
    ? `${numbers.slice(0, 10).join(', ')} and ${numbers.length - 10} more`
    : numbers.join(', ');
const frameWord = (frames: readonly number[]): string =>
  `frame${frames.length > 1 ? 's' : ''} ${list(frames)}`;
const signed = (pixels: number): string => `${Math.abs(Math.round(pixels * 10) / 10)} px`;

/**
 * Measures clips from their pixels.
 *
 * @param picturesOf the picture of an image file
 */
export function measureClips(
  clips: readonly Clip[],
  picturesOf: (image: string) => Picture,
): { measures: ReadonlyMap<Cell, CellMeasure>; findings: MeasureFinding[] } {
  const measures = new Map<Cell, CellMeasure>();
  for (const cell of clips.flatMap(({ frames }) => frames))
    if (!measures.has(cell) && cell.pieces === undefined)
      measures.set(cell, measureCell(cell, picturesOf(cell.image)));
  const findings: MeasureFinding[] = [];
  const footLines = new Map<Clip, number>();
  for (const clip of clips) {
    const frames = clip.frames.flatMap((cell, frame) => {
      const measure = measures.get(cell);
      return measure === undefined ? [] : [{ ...measure, frame }];
    });
    const find = (
      code: MeasureCode,
      of: readonly { frame: number; cell: Cell }[],
      pixels: number,
      text: string,
    ): void => {
      const numbers = of.map(({ frame }) => frame);
      const cells = of.map(({ cell }) => cell.index);
      findings.push({ code, subject: clip.name, frames: numbers, cells, pixels, text });
    };
    measureFrames(frames, find);
    const inked = frames.filter(({ ink }) => ink !== undefined);
    const line = mostCommon(inked.map(({ foot }) => foot));
    // What is drawn for many directions is seen from above, where feet stand on no line.
    if (line.count * 10 >= inked.length * 6 && inked.length > 0 && clip.direction === undefined)
      footLines.set(clip, line.value);
    compareBoxes(frames, find);
  }
  compareFootLines(footLines, findings);
  findEqualCells(measures, findings);
  return { measures, findings };
}

type Frame = CellMeasure & { readonly frame: number };
type Find = (code: MeasureCode, of: readonly Frame[], pixels: number, text: string) => void;

function measureFrames(frames: readonly Frame[], find: Find): void {
  const empty = frames.filter(({ ink }) => ink === undefined);
  if (empty.length > 0)
    find(
      'cell-empty',
      empty,
      0,
      `${frameWord(empty.map(({ frame }) => frame))}: nothing is drawn; the character would vanish`,
    );
  const inked = frames.filter(({ ink }) => ink !== undefined);

  // Where most frames stand on one line the others are meant to; where they do not (a run) nothing is said.
  const line = mostCommon(inked.map(({ foot }) => foot));
  const off = inked.filter(({ foot }) => Math.abs(foot - line.value) >= leastJump);
  if (line.count * 10 >= inked.length * 6 && off.length > 0) {
    const worst = off.reduce((a, b) =>
      Math.abs(b.foot - line.value) > Math.abs(a.foot - line.value) ? b : a,
    );
    const pixels = worst.foot - line.value;
    const way = pixels > 0 ? 'below' : 'above';
    find(
      'foot-line',
      off,
      Math.abs(pixels),
      `${frameWord(off.map(({ frame }) => frame))}: up to ${signed(pixels)} ${way} the line on which the other frames stand; move the drawing, or give the frame a pivot of its own`,
    );
  }

  spikes(
    inked,
    ({ centre }) => centre,
    0.12,
    (frame, pixels) =>
      find(
        'centre-jump',
        [frame],
        Math.abs(pixels),
        `frame ${frame.frame}: drawn ${signed(pixels)} too far ${pixels > 0 ? 'right' : 'left'} of its neighbours; it jumps there and back`,
      ),
  );
  spikes(
    inked,
    ({ ink }) => ink!.width,
    0.4,
    (frame, pixels) =>
      find(
        'width-jump',
        [frame],
        Math.abs(pixels),
        `frame ${frame.frame}: ${signed(pixels)} ${pixels > 0 ? 'wider' : 'narrower'} than its neighbours`,
      ),
  );

  const cut = inked.filter(isCutOff);
  if (cut.length > 0) {
    const edges = [...new Set(cut.flatMap(({ touches }) => touches))].join(' and ');
    find(
      'cell-cut',
      cut,
      0,
      `${frameWord(cut.map(({ frame }) => frame))}: the drawing touches the ${edges} edge of its cell and may be cut off; draw it smaller or cut larger cells`,
    );
  }
  const sizes = new Set(frames.map(({ cell }) => `${cell.frameWidth}x${cell.frameHeight}`));
  // A pivot for each frame says where each stands, whatever its size.
  if (sizes.size > 1 && !frames.every(({ cell }) => cell.hasOwnPivot)) {
    const common = mostCommon(frames.map(({ cell }) => cell.frameWidth * 100_000 + cell.frameHeight)).value;
    const odd = frames.filter(({ cell }) => cell.frameWidth * 100_000 + cell.frameHeight !== common);
    find(
      'cell-size',
      odd,
      0,
      `${frameWord(odd.map(({ frame }) => frame))}: the frames are of different sizes (${[...sizes].join(', ')}); pivots keep them together only if each has its own`,
    );
  }
}

/** A drawing that ends at an edge by chance, not one that was trimmed to its ink or stands on its lower edge. */
function isCutOff({ cell, touches }: CellMeasure): boolean {
  const trimmed = touches.length === 4 || cell.width !== cell.frameWidth || cell.height !== cell.frameHeight;
  const meant = touches.filter((edge) => edge !== 'bottom' || cell.pivotY < cell.frameHeight);
  return !trimmed && meant.length > 0;
}

/** Frames that differ from both neighbours in the same sense, by a share of their width and at least 3 pixels. */
function spikes(
  frames: readonly Frame[],
  of: (frame: Frame) => number,
  share: number,
  found: (frame: Frame, pixels: number) => void,
): void {
  for (let i = 1; i + 1 < frames.length; i++) {
    const [before, frame, after] = [frames[i - 1]!, frames[i]!, frames[i + 1]!];
    const [back, on] = [of(frame) - of(before), of(frame) - of(after)];
    const least = Math.max(4, share * Math.min(before.ink!.width, after.ink!.width));
    // Neighbours that differ as much from each other are a movement, not a slip.
    if (Math.sign(back) !== Math.sign(on) || Math.min(Math.abs(back), Math.abs(on)) < least) continue;
    if (Math.abs(of(before) - of(after)) * 2 <= Math.min(Math.abs(back), Math.abs(on)))
      found(frame, Math.abs(back) < Math.abs(on) ? back : on);
  }
}

function compareBoxes(frames: readonly Frame[], find: Find): void {
  const names = new Set(frames.flatMap(({ cell }) => Object.keys(cell.boxes)));
  for (const name of names) {
    const having = frames.filter(({ cell }) => cell.boxes[name] !== undefined);
    const key = (box: Box, cell: Cell): number =>
      box.width * 1e6 + box.height * 1e3 + (box.x + box.width / 2 - cell.pivotX);
    const keys = having.map(({ cell }) => key(cell.boxes[name]!, cell));
    const common = mostCommon(keys);
    const odd = having.filter((_, i) => keys[i] !== common.value);
    if (odd.length > 0 && common.count > odd.length)
      find(
        'box-differs',
        odd,
        0,
        `${frameWord(odd.map(({ frame }) => frame))}: the box "${name}" is not of the size or not in the place that it has in the other frames; a body would be pushed`,
      );
  }
}

/** Clips that stand a few pixels off the line on which most clips stand; more is taken for being in the air. */
function compareFootLines(lines: ReadonlyMap<Clip, number>, findings: MeasureFinding[]): void {
  const common = mostCommon([...lines.values()]);
  const together = [...lines.values()].filter((line) => Math.abs(line - common.value) < leastJump).length;
  if (together * 2 <= lines.size) return;
  for (const [clip, line] of lines) {
    const pixels = line - common.value;
    if (Math.abs(pixels) < leastJump || Math.abs(pixels) > 4) continue;
    const frames = clip.frames.map((_, frame) => frame);
    const cells = clip.frames.map(({ index }) => index);
    const text = `the whole clip stands ${signed(pixels)} ${pixels > 0 ? 'below' : 'above'} the other clips; give it a pivot of its own, or the body jumps at each switch`;
    findings.push({
      code: 'clip-foot-line',
      subject: clip.name,
      frames,
      cells,
      pixels: Math.abs(pixels),
      text,
    });
  }
}

function findEqualCells(measures: ReadonlyMap<Cell, CellMeasure>, findings: MeasureFinding[]): void {
  const alike = new Map<string, Set<number>>();
  for (const { cell, ink } of measures.values()) {
    if (ink === undefined) continue;
    const key = JSON.stringify([cell.sheet, ink.hash, ink.count]);
    alike.set(key, (alike.get(key) ?? new Set()).add(cell.index));
  }
  const bySheet = new Map<string, number[][]>();
  for (const [key, found] of alike) {
    if (found.size < 2) continue;
    const [sheet] = JSON.parse(key) as [string];
    const groups = bySheet.get(sheet) ?? [];
    groups.push([...found].sort((a, b) => a - b));
    bySheet.set(sheet, groups);
  }
  for (const [subject, groups] of bySheet) {
    const told = groups.slice(0, mostGroups).map(list);
    const more = groups.length > told.length ? `; and ${groups.length - told.length} more such groups` : '';
    const text = `the same drawing: cells ${told.join('; cells ')}${more}; one cell may be shown many times`;
    findings.push({ code: 'cells-equal', subject, frames: [], cells: groups.flat(), pixels: 0, text });
  }
}
