import type { BitPlace, BitWords } from './condition.js';

/**
 * The line of one number, cut where any term can change. Inside a region nothing changes. Region `i` holds the values `x` with
 * `bounds[i] <= x < bounds[i + 1]`. The first bound is `-Infinity` and the last `Infinity`, so a search needs no special case at the ends.
 */
export interface Regions {
  readonly bounds: readonly number[];
  /** The words in which regions change bits. */
  readonly words: readonly number[];
  /**
   * For each of these words the bits that a region leaves as they are: a band between its two thresholds is such a bit. As many for each
   * region as there are words.
   */
  readonly keep: readonly number[];
  /** The bits that a region turns on, in the same order. */
  readonly put: readonly number[];
  /** The direction to which a region turns the character; -1 if it does not turn. */
  readonly targetDirections: readonly number[];
  /** Whether other terms must be computed again whenever this number changes. */
  readonly joint: boolean;
}

/** A number tested for one term: on, off, or (`undefined`) as it was. */
type Test = (value: number) => boolean | undefined;

const float = new Float64Array(1);
const bits = new BigInt64Array(float.buffer);

/** The next larger double, so that `x > t` can be written `x >= nextUp(t)`. (IEEE 754-2019, 5.3.1) */
function nextUp(value: number): number {
  if (value === Infinity) return value;
  if (value === 0) return Number.MIN_VALUE;
  float[0] = value;
  bits[0] = bits[0]! + (value > 0 ? 1n : -1n);
  return float[0];
}

/** Collects the tests of one number and cuts its line. */
export class RegionBuilder {
  private readonly bounds = new Set<number>();
  private readonly tests: { place: BitPlace; test: Test }[] = [];
  private turn: ((value: number) => number) | undefined;
  joint = false;

  /** @param at every value at which the test's answer may change: a threshold gives itself and {@link nextUp} */
  addTest(place: BitPlace, thresholds: readonly number[], test: Test): void {
    this.addThresholds(thresholds);
    this.tests.push({ place, test });
  }

  addTurn(thresholds: readonly number[], toward: (value: number) => number): void {
    this.addThresholds(thresholds);
    this.turn = toward;
  }

  private addThresholds(thresholds: readonly number[]): void {
    for (const threshold of thresholds) {
      // -0 and 0 are one place on the line.
      this.bounds.add(threshold + 0);
      // No signal is set to more than the largest number.
      const next = nextUp(threshold);
      if (next < Infinity) this.bounds.add(next);
    }
  }

  build(): Regions {
    const words = [...new Set(this.tests.map(({ place }) => place.word))].sort((a, b) => a - b);
    const all = [-Infinity, ...[...this.bounds].sort((a, b) => a - b)].map((bound) =>
      this.regionFrom(bound, words),
    );
    // A bound at which nothing changes is none.
    const regions = all.filter((region, i) => i === 0 || !isEqual(region, all[i - 1]!));
    return {
      bounds: [...regions.map(({ bound }) => bound), Infinity],
      words,
      keep: regions.flatMap(({ keep }) => keep),
      put: regions.flatMap(({ put }) => put),
      targetDirections: regions.map(({ toward }) => toward),
      joint: this.joint,
    };
  }

  private regionFrom(bound: number, words: readonly number[]): RegionParts {
    const [keep, put] = [words.map(() => -1), words.map(() => 0)];
    for (const { place, test } of this.tests) {
      const on = test(bound);
      if (on === undefined) continue;
      const word = words.indexOf(place.word);
      keep[word]! &= ~place.bit;
      if (on) put[word]! |= place.bit;
    }
    return { bound, keep, put, toward: this.turn?.(bound) ?? -1 };
  }
}

/** What a region does, and where it begins. */
interface RegionParts {
  readonly bound: number;
  readonly keep: readonly number[];
  readonly put: readonly number[];
  readonly toward: number;
}

function isEqual(one: RegionParts, other: RegionParts): boolean {
  const isSameWord = (keep: number, i: number): boolean =>
    keep === other.keep[i] && one.put[i] === other.put[i];
  return one.toward === other.toward && one.keep.every(isSameWord);
}

/** The region a number lies in. */
export function regionOf({ bounds }: Regions, value: number): number {
  let region = 0;
  while (value >= bounds[region + 1]!) region++;
  return region;
}

/** Turns the bits of a region on and off. @param at where the words begin in the array */
export function applyRegion({ words, keep, put }: Regions, region: number, to: BitWords, at: number): void {
  const count = words.length;
  for (let i = 0, j = region * count; i < count; i++, j++) {
    const word = at + words[i]!;
    to[word] = (to[word]! & keep[j]!) | put[j]!;
  }
}

/**
 * Whether a region would leave the bits and the direction as they are.
 *
 * @param at where the words begin in the array
 */
export function isSame(regions: Regions, region: number, now: BitWords, at: number, toward: number): boolean {
  const { words, keep, put } = regions;
  const turn = regions.targetDirections[region]!;
  if (turn >= 0 && turn !== toward) return false;
  const count = words.length;
  for (let i = 0, j = region * count; i < count; i++, j++) {
    const word = now[at + words[i]!]!;
    if (((word & keep[j]!) | put[j]!) !== word) return false;
  }
  return true;
}
