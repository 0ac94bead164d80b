import { any, expression, fields, fromZero, map, number, one, text, tuple } from '../shape/shape.js';
import { typed } from '../shape/type-of.js';
import type { DiagonalRule, DirectionsDefinition, VectorDefinition } from './definition.js';

const directionsShape = any(
  '"none", "sides", "four", "eight", "sixteen" or directions by name at degrees',
  one('', 'none', 'sides', 'four', 'eight', 'sixteen'),
  map(number('degrees'), 'directions by name at degrees'),
);

const length = any('an expression or a number', expression, number());
const vector = any(
  'two expressions, such as [vx, 0], or the name of a vector',
  expression,
  tuple([length, length], 'two expressions'),
);

export const vectorShape = typed<VectorDefinition>()(vector);

const diagonalShape = one(
  '"nearest", "keep", "horizontal" or "vertical"',
  'nearest',
  'keep',
  'horizontal',
  'vertical',
);

export const compassShape = fields(
  'compass',
  'a compass: { directions, by }',
  {
    directions: typed<DirectionsDefinition>()(directionsShape),
  },
  {
    mirror: any(
      '"west" (all that point west), "east", or pairs of directions: { west: east }',
      one('', 'west', 'east'),
      map(text(), 'pairs of directions'),
    ),
    by: vectorShape,
    up: one('"-y" or "+y"', '-y', '+y'),
    deadZone: fromZero(),
    stick: number(),
    diagonal: typed<DiagonalRule>()(diagonalShape),
    through: number('milliseconds from 0 to 10000', { least: 0, most: 10_000 }),
    start: text(),
  },
);
