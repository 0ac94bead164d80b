import type { Term } from './condition.js';

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
    const all = [-Infinity, ...[...this.bounds].sort((a, b) => a - b)].map((bound) => this.regionFrom(bound));
    // A bound at which nothing changes is none.
    const regions = all.filter((region, i) => i === 0 || !isEqual(region, all[i - 1]!));
    return {
      bounds: [...regions.map(({ bound }) => bound), Infinity],
      keep: regions.map(({ keep }) => keep),
      put: regions.map(({ put }) => put),
      keepMore: regions.map(({ keepMore }) => keepMore),
      putMore: regions.map(({ putMore }) => putMore),
      toward: regions.map(({ toward }) => toward),
      joint: this.joint,
    };
  }

  private regionFrom(bound: number): RegionParts {
    const parts = { bound, keep: -1, put: 0, keepMore: -1, putMore: 0, toward: this.turn?.(bound) ?? -1 };
    for (const { place, test } of this.tests) {
      const on = test(bound);
      if (on === undefined) continue;
      if (place.word === 'more') {
        parts.keepMore &= ~place.bit;
        if (on) parts.putMore |= place.bit;
      } else {
        parts.keep &= ~place.bit;
        if (on) parts.put |= place.bit;
      }
    }
    return parts;
  }
}

/** What a region does, and where it begins. */
interface RegionParts {
  bound: number;
  keep: number;
  put: number;
  keepMore: number;
  putMore: number;
  toward: number;
}

function isEqual(one: RegionParts, other: RegionParts): boolean {
  return (
    one.keep === other.keep &&
    one.put === other.put &&
    one.keepMore === other.keepMore &&
    one.putMore === other.putMore &&
    one.toward === other.toward
  );
}

/** The region a number lies in. */
export function regionOf({ bounds }: Regions, value: number): number {
  let region = 0;
  while (value >= bounds[region + 1]!) region++;
  return region;
}

/** Whether a region would leave the terms and the direction as they are. */
export function isSame(
  regions: Regions,
  region: number,
  terms: number,
  more: number,
  toward: number,
): boolean {
  const { keep, put, keepMore, putMore } = regions;
  const turn = regions.toward[region]!;
  return (
    ((terms & keep[region]!) | put[region]!) === terms &&
    ((more & keepMore[region]!) | putMore[region]!) === more &&
    (turn < 0 || turn === toward)
  );
}
