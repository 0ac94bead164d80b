export { inlineText, removeIn, setIn } from './edits.js';
export type { TextStyle } from './edits.js';
