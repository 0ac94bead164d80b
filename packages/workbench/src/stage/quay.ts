/* The quay at dusk, behind and under the character: sky, far roofs with lit windows, planks that pass. */

const roofs = [
  [0, 26, 20],
  [24, 18, 26],
  [46, 30, 16],
  [80, 22, 30],
  [106, 34, 18],
  [128, 24, 26],
  [158, 28, 22],
] as const;
const town = 190;

/**
 * Draws it again.
 *
 * @param floor where the character stands
 * @param x how far it has gone, in pixels
 */
export function drawQuay(
  context: CanvasRenderingContext2D,
  width: number,
  height: number,
  floor: number,
  x: number,
  y: number,
): void {
  drawDusk(context, width, floor, x);
  context.fillStyle = '#4a3a44';
  context.fillRect(0, floor, width, height - floor);
  context.fillStyle = '#6b5349';
  context.fillRect(0, floor, width, 2);
  // Planks that pass under the feet show whether they slide.
  const plank = 16;
  const off = ((Math.round(x) % plank) + plank) % plank;
  context.fillStyle = '#362b38';
  for (let at = -off; at < width; at += plank) context.fillRect(at, floor + 2, 1, height - floor);
  const row = ((Math.round(y) % 12) + 12) % 12;
  if (y !== 0)
    for (let at = floor - row; at < height; at += 12) context.fillRect(0, Math.max(floor, at), width, 1);
}

/** The sky and the far roofs, down to a line. */
export function drawDusk(context: CanvasRenderingContext2D, width: number, floor: number, x: number): void {
  context.imageSmoothingEnabled = false;
  for (const [i, colour] of ['#241f3d', '#2b2447', '#352a50', '#433057', '#55375c'].entries()) {
    context.fillStyle = colour;
    context.fillRect(0, Math.round((i * floor) / 5), width, Math.ceil(floor / 5) + 1);
  }
  const far = Math.round(x * 0.15);
  for (let shift = -((far % town) + town); shift < width; shift += town)
    for (const [left, wide, high] of roofs) {
      const at = shift + left;
      context.fillStyle = '#1f1a33';
      context.fillRect(at, floor - high - 6, wide, high + 6);
      context.fillRect(at + 3, floor - high - 9, wide - 6, 3);
      context.fillStyle = '#c98f4a';
      if (wide > 22) context.fillRect(at + 6, floor - high + 4, 2, 3);
      context.fillStyle = '#7a5a48';
      context.fillRect(at + wide - 8, floor - high + 9, 2, 3);
    }
}
