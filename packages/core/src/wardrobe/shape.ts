import {
  allOf,
  any,
  fields,
  flag,
  list,
  map,
  mapBy,
  name,
  names,
  number,
  text,
  texts,
} from '../shape/shape.js';
import { typed } from '../shape/type-of.js';
import type {
  LayerDefinition,
  LayerPieceDefinition,
  PaletteDefinition,
  WardrobeDefinition,
  WhereDefinition,
} from '../controller/wardrobe-definition.js';

const paletteShape = fields(
  'palette',
  'a palette: { drawn, colours }',
  {
    drawn: text(),
    colours: map(texts('a list of colours such as "#2b6170"'), 'lists of colours by name'),
  },
  {
    shared: flag,
    weights: map(number(), 'weights by name'),
  },
);

const where = {
  states: names('stateAnywhere', 'a list of states'),
  directions: texts('a list of directions'),
  clips: names('shown', 'a list of clips'),
  frames: any('frames such as 2-3', number(), text()),
  span: name('span'),
  from: name('cue'),
  until: name('cue'),
};
const whereShape = fields(
  'where',
  'a place: { states, directions, clips, frames, span, from, until }',
  {},
  where,
);

const pieceShape = fields(
  'piece',
  'a piece: { sheet }',
  {
    sheet: any(
      'a sheet, or one for each of the body by name',
      name('sheet'),
      mapBy('sheet', name('sheet'), 'sheets by sheet'),
    ),
  },
  {
    cell: any('a cell, or one for each direction', number(), map(number(), 'cells by direction')),
    at: name('point'),
    clips: names('shown', 'a list of clips'),
    directions: texts('a list of directions'),
    otherwise: any(
      '"hide", another piece, or { clip }',
      text(),
      allOf('otherwise', '{ clip }', { clip: name('shown') }),
    ),
    palettes: texts('a list of palettes'),
    weight: number(),
    excludes: texts('a list of pieces'),
    requires: texts('a list of pieces'),
  },
);

const layerShape = fields(
  'layer',
  'a layer: { pieces }',
  { pieces: map(typed<LayerPieceDefinition>()(pieceShape), 'pieces by name') },
  {
    none: number(),
    hidden: list(typed<WhereDefinition>()(whereShape), 'a list of places'),
  },
);

const wardrobeShape = fields(
  'wardrobe',
  'a wardrobe: { layers }',
  { layers: map(typed<LayerDefinition>()(layerShape), 'layers by name') },
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

export const wornShapes = {
  palettes: map(typed<PaletteDefinition>()(paletteShape), 'palettes by name'),
  wardrobe: typed<WardrobeDefinition>()(wardrobeShape),
};
