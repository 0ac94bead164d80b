export { keptOutSentence, lastSwitchText, partText, takerOf, whyText } from './words.js';
export { describeController } from './describe.js';
export type { ClipFacts, ControllerFacts, SignalFacts, StateFacts } from './describe.js';
