/**
 * Where a performer keeps its doubles. Doubles kept as fields of an object are boxed, so all are in one block (see `Numbers`). Its own
 * come first, then three for each number slot (see `placeOf`), then the instants of pulses and lasting flags.
 */
export const enum Place {
  /** The next instant at which anything can change, in microseconds. */
  due = 0,
  /** The place within the clip at {@link Place.marked}, in units; it goes on from there by the rate. */
  position = 1,
  marked = 2,
  /** When the state was entered. */
  entered = 3,
  /** The first of the instants of pulses, lasting flags and `atLeast`. */
  timer = 4,
}
