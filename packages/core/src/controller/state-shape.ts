import { vectorShape } from '../compass/shape.js';
import {
  allOf,
  any,
  expression,
  fields,
  flag,
  fromZero,
  list,
  mapBy,
  name,
  names,
  namesOf,
  number,
  one,
} from '../shape/shape.js';
import type { FieldsShape, MapShape } from '../shape/shape.js';
import { typed } from '../shape/type-of.js';
import type { Typed } from '../shape/type-of.js';
import { lengthShape } from '../signal/shape.js';
import type {
  AgainRule,
  AtDefinition,
  CarryRule,
  FacingDefinition,
  GaitsDefinition,
  GroupDefinition,
  HopDefinition,
  RateDefinition,
  ScrubDefinition,
  StateDefinition,
  TrackDefinition,
  TurnsDefinition,
  VarietyDefinition,
  YieldDefinition,
} from './definition.js';

const atShape = any(
  '"now", "end", a cue, { start: span }, { end: span } or { phases: [0.5] }',
  name('instant'),
  allOf('atStart', '{ start: span }', {
    start: name('span'),
  }),
  allOf('atEnd', '{ end: span }', {
    end: name('span'),
  }),
  allOf('atPhases', '{ phases: [0.5] }', {
    phases: list(number(), 'a list of phases'),
  }),
);

const at = typed<AtDefinition>()(atShape);

const hopShape = fields(
  'hop',
  'a hop: { to, if, at }',
  { to: name('state') },
  {
    if: expression,
    during: name('span'),
    at,
  },
);

const yieldShape = fields(
  'yield',
  'a yield: { to, during }',
  {},
  {
    to: names('state', 'a list of states'),
    during: name('span'),
    if: expression,
  },
);

const carryRule = one('"none", "phase" or "frame"', 'none', 'phase', 'frame');

const carry = any(
  '"none", "phase" or "frame", or these by the state that is left',
  typed<CarryRule>()(carryRule),
  mapBy('stateAnywhere', typed<CarryRule>()(carryRule), 'carries by state'),
);

const againShape = one('"ignore", "restart" or "queue"', 'ignore', 'restart', 'queue');

const rateShape = any(
  'an expression, a number, or { travel: speed, least, most }',
  expression,
  number(),
  fields(
    'rate',
    '{ travel: speed, least, most }',
    {
      travel: expression,
    },
    {
      least: number(),
      most: number(),
    },
  ),
);

const gaitsShape = fields(
  'gaits',
  'gaits: { by: speed, shows: [walk, run], above: [95], margin: 15 }',
  {
    by: expression,
    shows: names('shown', 'a list of clips or flipbooks'),
    above: list(number(), 'a list of numbers'),
  },
  {
    margin: fromZero(),
  },
);

const picking = {
  pick: one('"turn" or "chance"', 'turn', 'chance'),
  weights: list(fromZero(), 'a list of numbers, each 0 or more'),
  repeats: flag,
};
const anyOf = fields(
  'variety',
  '{ any, pick, weights, repeats }',
  {
    any: names('shown', 'a list of clips or flipbooks'),
  },
  picking,
);

/** Several names of which one is told in place of a cue. */
const toldNames = fields(
  'variety',
  '{ any: [step, splash], pick, weights, repeats }',
  { any: names('told', 'a list of names') },
  picking,
);
export const toldShape = typed<VarietyDefinition>()(toldNames);

const scrubShape = allOf('scrub', 'a scrub: { by: vy, from: -300, to: 300 }', {
  by: expression,
  from: number(),
  to: number(),
});

const facedBy = fields(
  'facing',
  '{ by: aim }',
  { by: vectorShape },
  {
    deadZone: fromZero(),
  },
);

const facing = any(
  '"held", or a vector of its own: { by: aim }',
  one('', 'held'),
  typed<FacingDefinition>()(facedBy),
);

const turnsShape = fields(
  'turns',
  'turns: { shows: skid, least: 90 }',
  {
    shows: name('shown'),
  },
  {
    least: number(),
  },
);

export const stateShape = fields(
  'state',
  'a state: { shows, priority, while or when }',
  {},
  {
    shows: any(
      'a clip or flipbook, or { any: [yawn, scratch], pick: turn }',
      name('shown'),
      typed<VarietyDefinition>()(anyOf),
    ),
    gaits: typed<GaitsDefinition>()(gaitsShape),
    priority: number(),
    while: expression,
    when: expression,
    then: name('state'),
    hops: list(typed<HopDefinition>()(hopShape), 'a list of hops'),
    yields: list(typed<YieldDefinition>()(yieldShape), 'a list of yields'),
    carry,
    rate: typed<RateDefinition>()(rateShape),
    scrub: typed<ScrubDefinition>()(scrubShape),
    bridges: mapBy(
      'stateAnywhere',
      any('a clip, or clips by gait', name('shown'), mapBy('shown', name('shown'), 'clips by gait')),
      'clips by the state that is left',
    ),
    leaves: at,
    atLeast: lengthShape,
    lasts: lengthShape,
    fit: flag,
    again: typed<AgainRule>()(againShape),
    tags: names('tag', 'a list of names'),
    facing,
    turns: typed<TurnsDefinition>()(turnsShape),
    final: flag,
    inStep: name('track'),
    takes: any(
      'a list of tracks, or a condition for each: { body: "!moving" }',
      names('track', 'a list of tracks'),
      mapBy('track', expression, 'conditions by track'),
    ),
  },
);

export const statesShape = namesOf('state', typed<StateDefinition>()(stateShape), 'states by name');

const insideGroup = {
  priority: number(),
  tags: names('tag', 'a list of names'),
  carry,
  facing,
};
const groupFields = fields(
  'group',
  'a group: { while, rest, states }',
  {
    while: expression,
    rest: name('ownState'),
    states: statesShape,
  },
  insideGroup,
);
const groupShape = typed<Omit<GroupDefinition, 'groups'>>()(groupFields);

/** There are groups in groups. */
type NestedShape = FieldsShape<
  (typeof groupShape)['must'],
  (typeof groupShape)['may'] & { readonly groups: GroupsShape },
  'group'
> &
  Typed<GroupDefinition>;
export interface GroupsShape
  extends MapShape<NestedShape, 'none'>, Typed<Readonly<Record<string, GroupDefinition>>> {}

const nested = { ...groupShape, may: { ...groupShape.may } } as unknown as NestedShape;
export const groupsShape = namesOf('state', nested, 'groups by name') as unknown as GroupsShape;
Object.assign(nested.may, { groups: groupsShape });

const trackFields = fields(
  'track',
  'a track: { draws, states, rest }',
  { states: statesShape },
  {
    draws: names('part', 'a list of parts of the sheets'),
    rest: name('ownState'),
    groups: groupsShape,
  },
);

export const trackShape = typed<TrackDefinition>()(trackFields);
