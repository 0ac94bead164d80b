import type { Box } from '../sheet/sheet.js';
import type { Picture } from './picture.js';

/** Replaces colours by others, exactly. Other colours and transparency stay as they are. */
export function recolour({ width, height, pixels }: Picture, colours: ReadonlyMap<number, number>): Picture {
  const made = new Uint8Array(pixels);
  for (let at = 0; at < made.length; at += 4) {
    if (made[at + 3] === 0) continue;
    const to = colours.get((made[at]! << 16) | (made[at + 1]! << 8) | made[at + 2]!);
    if (to === undefined) continue;
    made[at] = to >> 16;
    made[at + 1] = (to >> 8) & 255;
    made[at + 2] = to & 255;
  }
  return { width, height, pixels: made };
}

/**
 * Counts the colours of all pixels that are not completely transparent.
 *
 * @param of the rectangle to count in; default: the whole picture
 */
export function coloursOf(
  { width: stride, height: rows, pixels }: Picture,
  { x, y, width, height }: Box = { x: 0, y: 0, width: stride, height: rows },
): Map<number, number> {
  const found = new Map<number, number>();
  for (let row = y; row < y + height; row++)
    for (let at = (row * stride + x) * 4, end = at + width * 4; at < end; at += 4) {
      if (pixels[at + 3] === 0) continue;
      const colour = (pixels[at]! << 16) | (pixels[at + 1]! << 8) | pixels[at + 2]!;
      found.set(colour, (found.get(colour) ?? 0) + 1);
    }
  return found;
}
