import { z } from 'zod';
import { box, named, number, pair, section, text } from './basics.js';

const marks = {
  pivot: pair
    .optional()
    .describe('The point that stands where the character stands; default: middle of the lower edge.'),
  boxes: named(box, 'boxes by name')
    .optional()
    .describe('Boxes by name: [x, y, width, height] from the upper left of the untrimmed frame.'),
  points: named(pair, 'points by name').optional().describe('Points by name, such as hand: [30, 22].'),
};
const perNumber = named(section(marks, 'marks: { pivot, boxes, points }'), 'marks by number').optional();

const grid = section(
  {
    cell: pair.describe('[width, height] of a cell in whole pixels.'),
    margin: number.optional().describe('Space around all cells.'),
    gap: z
      .union([number, pair], { error: 'a number or [across, down]' })
      .optional()
      .describe('Space between cells.'),
    offset: pair.optional().describe('Where the first cell begins, besides the margin.'),
    columns: number.optional().describe('Default: as many as fit.'),
    rows: number.optional().describe('Default: as many as fit.'),
    count: number.optional().describe('How many cells there are; default: all.'),
  },
  'a grid, such as { cell: [48, 48] }',
);

const rectangle = z.union(
  [
    box,
    z.strictObject({
      rect: box.describe('[x, y, width, height] in the image.'),
      trim: box
        .optional()
        .describe(
          '[left, top, width, height]: where the rectangle lies in its untrimmed frame, and how large that is.',
        ),
    }),
  ],
  {
    error: '[x, y, width, height] or { rect, trim }',
  },
);

const piece = section(
  {
    cell: number.describe('The number of the cell that is drawn.'),
    at: pair.optional().describe('Its upper left corner in the composed cell.'),
    flip: z
      .enum(['x', 'y', 'xy'], { error: '"x", "y" or "xy"' })
      .optional()
      .describe('Turned over: left to right (x), upside down (y), or both.'),
  },
  'a piece: { cell, at, flip }',
);

const part = section(
  {
    image: text.describe("The image's file, laid out like that of the sheet."),
    joint: text.optional().describe('A point of both drawings by which it hangs on the body.'),
    boxes: z.array(text).optional().describe('Boxes that go with this part.'),
    points: z.array(text).optional().describe('Points that go with this part.'),
  },
  'a part: an image, or { image, joint, boxes, points }',
).meta({ examples: [{ image: 'wick-arms.png', joint: 'waist', points: ['lamp'] }] });

export const sheet = section(
  {
    image: text.optional().describe('The image file, relative to this document.'),
    images: z
      .array(text, { error: 'a list of files' })
      .optional()
      .describe('Files of a sequence; each is one cell.'),
    size: pair
      .optional()
      .describe('[width, height] of the image in pixels; read from the image where it is left out.'),
    grid: grid.optional().describe('Cuts the image into cells of one size.'),
    cells: z
      .array(rectangle, { error: 'a list of rectangles' })
      .optional()
      .describe('Rectangles, numbered in their order.'),
    compose: z
      .array(z.array(piece), { error: 'a list of lists of pieces' })
      .optional()
      .describe('Cells put together from pieces.'),
    ...marks,
    parts: named(z.union([text, part]), 'images by part')
      .optional()
      .describe('The drawings once more, cut in parts, back to front; tracks draw them.'),
    perCell: perNumber.describe('Marks of single cells, by number.'),
  },
  'a sheet: { image, grid }',
).meta({
  examples: [
    { image: 'wick.png', grid: { cell: [64, 56] }, pivot: [32, 53], boxes: { body: [22, 20, 20, 33] } },
  ],
});

const range = z.union([number, text], { error: 'a range such as 2-3' });
const line = z.union([
  z.strictObject({
    row: number.describe('The row of the grid, from 0.'),
    columns: range.optional().describe('Its columns. Default: all.'),
  }),
  z.strictObject({
    column: number.describe('The column of the grid, from 0.'),
    rows: range.optional().describe('Its rows. Default: all.'),
  }),
]);
const cellsPart = z.union([number, text, line]);

export const clip = section(
  {
    sheet: text.optional().describe('The sheet its cells are on; default: the first one.'),
    cells: z
      .union([cellsPart, z.array(cellsPart)], { error: 'cells, such as 0-7, [0-3, 5] or { row: 2 }' })
      .describe('Cells in order: 0-7, 7-0, 3, { row: 2 } or a list of these.'),
    rows: z
      .union([z.array(z.string()), z.record(z.string(), z.number())], {
        error: 'directions from the first row down, such as [south, east, north], or rows by direction',
      })
      .optional()
      .describe('The directions it is drawn for, a row of the sheet each; "cells" are those of the first.'),
    every: number
      .optional()
      .describe('With "rows": how many cells from one to the next; default: the columns of the grid.'),
    fps: number.optional().describe('Frames a second.'),
    ms: z
      .union([number, z.array(number)], { error: 'milliseconds: one number, or one for each frame' })
      .optional()
      .describe('Milliseconds of each frame, or one number for all.'),
    lasts: number.optional().describe('Milliseconds of one pass, shared out evenly.'),
    hold: named(number, 'frames with how many times as long they are held')
      .optional()
      .describe('Frames held longer, such as { 3: 2 }.'),
    loop: z
      .union(
        [
          z.enum(['forever', 'once', 'back-and-forth']),
          number,
          z.strictObject({ from: number.describe('The frame it goes on from, for ever.') }),
        ],
        {
          error: '"forever", "once", "back-and-forth", a number of times or { from: frame }',
        },
      )
      .optional()
      .describe('Default: forever.'),
    cues: named(z.union([number, z.array(number)], { error: 'a frame or a list of frames' }), 'cues by name')
      .optional()
      .describe('Names reported when play enters these frames, counted from 0.'),
    spans: named(range, 'spans by name')
      .optional()
      .describe('Names for ranges of frames, such as strike: 2-3.'),
    stride: number.optional().describe('Pixels the body travels during one pass.'),
    ...marks,
    perFrame: perNumber.describe('Marks of single frames, by number.'),
  },
  'a clip: { cells, fps }',
).meta({
  examples: [
    { cells: '0-7', fps: 8 },
    { cells: '24-27', ms: [40, 40, 40, 50], loop: 'once', cues: { leap: 2 } },
    { cells: '16-23', fps: 14, cues: { step: [0, 4] }, stride: 53 },
  ],
});
