import { firstSlot } from '../signal/program.js';
import type { SignalTables } from '../signal/tables.js';

/**
 * Where a performer keeps its doubles. Doubles kept as fields of an object are boxed, so all are in one array. Its own
 * come first, then the values of number slots, then for each slot the interval in which a new value changes nothing,
 * then the instants of pulses and lasting flags.
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

/** Where the intervals begin for controllers of so many slots: a low and a high bound for each. */
export const lowOf = (slots: number, slot: number): number => firstSlot + slots + 2 * slot;

/** Where the instants begin. */
export const timerOf = (slots: number, timer: number): number => firstSlot + 3 * slots + timer;

/** The numbers as they are at the very first: the intervals are empty, so that the first reading finds them. */
export function firstNumbers({ regions, signals, timers }: SignalTables): number[] {
  const slots = regions.length;
  const numbers: number[] = [];
  // Grown from fractions, so that the array is one of doubles without holes from its beginning.
  for (let i = 0; i < firstSlot + 3 * slots + timers; i++) numbers.push(0.5);
  numbers.fill(0, 0, firstSlot + slots).fill(Infinity, firstSlot + slots);
  numbers[Place.timer] = Infinity;
  for (const { slot, first } of signals.values())
    if (slot >= 0) first.forEach((value, i) => (numbers[firstSlot + slot + i] = value));
  return numbers;
}
