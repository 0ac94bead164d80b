export { compiledOf } from './write.js';
export type { CompiledDocument, CompiledTables } from './format.js';
