// Bodies seen from above at an angle: a place of the body's own space becomes one of the picture.
import type { Place } from './brush.js';

/** How much of a height and of a depth on the ground shows in the picture. */
const height = 0.9;
export const depth = 0.5;

/** A place of the body in the picture, and how near it is: larger is nearer. */
export interface Seen extends Place {
  readonly near: number;
}

/** Turns a place of the body, in pixels forward, to the left and up, into one of the picture. */
export type Placing = (forward: number, left: number, up: number) => Seen;
/** The five directions that are drawn, in degrees clockwise from east. */
export const directions = { south: 90, southeast: 45, east: 0, northeast: -45, north: -90 };

/** One of them. */
export type Direction = keyof typeof directions;

/** All of them, in the order of the rows of a sheet. */
export const directionNames = Object.keys(directions) as Direction[];

/** Turns the space of a body to a direction: what lies forward, to the left and up, to a place of the picture. */
export function turned(degrees: number): Placing {
  const turn = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return (forward, left, up) => {
    const east = forward * cos + left * sin;
    const south = forward * sin - left * cos;
    return { x: east, y: south * depth - up * height, near: south };
  };
}
