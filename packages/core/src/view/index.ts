export { dialOf, directionOf } from './dial.js';
export type { DialSector } from './dial.js';
export { composePoses } from './compose.js';
export { seenFrom, uprightYaw } from './camera.js';
export type { GroundVector, WorldAxes } from './camera.js';
