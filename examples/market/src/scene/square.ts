/** Sizes are pixels of the drawing. */
export const view = { width: 420, height: 320 };

/** Where one can walk: below the houses, above the water. */
export const ground = { left: 14, right: view.width - 14, top: 74, bottom: 286 };

/** Something that stands in the way, by the rectangle of the ground it covers. */
export interface Stand {
  readonly kind: 'stall' | 'well' | 'barrels' | 'lamp';
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  /** Which of the awnings. */
  readonly colour: number;
}

const stall = (left: number, bottom: number, colour: number): Stand => ({
  kind: 'stall',
  left,
  right: left + 64,
  top: bottom - 16,
  bottom,
  colour,
});
const lamp = (x: number, y: number): Stand => ({
  kind: 'lamp',
  left: x - 3,
  right: x + 3,
  top: y - 3,
  bottom: y,
  colour: 0,
});

export const stands: readonly Stand[] = [
  stall(36, 124, 0),
  stall(178, 116, 1),
  stall(314, 126, 2),
  stall(58, 248, 3),
  { kind: 'well', left: 190, right: 230, top: 180, bottom: 200, colour: 0 },
  { kind: 'barrels', left: 316, right: 350, top: 232, bottom: 246, colour: 0 },
  lamp(142, 168),
  lamp(284, 168),
  lamp(160, 280),
  lamp(276, 280),
];

/** Whether a place is on the ground with nothing in the way. */
export function isFree(x: number, y: number, room = 7): boolean {
  if (x < ground.left || x > ground.right || y < ground.top || y > ground.bottom) return false;
  return stands.every(
    ({ left, right, top, bottom }) =>
      x < left - room || x > right + room || y < top - room * 0.5 || y > bottom + room * 0.6,
  );
}
