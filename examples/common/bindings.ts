import type { Bindings } from '@dot-hop/browser';

/** Walking in all directions by keys, the cross or the stick of a gamepad, and slowly. */
export const bindings: Bindings = {
  along: {
    less: { keys: ['ArrowLeft', 'KeyA'], buttons: [14], axis: 0 },
    more: { keys: ['ArrowRight', 'KeyD'], buttons: [15], axis: 0 },
  },
  across: {
    less: { keys: ['ArrowUp', 'KeyW'], buttons: [12], axis: 1 },
    more: { keys: ['ArrowDown', 'KeyS'], buttons: [13], axis: 1 },
  },
  slow: { keys: ['ShiftLeft', 'ShiftRight'], buttons: [4] },
};
