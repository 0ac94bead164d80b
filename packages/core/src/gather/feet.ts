import type { Picture } from '../pixels/picture.js';
import type { Box, Cell } from '../sheet/sheet.js';

/**
 * Finds where a drawing stands: the middle of the ink on its lowest line, at the lower edge of that line.
 *
 * @returns `[x, y]` in whole pixels from the upper left of the rectangle; `undefined` if it has no ink
 */
export function feetOf(
  { width: stride, pixels }: Picture,
  { x, y, width, height }: Box,
): [number, number] | undefined {
  for (let row = height - 1; row >= 0; row--) {
    let [left, right] = [-1, -1];
    for (let column = 0; column < width; column++) {
      if (pixels[((y + row) * stride + x + column) * 4 + 3] === 0) continue;
      if (left < 0) left = column;
      right = column;
    }
    if (left >= 0) return [Math.floor((left + right + 1) / 2), row + 1];
  }
  return undefined;
}

/**
 * Finds the pivots on which cells stand on their feet, by the number of the cell, in pixels of their untrimmed frames. It leaves out cells
 * without ink and composed cells.
 *
 * @param pictureOf gives the picture of an image file
 */
export function feetOfCells(
  cells: readonly Cell[],
  pictureOf: (image: string) => Picture | undefined,
): Record<number, [number, number]> {
  const found: Record<number, [number, number]> = {};
  for (const cell of cells) {
    const picture = pictureOf(cell.image);
    const feet = picture === undefined || cell.pieces !== undefined ? undefined : feetOf(picture, cell);
    if (feet !== undefined) found[cell.index] = [feet[0] + cell.offsetX, feet[1] + cell.offsetY];
  }
  return found;
}

/**
 * One pivot for drawings that were drawn in frames of the same size: the foot line that most of them have, and the middle of their feet.
 * With a pivot for each drawing, a walk would sway towards the foot that is down.
 *
 * @param feet as {@link feetOfCells} finds them
 */
export function commonFeet(
  feet: Readonly<Record<number, readonly [number, number]>>,
): [number, number] | undefined {
  const all = Object.values(feet);
  if (all.length === 0) return undefined;
  const counts = new Map<number, number>();
  for (const [, y] of all) counts.set(y, (counts.get(y) ?? 0) + 1);
  const [line] = [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0]!;
  const middles = all.map(([x]) => x).sort((a, b) => a - b);
  return [middles[middles.length >> 1]!, line];
}
