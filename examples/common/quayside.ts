import { box } from './brush';
import type { Context } from './brush';
import { chanceFrom } from './chance';

// What stands along the quay, in more than one of the pages.

/** The stripes of the stalls' awnings: stripe, cloth, shade. */
export const awnings: readonly (readonly [string, string, string])[] = [
  ['#b4434f', '#f1e3d0', '#7d2b40'],
  ['#3f7c8a', '#efe0c8', '#27525f'],
  ['#d0913a', '#f6e7c6', '#96602a'],
  ['#6a8f4e', '#f0e6cc', '#466438'],
];

/**
 * Cobbles in rows, each with a lit upper edge.
 *
 * @param width the last stone of each row ends there, so that pictures of this width follow one another without a seam
 */
export function paintCobbles(
  context: Context,
  chance: () => number,
  width: number,
  top: number,
  bottom: number,
): void {
  const tones = ['#6b587c', '#655276', '#71607f', '#5f4d72', '#786682'];
  for (let y = top; y < bottom; y += 6)
    for (let x = 0; x < width;) {
      const free = width - x;
      const wide = free < 19 ? free : 7 + Math.floor(chance() * 5);
      box(context, tones[Math.floor(chance() * tones.length)]!, x + 1, y + 1, wide - 1, 5);
      box(context, 'rgba(255, 226, 190, 0.09)', x + 1, y + 1, wide - 2, 1);
      box(context, 'rgba(30, 20, 50, 0.16)', x + 1, y + 5, wide - 1, 1);
      x += wide;
    }
}

/** A table of goods under a striped awning. */
export function paintStall(
  context: Context,
  [stripe, cloth, shade]: readonly [string, string, string],
  goods: number,
): void {
  const chance = chanceFrom(goods + 20);
  box(context, 'rgba(24, 18, 44, 0.36)', 4, 54, 70, 7);
  for (const x of [7, 67]) box(context, '#3c2a30', x, 18, 3, 40);
  // The table with a cloth that hangs down.
  box(context, '#7d5a44', 4, 38, 68, 7);
  box(context, '#a97c58', 4, 38, 68, 2);
  box(context, shade, 6, 45, 64, 13);
  for (let x = 6; x < 70; x += 8) box(context, stripe, x, 45, 4, 13);
  box(context, 'rgba(20, 14, 36, 0.3)', 6, 54, 64, 4);
  const kinds = [
    ['#9cc3cf', '#d8eef0', '#5d7f96'],
    ['#d9583f', '#f0b040', '#8fae4e'],
    ['#e0a04a', '#c47a3c', '#f3d08a'],
    ['#c98bc9', '#f0d060', '#e86a7a'],
  ][goods]!;
  for (let x = 9; x < 66; x += 5)
    for (let row = 0; row < 2; row++) {
      const colour = kinds[Math.floor(chance() * kinds.length)]!;
      const top = 33 + row * 3;
      box(context, '#2e2035', x, top, 4, 4);
      box(context, colour, x, top, goods === 0 ? 4 : 3, goods === 0 ? 2 : 3);
      box(context, 'rgba(255, 255, 255, 0.35)', x, top, 1, 1);
    }
  // The awning leans towards the buyers, with a scalloped edge.
  for (let row = 0; row < 20; row++) {
    const out = Math.floor(row * 0.22);
    for (let x = 4 - out; x < 72 + out; x++) {
      const along = (x - (4 - out)) / (68 + 2 * out);
      const isStripe = Math.floor(along * 9) % 2 === 0;
      box(context, isStripe ? stripe : cloth, x, 4 + row, 1, 1);
    }
  }
  box(context, 'rgba(255, 240, 210, 0.3)', 4, 4, 68, 2);
  for (let i = 0; i < 9; i++) {
    const left = Math.round((i * 76) / 9);
    const width = Math.round(((i + 1) * 76) / 9) - left;
    box(context, i % 2 === 0 ? shade : '#c9b8a4', left, 24, width, 3);
    box(context, i % 2 === 0 ? shade : '#c9b8a4', left + 1, 27, width - 2, 1);
  }
  box(context, 'rgba(20, 14, 36, 0.28)', 6, 28, 64, 5);
}

export function paintBarrels(context: Context): void {
  box(context, 'rgba(24, 18, 44, 0.34)', 2, 30, 38, 5);
  for (const [x, y] of [
    [20, 4],
    [3, 10],
  ] as const) {
    box(context, '#2e2035', x, y, 17, 22);
    box(context, '#7d5236', x + 1, y + 1, 15, 20);
    box(context, '#a3703f', x + 2, y + 1, 5, 20);
    box(context, '#4f3430', x + 1, y + 5, 15, 2);
    box(context, '#4f3430', x + 1, y + 15, 15, 2);
    box(context, '#c49a62', x + 2, y, 13, 3);
    box(context, '#8a6238', x + 4, y + 1, 9, 1);
  }
}

export function paintLamp(context: Context): void {
  box(context, 'rgba(24, 18, 44, 0.34)', 2, 42, 10, 3);
  box(context, '#241c38', 6, 12, 2, 31);
  box(context, '#4b4169', 6, 12, 1, 31);
  box(context, '#241c38', 4, 41, 6, 3);
  box(context, '#241c38', 3, 4, 8, 9);
  box(context, '#f6b860', 4, 6, 6, 6);
  box(context, '#241c38', 4, 2, 6, 2);
}
