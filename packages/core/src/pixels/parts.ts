import { poseOf } from '../sheet/pose.js';
import type { Controller, Track } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import type { Cell, Part, Point, Sheet } from '../sheet/sheet.js';
import type { Picture } from './picture.js';

/** The code of a finding about parts of drawings. */
export type PartCode = 'parts-differ' | 'part-apart';

/** One finding of {@link measureParts}. */
export interface PartFinding {
  readonly code: PartCode;
  readonly path: readonly (string | number)[];
  /** The sentence: what is wrong, the measured values and what to do. */
  readonly text: string;
}

type PictureOf = (image: string) => Picture;

export const listed = (some: readonly (string | number)[], most: number): string =>
  `${some.slice(0, most).join(', ')}${some.length > most ? ` and ${some.length - most} more` : ''}`;

/**
 * Checks drawings that are cut in parts: whether the parts make up the whole drawing, and whether parts touch that two tracks can show
 * together.
 *
 * @param pictureOf gives the pixels of an image by its file
 */
export function measureParts(controller: Controller, pictureOf: PictureOf): PartFinding[] {
  const shown = new Set(
    [...controller.clips.values()].flatMap(({ cells }) => cells.map(({ sheet }) => sheet)),
  );
  // What is worn lies on the body, and is looked at with it.
  const sheets = [...controller.sheets.values()].filter(
    ({ name, parts }) => parts.size > 0 && shown.has(name),
  );
  const ink = new Inks(pictureOf);
  return [
    ...sheets.flatMap((sheet) => differing(sheet, pictureOf)),
    ...controller.tracks
      .filter(({ index, draws }) => index > 0 && draws.length > 0)
      .flatMap((track) => sheets.flatMap((sheet) => apart(controller, track, sheet, ink))),
  ];
}

function colourAt({ width, pixels }: Picture, x: number, y: number): number {
  const at = (y * width + x) * 4;
  if (pixels[at + 3] === 0) return 0;
  return ((pixels[at]! << 24) | (pixels[at + 1]! << 16) | (pixels[at + 2]! << 8) | pixels[at + 3]!) >>> 0;
}

/** A drawing of a cell, which may be of another image than the cell is. */
export interface Drawing {
  readonly cell: Cell;
  readonly picture: Picture;
}

/** Where a cell's first column and row lie, in whole pixels from its pivot. */
const leftOf = ({ offsetX, pivotX }: Cell): number => Math.floor(offsetX - pivotX);
const topOf = ({ offsetY, pivotY }: Cell): number => Math.floor(offsetY - pivotY);

/** How many pixels look otherwise when other drawings lie on one another, front to back. */
export function pixelsApart(some: readonly Drawing[], others: readonly Drawing[]): number {
  const cells = [...some, ...others].map(({ cell }) => cell);
  const left = Math.min(...cells.map(leftOf));
  const right = Math.max(...cells.map((one) => leftOf(one) + one.width));
  const top = Math.min(...cells.map(topOf));
  const bottom = Math.max(...cells.map((one) => topOf(one) + one.height));
  const [wide, high] = [right - left, bottom - top];
  /** The colours that are seen, row by row; 0 where there is none. */
  const seen = (drawings: readonly Drawing[]): Uint32Array => {
    const colours = new Uint32Array(wide * high);
    for (const { cell, picture } of drawings) {
      const [column, row] = [leftOf(cell) - left, topOf(cell) - top];
      for (let y = 0; y < cell.height; y++)
        for (let x = 0, at = (row + y) * wide + column; x < cell.width; x++, at++)
          if (colours[at] === 0) colours[at] = colourAt(picture, cell.x + x, cell.y + y);
    }
    return colours;
  };
  const [one, other] = [seen(some), seen(others)];
  let count = 0;
  for (let i = 0; i < one.length; i++) if (one[i] !== other[i]) count++;
  return count;
}

/** Cells whose parts, one upon the other, are not the drawing. */
function differing({ name, cells, parts }: Sheet, pictureOf: PictureOf): PartFinding[] {
  const front = [...parts.values()].reverse();
  const counts = cells.map((cell) =>
    pixelsApart(
      [{ cell, picture: pictureOf(cell.image) }],
      front.map(({ image }) => ({ cell, picture: pictureOf(image) })),
    ),
  );
  const wrong = cells.flatMap(({ index }, i) => (counts[i]! > 0 ? [index] : []));
  const most = Math.max(0, ...counts);
  if (wrong.length === 0) return [];
  const text = `the parts, one upon the other, are not the drawing in cell ${listed(wrong, 8)} (up to ${most} pixels differ), so there is a flash where one takes the other's place; cut the parts from the drawing again`;
  return [{ code: 'parts-differ', path: ['sheets', name, 'parts'], text }];
}

/** The drawings of a sheet that states show by themselves, each with the name of a clip that has it. */
function drawnBy(states: readonly State[], sheet: Sheet): Map<Cell, string> {
  const cells = new Map<Cell, string>();
  for (const { poses, clip } of states.flatMap(({ flipbooks }) => flipbooks.flat()))
    for (const { cell } of poses)
      if (cell.sheet === sheet.name && !cells.has(cell)) cells.set(cell, clip.name);
  return cells;
}

