/**
 * The next state of the random generator: a linear congruence, the same on every machine (Knuth, TAOCP 2, 3.3.4, table 1).
 *
 * @param state 32 bits
 */
export const nextChance = (state: number): number => (Math.imul(state, 1664525) + 1013904223) >>> 0;

/** The random number that a state of the generator means, from 0 to under 1. */
export const chanceOf = (state: number): number => (state >>> 0) / 2 ** 32;
