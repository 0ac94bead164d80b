import {
  allOf,
  any,
  expression,
  fields,
  flag,
  list,
  mapBy,
  name,
  names,
  number,
  one,
  text,
  tuple,
} from '../shape/shape.js';
import type { TextRole } from '../shape/shape.js';
import { typed, untied } from '../shape/type-of.js';
import { fastestPace } from '../engine/pace.js';
import { buttonNames, quantityNames } from './buttons.js';
import type {
  BodyDefinition,
  Expectation,
  RehearsalDefinition,
  ScriptLine,
  StepsDefinition,
} from './definition.js';

/** The longest rehearsal, in milliseconds. */
const longest = 3_600_000;

const from0 = number('milliseconds, 0 or more', { least: 0 });
/** A microsecond is the finest that time is counted in; steps below it would never come to an end. */
const some = number('milliseconds, 0.001 or more', { least: 0.001 });
const oneOrMore = (role: TextRole, says: string, several: string) =>
  any(`${says} or ${several}`, name(role), names(role, several));

const shownThen = { state: name('state'), direction: text(), clip: name('shown'), cell: number() };
const aim = any(
  'a number to go to, or [from, to]',
  number(),
  tuple([number(), number()], 'a number to go to, or [from, to]'),
);
const isWhen =
  'a line of the script: when ("at", "after" or "until") and what, such as { at: 300, set: { vx: 60 } }';

const line = fields(
  'line',
  isWhen,
  {},
  {
    at: from0,
    after: from0,
    until: any(
      'a condition such as "grounded && vy == 0", { state: NAME } or { cue: NAME }',
      expression,
      allOf('untilState', '{ state: NAME }', { state: name('state') }),
      allOf('untilCue', '{ cue: NAME }', { cue: name('cue') }),
    ),
    within: some,
    set: mapBy(
      'signal',
      any(
        'a number, true or false, an option or [x, y]',
        number(),
        flag,
        text(),
        tuple([number(), number()], '[x, y]'),
      ),
      'signals with their values',
    ),
    pulse: oneOrMore('signal', 'a pulse', 'a list of pulses'),
    ramp: mapBy('signal', aim, 'numbers with where they go: { vx: 140 } or { vy: [-200, 200] }'),
    over: some,
    press: oneOrMore('pressed', 'a button', 'a list of buttons'),
    for: some,
    release: oneOrMore('pressed', 'a button', 'a list of buttons'),
    ask: name('state'),
    cut: name('state'),
    route: name('state'),
    reset: one('true', true),
    pace: number(`a number from 0 to ${fastestPace}`, { least: 0, most: fastestPace }),
    every: some,
    times: number('a whole number from 2 to 1000', { least: 2, most: 1000, whole: true }),
    expect: fields('shown', 'what shows then: { state, direction, clip, cell }', {}, shownThen),
  },
);

const expectation = fields(
  'expectation',
  'an expectation: { at, state }, { from, to, passes }, ...',
  {},
  {
    at: from0,
    from: from0,
    to: from0,
    ...shownThen,
    passes: names('state', 'a list of states'),
    never: oneOrMore('state', 'a state', 'a list of states'),
    cues: mapBy('cue', number(), 'cues with their counts'),
  },
);

const positive = number('a number over 0', { over: 0 });
const feeds = [...quantityNames, ...buttonNames];
const moving = {
  speed: positive,
  gain: positive,
  brake: positive,
  start: tuple([number(), number()], '[x, y], in pixels'),
  feeds: mapBy(
    'signal',
    one(`one of ${feeds.join(', ')}`, ...feeds),
    'signals with what feeds them, such as { falling: vy }',
  ),
};
const ground =
  'pieces of ground, each [from x, to x, height] or [from x, to x, height, height at the other end]';
const level = (what: string) => {
  const says = `${what}, each [from x, to x, height]`;
  return list(tuple([number(), number(), number()], says), says);
};
const body = any(
  '{ platformer: {} } or { walker: {} }',
  allOf('runner', '{ platformer: {} }', {
    platformer: fields(
      'platformer',
      '{ speed, gain, brake, jump, leapAt, gravity, ground, planks, water, feeds }, all of them optional',
      {},
      {
        ...moving,
        jump: positive,
        leapAt: name('cue'),
        gravity: positive,
        ground: list(
          any(
            ground,
            tuple([number(), number(), number()], ground),
            tuple([number(), number(), number(), number()], ground),
          ),
          ground,
        ),
        planks: level('planks'),
        water: level('water'),
      },
    ),
  }),
  allOf('stroller', '{ walker: {} }', {
    walker: fields('walker', '{ speed, gain, brake, feeds }, all of them optional', {}, moving),
  }),
);

const steps = any(
  '{ perSecond: 60 }, or { from: 5, to: 40, seed: 7 } for steps of uneven length in milliseconds',
  allOf('even', '{ perSecond: 60 }', {
    perSecond: number('from over 0 to 1000 steps a second', { over: 0, most: 1000 }),
  }),
  allOf('uneven', '{ from: 5, to: 40, seed: 7 }', {
    from: some,
    to: some,
    seed: number('a whole number', { whole: true }),
  }),
);

const rehearsalFields = fields(
  'rehearsal',
  'a rehearsal: dotHopRehearsal, document, lasts, body, steps, script, expect',
  {
    dotHopRehearsal: one('1, the version of the format', 1),
    document: text(),
    lasts: number(`milliseconds, at most ${longest} (an hour)`, { least: 0, most: longest }),
    script: list(typed<ScriptLine>()(line), 'a list of lines such as { at: 300, set: { vx: 60 } }'),
  },
  {
    $schema: text(),
    begins: untied<NonNullable<RehearsalDefinition['begins']>>()(
      fields('begins', 'a snapshot of a performer', { dotHopSnapshot: one('1 or 2', 1, 2) }, {}, true),
    ),
    body: typed<BodyDefinition>()(body),
    steps: typed<StepsDefinition>()(steps),
    expect: list(typed<Expectation>()(expectation), 'a list of expectations'),
  },
);

/** What a rehearsal's file must look like. */
export const rehearsalShape = typed<RehearsalDefinition>()(rehearsalFields);
