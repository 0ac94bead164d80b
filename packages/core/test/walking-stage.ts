import type { ControllerDefinition, Performer, StateDefinition } from 'dot-hop';
import { perform } from './characters.js';

export const clips: ControllerDefinition['clips'] = {
  stand: { cells: '0-3', ms: 100 },
  walk: { cells: '4-7', ms: 100, cues: { step: [0, 2] }, spans: { push: '1-2' }, stride: 40 },
  run: { cells: '8-11', ms: 50, cues: { step: [0, 2] }, stride: 80 },
  swing: { cells: '12-15', ms: 50, loop: 'once', spans: { early: '0-1', late: '2-3' } },
  rise: { cells: '16-19', ms: 100, cues: { top: 3 } },
};
export const signals: ControllerDefinition['signals'] = {
  vx: { number: 0 },
  vy: { number: 0 },
  go: { flag: false },
  swing: { pulse: { keep: 50 } },
  hit: { pulse: true },
  mode: { choice: ['quay', 'ladder', 'water'], first: 'quay' },
  aim: { vector: [0, 0] },
};
export const stage = (states: Record<string, StateDefinition>, more: object = {}): Performer =>
  perform({ clips, signals, states: { stand: { shows: 'stand' }, ...states }, rest: 'stand', ...more });
