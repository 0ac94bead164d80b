import { any, fields, fromZero, map, number, one, text, tuple } from '../shape/shape.js';

const expression = any('an expression or a number', text(), number());

export const vectorShape = any(
  'two expressions, such as [vx, 0], or the name of a vector',
  text(),
  tuple([expression, expression], 'two expressions'),
);

export const compassShape = fields(
  'compass',
  'a compass: { directions, by }',
  {
    directions: any(
      '"none", "sides", "four", "eight", "sixteen" or directions by name at degrees',
      one('', 'none', 'sides', 'four', 'eight', 'sixteen'),
      map(number('degrees'), 'directions by name at degrees'),
    ),
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
    diagonal: one(
      '"nearest", "keep", "horizontal" or "vertical"',
      'nearest',
      'keep',
      'horizontal',
      'vertical',
    ),
    through: number('milliseconds from 0 to 10000', { least: 0, most: 10_000 }),
    start: text(),
  },
);
