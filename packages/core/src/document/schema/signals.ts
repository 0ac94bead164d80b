import { z } from 'zod';
import { flag, number, section, text } from './basics.js';

export const vector = z.union([z.string(), z.tuple([z.union([text, number]), z.union([text, number])])], {
  error: 'two expressions, such as [vx, 0], or the name of a vector',
});

export const compass = section(
  {
    directions: z
      .union([z.enum(['none', 'sides', 'four', 'eight', 'sixteen']), z.record(z.string(), number)], {
        error: '"none", "sides", "four", "eight", "sixteen" or directions by name at degrees',
      })
      .describe('The directions it can face: 0 degrees is right, 90 is down.'),
    mirror: z
      .union([z.enum(['west', 'east']), z.record(z.string(), z.string())], {
        error: '"west" (all that point west), "east", or pairs of directions: { west: east }',
      })
      .optional()
      .describe('Directions drawn as the mirror image of another: a side, or pairs: { west: east }.'),
    by: vector.optional().describe('The vector that turns the character.'),
    up: z
      .enum(['-y', '+y'], { error: '"-y" or "+y"' })
      .optional()
      .describe('Which way is up in that vector; default: -y, as on a screen.'),
    deadZone: number.optional().describe('Below this length the character keeps facing where it faced.'),
    stick: number
      .optional()
      .describe('Degrees by which the vector must pass a border before the character turns. Default 0.'),
    diagonal: z
      .enum(['nearest', 'keep', 'horizontal', 'vertical'], {
        error: '"nearest", "keep", "horizontal" or "vertical"',
      })
      .optional()
      .describe('What a vector between two directions means. Default: nearest.'),
    through: number
      .optional()
      .describe('Milliseconds each direction shows at least: far turns pass through those in between.'),
    start: text.optional().describe('The direction it faces at first.'),
  },
  'a compass: { directions, by }',
).meta({
  examples: [
    { directions: 'sides', mirror: 'west', by: ['vx', 0], deadZone: 8 },
    { directions: 'eight', mirror: 'west', by: ['vx', 'vy'], stick: 8 },
  ],
});

export const signal = z
  .union(
    [
      z.strictObject({ number: number.describe('A number; this is the first value.') }),
      z.strictObject({ flag: flag.describe('True or false; this is the first value.') }),
      z.strictObject({
        choice: z.array(z.string()).describe('One of these names.'),
        first: z.string().optional().describe('The one it begins with. Default: the first of them.'),
      }),
      z.strictObject({
        vector: z
          .tuple([number, number])
          .describe('Two numbers, read as .x and .y; these are the first values.'),
      }),
      z.strictObject({
        pulse: z
          .union([
            z.literal(true),
            z.strictObject({ keep: number.optional().describe('Milliseconds it is remembered.') }),
          ])
          .describe('Something that happens: true until a state uses it or it expires.'),
      }),
    ],
    {
      error:
        'a signal: { number: 0 }, { flag: false }, { choice: [a, b] }, { vector: [0, 0] } or { pulse: { keep: 120 } }',
    },
  )
  .meta({
    examples: [
      { number: 0 },
      { flag: true },
      { choice: ['ground', 'ladder'] },
      { vector: [0, 0] },
      { pulse: { keep: 120 } },
    ],
  });

export const derived = z
  .union(
    [
      z.string(),
      z.strictObject({
        of: text.describe('The number.'),
        above: number.describe('It turns on above this.'),
        below: number.describe('It turns off below this; in between it stays as it was.'),
      }),
      z.strictObject({
        of: text.describe('The condition.'),
        linger: number.describe('Milliseconds it stays true after the condition has turned false.'),
      }),
      z.strictObject({
        of: text.describe('The condition.'),
        settle: number.describe('Milliseconds the condition must have been true.'),
      }),
    ],
    { error: 'an expression, { of, above, below }, { of, linger } or { of, settle }' },
  )
  .meta({
    examples: [
      'abs(vx)',
      { of: 'speed', above: 12, below: 8 },
      { of: 'grounded', linger: 80 },
      { of: 'still', settle: 1500 },
    ],
  });
