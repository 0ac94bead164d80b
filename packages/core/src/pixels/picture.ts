import type { Box } from '../sheet/sheet.js';

/** A picture as rows of red, green, blue and alpha, a byte each. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly pixels: Uint8Array;
}

/** The ink of a rectangle: the smallest box around everything drawn, in pixels from the rectangle's corner. */
export interface Ink extends Box {
  /** The column that has as much ink on its left as on its right. A thin staff held out hardly moves it. */
  readonly centreX: number;
  readonly count: number;
  /** A hash of the pixels. Rectangles that look the same have the same hash, whatever lies under transparent pixels. */
  readonly hash: number;
}

/** Finds the ink of a rectangle: its pixels that are not completely transparent. `undefined` if there are none. */
export function inkOf({ width: stride, pixels }: Picture, { x, y, width, height }: Box): Ink | undefined {
  let [left, right, top, bottom] = [width, -1, height, -1];
  const columns = new Uint32Array(width);
  let count = 0;
  // FNV-1a over the drawn pixels and their places (Fowler, Noll, Vo).
  let hash = 0x811c9dc5;
  for (let row = 0; row < height; row++) {
    let at = ((y + row) * stride + x) * 4;
    for (let column = 0; column < width; column++, at += 4) {
      const alpha = pixels[at + 3]!;
      if (alpha === 0) continue;
      if (column < left) left = column;
      if (column > right) right = column;
      if (row < top) top = row;
      bottom = row;
      columns[column]!++;
      count++;
      const colour = (pixels[at]! << 16) | (pixels[at + 1]! << 8) | pixels[at + 2]!;
      hash = Math.imul(hash ^ colour, 0x01000193);
      hash = Math.imul(hash ^ (alpha + row * 4096 + column), 0x01000193);
    }
  }
  if (count === 0) return undefined;
  let centreX = left;
  for (let gone = columns[left]!; gone * 2 < count; gone += columns[centreX]!) centreX++;
  return {
    x: left,
    y: top,
    width: right - left + 1,
    height: bottom - top + 1,
    centreX: centreX + 0.5,
    count,
    hash,
  };
}
