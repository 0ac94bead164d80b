import type { BitPlace, Words } from '../signal/condition.js';

/** So many words with some bits on. */
export function bitsOf(count: number, places: Iterable<BitPlace>): Words {
  const words = new Int32Array(count);
  for (const { word, bit } of places) words[word]! |= bit;
  return words;
}

/** The bits that are on in one or the other. */
export function withBits(one: Words, other: Words): Words {
  const words = one.slice();
  for (let i = 0; i < words.length; i++) words[i]! |= other[i]!;
  return words;
}

/** The bits that are on in both. */
export const commonBits = (one: Words, other: Words): Words => one.map((bits, i) => bits & other[i]!);

export const hasBits = (words: Words): boolean => words.some((bits) => bits !== 0);
