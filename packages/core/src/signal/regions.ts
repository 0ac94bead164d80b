import type { Term, Words } from './condition.js';

/**
 * The line of one number cut where any term could change: within a region nothing does. Region `i` holds the
 * values `x` with `bounds[i] <= x < bounds[i + 1]`; the first bound is `-Infinity` and the last `Infinity`, so a
 * search needs no other ends.
 */
export interface Regions {
  readonly bounds: readonly number[];
  /** Bits of computed terms that a region leaves as they are: a band between its two thresholds is such a bit. */
  readonly keep: readonly number[];
  /** Bits of computed terms that a region turns on. */
  readonly put: readonly number[];
  /** The same of the second word of computed terms. */
  readonly keepMore: readonly number[];
  readonly putMore: readonly number[];
  /** The direction a region turns the character to, or -1 where it keeps facing as it does. */
  readonly toward: readonly number[];
  /** Whether other terms must be computed anew whenever this number changes at all. */
  readonly joint: boolean;
}

/** A number tested for one term: on, off, or (`undefined`) as it was. */
type Test = (value: number) => boolean | undefined;

const float = new Float64Array(1);
const bits = new BigInt64Array(float.buffer);

/** The next larger double, so that `x > t` can be written `x >= nextUp(t)`. (IEEE 754-2019, 5.3.1) */
export function nextUp(value: number): number {
  if (value === Infinity) return value;
  if (value === 0) return Number.MIN_VALUE;
  float[0] = value;
  bits[0] = bits[0]! + (value > 0 ? 1n : -1n);
  return float[0];
}

/** Gathers what is tested of one number and cuts its line. */
export class RegionBuilder {
  private readonly bounds = new Set<number>();
  private readonly tests: { place: Pick<Term, 'word' | 'bit'>; test: Test }[] = [];
  private turn: ((value: number) => number) | undefined;
  joint = false;

  /** @param at every value at which the test's answer may change: a threshold gives itself and {@link nextUp} */
  addTest(place: Pick<Term, 'word' | 'bit'>, thresholds: readonly number[], test: Test): void {
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
      this.bounds.add(threshold + 0).add(nextUp(threshold));
    }
  }

  build(): Regions {
    const bounds = [-Infinity, ...[...this.bounds].sort((a, b) => a - b)];
    const answers = bounds.map((value) => this.tests.map(({ place, test }) => ({ place, on: test(value) })));
    const union = (word: keyof Words, tests: readonly { place: Pick<Term, 'word' | 'bit'> }[]): number =>
      tests.reduce((bits, { place }) => (place.word === word ? bits | place.bit : bits), 0);
    const kept = (word: keyof Words): number[] =>
      answers.map(
        (row) =>
          ~union(word, this.tests) |
          union(
            word,
            row.filter(({ on }) => on === undefined),
          ),
      );
    const put = (word: keyof Words): number[] =>
      answers.map((row) =>
        union(
          word,
          row.filter(({ on }) => on === true),
        ),
      );
    return {
      bounds: [...bounds, Infinity],
      keep: kept('terms'),
      put: put('terms'),
      keepMore: kept('more'),
      putMore: put('more'),
      toward: bounds.map((value) => this.turn?.(value) ?? -1),
      joint: this.joint,
    };
  }
}

/** The region a number lies in. */
export function regionOf({ bounds }: Regions, value: number): number {
  let region = 0;
  while (value >= bounds[region + 1]!) region++;
  return region;
}
