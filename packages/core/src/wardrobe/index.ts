export { compileWorn, wardrobeOf } from './of.js';
export { differences, goTogether, randomCrowd, randomOutfit } from './random.js';
export type { CompleteOutfit, CrowdOptions } from './random.js';
