import type { ClipDefinition } from '../clip/definition.js';
import { findIslands } from '../pixels/islands.js';
import { groundOf, hasClear, withoutGround } from '../pixels/ground.js';
import type { Picture } from '../pixels/picture.js';
import type { GridDefinition, RectangleDefinition } from '../sheet/definition.js';
import { plainClip } from './sequence.js';

/** The drawings of a sheet in the form of a document. */
export interface IslandCut {
  readonly cells: readonly RectangleDefinition[];
  /** One clip for each row of drawings. */
  readonly clips: Readonly<Record<string, ClipDefinition>>;
  /** A grid that fits too; see `findIslands`. */
  readonly grid: GridDefinition | undefined;
  /** The colour that counts as transparent, as `#rrggbb`. `undefined` if the picture has transparency of its own. */
  readonly ground: string | undefined;
  /** The picture with that colour made transparent. */
  readonly picture: Picture;
}

/**
 * Cuts a sheet at the transparent gaps between its drawings.
 *
 * @param ground the colour that counts as transparent, as `#rrggbb`. Default: the colour of the corners, if nothing is transparent
 * @param near drawings whose boxes are at most so many pixels apart count as one. Default 2
 * @returns `undefined` if nothing is transparent and the corners have no colour in common
 */
export function cutIslands(
  picture: Picture,
  { ground, near }: { readonly ground?: string | undefined; readonly near?: number | undefined } = {},
): IslandCut | undefined {
  const taken = ground ?? (hasClear(picture) ? undefined : groundOf(picture));
  if (taken === undefined && !hasClear(picture)) return undefined;
  const clear = taken === undefined ? picture : withoutGround(picture, taken);
  const { boxes, rows, grid } = findIslands(clear, near === undefined ? {} : { near });
  const cells = boxes.map(({ x, y, width, height }): RectangleDefinition => [x, y, width, height]);
  const clips: Record<string, ClipDefinition> = {};
  let first = 0;
  rows.forEach((count, row) => {
    const own = Array.from({ length: count }, (_, i) => first + i);
    clips[rows.length > 1 ? `row${row}` : 'all'] = plainClip(own);
    first += count;
  });
  return { cells, clips, grid, ground: taken, picture: clear };
}
