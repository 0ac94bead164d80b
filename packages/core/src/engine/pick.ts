import type { Variety } from '../controller/state.js';
import { chanceOf, nextChance } from './chance.js';
import type { Rows } from './rows.js';

// Which of several is picked: flipbooks each time a state is entered, names each time a cue is told.

/**
 * Picks the next one of a variety, and keeps the pick.
 *
 * @returns its index in the variety
 */
export function pickNext(rows: Rows, at: number, variety: Variety): number {
  const { ints, picks } = rows;
  const place = 2 * at + picks + 1 + variety.index;
  const last = ints[place]!;
  return (ints[place] =
    variety.weights === undefined ? (last + 1) % variety.count : byChance(rows, at, variety, last));
}

/** One by its weight; unless it may come again, not the one that was picked last. */
function byChance(rows: Rows, at: number, { weights, repeats }: Variety, last: number): number {
  let total = 0;
  for (const weight of weights!) total += weight;
  const shut = repeats || last < 0 || weights![last] === total ? -1 : last;
  if (shut >= 0) total -= weights![shut]!;
  const seed = 2 * at + rows.picks;
  rows.ints[seed] = nextChance(rows.ints[seed]!);
  let left = chanceOf(rows.ints[seed]) * total;
  let picked = -1;
  for (let i = 0; i < weights!.length; i++) {
    if (i === shut || weights![i] === 0) continue;
    picked = i;
    left -= weights![i]!;
    if (left < 0) break;
  }
  return picked;
}
