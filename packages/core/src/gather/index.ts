// What pictures amount to: sheets, cells, clips, and where the drawings stand.
export { commonFeet, feetOf, feetOfCells } from './feet.js';
export { clipsOfRows, gridFit } from './grid.js';
export type { GridFit } from './grid.js';
export { cutIslands } from './islands.js';
export type { IslandCut } from './islands.js';
export { strideOf } from './stride.js';
export { naturalOrder, plainName, stemOf } from './natural.js';
export { clipNameOf, clipOf, clipsOfNames, sequenceOf, usualRate } from './sequence.js';
export type { Sequence } from './sequence.js';
