/** Numbers from 0 to under 1 that are the same every time. (mulberry32, public domain) */
export function chanceFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** The same number for the same index, from 0 to under 1: places for windows and waves. */
export function chanceAt(index: number): number {
  const value = Math.sin(index * 127.1 + 3.7) * 43758.5453;
  return value - Math.floor(value);
}
