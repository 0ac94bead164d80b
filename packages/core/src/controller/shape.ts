import type { ClipDefinition } from '../clip/definition.js';
import { clipShape } from '../clip/shape.js';
import { compassShape } from '../compass/shape.js';
import type { CompassDefinition } from '../compass/definition.js';
import { any, fields, list, map, mapBy, name, namesOf, one, text } from '../shape/shape.js';
import { typed, untied } from '../shape/type-of.js';
import { sheetShape } from '../sheet/shape.js';
import type { SheetDefinition } from '../sheet/definition.js';
import { derivedShape, signalShape } from '../signal/shape.js';
import { groupsShape, statesShape, toldShape, trackShape } from './state-shape.js';
import type { PaletteDefinition, WardrobeDefinition } from './wardrobe-definition.js';
import type { AcceptDefinition, ControllerDefinition, VariantsDefinition } from './definition.js';

const variantsShape = mapBy(
  'signal',
  map(
    any(
      'a flipbook, or flipbooks by those they stand for',
      name('shown'),
      mapBy('shown', name('shown'), 'flipbooks by those they stand for'),
    ),
    'flipbooks by those they stand for, or these by option',
  ),
  'variants by signal',
);

const acceptShape = fields(
  'accept',
  'what is accepted: { finding, at, because }',
  {
    finding: text(),
    because: text(),
  },
  {
    at: name('place'),
  },
);

/** What is worn has a shape of its own, see `wardrobe/`: a game without clothes carries none of it. */
const worn = fields('worn', 'palettes by name', {}, {}, true);

const documentFields = fields(
  'document',
  'a document: dotHop, sheets, clips, states, rest',
  {
    dotHop: one('1, the version of the format', 1),
    sheets: namesOf('sheet', typed<SheetDefinition>()(sheetShape), 'sheets by name'),
    clips: namesOf('clip', typed<ClipDefinition>()(clipShape), 'clips by name'),
  },
  {
    $schema: text(),
    name: text(),
    flipbooks: namesOf('clip', map(name('clip'), 'clips by direction'), 'flipbooks by name'),
    compass: typed<CompassDefinition>()(compassShape),
    signals: namesOf('signal', signalShape, 'signals by name'),
    derived: namesOf('signal', derivedShape, 'derived signals by name'),
    states: statesShape,
    groups: groupsShape,
    rest: name('state'),
    cues: mapBy('cue', toldShape, 'names by the cue that is told by one of them'),
    variants: typed<VariantsDefinition>()(variantsShape),
    tracks: namesOf('track', trackShape, 'tracks by name'),
    palettes: untied<Readonly<Record<string, PaletteDefinition>>>()(worn),
    wardrobe: untied<WardrobeDefinition>()({ ...worn, says: 'a wardrobe: { layers }' }),
    accept: list(typed<AcceptDefinition>()(acceptShape), 'a list of findings that are accepted'),
  },
);

/** What a document must look like, as far as the runtime reads it. */
export const controllerShape = typed<ControllerDefinition>()(documentFields);
