export { PackError } from './atlas.js';
export type { PackOptions, PackedImage } from './atlas.js';
export { gameCode, gameKinds } from './game-code.js';
export type { GameKind } from './game-code.js';
export { namesFile, namesFileOf } from './names-file.js';
export { pack, without } from './pack.js';
export type { Packed } from './pack.js';
export { reportHtml, reportMarkdown, reportTables } from './report.js';
export type { ReportTable } from './report.js';
