import type { Cell, Sheet } from 'dot-hop';
import type { Drawn } from '../../character/pictures.js';

/** A cell as it lies in the room, in pixels. */
export interface LaidCell {
  readonly cell: Cell;
  readonly x: number;
  readonly y: number;
}

/** A sheet as it is looked at: its one image, or its separate images side by side. */
export interface Layout {
  readonly width: number;
  readonly height: number;
  readonly pictures: readonly { readonly bitmap: ImageBitmap; readonly x: number; readonly y: number }[];
  readonly cells: readonly LaidCell[];
  /** Images that the sheet names and that are not there. */
  readonly missing: readonly string[];
}

/** Space between separate images. */
const gap = 4;

/** How many separate images lie in a row. */
const across = 8;

/** Lays a sheet out; composed cells have no place of their own on it. */
export function layoutOf(
  sheet: Sheet | undefined,
  image: string | undefined,
  drawn: ReadonlyMap<string, Drawn>,
): Layout {
  if (image !== undefined) {
    const bitmap = drawn.get(image)?.bitmap;
    return {
      width: bitmap?.width ?? 0,
      height: bitmap?.height ?? 0,
      pictures: bitmap === undefined ? [] : [{ bitmap, x: 0, y: 0 }],
      cells: (sheet?.cells ?? [])
        .filter(({ pieces }) => pieces === undefined)
        .map((cell) => ({ cell, x: cell.x, y: cell.y })),
      missing: bitmap === undefined ? [image] : [],
    };
  }
  const pictures: Layout['pictures'][number][] = [];
  const cells: LaidCell[] = [];
  const missing: string[] = [];
  let [x, y, rowHeight, width] = [0, 0, 0, 1];
  for (const [i, cell] of (sheet?.cells ?? []).entries()) {
    if (i > 0 && i % across === 0) [x, y, rowHeight] = [0, y + rowHeight + gap, 0];
    const bitmap = drawn.get(cell.image)?.bitmap;
    if (bitmap === undefined) missing.push(cell.image);
    else pictures.push({ bitmap, x, y });
    cells.push({ cell, x, y });
    x += cell.width + gap;
    width = Math.max(width, x - gap);
    rowHeight = Math.max(rowHeight, cell.height);
  }
  return { width, height: y + Math.max(1, rowHeight), pictures, cells, missing };
}
