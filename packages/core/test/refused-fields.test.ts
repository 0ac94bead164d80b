import type { StateDefinition } from 'dot-hop';
import { stage } from './walking-stage.js';

test.each<[string, StateDefinition, string]>([
  [
    'no clip',
    { while: 'go' },
    'states.x: a state shows one clip or flipbook with "shows", or several with "gaits"',
  ],
  [
    'both',
    { shows: 'walk', gaits: { by: 'vx', shows: ['walk', 'run'], above: [9] } },
    'states.x: a state shows one',
  ],
  [
    'gaits',
    { gaits: { by: 'vx', shows: ['walk', 'run'], above: [] } },
    'states.x.gaits: gaits need two or more',
  ],
  [
    'gaits in no order',
    { gaits: { by: 'vx', shows: ['walk', 'run', 'stand'], above: [9, 9] } },
    'states.x.gaits.above: the numbers in "above" must rise; they are [9,9]',
  ],
  [
    'a stride',
    { shows: 'stand', rate: { travel: 'vx' } },
    'states.x.rate: the rate follows what is travelled, but the clip "stand" has no stride',
  ],
  [
    'rates',
    { shows: 'walk', rate: { travel: 'vx', least: 3, most: 1 } },
    'states.x.rate: a rate lies between 0 and 64',
  ],
  [
    'scrub',
    { shows: 'walk', scrub: { by: 'vy', from: 1, to: 1 } },
    'states.x.scrub: "from" and "to" must be two different numbers, not 1 and 1',
  ],
  [
    'a scrubbed act',
    { shows: 'swing', when: 'go', scrub: { by: 'vy', from: 0, to: 1 } },
    'states.x.scrub: an act ends with its clip',
  ],
  [
    'an endless bridge',
    { shows: 'walk', bridges: { stand: 'run' } },
    'states.x.bridges.stand: the clip "run" loops forever',
  ],
  [
    'an unknown bridge',
    { shows: 'walk', bridges: { stnd: 'swing' } },
    'states.x.bridges.stnd: there is no state "stnd"; did you mean "stand"?',
  ],
  [
    'leaves',
    { shows: 'walk', leaves: 'end' },
    'states.x.leaves: "leaves" says where a state gives way whose "while"',
  ],
  [
    'a gait',
    { shows: 'walk', bridges: { stand: { rnu: 'swing' } } },
    'states.x.bridges.stand.rnu: there is no gait "rnu"; none is defined yet',
  ],
  [
    'a cue',
    { shows: 'walk', while: 'go', leaves: 'stpe' },
    'states.x.leaves: there is no cue or instant "stpe"; did you mean "step"?',
  ],
  [
    'phases',
    { shows: 'walk', while: 'go', leaves: { phases: [1] } },
    'states.x.leaves.phases[0]: a phase is from 0 to under 1, not 1',
  ],
  ['again', { shows: 'walk', while: 'go', again: 'queue' }, 'states.x.again: "again" speaks of a new press'],
  [
    'atLeast',
    { shows: 'walk', atLeast: -1 },
    'states.x.atLeast: expected milliseconds from 0 to 3600000, or an expression, not -1',
  ],
  ['a tag', { shows: 'walk', tags: ['vx'] }, 'states.x.tags[0]: "vx" is both a tag and a signal'],
  [
    'an option',
    { shows: 'walk', while: 'mode == laddre' },
    'states.x.while: the choice "mode" has no option "laddre"; did you mean "ladder"?',
  ],
  [
    'a choice alone',
    { shows: 'walk', while: 'mode' },
    'states.x.while: "mode" is a choice where a flag is wanted; compare it, such as mode == quay',
  ],
  [
    'a vector alone',
    { shows: 'walk', while: 'aim > 1' },
    'states.x.while: "aim" is a vector where a number is wanted; read one of its parts, aim.x or aim.y',
  ],
])('a document without sense (%s) is refused with its place', (_, state, message) => {
  expect(() => stage({ x: state })).toThrow(message);
});
