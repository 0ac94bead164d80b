import type { Controller } from '../controller/controller.js';
import { Rows } from '../engine/rows.js';

/** How many performers share rows at most: one that outlives the others keeps no more than this in memory. */
const mostSharing = 128;

/** The latest rows of a controller, and how many of them are taken. */
interface Shared {
  readonly rows: Rows;
  readonly sharing: number;
  used: number;
}

const shared = new WeakMap<Controller, Shared>();

/**
 * Gives a new performer its row. Performers of one controller share rows side by side: what many performers read one after the
 * other lies one after the other in memory. A block of rows is freed with the last of its performers.
 */
export function takeRow(controller: Controller): { rows: Rows; at: number } {
  let place = shared.get(controller);
  if (place === undefined || place.used === place.sharing) {
    // A lone performer does not pay for neighbours; a crowd shares large blocks.
    const sharing = place === undefined ? 1 : Math.min(mostSharing, 2 * place.sharing);
    place = { rows: new Rows(controller, sharing), sharing, used: 0 };
    shared.set(controller, place);
  }
  const { rows } = place;
  const at = place.used++ * controller.layout.size;
  rows.clear(at);
  return { rows, at };
}
