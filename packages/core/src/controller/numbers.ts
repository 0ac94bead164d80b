import { firstSlot, placeOf } from '../signal/program.js';
import type { SignalTables } from '../signal/tables.js';

/**
 * Where a performer keeps its doubles. Doubles kept as fields of an object are boxed, so all are in one array. Its own
 * come first, then three for each number slot (see {@link placeOf}), then the instants of pulses and lasting flags.
 */
export const Place = {
  /** The next instant at which anything can change, in microseconds. */
  due: 0,
  /** The place within the clip at {@link Place.marked}, in units; it goes on from there by the rate. */
  position: 1,
  marked: 2,
  /** When the state was entered. */
  entered: 3,
  /** The first of the instants of pulses, lasting flags and `atLeast`. */
  timer: 4,
} as const;

/** Where the instants begin. */
export const timerOf = (slots: number, timer: number): number => firstSlot + 3 * slots + timer;

/** The numbers as they are at the very first: the intervals are empty, so that the first reading finds them. */
export function firstNumbers({ regions, signals, timers }: SignalTables): number[] {
  const slots = regions.length;
  const numbers: number[] = [];
  // Grown from fractions, so that the array is one of doubles without holes from its beginning.
  for (let i = 0; i < firstSlot + 3 * slots + timers; i++) numbers.push(0.5);
  numbers.fill(0, 0, firstSlot).fill(Infinity, firstSlot);
  numbers[Place.timer] = Infinity;
  for (const { slot, first } of signals.values())
    if (slot >= 0) first.forEach((value, i) => (numbers[placeOf(slot + i)] = value));
  return numbers;
}
