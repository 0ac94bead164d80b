import { readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import { controller } from './ferryman.js';

test.each([
  ['script: [{ pulse: wave }]', 'say when the line takes place'],
  ['script: [{ at: 1, after: 2, pulse: wave }]', 'say when the line takes place'],
  ['script: [{ at: 1, ramp: { vx: 3 } }]', '"ramp" and "over" go together'],
  ['script: [{ at: 1, pulse: wave, times: 3 }]', '"every" and "times" go together'],
  ['script: [{ at: 1, pulse: wave, for: 3 }]', '"for" says something about "press", which is not given here'],
  ['script: [{ at: 1, within: 3 }]', '"within" says something about "until"'],
  ['script: [{ at: 1, ramp: { vz: 3 }, over: 9 }]', 'there is no signal "vz"; did you mean "vx"?'],
  ['script: [{ at: 1, ramp: { lamp: 3 }, over: 9 }]', '"lamp" is a flag, and only numbers change evenly'],
  [
    'script: [{ until: grunded }]',
    'quay.yaml:4:19 script[0].until: there is no signal "grunded"; did you mean "grounded"?',
  ],
  ['script: [{ until: vx }]', 'is a number where a flag is wanted'],
  ['script: [{ until: { state: wav } }]', 'there is no state "wav"; did you mean "wave"?'],
  ['script: [{ until: { cue: hall } }]', 'there is no cue or instant "hall"; did you mean "hail"?'],
  ['script: [{ at: 1, press: lmap }]', 'there is no button, flag or pulse "lmap"; did you mean "lamp"?'],
  ['script: [{ at: 1, press: left }]', 'there is no button, flag or pulse "left"'],
  ['script: [{ at: 1, times: 1, every: 5 }]', 'expected a whole number from 2 to 1000, not 1'],
  ['script: []\nsteps: { from: 9, to: 3, seed: 1 }', 'here from 9 to 3 ms'],
  ['script: []\nsteps: { perSecond: 0 }', 'expected from over 0 to 1000 steps a second, not 0'],
  [
    'script: []\nbody: { platformer: { sped: 3 } }',
    'body.platformer.sped: "sped" is not known here; did you mean "speed"?',
  ],
  ['script: []\nbody: { swimmer: {} }', 'expected { platformer: {} } or { walker: {} }'],
  [
    'script: []\nbody: { platformer: { leapAt: lap } }',
    'there is no cue or instant "lap"; did you mean "leap"?',
  ],
  [
    'script: []\nbody: { walker: { feeds: { lamp: speed } } }',
    '"lamp" is a flag, and "speed" of the body feeds a number',
  ],
  [
    'script: []\nbody: { walker: { feeds: { lamb: left } } }',
    'there is no signal "lamb"; did you mean "lamp"?',
  ],
])('%s is refused in words', (lines, words) => {
  const text = `dotHopRehearsal: 1\ndocument: ferryman.yaml\nlasts: 500\n${lines}\n`;
  expect(() => {
    const { source, definition } = readRehearsal(text, 'quay.yaml');
    source.placing(() => runRehearsal(controller, definition));
  }).toThrow(words);
});
