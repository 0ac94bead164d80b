import { z } from 'zod';
import { flag, named, number, section, text } from './basics.js';

const texts = (error: string) => z.array(text, { error });

export const palette = section(
  {
    drawn: text.describe('The name of the colours that the drawings have.'),
    colours: named(texts('a list of colours such as "#2b6170"'), 'lists of colours by name').describe(
      'Lists of colours of the same length by name; the first of one stands for the first of another.',
    ),
    shared: flag
      .optional()
      .describe('One choice for everything that has this palette, instead of one a layer.'),
    weights: named(number, 'weights by name').optional().describe('How often chance picks each; default 1.'),
  },
  'a palette: { drawn, colours }',
).meta({
  examples: [
    {
      drawn: 'rust',
      colours: { rust: ['#7a3f24', '#b8692f', '#e0994a'], moss: ['#2d4a3c', '#4b7c5c', '#86b98a'] },
    },
  ],
});

const where = {
  states: texts('a list of states').optional().describe('While one of these shows.'),
  directions: texts('a list of directions').optional().describe('While it faces one of these.'),
  clips: texts('a list of clips').optional().describe('While one of these clips or flipbooks shows.'),
  frames: z.union([number, text], { error: 'frames such as 2-3' }).optional().describe('Frames of the clip.'),
  span: text.optional().describe('A span of the clip.'),
  from: text.optional().describe('From the frame with this cue on.'),
  until: text.optional().describe('Until the frame with this cue.'),
};

const piece = section(
  {
    sheet: z
      .union([text, z.record(z.string(), z.string())], {
        error: 'a sheet, or one for each of the body by name',
      })
      .describe("A sheet laid out as the body's, cell for cell."),
    cell: z
      .union([number, z.record(z.string(), z.number())], { error: 'a cell, or one for each direction' })
      .optional()
      .describe('One drawing whatever the body shows.'),
    at: text.optional().describe('The point of the body that it hangs on.'),
    clips: texts('a list of clips').optional().describe('What it is drawn for; default: all.'),
    directions: texts('a list of directions').optional().describe('What it is drawn for; default: all.'),
    otherwise: z
      .union([text, z.strictObject({ clip: text.describe('The clip whose first frame it shows.') })], {
        error: '"hide", another piece, or { clip }',
      })
      .optional()
      .describe('What shows where it is not drawn; default: nothing.'),
    palettes: texts('a list of palettes').optional().describe('The palettes whose colours it has.'),
    weight: number.optional().describe('How often chance picks it; default 1.'),
    excludes: texts('a list of pieces')
      .optional()
      .describe('What does not go with it: hat.straw, or all of hat.'),
    requires: texts('a list of pieces').optional().describe('What must be there with it.'),
  },
  'a piece: { sheet }',
);

const layer = section(
  {
    pieces: named(piece, 'pieces by name').describe('What it can be.'),
    none: number.optional().describe('How often chance leaves it empty; default: never.'),
    hidden: z
      .array(section(where, 'a place: { states, directions, clips, frames, span, from, until }'), {
        error: 'a list of places',
      })
      .optional()
      .describe('Where it is not drawn.'),
  },
  'a layer: { pieces }',
);

export const wardrobe = section(
  {
    layers: named(layer, 'layers by name').describe('Drawn in step with the body.'),
    order: texts('a list of layers').optional().describe('The body and the layers, back to front.'),
    orders: z
      .array(
        section(
          { ...where, order: texts('a list of layers').describe('Back to front, there.') },
          'a place with its order',
        ),
        { error: 'a list of places with their order' },
      )
      .optional()
      .describe('Other orders in some places; the first that fits counts.'),
    palettes: texts('a list of palettes').optional().describe("The palettes of the body's own drawings."),
    schemes: z
      .array(
        named(
          z.union([text, texts('a list of names')], { error: 'a name or a list of names' }),
          'picks by name',
        ),
        {
          error: 'a list of schemes',
        },
      )
      .optional()
      .describe('What goes together: chance takes one of these.'),
    kept: texts('a list of colours').optional().describe('Colours that no palette needs to name.'),
  },
  'a wardrobe: { layers }',
);
