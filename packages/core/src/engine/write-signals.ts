import { Row } from '../controller/layout.js';
import type { Signal } from '../signal/definition.js';
import type { BitWords } from '../signal/condition.js';
import { Attention, stopWaiting } from './rows.js';
import type { Rows } from './rows.js';

// Signals as they are set for a row. Setting costs two comparisons as long as a number stays in the interval within which
// no bit changes. Otherwise the next step reads all signals and decides. Nothing is computed before that, so of several values set
// between two steps only the last counts, also for bands.

/** Makes the next step do something before time passes. */
function wake(rows: Rows, at: number, what: Attention.decide | Attention.read): void {
  const { ints, crowd } = rows;
  const place = 2 * at + Row.attention;
  const before = ints[place]!;
  ints[place] = before | Attention.decide | what;
  if ((before & Attention.decide) !== 0) return;
  stopWaiting(rows, at);
  if (crowd !== null) crowd.tell(rows.firstIndex + rows.indexOf(at));
}

/**
 * Sets a finite number.
 *
 * @param place where its value is kept; the two ends of its interval follow
 */
export function writeNumber(rows: Rows, place: number, at: number, value: number): void {
  const { doubles } = rows;
  const stays = value >= doubles[place + 1]! && value < doubles[place + 2]!;
  if (!stays && doubles[place] === value) return;
  doubles[place] = value;
  if (!stays) wake(rows, at, Attention.read);
}

/** Sets a flag. */
export function writeFlag(rows: Rows, at: number, { place, word, bit }: Signal, value: boolean): void {
  const { ints } = rows;
  const set = 2 * at + place;
  ints[set] = value ? ints[set]! | bit : ints[set]! & ~bit;
  const decided = 2 * at + rows.words + word;
  if (((ints[set] ^ ints[decided]!) & bit) !== 0) wake(rows, at, Attention.decide);
}

/** Makes a pulse happen at the present instant. */
export function writePulse(rows: Rows, at: number, { place, bit, timer, keep }: Signal): void {
  stopWaiting(rows, at);
  rows.ints[2 * at + place]! |= bit;
  setTimer(rows, at, timer, keep);
  wake(rows, at, Attention.decide);
}

/** Sets a timer to so many microseconds from now. */
export function setTimer({ doubles, timers }: Rows, at: number, timer: number, ahead: number): void {
  const instant = doubles[at + Row.now]! + ahead;
  doubles[at + timers + timer] = instant;
  if (instant < doubles[at + Row.timer]!) doubles[at + Row.timer] = instant;
}

/** Removes pulses whose time is over. */
export function expirePulses(rows: Rows, at: number): void {
  const { doubles, ints } = rows;
  const now = doubles[at + Row.now]!;
  const timers = at + rows.timers;
  const { pulses } = rows.controller.tables;
  for (const { timer, bit, place } of pulses)
    if (doubles[timers + timer]! <= now) ints[2 * at + place]! &= ~bit;
  // Only then: several pulses may share a timer.
  for (const { timer } of pulses) if (doubles[timers + timer]! <= now) doubles[timers + timer] = Infinity;
}

/** Removes pulses that were used. */
export function usePulses(rows: Rows, at: number, used: BitWords): void {
  const { doubles, ints, set, timers, wordCount, controller } = rows;
  for (let i = 0; i < wordCount; i++) ints[2 * at + set + i]! &= ~used[i]!;
  // The timer of pulses without `keep` is shared; it may run out for nothing.
  for (const { timer, word, bit, keep } of controller.tables.pulses)
    if ((bit & used[word]!) !== 0 && keep > 1) doubles[at + timers + timer] = Infinity;
}
