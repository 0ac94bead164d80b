/**
 * The state after this one of numbers that look like chance and are the same everywhere: a linear congruence (Knuth, TAOCP 2, 3.3.4,
 * table 1).
 *
 * @param state 32 bits
 */
export const nextChance = (state: number): number => (Math.imul(state, 1664525) + 1013904223) >>> 0;

/** What a state stands for: a number from 0 to under 1. */
export const chanceOf = (state: number): number => (state >>> 0) / 2 ** 32;
