import { vectorShape } from '../compass/shape.js';
import { lengthShape } from '../signal/shape.js';
import { any, fields, flag, fromZero, list, map, number, one, text, texts } from '../shape/shape.js';
import type { FieldsShape, Shape } from '../shape/shape.js';

const at = any(
  '"now", "end", a cue, { start: span }, { end: span } or { phases: [0.5] }',
  text(),
  fields('atStart', '{ start: span }', { start: text() }),
  fields('atEnd', '{ end: span }', { end: text() }),
  fields('atPhases', '{ phases: [0.5] }', { phases: list(number(), 'a list of phases') }),
);

const hop = fields('hop', 'a hop: { to, if, at }', { to: text() }, { if: text(), during: text(), at });

const givesWay = fields(
  'yield',
  'a yield: { to, during }',
  {},
  { to: texts('a list of states'), during: text(), if: text() },
);

const carryRule = one('"none", "phase" or "frame"', 'none', 'phase', 'frame');
const carry = any(
  '"none", "phase" or "frame", or these by the state that is left',
  carryRule,
  map(carryRule, 'carries by state'),
);

const facing = any(
  '"held", or a vector of its own: { by: aim }',
  one('', 'held'),
  fields('facing', '{ by: aim }', { by: vectorShape }, { deadZone: fromZero() }),
);

const gaits = fields(
  'gaits',
  'gaits: { by: speed, shows: [walk, run], above: [95], margin: 15 }',
  {
    by: text(),
    shows: texts('a list of clips or flipbooks'),
    above: list(number(), 'a list of numbers'),
  },
  { margin: fromZero() },
);

const rate = any(
  'an expression, a number, or { travel: speed, least, most }',
  text(),
  number(),
  fields('rate', '{ travel: speed, least, most }', { travel: text() }, { least: number(), most: number() }),
);

const scrub = fields('scrub', 'a scrub: { by: vy, from: -300, to: 300 }', {
  by: text(),
  from: number(),
  to: number(),
});

/** Several of which one is picked. @param of what they are */
export const varietyShape = (says: string, of: string): FieldsShape =>
  fields(
    'variety',
    says,
    { any: texts(of) },
    {
      pick: one('"turn" or "chance"', 'turn', 'chance'),
      weights: list(fromZero(), 'a list of numbers, each 0 or more'),
      repeats: flag,
    },
  );

const stateShape = fields(
  'state',
  'a state: { shows, priority, while or when }',
  {},
  {
    shows: any(
      'a clip or flipbook, or { any: [yawn, scratch], pick: turn }',
      text(),
      varietyShape('{ any, pick, weights, repeats }', 'a list of clips or flipbooks'),
    ),
    gaits,
    priority: number(),
    while: text(),
    when: text(),
    then: text(),
    hops: list(hop, 'a list of hops'),
    yields: list(givesWay, 'a list of yields'),
    carry,
    rate,
    scrub,
    bridges: map(
      any('a clip, or clips by gait', text(), map(text(), 'clips by gait')),
      'clips by the state that is left',
    ),
    leaves: at,
    atLeast: lengthShape,
    lasts: lengthShape,
    fit: flag,
    again: one('"ignore", "restart" or "queue"', 'ignore', 'restart', 'queue'),
    tags: texts('a list of names'),
    facing,
    turns: fields('turns', 'turns: { shows: skid, least: 90 }', { shows: text() }, { least: number() }),
    final: flag,
    inStep: text(),
    takes: any(
      'a list of tracks, or a condition for each: { body: "!moving" }',
      texts('a list of tracks'),
      map(text(), 'conditions by track'),
    ),
  },
);

export const statesShape = map(stateShape, 'states by name');

const ownGroups: Record<string, Shape> = {};
const groupShape = fields(
  'group',
  'a group: { while, rest, states }',
  { while: text(), rest: text(), states: statesShape },
  Object.assign(ownGroups, { priority: number(), tags: texts('a list of names'), carry, facing }),
);
export const groupsShape = map(groupShape, 'groups by name');
// There are groups in groups.
ownGroups.groups = groupsShape;

export const trackShape = fields(
  'track',
  'a track: { draws, states, rest }',
  { states: statesShape },
  { draws: texts('a list of parts of the sheets'), rest: text(), groups: groupsShape },
);
