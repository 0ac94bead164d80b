import { z } from 'zod';
import type { ControllerDefinition } from '../controller/definition.js';

// The text given to each kind is what an error says was expected there.
const number = z.number({ error: 'a number' });
const text = z.string({ error: 'a text' });
const flag = z.boolean({ error: 'true or false' });
const pair = z.tuple([number, number], { error: 'two numbers, such as [48, 48]' });
const box = z.tuple([number, number, number, number], { error: '[x, y, width, height]' });
const named = <T extends z.ZodType>(value: T, error: string): z.ZodRecord<z.ZodString, T> =>
  z.record(z.string(), value, { error });
const section = <T extends z.core.$ZodLooseShape>(shape: T, error: string) =>
  z.strictObject(shape, { error });

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

const sheet = section(
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
    perCell: perNumber.describe('Marks of single cells, by number.'),
  },
  'a sheet: { image, grid }',
);

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

const clip = section(
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
);

const vector = z.union([z.string(), z.tuple([z.union([text, number]), z.union([text, number])])], {
  error: 'two expressions, such as [vx, 0], or the name of a vector',
});

const compass = section(
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
);

const signal = z.union(
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
);

const derived = z.union(
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
);

const at = z.union(
  [
    z.string(),
    z.strictObject({ start: z.string().describe('The instant this span begins.') }),
    z.strictObject({ end: z.string().describe('The instant this span ends.') }),
    z.strictObject({ phases: z.array(z.number()).describe('Phases of a pass, each from 0 to under 1.') }),
  ],
  { error: '"now", "end", a cue, { start: span }, { end: span } or { phases: [0.5] }' },
);

const hop = section(
  {
    to: text.describe('The state it leads to.'),
    if: text.optional().describe('Default: always.'),
    during: text.optional().describe('The span within which the condition counts, remembered until "at".'),
    at: at
      .optional()
      .describe(
        'The instant it is taken: now (default), end, a cue, { start: span }, { end: span }, { phases: [0.5] }.',
      ),
  },
  'a hop: { to, if, at }',
);

const givesWay = section(
  {
    to: z
      .array(text, { error: 'a list of states' })
      .optional()
      .describe('Default: whichever state wants in.'),
    during: text.optional().describe('A span; default: at any time.'),
    if: text.optional().describe('Default: always.'),
  },
  'a yield: { to, during }',
);

const carry = z.enum(['none', 'phase', 'frame']);

const gaits = section(
  {
    by: text.describe('The number that picks the gait, such as speed.'),
    shows: z
      .array(text, { error: 'a list of clips or flipbooks' })
      .describe('From the slowest to the fastest.'),
    above: z
      .array(number, { error: 'a list of numbers' })
      .describe('Above which number each but the first begins.'),
    margin: number.optional().describe('How far below it must fall for the one before. Default 0.'),
  },
  'gaits: { by: speed, shows: [walk, run], above: [95], margin: 15 }',
);

const rate = z.union(
  [
    z.string(),
    z.number(),
    z.strictObject({
      travel: z.string().describe('Pixels a second that the body travels; the stride makes the rate of it.'),
      least: z.number().optional().describe('The lowest rate. Default 0.'),
      most: z.number().optional().describe('The highest rate. Default 64.'),
    }),
  ],
  { error: 'an expression, a number, or { travel: speed, least, most }' },
);

const scrub = section(
  {
    by: text.describe('The number, such as vy.'),
    from: number.describe('The number at which the beginning of the clip shows.'),
    to: number.describe('The number at which its end shows.'),
  },
  'a scrub: { by: vy, from: -300, to: 300 }',
);

