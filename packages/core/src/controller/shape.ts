import { clipShape } from '../clip/shape.js';
import { compassShape } from '../compass/shape.js';
import { any, fields, list, map, one, text } from '../shape/shape.js';
import type { FieldsShape } from '../shape/shape.js';
import { sheetShape } from '../sheet/shape.js';
import { derivedShape, signalShape } from '../signal/shape.js';
import { groupsShape, statesShape, trackShape, varietyShape } from './state-shape.js';

/** What is worn has a shape of its own, see `wardrobe/`: a game without clothes carries none of it. */
const worn = fields('worn', 'palettes by name', {}, {}, true);

/** What a document must look like, as far as the runtime reads it. */
export const controllerShape: FieldsShape = fields(
  'document',
  'a document: dotHop, sheets, clips, states, rest',
  {
    dotHop: one('1, the version of the format', 1),
    sheets: map(sheetShape, 'sheets by name'),
    clips: map(clipShape, 'clips by name'),
  },
  {
    $schema: text(),
    name: text(),
    flipbooks: map(map(text(), 'clips by direction'), 'flipbooks by name'),
    compass: compassShape,
    signals: map(signalShape, 'signals by name'),
    derived: map(derivedShape, 'derived signals by name'),
    states: statesShape,
    groups: groupsShape,
    rest: text(),
    cues: map(
      varietyShape('{ any: [step, splash], pick, weights, repeats }', 'a list of names'),
      'names by the cue that is told by one of them',
    ),
    variants: map(
      map(
        any(
          'a flipbook, or flipbooks by those they stand for',
          text(),
          map(text(), 'flipbooks by those they stand for'),
        ),
        'flipbooks by those they stand for, or these by option',
      ),
      'variants by signal',
    ),
    tracks: map(trackShape, 'tracks by name'),
    palettes: worn,
    wardrobe: { ...worn, says: 'a wardrobe: { layers }' },
    accept: list(
      fields(
        'accept',
        'what is accepted: { finding, at, because }',
        { finding: text(), because: text() },
        { at: text() },
      ),
      'a list of findings that are accepted',
    ),
  },
);
