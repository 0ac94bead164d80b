import { stampsOf } from 'dot-hop';
import type { ImageSize, Pose } from 'dot-hop';

/** A canvas whose pixels are shown several times as large, sharp on any display. */
export interface CrispCanvas {
  readonly context: CanvasRenderingContext2D;
  /** Device pixels for each of its own pixels: a whole number, or less than 1 if the picture has more pixels than the room. */
  readonly scale: number;
}

/**
 * Sizes a canvas for a picture of few pixels. Each of its pixels shows as a square of whole device pixels, as large as fits. The browser
 * enlarges the picture, which is much cheaper than drawing it large.
 *
 * @param width the picture's width in its own pixels
 * @param room the width that it may take on the page, in CSS pixels; or width and height
 */
export function crispCanvas(
  canvas: HTMLCanvasElement,
  width: number,
  height: number,
  room: number | ImageSize,
): CrispCanvas {
  const ratio = window.devicePixelRatio;
  const most = typeof room === 'number' ? { width: room, height: Infinity } : room;
  const fits = Math.min((most.width * ratio) / width, (most.height * ratio) / height);
  const scale = fits < 1 ? fits : Math.floor(fits);
  canvas.width = width;
  canvas.height = height;
  canvas.style.width = `${(width * scale) / ratio}px`;
  canvas.style.height = `${(height * scale) / ratio}px`;
  canvas.style.imageRendering = 'pixelated';
  const context = canvas.getContext('2d')!;
  context.imageSmoothingEnabled = false;
  return { context, scale };
}

/**
 * Draws a pose with its pivot at a place. The place is rounded to whole pixels of the context, so that the drawing never blurs.
 *
 * @param images the images by file
 */
export function drawPose(
  context: CanvasRenderingContext2D,
  images: Readonly<Record<string, CanvasImageSource>>,
  pose: Pose,
  x: number,
  y: number,
): void {
  if (pose.layers.length > 1) {
    const { canvas, left, top } = flatOf(images, pose);
    context.drawImage(canvas, Math.round(x) + left, Math.round(y) + top);
    return;
  }
  drawStamps(context, images, pose, x, y);
}

/** A dressed pose in one picture, and where that lies from the pivot. */
interface Flat {
  readonly canvas: HTMLCanvasElement;
  readonly left: number;
  readonly top: number;
}

/** How many dressed poses are kept as one picture each. At the size of the people of the demo, these are about 30 MB. */
const mostFlats = 4096;
const flats = new Map<Pose, Flat>();

/** A dressed pose is put together once and then drawn as one picture. So a dressed crowd costs no more than a bare one. */
function flatOf(images: Readonly<Record<string, CanvasImageSource>>, pose: Pose): Flat {
  const known = flats.get(pose);
  if (known !== undefined) return known;
  const stamps = stampsOf(pose);
  const left = Math.min(...stamps.map((one) => one.x));
  const top = Math.min(...stamps.map((one) => one.y));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(...stamps.map((one) => one.x + one.cell.width)) - left;
  canvas.height = Math.max(...stamps.map((one) => one.y + one.cell.height)) - top;
  drawStamps(canvas.getContext('2d')!, images, pose, -left, -top);
  const made = { canvas, left, top };
  flats.set(pose, made);
  // The oldest goes first; who still needs it has it made again.
  if (flats.size > mostFlats) flats.delete(flats.keys().next().value!);
  return made;
}

function drawStamps(
  context: CanvasRenderingContext2D,
  images: Readonly<Record<string, CanvasImageSource>>,
  pose: Pose,
  x: number,
  y: number,
): void {
  for (const { cell, image, x: left, y: top, flipX, flipY } of stampsOf(pose)) {
    const { width, height } = cell;
    const [atX, atY] = [Math.round(x + left), Math.round(y + top)];
    // Turned around is the exception, and saving and restoring costs more than the drawing.
    if (!flipX && !flipY) {
      context.drawImage(images[image]!, cell.x, cell.y, width, height, atX, atY, width, height);
      continue;
    }
    context.save();
    context.translate(atX + (flipX ? width : 0), atY + (flipY ? height : 0));
    context.scale(flipX ? -1 : 1, flipY ? -1 : 1);
    context.drawImage(images[image]!, cell.x, cell.y, width, height, 0, 0, width, height);
    context.restore();
  }
}

/** The colours of marks. */
export interface MarkColours {
  readonly box: string;
  readonly point: string;
  readonly pivot: string;
}

/**
 * Draws the marks of a pose over it: boxes as frames, points and the pivot as crosses. Use it to look at a game while you make it.
 */
export function drawMarks(
  context: CanvasRenderingContext2D,
  { boxes, points }: Pose,
  x: number,
  y: number,
  colours: MarkColours = { box: '#7fc8a0', point: '#ffc95c', pivot: '#ff7f8a' },
): void {
  const [left, top] = [Math.round(x), Math.round(y)];
  context.save();
  context.fillStyle = colours.box;
  for (const box of Object.values(boxes)) {
    context.fillRect(left + box.x, top + box.y, box.width, 1);
    context.fillRect(left + box.x, top + box.y + box.height - 1, box.width, 1);
    context.fillRect(left + box.x, top + box.y, 1, box.height);
    context.fillRect(left + box.x + box.width - 1, top + box.y, 1, box.height);
  }
  const cross = (colour: string, atX: number, atY: number): void => {
    context.fillStyle = colour;
    context.fillRect(atX - 2, atY, 5, 1);
    context.fillRect(atX, atY - 2, 1, 5);
  };
  for (const point of Object.values(points)) cross(colours.point, left + point.x, top + point.y);
  cross(colours.pivot, left, top);
  context.restore();
}
