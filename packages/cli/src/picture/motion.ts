import type { Clip, Pose } from 'dot-hop';
import sharp from 'sharp';
import type { Image } from '../images.js';
import { Canvas } from './canvas.js';
import { theme } from './theme.js';

/** What stands behind the drawings. */
export type Background = 'plain' | 'checker' | 'none';

/** Frames drawn alike: the poses and how long each shows, in milliseconds. */
export interface Motion {
  readonly name: string;
  readonly poses: readonly Pose[];
  readonly durations: readonly number[];
  readonly loops: boolean;
}

/** The exact durations of a clip's frames, in milliseconds. */
export function durationsOf(clip: Clip): number[] {
  return clip.ends.map((end, frame) => (end - (clip.ends[frame - 1] ?? 0)) / 1000);
}

/** The smallest picture that holds every pose, pivots together: the distances from the pivot to its four edges. */
export function reachOf(poses: readonly Pose[]): {
  left: number;
  right: number;
  top: number;
  bottom: number;
} {
  const reach = { left: 0, right: 0, top: 0, bottom: 0 };
  for (const { cell, mirrored } of poses) {
    const [before, behind] = [cell.pivotX, cell.width - cell.pivotX];
    reach.left = Math.max(reach.left, mirrored ? behind : before);
    reach.right = Math.max(reach.right, mirrored ? before : behind);
    reach.top = Math.max(reach.top, cell.pivotY);
    reach.bottom = Math.max(reach.bottom, cell.height - cell.pivotY);
  }
  return reach;
}

/** Draws a pose with its pivot at a place. */
export function drawPose(
  canvas: Canvas,
  images: ReadonlyMap<string, Image>,
  { cell, mirrored }: Pose,
  x: number,
  y: number,
  scale: number,
): void {
  const left = mirrored ? cell.width - cell.pivotX : cell.pivotX;
  canvas.cell(
    images.get(cell.sheet)!,
    cell,
    Math.round(x - left * scale),
    Math.round(y - cell.pivotY * scale),
    scale,
    mirrored,
  );
}

/** Fills a rectangle with the background asked for. */
export function drawBackground(
  canvas: Canvas,
  background: Background,
  x: number,
  y: number,
  width: number,
  height: number,
  scale: number,
): void {
  if (background === 'plain') canvas.fill(x, y, width, height, theme.stage);
  if (background === 'checker')
    canvas.check(x, y, width, height, scale * 4, theme.checkDark, theme.checkLight);
}

/** Each frame of a motion as pixels of one size. */
export function drawFrames(
  motion: Motion,
  images: ReadonlyMap<string, Image>,
  scale: number,
  background: Background,
): { frames: Uint8Array[]; width: number; height: number } {
  const reach = reachOf(motion.poses);
  const width = Math.ceil(reach.left + reach.right) * scale;
  const height = Math.ceil(reach.top + reach.bottom) * scale;
  const frames = motion.poses.map((pose) => {
    const canvas = new Canvas(width, height);
    drawBackground(canvas, background, 0, 0, width, height, scale);
    drawPose(canvas, images, pose, reach.left * scale, reach.top * scale, scale);
    return canvas.pixels;
  });
  return { frames, width, height };
}

/** WebP holds whole milliseconds and at least 11 of them: shorter delays are shown as 100 by most programs. */
export function webpDelay(duration: number): number {
  return Math.max(11, Math.round(duration));
}

/** An animated, lossless WebP. Neighbours that look the same are merged into one frame that lasts as long as both. */
export async function animatedWebp(
  { frames, width, height }: { frames: readonly Uint8Array[]; width: number; height: number },
  durations: readonly number[],
  loops: boolean,
): Promise<Buffer> {
  const merged: { pixels: Uint8Array; duration: number }[] = [];
  frames.forEach((pixels, i) => {
    const last = merged[merged.length - 1];
    if (last !== undefined && Buffer.compare(last.pixels, pixels) === 0) last.duration += durations[i]!;
    else merged.push({ pixels, duration: durations[i]! });
  });
  const stack = Buffer.concat(merged.map(({ pixels }) => pixels));
  return sharp(stack, { raw: { width, height: height * merged.length, channels: 4, pageHeight: height } })
    .webp({ lossless: true, loop: loops ? 0 : 1, delay: merged.map(({ duration }) => webpDelay(duration)) })
    .toBuffer();
}
