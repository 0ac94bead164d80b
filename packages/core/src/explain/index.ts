export { keptOutSentence, lastSwitchText, litParts, whyText } from './words.js';
export type { LitPart } from './words.js';
