export { keptOutSentence, lastSwitchText, litParts, takerOf, whyText } from './words.js';
export type { LitPart } from './words.js';
