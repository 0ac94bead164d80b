import { durationsOf } from 'dot-hop/explain';
import type { Image } from '../images.js';
import { Canvas, svgBox, svgLine } from './canvas.js';
import { drawMarks } from './marks.js';
import { fitText, svgText } from './letters.js';
import { drawBackground, reachOf } from './motion.js';
import type { Look, Showing } from './motion.js';
import { markColour, theme } from './theme.js';

const margin = 24;
const heading = 60;
const foot = 40;
const gap = 10;
const spanHeight = 22;

/** What a clip does after its last frame, in words. */
export function loopWords({ loopFrom, order, frames }: Showing['clip']): string {
  if (loopFrom > 0) return `then loops from frame ${loopFrom}`;
  if (loopFrom === 0) return order.length > frames.length ? 'back and forth' : 'loops forever';
  const times = order.length / frames.length;
  return times > 1 ? `plays ${times} times` : 'plays once';
}

/** The frames of a clip side by side on their ground line, with numbers, durations, cues and spans. */
export function strip(
  name: string,
  { clip, poses: showings }: Showing,
  images: ReadonlyMap<string, Image>,
  look: Look,
  rate: number,
): Promise<Buffer> {
  const { scale } = look;
  // The first showing of each frame stands for it; the way back and repeats look the same.
  const poses = showings.slice(0, clip.frames.length);
  const durations = durationsOf(clip).map((duration) => duration / rate);
  const reach = reachOf(poses);
  const cell = { width: (reach.left + reach.right) * scale, height: (reach.top + reach.bottom) * scale };
  const spans = [...clip.spans];
  const width = Math.max(margin * 2 + poses.length * (cell.width + gap) - gap, 420);
  const canvas = new Canvas(width, heading + cell.height + foot + spans.length * spanHeight + margin);
  canvas.fill(0, 0, canvas.width, canvas.height, theme.ground);
  const total = durations.reduce((sum, duration) => sum + duration, 0);
  const facts = `${poses.length} frames, ${trimmed(total)} ms, ${loopWords(clip)}`;
  canvas.draw(
    svgText(name, margin, 36, { size: 18, bold: true, colour: theme.text }),
    svgText(facts, width - margin, 36, { colour: theme.dim, align: 'right' }),
  );
  const left = (frame: number): number => margin + frame * (cell.width + gap);
  poses.forEach((pose, frame) => {
    const x = left(frame);
    const ground = heading + reach.top * scale;
    const pivot = x + reach.left * scale;
    drawBackground(canvas, look.background, { x, y: heading, ...cell }, scale);
    if (look.ghosts)
      for (const other of [poses[frame - 1], poses[frame + 1]])
        if (other !== undefined) canvas.pose(images, other, pivot, ground, scale, 0.25);
    canvas.pose(images, pose, pivot, ground, scale);
    if (look.marks) drawMarks(canvas, pose, pivot, ground, scale);
    canvas.draw(svgLine(x, ground + 0.5, x + cell.width, ground + 0.5, theme.lamp, 'stroke-opacity="0.35"'));
    const y = heading + cell.height + 17;
    canvas.draw(svgText(String(frame), x, y, { bold: true, colour: theme.lamp }));
    const dim = { size: 12, colour: theme.dim, align: 'middle' } as const;
    if (cell.width > 150) canvas.draw(svgText(`cell ${pose.cell.index}`, x + cell.width / 2, y, dim));
    const time = { size: 12, colour: theme.text, align: 'right' } as const;
    canvas.draw(svgText(`${trimmed(durations[frame]!)} ms`, x + cell.width, y, time));
    drawCues(canvas, clip.cues[frame]!, x, heading, cell.width);
  });
  spans.forEach(([span, { first, last }], i) => {
    const colour = markColour(i);
    const y = heading + cell.height + foot + i * spanHeight;
    const wide = left(last) + cell.width - left(first);
    canvas.draw(svgBox(left(first), y - 11, wide, 16, colour, 'fill-opacity="0.22" rx="3"'));
    canvas.draw(svgBox(left(first), y - 11, 3, 16, colour));
    canvas.draw(
      svgText(fitText(span, wide - 14, { size: 12 }), left(first) + 9, y + 1, { size: 12, colour }),
    );
  });
  return canvas.png();
}

/** A flag at the upper edge of the frame that reports a cue. */
function drawCues(canvas: Canvas, cues: readonly string[], x: number, y: number, width: number): void {
  if (cues.length === 0) return;
  const style = { size: 12, colour: theme.ground, bold: true };
  canvas.draw(svgBox(x, y, width, 18, theme.lamp));
  canvas.draw(svgText(fitText(cues.join(', '), width - 10, style), x + 5, y + 13, style));
}

/** A number with at most two places after the point. */
export function trimmed(value: number): string {
  return String(Math.round(value * 100) / 100);
}
