import type { Pose } from 'dot-hop';

/** A canvas whose pixels are drawn several times as large, sharp on any display. */
export interface CrispCanvas {
  readonly context: CanvasRenderingContext2D;
  /** Device pixels for each of its own. */
  readonly scale: number;
}

/**
 * Sizes a canvas for a picture of few pixels: each is shown as a square of whole device pixels, as large as fits.
 *
 * @param width the picture's width in its own pixels
 * @param room the width it may take on the page, in CSS pixels
 */
export function crispCanvas(
  canvas: HTMLCanvasElement,
  width: number,
  height: number,
  room: number,
): CrispCanvas {
  const ratio = window.devicePixelRatio;
  const scale = Math.max(1, Math.floor((room * ratio) / width));
  canvas.width = width * scale;
  canvas.height = height * scale;
  canvas.style.width = `${(width * scale) / ratio}px`;
  canvas.style.height = `${(height * scale) / ratio}px`;
  const context = canvas.getContext('2d')!;
  context.imageSmoothingEnabled = false;
  context.setTransform(scale, 0, 0, scale, 0, 0);
  return { context, scale };
}

/**
 * Draws a pose with its pivot at a place. The place is rounded to whole pixels of the context, so that a drawing
 * never blurs between two.
 */
export function drawPose(
  context: CanvasRenderingContext2D,
  images: Readonly<Record<string, CanvasImageSource>>,
  { cell, mirrored }: Pose,
  x: number,
  y: number,
): void {
  const image = images[cell.sheet]!;
  const { x: sx, y: sy, width, height } = cell;
  context.save();
  context.translate(Math.round(x), Math.round(y));
  if (mirrored) context.scale(-1, 1);
  context.drawImage(image, sx, sy, width, height, -cell.pivotX, -cell.pivotY, width, height);
  context.restore();
}
