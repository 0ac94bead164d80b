export { seenByCamera } from './seen.js';
export { Upright } from './upright.js';
export type { UprightOptions } from './upright.js';