/** Drawings that a track and the body can show together and that leave a gap between them. */
function apart(
  { states, tracks, conditions }: Controller,
  track: Track,
  sheet: Sheet,
  ink: Inks,
): PartFinding[] {
  const own = states.filter((one) => one.track === track.index && (one.inStep < 0 || one.drawsOwn));
  // What takes the track without a condition is never seen together with a drawing of the track's own.
  const takers = states
    .filter((one) => one.track === track.index && one.takenBy >= 0 && conditions[one.while]!.op === 'term')
    .map((one) => one.takenBy);
  const others = states.filter((one) => one.track === 0 && one.inStep < 0 && !takers.includes(one.index));
  const further = tracks.slice(1).flatMap(({ draws }) => draws);
  const mine = [...sheet.parts.values()].filter(({ name }) => track.draws.includes(name));
  const still = [...sheet.parts.values()].filter(({ name }) => !further.includes(name));
  const gaps: { readonly gap: number; readonly text: string }[] = [];
  const bodies = [...drawnBy(others, sheet)].map(([body, under]) => {
    const drawn = still.flatMap((part) => ink.of(part, body));
    return { body, under, drawn, near: new NearInk(drawn) };
  });
  for (const [cell, clip] of drawnBy(own, sheet))
    for (const { body, under, drawn, near } of bodies) {
      const hanging = mine.map((part) => hung(part, ink.of(part, cell), cell, body));
      const gap = hanging.some((points) => points.some(({ x, y }) => near.has(x, y)))
        ? 0
        : gapBetween(hanging.flat(), drawn);
      const text = `${gap} px in ${clip} (cell ${cell.index}) over ${under} (cell ${body.index})`;
      if (gap > 0) gaps.push({ gap, text });
    }
  if (gaps.length === 0) return [];
  gaps.sort((a, b) => b.gap - a.gap);
  const list = listed(
    gaps.map(({ text }) => text),
    4,
  );
  const text = `what "${track.name}" draws does not touch what the body shows: ${list}; move the joint, or draw the parts further`;
  return [{ code: 'part-apart', path: ['tracks', track.name, 'draws'], text }];
}

/** Where a part lies when it hangs on another drawing. */
function hung({ joint }: Part, ink: readonly Point[], cell: Cell, body: Cell): readonly Point[] {
  const own = joint === undefined ? undefined : poseOf(cell, false).points[joint];
  const on = joint === undefined ? undefined : poseOf(body, false).points[joint];
  if (own === undefined || on === undefined) return ink;
  const [right, down] = [Math.round(on.x - own.x), Math.round(on.y - own.y)];
  return ink.map(({ x, y }) => ({ x: x + right, y: y + down }));
}

/** How many empty pixels lie between two drawings that do not touch, where they are nearest; 0 where one is empty. */
function gapBetween(one: readonly Point[], other: readonly Point[]): number {
  if (one.length === 0 || other.length === 0) return 0;
  let nearest = Infinity;
  for (const a of one)
    for (const b of other)
      nearest = Math.min(nearest, Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y)) - 1);
  return nearest;
}

/** The places that are drawn or lie beside one that is, also cornerwise. */
class NearInk {
  private readonly left: number;
  private readonly top: number;
  private readonly width: number;
  private readonly height: number;
  private readonly places: Uint8Array;

  constructor(points: readonly Point[]) {
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const { x, y } of points) {
      left = Math.min(left, x - 1);
      right = Math.max(right, x + 1);
      top = Math.min(top, y - 1);
      bottom = Math.max(bottom, y + 1);
    }
    [this.left, this.top] = [left, top];
    this.width = points.length === 0 ? 0 : right - left + 1;
    this.height = points.length === 0 ? 0 : bottom - top + 1;
    this.places = new Uint8Array(this.width * this.height);
    for (const { x, y } of points)
      for (let row = y - 1; row <= y + 1; row++) {
        const at = (row - top) * this.width + x - left;
        this.places.fill(1, at - 1, at + 2);
      }
  }

  has(x: number, y: number): boolean {
    const [column, row] = [x - this.left, y - this.top];
    if (column < 0 || row < 0 || column >= this.width || row >= this.height) return false;
    return this.places[row * this.width + column] === 1;
  }
}

/** The drawn pixels of parts, found once. */
class Inks {
  private readonly known = new Map<string, Map<Cell, readonly Point[]>>();

  constructor(private readonly pictureOf: PictureOf) {}

  /** Those of a cell, in pixels from its pivot. */
  of({ image }: Part, cell: Cell): readonly Point[] {
    let cells = this.known.get(image);
    if (cells === undefined) this.known.set(image, (cells = new Map<Cell, readonly Point[]>()));
    let points = cells.get(cell);
    if (points === undefined) cells.set(cell, (points = this.find(this.pictureOf(image), cell)));
    return points;
  }

  private find(picture: Picture, cell: Cell): Point[] {
    const { x, y, width, height } = cell;
    const [left, top] = [leftOf(cell), topOf(cell)];
    const found: Point[] = [];
    for (let row = 0; row < height; row++)
      for (let column = 0; column < width; column++)
        if (colourAt(picture, x + column, y + row) !== 0) found.push({ x: column + left, y: row + top });
    return found;
  }
}
