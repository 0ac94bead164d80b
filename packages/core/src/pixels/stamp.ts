import { stampsOf } from '../sheet/pose.js';
import type { Pose } from '../sheet/pose.js';
import type { Picture } from './picture.js';

/**
 * Draws a pose on a picture, pixel by pixel, with its pivot at a place. It leaves out whatever lies outside the picture.
 *
 * @param images the images of the pose, by file
 */
export function stampPose(
  onto: Picture,
  images: ReadonlyMap<string, Picture>,
  pose: Pose,
  x: number,
  y: number,
): void {
  for (const { image: file, cell, x: left, y: top, flipX, flipY } of stampsOf(pose)) {
    const image = images.get(file)!;
    const [atX, atY] = [Math.round(x + left), Math.round(y + top)];
    for (let row = Math.max(0, -atY); row < Math.min(cell.height, onto.height - atY); row++)
      for (let column = Math.max(0, -atX); column < Math.min(cell.width, onto.width - atX); column++) {
        const fromX = cell.x + (flipX ? cell.width - 1 - column : column);
        const fromY = cell.y + (flipY ? cell.height - 1 - row : row);
        blend(onto, ((atY + row) * onto.width + atX + column) * 4, image, (fromY * image.width + fromX) * 4);
      }
  }
}

/** Lays a pixel over another one. (Porter and Duff, Compositing Digital Images, 1984: over, not premultiplied) */
function blend({ pixels: onto }: Picture, at: number, { pixels }: Picture, from: number): void {
  const alpha = pixels[from + 3]! / 255;
  if (alpha === 0) return;
  const under = (onto[at + 3]! / 255) * (1 - alpha);
  const whole = alpha + under;
  for (let c = 0; c < 3; c++) onto[at + c] = (pixels[from + c]! * alpha + onto[at + c]! * under) / whole;
  onto[at + 3] = whole * 255;
}
