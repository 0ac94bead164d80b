/** Sizes are pixels of the drawing. */
export const view = { width: 280, height: 198 };
export const worldWidth = 640;
export const deckTop = 158;
export const waterTop = 176;

/** Something to stand on: solid from above only, so that one can hop up through it. */
export interface Ledge {
  readonly left: number;
  readonly right: number;
  readonly top: number;
}

export const gap = { left: 300, right: 372 };

export const ledges: readonly Ledge[] = [
  { left: -20, right: gap.left, top: deckTop },
  { left: gap.right, right: worldWidth + 20, top: deckTop },
  // Crates, a mooring post in the gap, the boathouse roof.
  { left: 150, right: 190, top: deckTop - 22 },
  { left: 166, right: 188, top: deckTop - 42 },
  { left: 328, right: 344, top: deckTop - 8 },
  { left: 468, right: 560, top: deckTop - 50 },
];

/** Where lamps stand, by their foot. */
export const lampPosts: readonly number[] = [84, 262, 420, 604];

/** Where gulls sit. */
export const gullPerches: readonly { readonly x: number; readonly y: number }[] = [
  { x: 177, y: deckTop - 42 },
  { x: 514, y: deckTop - 50 },
  { x: 236, y: deckTop },
];
