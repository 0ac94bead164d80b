import { drawPose } from '@dot-hop/browser';
import type { Images } from '@dot-hop/browser';
import type { Overlay } from '@dot-hop/browser/overlay';
import { inPlainMemory } from '../../parts/canvas.js';
import { drawDusk, drawQuay } from '../../stage/quay.js';
import { drawGround, withStroke } from './ground.js';
import type { GroundKind, Stroke } from './ground.js';
import type { Trial } from './trial.js';

/* The stage of Try, in its own pixels. */

export const [width, height] = [300, 144];
/** Where the character stands on level ground. */
const floor = 120;
/** The view follows when the character is so far above, or below, where it stands on level ground, in pixels. */
const [above, below] = [60, 8];
/** What is drawn by hand lies on whole numbers of so many pixels. */
const grain = 4;

/** The place of the world under a place of the stage, heights upwards, on whole numbers of the grain. */
export function placeAt(trial: Trial, across: number, down: number): readonly [number, number] {
  const { x, y } = viewOf(trial, trial.performer.time);
  const [along, deep] = [across - width / 2 + x, down - floor + y];
  return [Math.round(along / grain) * grain, 0 - Math.round(deep / grain) * grain];
}

/** Where the middle of the view lies: on the character, and up or down with it when it would leave the picture. */
function viewOf(trial: Trial, at: number): { readonly x: number; readonly y: number } {
  const { x, y } = trial.placeAt(at);
  if (trial.setup.kind !== 'platformer') return { x, y: 0 };
  return { x: Math.round(x), y: Math.round(Math.min(y + above, Math.max(0, y - below))) };
}

/** What is drawn: the instant that is looked at, where it was then, and what is being drawn under it. */
export function draw(
  canvas: HTMLCanvasElement | null,
  trial: Trial,
  overlay: Overlay | undefined,
  images: Images,
  stroke: Stroke | undefined,
): void {
  const context = canvas?.getContext('2d', inPlainMemory);
  if (!context) return;
  const now = trial.performer.time;
  const at = overlay?.instant ?? now;
  const { kind, ground } = trial.setup;
  const { x, y } = trial.placeAt(at);
  const view = viewOf(trial, at);
  const isAbove = kind === 'walker';
  if (kind === 'platformer') {
    const seen = stroke === undefined ? ground : withStroke(ground, stroke);
    const down = (world: number): number => Math.round(floor + world - view.y);
    context.fillStyle = '#1a1730';
    context.fillRect(0, floor, width, height - floor);
    drawDusk(context, width, floor, x);
    drawGround(context, seen, (world) => Math.round(width / 2 + world - view.x), down);
  } else drawQuay(context, width, height, floor, x, isAbove ? y : 0);
  const then = overlay !== undefined && at < now ? overlay.recording.at(at) : trial.performer;
  const { pose } = then;
  if (pose.layers.every(({ cell }) => cell.image in images))
    drawPose(context, images, pose, width / 2, floor + (isAbove ? 0 : y - view.y));
}

/** A piece that is drawn from one place to another; it lies as high as it ends, and a slope begins where it began. */
export function strokeBetween(
  kind: GroundKind,
  [x1, y1]: readonly [number, number],
  [x2, y2]: readonly [number, number],
): Stroke {
  const [from, to] = [Math.min(x1, x2), Math.max(x1, x2)];
  const [height, end] = x1 <= x2 ? [y1, y2] : [y2, y1];
  return kind === 'slope' ? { kind, from, to, height, end } : { kind, from, to, height: y2, end: y2 };
}
