import type { BitWords } from '../signal/condition.js';

/** The bits that are on in at least one of two sets. */
export function withBits(one: BitWords, other: BitWords): BitWords {
  const words = one.slice();
  for (let i = 0; i < words.length; i++) words[i]! |= other[i]!;
  return words;
}

/** The bits that are on in both. */
export const commonBits = (one: BitWords, other: BitWords): BitWords =>
  one.map((bits, i) => bits & other[i]!);

export const hasBits = (words: BitWords): boolean => words.some((bits) => bits !== 0);
