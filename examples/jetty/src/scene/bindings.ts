import type { Bindings, Region } from '@dot-hop/browser';

/** What the player holds in hand: keys, the buttons and the stick of a gamepad, regions of the picture. */
export const bindings: Bindings = {
  along: {
    less: { keys: ['ArrowLeft', 'KeyA'], buttons: [14], axis: 0, regions: ['left'] },
    more: { keys: ['ArrowRight', 'KeyD'], buttons: [15], axis: 0, regions: ['right'] },
  },
  slow: { keys: ['ShiftLeft', 'ShiftRight'], buttons: [4] },
  down: { keys: ['ArrowDown', 'KeyS'], buttons: [13] },
  jump: { keys: ['Space', 'ArrowUp', 'KeyW'], buttons: [0], regions: ['hop'] },
  swing: { keys: ['KeyJ', 'KeyX'], buttons: [2], regions: ['swing'] },
  dash: { keys: ['KeyK', 'KeyC'], buttons: [1, 5], regions: ['dash'] },
};

/** Where a finger runs, hops, swings and dashes. */
export const regions: readonly Region[] = [
  { name: 'left', x: 0, y: 0.4, width: 0.25, height: 0.6 },
  { name: 'right', x: 0.25, y: 0.4, width: 0.25, height: 0.6 },
  { name: 'hop', x: 0.75, y: 0.4, width: 0.25, height: 0.6 },
  { name: 'swing', x: 0.5, y: 0.4, width: 0.25, height: 0.3 },
  { name: 'dash', x: 0.5, y: 0.7, width: 0.25, height: 0.3 },
];

/** The signals that hands set themselves; the others follow from the body. */
export const byHand: ReadonlySet<string> = new Set(['jump', 'swing', 'dash']);
