import type { Controller } from 'dot-hop';
import { compile } from './characters.js';

/** Somebody who stands, walks to both sides and waves: a controller of its own at each call. */
export const walker = (): Controller =>
  compile({
    clips: {
      stand: { cells: '0-3', ms: 150 },
      walk: { cells: '8-11', ms: [80, 100, 80, 100], cues: { step: [0, 2] } },
      wave: { cells: '16-18', ms: 120, loop: 'once', cues: { hello: 1 } },
    },
    compass: { directions: 'sides', mirror: { west: 'east' }, by: ['speed', 0], deadZone: 4 },
    signals: { speed: { number: 0 }, wave: { pulse: { keep: 100 } } },
    states: {
      stand: { shows: 'stand' },
      walk: { shows: 'walk', while: 'abs(speed) > 10', priority: 10 },
      wave: { shows: 'wave', when: 'wave', priority: 20 },
    },
    rest: 'stand',
  });
