import type { ClipDefinition } from '../clip/definition.js';
import { inkOf } from '../pixels/picture.js';
import type { Picture } from '../pixels/picture.js';
import type { GridDefinition } from '../sheet/definition.js';
import type { ImageSize } from '../sheet/sheet.js';
import { plainClip } from './sequence.js';

/** A grid laid over an image. */
export interface GridFit {
  readonly columns: number;
  readonly rows: number;
  /** Pixels beyond the last whole cell. */
  readonly right: number;
  readonly below: number;
}

const gapsOf = ({ gap = 0 }: GridDefinition): readonly [number, number] =>
  typeof gap === 'number' ? [gap, gap] : gap;

/** Counts the cells of a grid that fit an image, and the pixels that are left over at its right and lower edge. */
export function gridFit(image: ImageSize, grid: GridDefinition): GridFit {
  const { cell, margin = 0, offset = [0, 0] } = grid;
  const gaps = gapsOf(grid);
  const [across, down] = [image.width, image.height].map((length, i) => {
    const room = length - 2 * margin - offset[i]! + gaps[i]!;
    const step = cell[i]! + gaps[i]!;
    return { count: Math.max(0, Math.floor(room / step)), left: Math.max(0, room) % step };
  }) as [{ count: number; left: number }, { count: number; left: number }];
  return {
    columns: grid.columns ?? across.count,
    rows: grid.rows ?? down.count,
    right: grid.columns === undefined ? across.left : 0,
    below: grid.rows === undefined ? down.left : 0,
  };
}

/** The cells of each row of a grid, by the row's number. It leaves out the empty cells at the end of a row, and rows without a drawing. */
export function drawnRows(picture: Picture, grid: GridDefinition): ReadonlyMap<number, readonly number[]> {
  const { columns, rows } = gridFit(picture, grid);
  const { cell, margin = 0, offset = [0, 0] } = grid;
  const gaps = gapsOf(grid);
  const [width, height] = cell;
  const isDrawn = (column: number, row: number): boolean => {
    const x = margin + offset[0] + column * (width + gaps[0]);
    const y = margin + offset[1] + row * (height + gaps[1]);
    return inkOf(picture, { x, y, width, height }) !== undefined;
  };
  const found = new Map<number, number[]>();
  for (let row = 0; row < rows; row++) {
    let last = columns - 1;
    while (last >= 0 && !isDrawn(last, row)) last--;
    const cells = Array.from({ length: last + 1 }, (_, column) => row * columns + column);
    if (last >= 0) found.set(row, cells);
  }
  return found;
}

/** A clip for each row of a grid. */
export const clipsOfRows = (picture: Picture, grid: GridDefinition): Record<string, ClipDefinition> =>
  Object.fromEntries([...drawnRows(picture, grid)].map(([row, cells]) => [`row${row}`, plainClip(cells)]));
