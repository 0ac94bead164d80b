import type { Clip, Pose } from 'dot-hop';
import { showingAt } from 'dot-hop/explain';
import type { Image } from '../images.js';
import { Misuse } from '../misuse.js';
import { Canvas, mostPixels } from './canvas.js';
import { svgText } from './letters.js';
import { drawMarks } from './marks.js';
import { theme } from './theme.js';

/** What stands behind the drawings. */
export type Background = 'plain' | 'checker' | 'none';

/** How a clip is shown. */
export interface Look {
  readonly scale: number;
  readonly background: Background;
  /** Shows the neighbouring frames faintly. */
  readonly ghosts: boolean;
  /** Draws the ground line and, for a clip with a stride, lets the ground pass under it. */
  readonly ground: boolean;
  /** Draws pivots, boxes and points, and names the cues of the frame. */
  readonly marks: boolean;
}

/** A clip with the pose of each showing. */
export interface Showing {
  readonly clip: Clip;
  readonly poses: readonly Pose[];
  /** Where several tracks show together: what the body shows of it, its clip and the frame for each pose. */
  readonly under?: { readonly clip: Clip; readonly frames: readonly number[] };
}

/** Moving pictures of one size, each with the milliseconds that it lasts. */
export interface Film {
  readonly width: number;
  readonly height: number;
  readonly frames: readonly Uint8Array[];
  readonly durations: readonly number[];
  readonly loops: boolean;
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
    const [before, behind] = [cell.pivotX, cell.frameWidth - cell.pivotX];
    reach.left = Math.max(reach.left, Math.ceil(mirrored ? behind : before));
    reach.right = Math.max(reach.right, Math.ceil(mirrored ? before : behind));
    reach.top = Math.max(reach.top, Math.ceil(cell.pivotY));
    reach.bottom = Math.max(reach.bottom, Math.ceil(cell.frameHeight - cell.pivotY));
  }
  return reach;
}

/** Fills a rectangle with the background asked for. */
export function drawBackground(
  canvas: Canvas,
  background: Background,
  box: { x: number; y: number; width: number; height: number },
  scale: number,
): void {
  const { x, y, width, height } = box;
  if (background === 'plain') canvas.fill(x, y, width, height, theme.stage);
  if (background === 'checker')
    canvas.check(x, y, width, height, scale * 4, theme.checkDark, theme.checkLight);
}

/** The most pictures of a film, so that odd rates side by side cannot make one without end. */
const mostPictures = 600;
/** The ground moves on at least so often, in milliseconds. */
const groundEvery = 40;

/** Where the ground is drawn: a line with marks every so many pixels. */
const groundMarks = 16;

/**
 * A film of a clip, at one rate or at several side by side, over one pass of the slowest.
 *
 * @param rates how many times as fast each is shown
 */
export async function filmOf(
  { clip, poses }: Showing,
  images: ReadonlyMap<string, Image>,
  look: Look,
  rates: readonly number[],
): Promise<Film> {
  const { scale } = look;
  const reach = reachOf(poses);
  const gap = 2;
  const one = {
    width: (reach.left + reach.right) * scale,
    height: (reach.top + reach.bottom + (look.ground ? gap : 0)) * scale,
  };
  const length = clip.ends[clip.ends.length - 1]! / 1000;
  const whole = length / Math.min(...rates);
  const times = borders(clip, rates, whole, look.ground && clip.stride !== undefined);
  if (one.width * one.height * rates.length * times.length > mostPixels)
    throw new Misuse(
      `${times.length} pictures at ${scale} times their size are too large; choose a smaller --scale`,
    );
  const drawn = times.map((time) => {
    const canvas = new Canvas(one.width * rates.length + (rates.length - 1) * gap * scale, one.height);
    rates.forEach((rate, i) => {
      const x = i * (one.width + gap * scale);
      drawBackground(canvas, look.background, { x, y: 0, ...one }, scale);
      const at = showingAt(clip, time * rate);
      const place = { x: x + reach.left * scale, y: reach.top * scale };
      if (look.ghosts)
        for (const other of [at - 1, at + 1])
          canvas.pose(images, poses[(other + poses.length) % poses.length]!, place.x, place.y, scale, 0.25);
      if (look.ground)
        drawGround(canvas, x, place.y, one.width, scale, clip, time * rate, poses[at]!.mirrored);
      canvas.pose(images, poses[at]!, place.x, place.y, scale);
      if (!look.marks) return;
      drawMarks(canvas, poses[at]!, place.x, place.y, scale);
      const cues = clip.cues[at]!.join(', ');
      if (cues !== '') canvas.draw(svgText(cues, x + 4, 14, { size: 12, bold: true, colour: theme.lamp }));
    });
    return canvas;
  });
  const frames: Uint8Array[] = [];
  for (const canvas of drawn) frames.push((await canvas.image()).pixels);
  const durations = times.map((time, i) => (times[i + 1] ?? whole) - time);
  return {
    width: one.width * rates.length + (rates.length - 1) * gap * scale,
    height: one.height,
    frames,
    durations,
    loops: clip.loopFrom >= 0,
  };
}

/** Every instant at which any of the pictures changes, from 0. */
function borders(clip: Clip, rates: readonly number[], whole: number, moving: boolean): number[] {
  const times = new Set<number>([0]);
  const length = clip.ends[clip.ends.length - 1]! / 1000;
  for (const rate of rates) {
    const passes = clip.loopFrom >= 0 ? Math.ceil((whole * rate) / length) : 1;
    for (let pass = 0; pass < passes && times.size < mostPictures; pass++)
      for (const end of clip.ends) times.add((pass * length + end / 1000) / rate);
  }
  if (moving)
    for (let time = 0; time < whole && times.size < mostPictures; time += groundEvery) times.add(time);
  const sorted = [...times].filter((time) => time < whole - 0.01).sort((a, b) => a - b);
  // Borders of different rates that fall together but for rounding are one.
  return sorted.filter((time, i) => i === 0 || time - sorted[i - 1]! > 0.5);
}

function drawGround(
  canvas: Canvas,
  x: number,
  y: number,
  width: number,
  scale: number,
  clip: Clip,
  time: number,
  mirrored: boolean,
): void {
  canvas.fill(x, y, width, Math.max(1, Math.floor(scale / 2)), theme.lamp);
  if (clip.stride === undefined) return;
  const length = clip.ends[clip.ends.length - 1]! / 1000;
  const gone = ((time / length) * clip.stride) % groundMarks;
  const shift = mirrored ? gone : groundMarks - gone;
  for (let mark = shift - groundMarks; mark * scale < width; mark += groundMarks) {
    const left = Math.round(x + mark * scale);
    if (left >= x) canvas.fill(left, y, Math.min(3 * scale, x + width - left), 2 * scale, theme.lamp);
  }
}
