import type { Clip } from 'dot-hop';
import type { Image } from '../images.js';
import { Canvas, svgBox, svgLine } from './canvas.js';
import { fitText, svgText } from './letters.js';
import { drawBackground, drawPose, reachOf } from './motion.js';
import type { Background, Motion } from './motion.js';
import { markColour, theme } from './theme.js';

const margin = 24;
const heading = 60;
const foot = 40;
const gap = 10;
const spanHeight = 22;

/** The frames of a clip side by side on their ground line, with numbers, durations, cues and spans. */
export function strip(
  motion: Motion,
  clip: Clip,
  images: ReadonlyMap<string, Image>,
  scale: number,
  background: Background,
): Promise<Buffer> {
  const reach = reachOf(motion.poses);
  const cell = {
    width: Math.ceil(reach.left + reach.right) * scale,
    height: Math.ceil(reach.top + reach.bottom) * scale,
  };
  const spans = [...clip.spans];
  const width = Math.max(margin * 2 + motion.poses.length * (cell.width + gap) - gap, 420);
  const canvas = new Canvas(width, heading + cell.height + foot + spans.length * spanHeight + margin);
  canvas.fill(0, 0, canvas.width, canvas.height, theme.ground);
  const total = motion.durations.reduce((sum, duration) => sum + duration, 0);
  const facts = `${motion.poses.length} frames, ${trimmed(total)} ms, ${motion.loops ? 'loops forever' : 'plays once'}`;
  canvas.draw(
    svgText(motion.name, margin, 36, { size: 18, bold: true, colour: theme.text }),
    svgText(facts, width - margin, 36, { colour: theme.dim, align: 'right' }),
  );
  const left = (frame: number): number => margin + frame * (cell.width + gap);
  motion.poses.forEach((pose, frame) => {
    const x = left(frame);
    const ground = heading + reach.top * scale;
    drawBackground(canvas, background, x, heading, cell.width, cell.height, scale);
    drawPose(canvas, images, pose, x + reach.left * scale, ground, scale);
    canvas.draw(svgLine(x, ground + 0.5, x + cell.width, ground + 0.5, theme.lamp, 'stroke-opacity="0.35"'));
    const y = heading + cell.height + 17;
    canvas.draw(svgText(String(frame), x, y, { bold: true, colour: theme.lamp }));
    canvas.draw(
      svgText(`cell ${pose.cell.index}`, x + cell.width / 2, y, {
        size: 12,
        colour: theme.dim,
        align: 'middle',
      }),
    );
    canvas.draw(
      svgText(`${trimmed(motion.durations[frame]!)} ms`, x + cell.width, y, {
        size: 12,
        colour: theme.text,
        align: 'right',
      }),
    );
    drawCues(canvas, clip.cues[frame]!, x, heading, cell.width);
  });
  spans.forEach(([name, { first, last }], i) => {
    const colour = markColour(i);
    const y = heading + cell.height + foot + i * spanHeight;
    const wide = left(last) + cell.width - left(first);
    canvas.draw(svgBox(left(first), y - 11, wide, 16, colour, 'fill-opacity="0.22" rx="3"'));
    canvas.draw(svgBox(left(first), y - 11, 3, 16, colour));
    canvas.draw(
      svgText(fitText(name, wide - 14, { size: 12 }), left(first) + 9, y + 1, { size: 12, colour }),
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
