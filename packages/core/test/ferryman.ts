import { compileController } from 'dot-hop';
import type { Controller, ControllerDefinition } from 'dot-hop';
import { runRehearsal } from 'dot-hop/rehearsal';
import type { RehearsalScript, TraceEntry } from 'dot-hop/rehearsal';

/** A ferryman, whom rehearsals are tried with. */
export const ferryman: ControllerDefinition = {
  dotHop: 1,
  name: 'ferryman',
  sheets: { all: { image: 'a.png', size: [160, 10], grid: { cell: [10, 10] } } },
  clips: {
    stand: { cells: '0-1', fps: 5 },
    stroll: { cells: '2-3', fps: 10 },
    crouch: { cells: '4-5', ms: 50, loop: 'once', cues: { leap: 1 } },
    fly: { cells: 6 },
    land: { cells: '7-8', ms: 60, loop: 'once' },
    wave: { cells: '9-10', ms: 100, loop: 'once', cues: { hail: 1 } },
  },
  compass: { directions: 'sides', mirror: { west: 'east' }, by: ['vx', '0'], deadZone: 4 },
  signals: {
    vx: { number: 0 },
    vy: { number: 0 },
    grounded: { flag: true },
    jump: { pulse: { keep: 100 } },
    wave: { pulse: true },
    lamp: { flag: false },
    pull: { vector: [0, 0] },
  },
  derived: { moving: { of: 'abs(vx)', above: 20, below: 10 } },
  states: {
    stand: { shows: 'stand' },
    stroll: { shows: 'stroll', while: 'grounded && moving', priority: 10 },
    land: { shows: 'land', when: 'grounded', priority: 12 },
    fly: { shows: 'fly', while: '!grounded', priority: 20 },
    crouch: { shows: 'crouch', when: 'jump && grounded', priority: 30 },
    wave: { shows: 'wave', when: 'wave && !lamp', priority: 40 },
  },
  rest: 'stand',
};
export const controller = compileController(ferryman);

/** Runs a rehearsal of him, or of another. */
export const run = (rehearsal: RehearsalScript, on: Controller = controller) => runRehearsal(on, rehearsal);

/** What happened, as texts: `100 wave`. */
export const told = (trace: readonly TraceEntry[], ...kinds: TraceEntry['kind'][]): string[] =>
  trace.filter(({ kind }) => kinds.includes(kind)).map(({ at, name }) => `${Math.round(at)} ${name}`);
