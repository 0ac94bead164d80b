import type { Picture } from '../pixels/picture.js';
import type { Box } from '../sheet/sheet.js';

/**
 * Finds where to split a rectangle in two: the line with the least ink in its middle half. If several have as little, it takes the one
 * nearest to the middle.
 *
 * @param along `x` for two parts side by side, `y` for one above the other
 * @returns the first column or row of the second part, in pixels of the picture
 */
export function quietLine({ width: stride, pixels }: Picture, box: Box, along: 'x' | 'y'): number {
  const [from, length, across, thickness] =
    along === 'x' ? [box.x, box.width, box.y, box.height] : [box.y, box.height, box.x, box.width];
  const inkAt = (line: number): number => {
    let ink = 0;
    for (let i = across; i < across + thickness; i++) {
      const at = along === 'x' ? i * stride + line : line * stride + i;
      if (pixels[at * 4 + 3] !== 0) ink++;
    }
    return ink;
  };
  const middle = from + length / 2;
  let best = Math.floor(middle);
  let least = inkAt(best);
  for (let line = from + Math.max(1, length >> 2); line < from + length - (length >> 2); line++) {
    const ink = inkAt(line);
    if (ink < least || (ink === least && Math.abs(line - middle) < Math.abs(best - middle)))
      [best, least] = [line, ink];
  }
  return best;
}
