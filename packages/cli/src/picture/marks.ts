import type { Pose } from 'dot-hop';
import { svgBox, svgLine } from './canvas.js';
import type { Canvas } from './canvas.js';
import { markColour, theme } from './theme.js';

/** Boxes, points and the pivot of a pose, as thin lines over its drawing; the pivot stands at `x`, `y`. */
export function drawMarks(
  canvas: Canvas,
  { boxes, points }: Pose,
  x: number,
  y: number,
  scale: number,
): void {
  Object.values(boxes).forEach((box, i) => {
    const outline = `stroke="${markColour(i + 1)}" stroke-width="1.5"`;
    canvas.draw(
      svgBox(x + box.x * scale, y + box.y * scale, box.width * scale, box.height * scale, 'none', outline),
    );
  });
  Object.values(points).forEach((point, i) => {
    const [cx, cy] = [x + point.x * scale, y + point.y * scale];
    canvas.draw(`<circle cx="${cx}" cy="${cy}" r="3" fill="${markColour(i + 4)}"/>`);
  });
  canvas.draw(
    svgLine(x - 6, y, x + 6, y, theme.lamp, 'stroke-width="1.5"'),
    svgLine(x, y - 6, x, y + 6, theme.lamp, 'stroke-width="1.5"'),
  );
}
