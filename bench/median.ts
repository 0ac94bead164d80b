/** The middle one of some numbers; of an even count the upper one of the two. */
export function median(list: readonly number[]): number {
  return list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)]!;
}
