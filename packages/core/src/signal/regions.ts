/**
 * The line of one number cut where any term could change: within a region nothing does. Region `i` holds the
 * values `x` with `bounds[i - 1] <= x < bounds[i]`; the last bound is `Infinity`, so a search needs no other end.
 */
export interface Regions {
  readonly bounds: readonly number[];
  /** Bits of computed terms that a region leaves as they are: a band between its two thresholds is such a bit. */
  readonly keep: readonly number[];
  /** Bits of computed terms that a region turns on. */
  readonly put: readonly number[];
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
  private readonly tests: { bit: number; test: Test }[] = [];
  private turn: ((value: number) => number) | undefined;
  joint = false;

  /** @param at every value at which the test's answer may change: a threshold gives itself and {@link nextUp} */
  addTest(bit: number, thresholds: readonly number[], test: Test): void {
    this.addThresholds(thresholds);
    this.tests.push({ bit, test });
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
    const bounds = [...this.bounds].sort((a, b) => a - b);
    const firsts = [-Infinity, ...bounds];
    const answers = firsts.map((value) => this.tests.map(({ bit, test }) => ({ bit, on: test(value) })));
    const union = (row: { bit: number }[]): number => row.reduce((word, { bit }) => word | bit, 0);
    const tested = union(this.tests);
    return {
      bounds: [...bounds, Infinity],
      keep: answers.map((row) => ~tested | union(row.filter(({ on }) => on === undefined))),
      put: answers.map((row) => union(row.filter(({ on }) => on === true))),
      toward: firsts.map((value) => this.turn?.(value) ?? -1),
      joint: this.joint,
    };
  }
}

/** The region a number lies in. */
export function regionOf(regions: Regions, value: number): number {
  const { bounds } = regions;
  let region = 0;
  while (value >= bounds[region]!) region++;
  return region;
}
