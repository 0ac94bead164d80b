import type { Controller } from 'dot-hop';
import type { RehearsalResult } from 'dot-hop/rehearsal';
import type { Canvas } from './canvas.js';

/** The empty edge of a picture of time, and the room to the right of it for what its rows are called. */
export const margin = 24;
export const labels = 124;

/** Draws onto one canvas from the top down; `x` turns milliseconds into pixels. */
export interface Drawing {
  readonly canvas: Canvas;
  readonly result: RehearsalResult;
  readonly controller: Controller;
  readonly x: (ms: number) => number;
}
