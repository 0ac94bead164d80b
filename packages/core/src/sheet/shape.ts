import { any, fields, list, map, number, one, pair, text, texts, tuple } from '../shape/shape.js';

const box = tuple([number(), number(), number(), number()], '[x, y, width, height]');

/** Pivot, boxes and points, which sheets, cells, clips and frames may have. */
export const marks = { pivot: pair, boxes: map(box, 'boxes by name'), points: map(pair, 'points by name') };
export const marksByNumber = map(
  fields('marks', 'marks: { pivot, boxes, points }', {}, marks),
  'marks by number',
);

const grid = fields(
  'grid',
  'a grid, such as { cell: [48, 48] }',
  { cell: pair },
  {
    margin: number(),
    gap: any('a number or [across, down]', number(), pair),
    offset: pair,
    columns: number(),
    rows: number(),
    count: number(),
  },
);

const rectangle = any(
  '[x, y, width, height] or { rect, trim }',
  box,
  fields('rectangle', 'a rectangle: { rect, trim }', { rect: box }, { trim: box }),
);

const piece = fields(
  'composed',
  'a piece: { cell, at, flip }',
  { cell: number() },
  { at: pair, flip: one('"x", "y" or "xy"', 'x', 'y', 'xy') },
);

const part = fields(
  'part',
  'a part: an image, or { image, joint, boxes, points }',
  { image: text() },
  { joint: text(), boxes: texts('a list of boxes'), points: texts('a list of points') },
);

export const sheetShape = fields(
  'sheet',
  'a sheet: { image, grid }',
  {},
  {
    image: text(),
    images: texts('a list of files'),
    size: pair,
    grid,
    cells: list(rectangle, 'a list of rectangles'),
    compose: list(list(piece, 'a list of pieces'), 'a list of lists of pieces'),
    ...marks,
    parts: map(any(part.says, text(), part), 'images by part'),
    perCell: marksByNumber,
  },
);
