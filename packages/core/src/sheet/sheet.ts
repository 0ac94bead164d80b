import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type {
  BoxDefinition,
  MarksDefinition,
  PieceDefinition,
  RectangleDefinition,
  SheetDefinition,
} from './definition.js';

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

/** A place in pixels. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A piece of a composed cell: another cell, its place in the frame, and whether it is flipped. */
export interface Piece extends Point {
  readonly cell: Cell;
  readonly flipX: boolean;
  readonly flipY: boolean;
}

/** One drawing cut from a sheet: a rectangle of its image. Immutable and shared by every performer. */
export interface Cell extends Box {
  readonly sheet: string;
  /** The file of its image. */
  readonly image: string;
  /** Its number on the sheet, from 0. */
  readonly index: number;
  /** The sheet's name and the number, such as `wick-12`. It does not depend on the image's file, so you can rename that file freely. */
  readonly name: string;
  /** Where the rectangle lies in the untrimmed frame. 0 if the cell was not trimmed. */
  readonly offsetX: number;
  readonly offsetY: number;
  /** The untrimmed frame, in which pivot, boxes and points are counted. */
  readonly frameWidth: number;
  readonly frameHeight: number;
  readonly pivotX: number;
  readonly pivotY: number;
  /** Whether this cell or frame has a pivot of its own. False if the pivot comes from its sheet or clip. */
  readonly hasOwnPivot: boolean;
  readonly boxes: Readonly<Record<string, Box>>;
  readonly points: Readonly<Record<string, Point>>;
  /** The pieces of a composed cell, back to front. If there are pieces, the cell's own rectangle is not drawn. */
  readonly pieces: readonly Piece[] | undefined;
}

/** A sheet cut into its cells. */
export interface Sheet {
  readonly name: string;
  readonly images: readonly string[];
  readonly cells: readonly Cell[];
  /** Cells in a row of the grid. Without a grid, the number of all cells. */
  readonly columns: number;
  /** The parts that its drawings consist of, back to front. */
  readonly parts: ReadonlyMap<string, Part>;
}

/** One of the parts of which the drawings of a sheet consist. */
export interface Part {
  readonly name: string;
  readonly image: string;
  readonly joint: string | undefined;
  readonly boxes: readonly string[];
  readonly points: readonly string[];
}

/** A rectangle before it has become a cell. */
interface Cut {
  readonly image: string;
  readonly rect: Box;
  readonly trim: Box;
}

const boxOf = ([x, y, width, height]: BoxDefinition): Box => Object.freeze({ x, y, width, height });
const pointOf = ([x, y]: readonly [number, number]): Point => Object.freeze({ x, y });
const whole = (...values: readonly number[]): boolean => values.every((value) => Number.isInteger(value));

/**
 * Cuts one sheet.
 *
 * @param sizes the images' sizes by file. If a size is missing, the definition's own `size` is used
 * @returns the sheet, or `undefined` after a problem was added
 */
export function cutSheet(
  name: string,
  definition: SheetDefinition,
  sizes: Readonly<Record<string, ImageSize>>,
  path: DocumentPath,
  problems: ProblemList,
): Sheet | undefined {
  const before = problems.problems.length;
  const { image, images, grid, cells, compose } = definition;
  const ways = [grid, cells, images].filter((way) => way !== undefined).length;
  if (ways !== 1 || (image === undefined) === (images === undefined)) {
    problems.add('sheet-cut', path);
    return undefined;
  }
  const sizeOf = (file: string, at: DocumentPath): ImageSize | undefined => {
    const own = definition.size && { width: definition.size[0], height: definition.size[1] };
    const size = Object.hasOwn(sizes, file) ? sizes[file] : own;
    if (size === undefined) problems.add('sheet-size', at, { image: file });
    return size;
  };
  let cuts: Cut[] = [];
  let columns = 0;
  if (images !== undefined) {
    images.forEach((file, i) => {
      const size = sizeOf(file, [...path, 'images', i]);
      if (size === undefined) return;
      const rect = { x: 0, y: 0, ...size };
      cuts.push({ image: file, rect, trim: rect });
    });
    if (images.length === 0) problems.add('sheet-cut', path);
  } else {
    const file = image!;
    const size = sizeOf(file, [...path, 'image']);
    if (size === undefined) return undefined;
    if (cells !== undefined) cuts = cutRectangles(file, cells, size, [...path, 'cells'], problems);
    else ({ cuts, columns } = cutGrid(file, grid!, size, [...path, 'grid'], problems));
  }
  if (problems.problems.length > before) return undefined;
  const shared = sharedMarks(definition);
  const made = cuts.map((cut, index) => makeCell(name, index, cut, shared, definition.perCell?.[index]));
  const list =
    compose === undefined ? made : composeCells(name, definition, made, [...path, 'compose'], problems);
  for (const key of Object.keys(definition.perCell ?? {}))
    if (list[Number(key)] === undefined)
      problems.add('cell-range', [...path, 'perCell', key], { cell: key, sheet: name, count: list.length });
  if (problems.problems.length > before) return undefined;
  const parts = readParts(definition, sizeOf, path, problems);
  const files = [...cuts, ...parts.values()].map((cut) => cut.image);
  const across = compose || columns === 0 ? list.length : columns;
  return { name, images: [...new Set(files)], cells: list, columns: across, parts };
}

