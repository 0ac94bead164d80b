export { LoadError, loadCharacter } from './character.js';
export type { CharacterFiles, LoadedCharacter } from './character.js';
export { crispCanvas, drawPose } from './draw.js';
export type { CrispCanvas } from './draw.js';
export { Keyboard } from './keyboard.js';
export { startLoop } from './loop.js';
export type { LoopParts } from './loop.js';
