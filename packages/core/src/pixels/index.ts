export { findIslands } from './islands.js';
export type { IslandOptions, Islands } from './islands.js';
export { measureCell, measureClips } from './measure.js';
export type { CellMeasure, MeasureCode, MeasureFinding } from './measure.js';
export { inkOf } from './picture.js';
export type { Ink, Picture } from './picture.js';
export { coloursOf, recolour } from './recolour.js';
export { measureWardrobe } from './wardrobe.js';
export type { WardrobeCode, WardrobeFinding } from './wardrobe.js';
