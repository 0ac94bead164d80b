import type { DocumentPath, ProblemList } from '../problem/problem.js';

/** `[x, y, width, height]` in pixels from the cell's upper left corner. */
export type BoxDefinition = readonly [number, number, number, number];

/** How a sheet is cut: rows of equal cells, numbered from 0 at the upper left, left to right. */
export interface GridDefinition {
  /** `[width, height]` of a cell in whole pixels. */
  cell: readonly [number, number];
}

/** A sheet as it stands in a document. */
export interface SheetDefinition {
  /** The image's file, relative to the document. */
  image: string;
  /** `[width, height]` of the image in pixels; needed only where the images' sizes are not given otherwise. */
  size?: readonly [number, number] | undefined;
  grid: GridDefinition;
  /** The point of a cell that stands where the character stands. Default: the middle of the lower edge. */
  pivot?: readonly [number, number] | undefined;
  /** Named boxes that every cell of this sheet has. */
  boxes?: Readonly<Record<string, BoxDefinition>> | undefined;
}

/** The size of an image in pixels. */
export interface ImageSize {
  width: number;
  height: number;
}

/** A rectangle in pixels. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** One drawing cut from a sheet. Immutable and shared by every performer. */
export interface Cell extends Box {
  readonly sheet: string;
  /** Its number on the sheet, from 0. */
  readonly index: number;
  /** Made of the sheet's name and the number, such as `wick-12`; the image's file may be renamed freely. */
  readonly name: string;
  /** The pivot, in pixels from the cell's upper left corner. */
  readonly pivotX: number;
  readonly pivotY: number;
  /** Named boxes, in pixels from the cell's upper left corner. */
  readonly boxes: Readonly<Record<string, Box>>;
}

/** A sheet cut into its cells. */
export interface Sheet {
  readonly name: string;
  readonly image: string;
  readonly cells: readonly Cell[];
  readonly columns: number;
  readonly rows: number;
}

/**
 * Cuts one sheet.
 *
 * @param size the image's size; the definition's own `size` is used where it is not given
 * @returns the sheet, or `undefined` after a problem was added
 */
export function cutSheet(
  name: string,
  definition: SheetDefinition,
  size: ImageSize | undefined,
  path: DocumentPath,
  problems: ProblemList,
): Sheet | undefined {
  const known = size ?? (definition.size && { width: definition.size[0], height: definition.size[1] });
  if (known === undefined) {
    problems.add('sheet-size', [...path, 'image'], { image: definition.image });
    return undefined;
  }
  const [width, height] = definition.grid.cell;
  const columns = Math.floor(known.width / width);
  const rows = Math.floor(known.height / height);
  const whole = Number.isInteger(width) && Number.isInteger(height) && width > 0 && height > 0;
  if (!whole || columns < 1 || rows < 1) {
    const values = { cell: `${width}x${height}`, size: `${known.width}x${known.height}` };
    problems.add('sheet-cell-size', [...path, 'grid', 'cell'], values);
    return undefined;
  }
  const [pivotX, pivotY] = definition.pivot ?? [width / 2, height];
  const boxes: Record<string, Box> = {};
  for (const [box, [x, y, w, h]] of Object.entries(definition.boxes ?? {}))
    boxes[box] = Object.freeze({ x, y, width: w, height: h });
  Object.freeze(boxes);
  const cells = Array.from({ length: columns * rows }, (_, index): Cell =>
    Object.freeze({
      sheet: name,
      index,
      name: `${name}-${index}`,
      x: (index % columns) * width,
      y: Math.floor(index / columns) * height,
      width,
      height,
      pivotX,
      pivotY,
      boxes,
    }),
  );
  return { name, image: definition.image, cells, columns, rows };
}
