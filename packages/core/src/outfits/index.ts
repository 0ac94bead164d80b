export { differences, goTogether, randomCrowd, randomOutfit } from './random.js';
export type { CrowdOptions } from './random.js';
