import type { Words } from '../signal/condition.js';

/** The bits that are on in one or the other. */
export function withBits(one: Words, other: Words): Words {
  const words = one.slice();
  for (let i = 0; i < words.length; i++) words[i]! |= other[i]!;
  return words;
}

/** The bits that are on in both. */
export const commonBits = (one: Words, other: Words): Words => one.map((bits, i) => bits & other[i]!);

export const hasBits = (words: Words): boolean => words.some((bits) => bits !== 0);
