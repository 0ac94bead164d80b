export { keptOutSentence, lastSwitchText, partText, takerOf, whyText } from './words.js';
