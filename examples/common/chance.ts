import { uniformFloat32 } from 'pure-rand/distribution/uniformFloat32';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** Numbers from 0 to under 1 that are the same every time. */
export function chanceFrom(seed: number): () => number {
  const generator = xoroshiro128plus(seed);
  return () => uniformFloat32(generator);
}

/** The same number for the same index, from 0 to under 1: places for windows and waves. */
export function chanceAt(index: number): number {
  const value = Math.sin(index * 127.1 + 3.7) * 43758.5453;
  return value - Math.floor(value);
}
