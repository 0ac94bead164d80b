import type { ProblemList } from '../problem/problem.js';
import { wordBits } from './condition.js';
import type { BitPlace, BitWords } from './condition.js';

/** The most flags. The same limit holds for pulses, for tags that are asked for, and for comparisons. */
const mostBits = 1000;

/** Makes a number of words with some bits on. */
export function bitsOf(count: number, places: Iterable<BitPlace>): BitWords {
  const words = new Int32Array(count);
  for (const { word, bit } of places) words[word]! |= bit;
  return words;
}

/** Gives flags, pulses, tags and terms their bits, one after the other as they are met. */
export class BitPlaces {
  private readonly counts = { flags: 0, pulses: 0, tags: 0, terms: 0 };

  next(kind: 'flags' | 'pulses' | 'tags' | 'terms'): BitPlace {
    const index = this.total;
    this.counts[kind]++;
    return { word: Math.floor(index / wordBits), bit: 1 << (index % wordBits) };
  }

  /** How many words they take, at least one. */
  get words(): number {
    return Math.max(1, Math.ceil(this.total / wordBits));
  }

  /** Tells of which kind there are too many. */
  check(problems: ProblemList): void {
    for (const kind of ['flags', 'pulses', 'tags', 'terms'] as const) {
      const received = this.counts[kind];
      const place = kind === 'flags' || kind === 'pulses' ? 'signals' : 'states';
      if (received > mostBits) problems.add(`too-many-${kind}`, [place], { received, most: mostBits });
    }
  }

  private get total(): number {
    const { flags, pulses, tags, terms } = this.counts;
    return flags + pulses + tags + terms;
  }
}
