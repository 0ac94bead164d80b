import type { CompassDefinition, Controller, Performer } from 'dot-hop';
import { compile } from './characters.js';

/** A character with one state that a vector of x and y turns. */
export const character = (compass: CompassDefinition): Controller =>
  compile({
    clips: { c: { cells: '0-3', ms: 100 } },
    compass: { by: ['x', 'y'], ...compass },
    signals: { x: { number: 0 }, y: { number: 0 } },
    states: { s: { shows: 'c' } },
    rest: 's',
  });

/** Turns a performer to a vector and tells where it faces. */
export function face(performer: Performer, x: number, y: number): string {
  performer.set('x', x);
  performer.set('y', y);
  performer.step(1);
  return performer.facing;
}
