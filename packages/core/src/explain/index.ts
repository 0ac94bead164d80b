export { keptOutSentence, lastSwitchText, whyText } from './words.js';
