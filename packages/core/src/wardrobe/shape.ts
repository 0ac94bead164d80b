import { any, fields, flag, list, map, number, text, texts } from '../shape/shape.js';
import type { Shape } from '../shape/shape.js';

const paletteShape = fields(
  'palette',
  'a palette: { drawn, colours }',
  {
    drawn: text(),
    colours: map(texts('a list of colours such as "#2b6170"'), 'lists of colours by name'),
  },
  { shared: flag, weights: map(number(), 'weights by name') },
);

const where: Readonly<Record<string, Shape>> = {
  states: texts('a list of states'),
  directions: texts('a list of directions'),
  clips: texts('a list of clips'),
  frames: any('frames such as 2-3', number(), text()),
  span: text(),
  from: text(),
  until: text(),
};

const piece = fields(
  'piece',
  'a piece: { sheet }',
  {
    sheet: any('a sheet, or one for each of the body by name', text(), map(text(), 'sheets by sheet')),
  },
  {
    cell: any('a cell, or one for each direction', number(), map(number(), 'cells by direction')),
    at: text(),
    clips: texts('a list of clips'),
    directions: texts('a list of directions'),
    otherwise: any(
      '"hide", another piece, or { clip }',
      text(),
      fields('otherwise', '{ clip }', { clip: text() }),
    ),
    palettes: texts('a list of palettes'),
    weight: number(),
    excludes: texts('a list of pieces'),
    requires: texts('a list of pieces'),
  },
);

const layer = fields(
  'layer',
  'a layer: { pieces }',
  { pieces: map(piece, 'pieces by name') },
  {
    none: number(),
    hidden: list(
      fields('where', 'a place: { states, directions, clips, frames, span, from, until }', {}, where),
      'a list of places',
    ),
  },
);

const wardrobeShape = fields(
  'wardrobe',
  'a wardrobe: { layers }',
  { layers: map(layer, 'layers by name') },
  {
    order: texts('a list of layers'),
    orders: list(
      fields('order', 'a place with its order', { order: texts('a list of layers') }, where),
      'a list of places with their order',
    ),
    palettes: texts('a list of palettes'),
    schemes: list(
      map(any('a name or a list of names', text(), texts('a list of names')), 'picks by name'),
      'a list of schemes',
    ),
    kept: texts('a list of colours'),
  },
);

/** What of a document says what is worn. */
export const wornShapes = { palettes: map(paletteShape, 'palettes by name'), wardrobe: wardrobeShape };
