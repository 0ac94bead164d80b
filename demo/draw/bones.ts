// Joints of a figure seen from the side. Lengths are pixels; x is forward, y is down.

import type { Place } from './brush.js';

/** A place as poses write it: to the right and down. */
export type XY = readonly [x: number, y: number];

export const point = (x: number, y: number): Place => ({ x, y });
export const mix = (a: Place, b: Place, t: number): Place =>
  point(a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t);
/** From `a`, `length` along an angle: 0 is up, 90 forward. */
export const along = (a: Place, degrees: number, length: number): Place => {
  const turn = (degrees * Math.PI) / 180;
  return point(a.x + Math.sin(turn) * length, a.y - Math.cos(turn) * length);
};

/** The middle joint of a limb of two bones; `bend` 1 bends it forward, -1 backward. The end is drawn in to reach. */
export function joint(
  from: Place,
  to: Place,
  first: number,
  second: number,
  bend: number,
): { readonly middle: Place; readonly end: Place } {
  const reach = first + second - 0.05;
  const wanted = Math.hypot(to.x - from.x, to.y - from.y) || 0.01;
  const end = wanted > reach ? mix(from, to, reach / wanted) : to;
  const distance = Math.min(wanted, reach);
  const a = (first * first - second * second + distance * distance) / (2 * distance);
  const h = Math.sqrt(Math.max(0, first * first - a * a)) * bend;
  const ux = (end.x - from.x) / distance;
  const uy = (end.y - from.y) / distance;
  return { middle: point(from.x + ux * a + uy * h, from.y + uy * a - ux * h), end };
}
