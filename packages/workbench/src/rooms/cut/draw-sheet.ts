import { foot, lamp } from '../../parts/colours.js';
import type { Layout } from './layout.js';
import type { View } from './view.js';

/** What is drawn of a sheet. */
export interface SheetScene {
  readonly layout: Layout;
  /** The colours of the clips that show each cell. */
  readonly colours: readonly (readonly string[])[];
  readonly selected: ReadonlySet<number>;
  /** Cells in which something was measured that is off. */
  readonly off: ReadonlySet<number>;
  /** Rectangles that are only proposed, in pixels of the sheet. */
  readonly proposed: readonly (readonly [number, number, number, number])[] | undefined;
  /** A rectangle that is dragged to select. */
  readonly marquee: { x: number; y: number; width: number; height: number } | undefined;
}

/** Draws a sheet with its cells, numbered; only what is in sight. */
export function drawSheet(
  context: CanvasRenderingContext2D,
  scene: SheetScene,
  view: View,
  room: { width: number; height: number; ratio: number },
): void {
  const { layout, colours, selected, off, proposed, marquee } = scene;
  const { width, height, ratio } = room;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.fillStyle = '#171326';
  context.fillRect(0, 0, width, height);
  const left = (x: number): number => Math.round((x - view.x) * view.scale * ratio) / ratio;
  const top = (y: number): number => Math.round((y - view.y) * view.scale * ratio) / ratio;
  const [x0, y0, x1, y1] = [left(0), top(0), left(layout.width), top(layout.height)];
  drawGround(context, Math.max(0, x0), Math.max(0, y0), Math.min(width, x1), Math.min(height, y1), x0, y0);
  context.imageSmoothingEnabled = view.scale < 1;
  // Only what is in sight is handed over: a large sheet pans at the pace of the display.
  for (const { bitmap, x: atX, y: atY } of layout.pictures) {
    const from = [Math.max(0, Math.floor(view.x - atX)), Math.max(0, Math.floor(view.y - atY))] as const;
    const to = [
      Math.min(bitmap.width, Math.ceil(view.x - atX + width / view.scale)),
      Math.min(bitmap.height, Math.ceil(view.y - atY + height / view.scale)),
    ] as const;
    if (to[0] <= from[0] || to[1] <= from[1]) continue;
    const [x, y] = [left(atX + from[0]), top(atY + from[1])];
    context.drawImage(
      bitmap,
      from[0],
      from[1],
      to[0] - from[0],
      to[1] - from[1],
      x,
      y,
      left(atX + to[0]) - x,
      top(atY + to[1]) - y,
    );
  }
  context.lineWidth = 1;
  context.font = '11px ui-monospace, monospace';
  context.textBaseline = 'top';
  if (proposed !== undefined) {
    context.strokeStyle = lamp;
    context.setLineDash([4, 3]);
    for (const [x, y, w, h] of proposed)
      context.strokeRect(left(x) + 0.5, top(y) + 0.5, left(x + w) - left(x) - 1, top(y + h) - top(y) - 1);
    context.setLineDash([]);
    return;
  }
  for (const { cell, x: atX, y: atY } of layout.cells) {
    const [x, y, right, below] = [left(atX), top(atY), left(atX + cell.width), top(atY + cell.height)];
    if (right < 0 || below < 0 || x > width || y > height) continue;
    const isSelected = selected.has(cell.index);
    const [wide, high] = [right - x, below - y];
    if (isSelected) {
      context.fillStyle = 'rgba(255, 201, 92, 0.16)';
      context.fillRect(x, y, wide, high);
    }
    context.strokeStyle = isSelected ? lamp : 'rgba(240, 230, 218, 0.26)';
    context.strokeRect(x + 0.5, y + 0.5, wide - 1, high - 1);
    if (isSelected) context.strokeRect(x + 1.5, y + 1.5, wide - 3, high - 3);
    // The clips that show it, a bar each along its lower edge.
    const own = colours[cell.index] ?? [];
    own.forEach((colour, i) => {
      context.fillStyle = colour;
      context.fillRect(x + 2 + (i * (wide - 4)) / own.length, below - 4, (wide - 4) / own.length, 3);
    });
    if (off.has(cell.index)) {
      context.fillStyle = '#ff9a8f';
      context.beginPath();
      context.moveTo(right - 12, y + 1);
      context.lineTo(right - 1, y + 1);
      context.lineTo(right - 1, y + 12);
      context.fill();
    }
    if (wide >= 26) {
      const text = String(cell.index);
      context.fillStyle = 'rgba(23, 19, 38, 0.72)';
      context.fillRect(x + 2, y + 2, text.length * 7 + 4, 13);
      context.fillStyle = isSelected ? lamp : '#cfc4dd';
      context.fillText(text, x + 4, y + 3);
    }
    if (wide >= 40) {
      const [px, py] = [left(atX - cell.offsetX + cell.pivotX), top(atY - cell.offsetY + cell.pivotY)];
      context.fillStyle = foot;
      context.fillRect(px - 4, py, 9, 1);
      context.fillRect(px, py - 4, 1, 9);
    }
  }
  if (marquee === undefined) return;
  context.strokeStyle = lamp;
  context.setLineDash([3, 3]);
  context.strokeRect(
    left(marquee.x) + 0.5,
    top(marquee.y) + 0.5,
    marquee.width * view.scale,
    marquee.height * view.scale,
  );
  context.setLineDash([]);
}

/** The size of a square of the pattern, in CSS pixels. */
const square = 12;
let pattern: OffscreenCanvas | undefined;

/** A quiet pattern that shows through what is transparent: made once, since thousands of squares a picture would slow panning. */
function drawGround(
  context: CanvasRenderingContext2D,
  x: number,
  y: number,
  right: number,
  below: number,
  originX: number,
  originY: number,
): void {
  if (right <= x || below <= y) return;
  if (pattern === undefined) {
    pattern = new OffscreenCanvas(square * 2, square * 2);
    const made = pattern.getContext('2d')!;
    made.fillStyle = '#221d38';
    made.fillRect(0, 0, square * 2, square * 2);
    made.fillStyle = '#272141';
    made.fillRect(0, 0, square, square);
    made.fillRect(square, square, square, square);
  }
  context.save();
  context.translate(originX, originY);
  context.fillStyle = context.createPattern(pattern, 'repeat')!;
  context.fillRect(x - originX, y - originY, right - x, below - y);
  context.restore();
}