const state = section(
  {
    shows: text.optional().describe('The clip or flipbook it shows.'),
    gaits: gaits.optional().describe('Instead of "shows": several flipbooks, picked by a number.'),
    priority: number.optional().describe('Higher ranks win. Default 0.'),
    while: text.optional().describe('Makes it a posture: shows as long as this is true.'),
    when: text.optional().describe('Makes it an act: starts when this becomes true and plays to its end.'),
    then: text.optional().describe("The state that follows an act's end."),
    hops: z
      .array(hop, { error: 'a list of hops' })
      .optional()
      .describe('Explicit ways to other states, in order.'),
    yields: z
      .array(givesWay, { error: 'a list of yields' })
      .optional()
      .describe('When and to whom it gives way although it has not ended.'),
    carry: z
      .union([carry, z.record(z.string(), carry)], {
        error: '"none", "phase" or "frame", or these by the state that is left',
      })
      .optional()
      .describe("What is kept of the clip's place when it is entered."),
    rate: rate
      .optional()
      .describe('How fast its time runs: an expression, or { travel: speed } with the stride of the clip.'),
    scrub: scrub.optional().describe('Its frame follows a number instead of time.'),
    bridges: named(z.union([z.string(), z.record(z.string(), z.string())]), 'clips by the state that is left')
      .optional()
      .describe(
        'Clips that show first when it is entered from these states, or from a gait of one: { go: { run: skid } }.',
      ),
    leaves: at
      .optional()
      .describe('Where it gives way when its "while" has turned false: end, a cue, a span, phases.'),
    atLeast: number.optional().describe('Milliseconds for which only a higher rank or a hop ends it.'),
    again: z
      .enum(['ignore', 'restart', 'queue'], { error: '"ignore", "restart" or "queue"' })
      .optional()
      .describe('What a new press does to an act that is playing. Default: ignore.'),
    tags: z
      .array(text, { error: 'a list of names' })
      .optional()
      .describe('Names that conditions can test: true while it shows.'),
    facing: z
      .union(
        [
          z.literal('held'),
          z.strictObject({
            by: vector.describe('The vector it faces by.'),
            deadZone: z.number().optional().describe('Default: that of the compass.'),
          }),
        ],
        {
          error: '"held", or a vector of its own: { by: aim }',
        },
      )
      .optional()
      .describe('Keeps the direction it was entered with, or faces by another vector than the compass.'),
    turns: section(
      {
        shows: text.describe('The clip or flipbook, played once in the new direction.'),
        least: number.optional().describe('From how many degrees on. Default 90.'),
      },
      'turns: { shows: skid, least: 90 }',
    )
      .optional()
      .describe('What shows first when the character turns in this state.'),
    final: flag.optional().describe('No rank cuts it off.'),
  },
  'a state: { shows, priority, while or when }',
);

/** The one schema of a character's document; that what it reads is what the runtime takes, the compiler checks. */
export const documentSchema: z.ZodType<ControllerDefinition> = section(
  {
    $schema: text.optional().describe('The address of the JSON Schema, for editors.'),
    dotHop: z.literal(1, { error: '1, the version of the format' }).describe('The version of the format.'),
    name: text.optional().describe('The name of the character.'),
    sheets: named(sheet, 'sheets by name').describe('Images and how they are cut into cells.'),
    clips: named(clip, 'clips by name').describe('Cells in order with their times.'),
    flipbooks: named(named(text, 'clips by direction'), 'flipbooks by name')
      .optional()
      .describe('A clip for each direction, by name.'),
    compass: compass.optional().describe('The directions it can face, and what turns it.'),
    signals: named(signal, 'signals by name').optional().describe('What the game tells: input and physics.'),
    derived: named(derived, 'derived signals by name')
      .optional()
      .describe('Signals that are computed from others.'),
    states: named(state, 'states by name')
      .optional()
      .describe('What it can be showing, by rank. Without states each clip is one, to be looked at.'),
    rest: text.optional().describe('The state that shows when no other wants to; default: the first.'),
    accept: z
      .array(
        section(
          {
            finding: text.describe('The code of the finding.'),
            at: text.optional().describe('Where: a path or its beginning, such as states.rise.'),
            because: text.describe('Why it is meant so.'),
          },
          'what is accepted: { finding, at, because }',
        ),
        { error: 'a list of findings that are accepted' },
      )
      .optional()
      .describe('What "dot-hop check" finds and is meant so, each with its reason.'),
  },
  'a document: dotHop, sheets, clips, states, rest',
);