/** The parts of a sheet, whose images are as large as its own. */
function readParts(
  { image, compose, parts = {} }: SheetDefinition,
  sizeOf: (file: string, at: DocumentPath) => ImageSize | undefined,
  path: DocumentPath,
  problems: ProblemList,
): Map<string, Part> {
  const isOne = image !== undefined && compose === undefined;
  if (!isOne && Object.keys(parts).length > 0) problems.add('part-sequence', [...path, 'parts']);
  const own = image === undefined ? undefined : sizeOf(image, path);
  return new Map(
    Object.entries(parts).map(([name, given]): [string, Part] => {
      const part = typeof given === 'string' ? { image: given } : given;
      const { joint, boxes = [], points = [] } = part;
      const at = [...path, 'parts', name];
      const size = sizeOf(part.image, at);
      if (size !== undefined && own !== undefined && (size.width !== own.width || size.height !== own.height))
        problems.add('part-size', at, {
          image: part.image,
          received: `${size.width}x${size.height}`,
          expected: `${own.width}x${own.height}`,
        });
      return [name, { name, image: part.image, joint, boxes, points }];
    }),
  );
}

/** The most cells of a sheet: a slip such as a cell of one pixel would fill the memory. */
const mostCells = 100_000;

function cutGrid(
  image: string,
  grid: NonNullable<SheetDefinition['grid']>,
  size: ImageSize,
  path: DocumentPath,
  problems: ProblemList,
): { cuts: Cut[]; columns: number } {
  const [width, height] = grid.cell;
  const { margin = 0, gap = 0, offset = [0, 0] } = grid;
  const [across, down] = typeof gap === 'number' ? [gap, gap] : gap;
  const [left, top] = [margin + offset[0], margin + offset[1]];
  const fit = (room: number, cell: number, between: number): number =>
    Math.floor((room + between) / (cell + between));
  const fitting = {
    columns: fit(size.width - left - margin, width, across),
    rows: fit(size.height - top - margin, height, down),
  };
  const columns = grid.columns ?? fitting.columns;
  const rows = grid.rows ?? fitting.rows;
  const count = grid.count ?? columns * rows;
  const sound =
    whole(width, height, left, top, across, down, columns, rows, count) && width > 0 && height > 0;
  const inside = left >= 0 && top >= 0 && across >= 0 && down >= 0 && columns >= 1 && rows >= 1;
  const fits = columns <= fitting.columns && rows <= fitting.rows && count >= 1 && count <= columns * rows;
  if (!sound || !inside || !fits) {
    const values = { cell: `${width}x${height}`, size: `${size.width}x${size.height}`, ...fitting };
    problems.add('sheet-cell-size', [...path, 'cell'], values);
    return { cuts: [], columns };
  }
  if (count > mostCells) {
    problems.add('sheet-many', [...path, 'cell'], { received: count, most: mostCells });
    return { cuts: [], columns };
  }
  const cuts = Array.from({ length: count }, (_, i): Cut => {
    const x = left + (i % columns) * (width + across);
    const y = top + Math.floor(i / columns) * (height + down);
    return { image, rect: { x, y, width, height }, trim: { x: 0, y: 0, width, height } };
  });
  return { cuts, columns };
}

const isPlain = (definition: RectangleDefinition): definition is BoxDefinition => Array.isArray(definition);

