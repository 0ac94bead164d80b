/** Sizes are pixels of the drawing, places count from the upper left corner of the level; y grows downwards. */
export const view = { width: 280, height: 198 };
/** Which part of the window is left below the view, for the filmstrip. */
export const below = 0.15;
export const worldWidth = 1440;
/** How far the level reaches up above the view's upper edge when it stands on the deck. */
export const worldTop = -120;
export const deckTop = 158;
export const waterTop = 176;
/** Where Wick begins, on the deck. */
export const start = { x: 48 };

/** A straight piece of ground from left to right, solid below. Where it slopes its ends lie at different heights. */
export interface Ground {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  /** The height of its right end; `top` by default. */
  readonly topRight?: number;
  readonly made: 'deck' | 'stone' | 'crate' | 'post';
}

/** The upper quay and the tower's foot. */
const quay = deckTop - 46;
const terrace = deckTop - 112;

export const grounds: readonly Ground[] = [
  { left: -20, right: 300, top: deckTop, made: 'deck' },
  { left: 150, right: 190, top: deckTop - 22, made: 'crate' },
  { left: 166, right: 188, top: deckTop - 42, made: 'crate' },
  { left: 329, right: 343, top: deckTop - 8, made: 'post' },
  { left: 372, right: 650, top: deckTop, made: 'deck' },
  { left: 752, right: 766, top: deckTop - 10, made: 'post' },
  { left: 880, right: 930, top: deckTop, made: 'stone' },
  { left: 930, right: 1010, top: deckTop, topRight: quay, made: 'stone' },
  { left: 1010, right: 1120, top: quay, made: 'stone' },
  { left: 1120, right: 1230, top: terrace, made: 'stone' },
  { left: 1230, right: 1350, top: terrace, topRight: deckTop - 30, made: 'stone' },
  { left: 1350, right: worldWidth + 20, top: deckTop - 30, made: 'stone' },
];

/** An edge where one climbs out of the water; the land lies to its left (-1) or right (1). */
export interface Shore {
  readonly x: number;
  readonly top: number;
  readonly land: 1 | -1;
}

export const shores: readonly Shore[] = [
  { x: 300, top: deckTop, land: -1 },
  { x: 372, top: deckTop, land: 1 },
  { x: 650, top: deckTop, land: -1 },
  { x: 880, top: deckTop, land: 1 },
];

/** Solid from above only: one hops up through it, and drops down through it. */
export interface Plank {
  readonly left: number;
  readonly right: number;
  readonly top: number;
}

export const planks: readonly Plank[] = [
  // The boathouse roof, and two boards on the way up to the terrace.
  { left: 468, right: 560, top: deckTop - 44 },
  { left: 1030, right: 1068, top: quay - 34 },
  { left: 1068, right: 1108, top: quay - 62 },
];

/** A boat whose deck carries: it swims to and fro between two places, and bobs. */
export interface Boat {
  /** The middle of its deck on its way, and how far it goes to either side. */
  readonly x: number;
  readonly top: number;
  readonly travel: number;
  readonly width: number;
  /** Milliseconds for there and back. */
  readonly period: number;
}

export const boats: readonly Boat[] = [
  { x: 702, top: deckTop + 3, travel: 16, width: 48, period: 7000 },
  { x: 824, top: deckTop + 3, travel: 30, width: 52, period: 9000 },
];

/** Where a boat's deck is at an instant. */
export function boatAt({ x, top, travel, period }: Boat, time: number): { x: number; y: number } {
  return {
    x: x + Math.sin((time / period) * 2 * Math.PI) * travel,
    y: top + Math.sin((time / 2300) * 2 * Math.PI + x) * 1.5,
  };
}

/** Barrels roll when they are pushed or struck. */
export const barrelRadius = 7;
export const barrels: readonly { readonly x: number; readonly y: number }[] = [
  { x: 478, y: deckTop - barrelRadius },
  { x: 590, y: deckTop - barrelRadius },
  { x: 1090, y: quay - barrelRadius },
];

/** Where lamps stand, by their foot. */
export const lampPosts: readonly { readonly x: number; readonly y: number }[] = [
  { x: 84, y: deckTop },
  { x: 262, y: deckTop },
  { x: 430, y: deckTop },
  { x: 622, y: deckTop },
  { x: 896, y: deckTop },
  { x: 1048, y: quay },
  { x: 1188, y: terrace },
  { x: 1396, y: deckTop - 30 },
];

/** A lamp's lantern hangs here, from the foot of its post. */
export const lantern = { x: 5, y: -56, width: 9, height: 14 };

/** Where gulls sit. */
export const gullPerches: readonly { readonly x: number; readonly y: number }[] = [
  { x: 177, y: deckTop - 42 },
  { x: 236, y: deckTop },
  { x: 514, y: deckTop - 44 },
  { x: 970, y: deckTop - 23 },
  { x: 1088, y: quay - 62 },
];
