// What pictures amount to: sheets, cells, clips, and where the drawings stand.
export { commonFeet, feetOf, feetOfCells } from './feet.js';
export { clipsOfRows, drawnRows, gridFit } from './grid.js';
export type { GridFit } from './grid.js';
export { cutIslands } from './islands.js';
export type { IslandCut } from './islands.js';
export { quietLine } from './quiet-line.js';
export { strideOf } from './stride.js';
export { naturalOrder, plainName } from './natural.js';
export { clipNameOf, plainClip, sequenceOf } from './sequence.js';
export type { Sequence } from './sequence.js';
export { cutByTable, guessedColumns, tableFields } from './table.js';
export type { TableColumns, TableCut, TableFault, TableField, TableRows } from './table.js';
