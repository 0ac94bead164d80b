import type { Cell, Sheet, SheetDefinition } from 'dot-hop';
import { clipNameOf, drawnRows } from 'dot-hop/gather';
import type { Drawn } from '../../character/pictures.js';

/** What a dragged row of cells is called while it is dragged. */
export const rowKind = 'x-dot-hop-row';

/** Cells that lie in one row of a sheet, from left to right. */
export interface CellRow {
  readonly sheet: string;
  readonly cells: readonly number[];
}

/** The rows of a sheet; cells without a drawing at their ends are left out. */
export function rowsOf(
  name: string,
  sheet: Sheet,
  { grid, image = '', images }: SheetDefinition,
  drawn: ReadonlyMap<string, Drawn>,
): CellRow[] {
  const picture = drawn.get(image)?.picture;
  if (grid !== undefined && picture !== undefined)
    return [...drawnRows(picture, grid).values()].map((cells) => ({ sheet: name, cells }));
  const rows: number[][] = [];
  let before: Cell | undefined;
  for (const cell of sheet.cells) {
    // Drawings of files that are named alike are one movement; of others each line of the image is.
    const goesOn =
      before !== undefined &&
      (images === undefined ? cell.x > before.x : clipNameOf(cell.image) === clipNameOf(before.image));
    if (!goesOn) rows.push([]);
    rows.at(-1)!.push(cell.index);
    before = cell;
  }
  return rows.map((cells) => ({ sheet: name, cells }));
}
