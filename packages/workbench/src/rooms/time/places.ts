import type { Frame } from 'dot-hop/edit';

/** The narrowest that a frame is shown, in CSS pixels. */
const narrowest = 30;

/** What lies along the strip: the frames of a clip, and where each begins, in CSS pixels from the left. */
export interface Lane {
  readonly name: string;
  readonly frames: readonly Frame[];
  readonly lefts: readonly number[];
}

/** Where frames lie on the strip: as wide as they last. */
export function placesOf(
  frames: readonly Frame[],
  room: number,
): { readonly lefts: readonly number[]; readonly perMs: number } {
  const total = frames.reduce((sum, { ms }) => sum + ms, 0);
  const shortest = Math.min(...frames.map(({ ms }) => ms));
  const perMs = Math.max(room / Math.max(1, total), Math.min(narrowest / Math.max(1, shortest), 3));
  const lefts = [0];
  for (const { ms } of frames) lefts.push(lefts[lefts.length - 1]! + ms * perMs);
  return { lefts, perMs };
}

/** The frame that lies under a place of the strip, in CSS pixels from its left. */
export const frameAt = (lefts: readonly number[], x: number): number => {
  let at = 0;
  while (at + 1 < lefts.length - 1 && lefts[at + 1]! <= x) at++;
  return at;
};
