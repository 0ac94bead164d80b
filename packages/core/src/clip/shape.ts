import { allOf, any, fields, list, map, name, namesOf, number, one, text, texts } from '../shape/shape.js';
import { typed } from '../shape/type-of.js';
import { marks, marksByNumber } from '../sheet/shape.js';
import type { CellsDefinition } from './cells.js';
import type { LoopDefinition } from './definition.js';

const range = any('a range such as 2-3', number(), text());
const lineShape = any(
  'a row or a column',
  fields('line', 'a row: { row, columns }', { row: number() }, { columns: range }),
  fields('upright', 'a column: { column, rows }', { column: number() }, { rows: range }),
);

const cells = 'cells, such as 0-7, [0-3, 5] or { row: 2 }';
const cellsPart = any(cells, number(), text(), ...lineShape.of);

const cellsShape = any(cells, ...cellsPart.of, list(cellsPart, cells));

const loopShape = any(
  '"forever", "once", "back-and-forth", a number of times or { from: frame }',
  one('', 'forever', 'once', 'back-and-forth'),
  number(),
  allOf('loop', '{ from: frame }', { from: number() }),
);

export const clipShape = fields(
  'clip',
  'a clip: { cells, fps }',
  {
    cells: typed<CellsDefinition>()(cellsShape),
  },
  {
    sheet: name('sheet'),
    rows: any(
      'directions from the first row down, such as [south, east, north], or rows by direction',
      texts('a list of directions'),
      map(number(), 'rows by direction'),
    ),
    every: number(),
    fps: number(),
    ms: any(
      'milliseconds: one number, or one for each frame',
      number(),
      list(number(), 'milliseconds of each frame'),
    ),
    lasts: number(),
    hold: map(number(), 'frames with how many times as long they are held'),
    loop: typed<LoopDefinition>()(loopShape),
    cues: namesOf(
      'cue',
      any('a frame or a list of frames', number(), list(number(), 'a list of frames')),
      'cues by name',
    ),
    spans: namesOf('span', range, 'spans by name'),
    stride: number(),
    ...marks,
    perFrame: marksByNumber,
  },
);