function cutRectangles(
  image: string,
  cells: NonNullable<SheetDefinition['cells']>,
  size: ImageSize,
  path: DocumentPath,
  problems: ProblemList,
): Cut[] {
  return cells.map((definition, i): Cut => {
    const plain = isPlain(definition) ? { rect: definition, trim: undefined } : definition;
    const rect = boxOf(plain.rect);
    const trim = plain.trim === undefined ? { ...rect, x: 0, y: 0 } : boxOf(plain.trim);
    const sound = whole(...plain.rect) && rect.width > 0 && rect.height > 0 && rect.x >= 0 && rect.y >= 0;
    if (!sound || rect.x + rect.width > size.width || rect.y + rect.height > size.height)
      problems.add('sheet-rectangle', [...path, i], {
        rect: plain.rect,
        size: `${size.width}x${size.height}`,
      });
    if (
      !whole(trim.x, trim.y, trim.width, trim.height) ||
      trim.x + rect.width > trim.width ||
      trim.y + rect.height > trim.height
    )
      problems.add('sheet-trim', [...path, i, 'trim'], { rect: plain.rect, trim: plain.trim });
    return { image, rect, trim };
  });
}

/** Marks that are there with those that are given, which win; the same object where none are. */
const marked = <Given, Made>(
  before: Readonly<Record<string, Made>>,
  given: Readonly<Record<string, Given>> | undefined,
  make: (one: Given) => Made,
): Readonly<Record<string, Made>> =>
  given === undefined
    ? before
    : Object.freeze({
        ...before,
        ...Object.fromEntries(Object.entries(given).map(([name, one]) => [name, make(one)])),
      });

const noMarks = Object.freeze({});

/** The marks that all cells of a sheet share. */
type SharedMarks = Pick<Cell, 'boxes' | 'points'> & Pick<MarksDefinition, 'pivot'>;
const sharedMarks = ({ pivot, boxes, points }: MarksDefinition): SharedMarks => ({
  pivot,
  boxes: marked(noMarks, boxes, boxOf),
  points: marked(noMarks, points, pointOf),
});

function makeCell(
  sheet: string,
  index: number,
  { image, rect, trim }: Cut,
  { pivot, boxes, points }: SharedMarks,
  own: MarksDefinition = {},
): Cell {
  const { x, y, width, height } = rect;
  const cell: Cell = {
    x,
    y,
    width,
    height,
    sheet,
    image,
    index,
    name: `${sheet}-${index}`,
    offsetX: trim.x,
    offsetY: trim.y,
    frameWidth: trim.width,
    frameHeight: trim.height,
    pivotX: pivot?.[0] ?? trim.width / 2,
    pivotY: pivot?.[1] ?? trim.height,
    hasOwnPivot: false,
    boxes,
    points,
    pieces: undefined,
  };
  return markCell(Object.freeze(cell), own, true);
}

/** A cell with further marks. They replace marks of the same name that the cell has. */
export function markCell(cell: Cell, { pivot, boxes, points }: MarksDefinition, isOwn = false): Cell {
  if (pivot === undefined && boxes === undefined && points === undefined) return cell;
  const [pivotX, pivotY] = pivot ?? [cell.pivotX, cell.pivotY];
  return Object.freeze({
    ...cell,
    pivotX,
    pivotY,
    hasOwnPivot: cell.hasOwnPivot || (isOwn && pivot !== undefined),
    boxes: marked(cell.boxes, boxes, boxOf),
    points: marked(cell.points, points, pointOf),
  });
}

function composeCells(
  name: string,
  definition: SheetDefinition,
  pieces: readonly Cell[],
  path: DocumentPath,
  problems: ProblemList,
): Cell[] {
  const shared = sharedMarks(definition);
  return definition.compose!.map((list, index) => {
    const placed = list.flatMap((piece, i) => placePiece(piece, pieces, name, [...path, index, i], problems));
    if (list.length === 0) problems.add('clip-empty', [...path, index]);
    const width = Math.max(1, ...placed.map(({ x, cell }) => x + cell.width));
    const height = Math.max(1, ...placed.map(({ y, cell }) => y + cell.height));
    const frame = { x: 0, y: 0, width, height };
    const cell = makeCell(
      name,
      index,
      { image: pieces[0]?.image ?? '', rect: frame, trim: frame },
      shared,
      definition.perCell?.[index],
    );
    return Object.freeze({ ...cell, pieces: Object.freeze(placed) });
  });
}

function placePiece(
  { cell: number, at = [0, 0], flip }: PieceDefinition,
  pieces: readonly Cell[],
  sheet: string,
  path: DocumentPath,
  problems: ProblemList,
): Piece[] {
  const cell = pieces[number];
  if (cell === undefined) {
    problems.add('cell-range', [...path, 'cell'], { cell: number, sheet, count: pieces.length });
    return [];
  }
  return [
    { cell, x: at[0], y: at[1], flipX: flip?.includes('x') ?? false, flipY: flip?.includes('y') ?? false },
  ];
}
