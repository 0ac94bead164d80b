import type { ControllerDefinition, Performer, StateDefinition } from 'dot-hop';
import { perform } from './characters.js';

export const clips: ControllerDefinition['clips'] = {
  loop: { cells: '0-3', ms: 100 },
  act: {
    cells: '0-3',
    ms: 50,
    loop: 'once',
    cues: { hit: 2 },
    spans: { early: '0-1', late: '2-3', last: 3 },
  },
  short: { cells: '0-1', ms: 50, loop: 'once' },
};
export const signals: ControllerDefinition['signals'] = {
  go: { flag: false },
  fast: { flag: false },
  hurt: { flag: false },
  press: { pulse: { keep: 100 } },
  tap: { pulse: true },
  vx: { number: 0 },
};
/** Somebody who rests, and has some more states. */
export const stage = (states: Record<string, StateDefinition>, more: object = {}): Performer =>
  perform({ clips, signals, states: { rest: { shows: 'loop' }, ...states }, rest: 'rest', ...more });
