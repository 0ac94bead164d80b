import type { BoxDefinition, Cell, Sheet } from 'dot-hop';
import { placeMark, placePivots } from 'dot-hop/edit';
import { act, useWorkbench } from '../../character/store.js';

/** What is placed in the close-up: the pivot, or a box or a point by name. */
export type Mark = { readonly kind: 'pivot' } | { readonly kind: 'boxes' | 'points'; readonly name: string };

export type Place = readonly [number, number] | BoxDefinition;

export const markKey = (mark: Mark): string =>
  mark.kind === 'pivot' ? 'pivot' : `${mark.kind} ${mark.name}`;

/** Where a mark is on a cell, in pixels of its frame; `undefined` where it has none. */
export function placeOf(cell: Cell, mark: Mark): Place | undefined {
  if (mark.kind === 'pivot') return [cell.pivotX, cell.pivotY];
  if (mark.kind === 'points') {
    const point = cell.points[mark.name];
    return point && [point.x, point.y];
  }
  const box = cell.boxes[mark.name];
  return box && [box.x, box.y, box.width, box.height];
}

/** Puts a mark on cells; what follows in one drag is undone together. */
export function putMark(
  sheet: Sheet,
  mark: Mark,
  places: Readonly<Record<number, Place>>,
  joins?: string,
): void {
  const { definition } = useWorkbench.getState();
  const edit =
    mark.kind === 'pivot'
      ? placePivots(
          definition,
          sheet.name,
          places as Record<number, readonly [number, number]>,
          sheet.cells.length,
        )
      : placeMark(definition, sheet.name, mark.kind, mark.name, places, sheet.cells.length);
  act(edit, joins);
}
