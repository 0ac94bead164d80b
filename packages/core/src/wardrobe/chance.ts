/**
 * Whole numbers of 32 bits by chance, the same on every machine for the same seed: a counter in steps of an odd number, its bits
 * mixed by multiplications. (The finalizer of MurmurHash3, A. Appleby, over a Weyl sequence.)
 */
export class Chance {
  private state: number;

  /** @param seed a number (its lowest 32 bits count) or a text */
  constructor(seed: number | string) {
    this.state = typeof seed === 'number' ? Math.trunc(seed) | 0 : hashOf(seed);
  }

  /** A number from 0 to under 1, in steps of 2 to the power of -32. */
  next(): number {
    this.state = (this.state + 0x9e3779b9) | 0;
    let mixed = this.state ^ (this.state >>> 16);
    mixed = Math.imul(mixed, 0x85ebca6b);
    mixed ^= mixed >>> 13;
    mixed = Math.imul(mixed, 0xc2b2ae35);
    return ((mixed ^ (mixed >>> 16)) >>> 0) / 0x1_0000_0000;
  }

  /** One of some by their weights; `undefined` when none has any. */
  pick<T>(some: readonly { readonly one: T; readonly weight: number }[]): T | undefined {
    const sum = some.reduce((all, { weight }) => all + weight, 0);
    let at = this.next() * sum;
    for (const { one, weight } of some) {
      if (at < weight) return one;
      at -= weight;
    }
    return undefined;
  }
}

/** FNV-1a (Fowler, Noll, Vo). */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (const letter of text) hash = Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193);
  return hash | 0;
}
