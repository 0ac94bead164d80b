import {
  any,
  fields,
  list,
  map,
  name,
  names,
  namesOf,
  number,
  one,
  pair,
  text,
  texts,
  tuple,
} from '../shape/shape.js';
import { typed } from '../shape/type-of.js';
import type {
  BoxDefinition,
  GridDefinition,
  MarksDefinition,
  PartDefinition,
  PieceDefinition,
  RectangleDefinition,
} from './definition.js';

const box = typed<BoxDefinition>()(tuple([number(), number(), number(), number()], '[x, y, width, height]'));

export const marks = {
  pivot: pair,
  boxes: namesOf('box', box, 'boxes by name'),
  points: namesOf('point', pair, 'points by name'),
};
const marksShape = fields('marks', 'marks: { pivot, boxes, points }', {}, marks);

export const marksByNumber = map(typed<MarksDefinition>()(marksShape), 'marks by number');

const gridShape = fields(
  'grid',
  'a grid, such as { cell: [48, 48] }',
  {
    cell: pair,
  },
  {
    margin: number(),
    gap: any('a number or [across, down]', number(), pair),
    offset: pair,
    columns: number(),
    rows: number(),
    count: number(),
  },
);

const rectangleShape = any(
  '[x, y, width, height] or { rect, trim }',
  box,
  fields(
    'rectangle',
    'a rectangle: { rect, trim }',
    { rect: box },
    {
      trim: box,
    },
  ),
);

const pieceShape = fields(
  'composed',
  'a piece: { cell, at, flip }',
  {
    cell: number(),
  },
  {
    at: pair,
    flip: one('"x", "y" or "xy"', 'x', 'y', 'xy'),
  },
);

const partShape = fields(
  'part',
  'a part: an image, or { image, joint, boxes, points }',
  {
    image: text(),
  },
  {
    joint: name('point'),
    boxes: names('box', 'a list of boxes'),
    points: names('point', 'a list of points'),
  },
);

export const sheetShape = fields(
  'sheet',
  'a sheet: { image, grid }',
  {},
  {
    image: text(),
    images: texts('a list of files'),
    size: pair,
    grid: typed<GridDefinition>()(gridShape),
    cells: list(typed<RectangleDefinition>()(rectangleShape), 'a list of rectangles'),
    compose: list(
      list(typed<PieceDefinition>()(pieceShape), 'a list of pieces'),
      'a list of lists of pieces',
    ),
    ...marks,
    parts: namesOf('part', any(partShape.says, text(), typed<PartDefinition>()(partShape)), 'images by part'),
    perCell: marksByNumber,
  },
);
