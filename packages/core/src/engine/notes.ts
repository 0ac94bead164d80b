import type { Controller } from '../controller/controller.js';
import type { Situation } from '../controller/situations.js';
import { situationOf } from './rows.js';
import type { Rows } from './rows.js';

/** What happens in a clip at the instant of a decision. */
export const enum ClipEvent {
  nothing = 0,
  /** A segment begins. */
  begins = 1,
  /** A segment ends, and the next has not yet begun. */
  ends = 2,
}

/**
 * Notes that are made while one instant is decided. An instant is decided within one call, so all rows of all controllers share them. A
 * list here may be longer than the present row needs.
 */
export const notes = {
  /** A 1 for each state whose `when` has become true at this instant. */
  starts: new Uint8Array(64),
  anyStarts: false,
  /** Whether something was switched at this instant. */
  anySwitch: false,
  /** What happens in the clip of each track: a {@link ClipEvent}. */
  clipEvents: new Uint8Array(8),
  /** For each track the words of pulses that it still sees although another track has just used them. */
  sharedPulses: new Int32Array(8),
  anyShared: false,
  /** The pulses that a switch uses. */
  used: new Int32Array(4),
  /** Words that are put together for a look at them. */
  words: new Int32Array(4),
};

/** Makes the notes large enough for a controller. */
export function makeRoom({ states, tracks, tables }: Controller): void {
  if (notes.starts.length < states.length) notes.starts = new Uint8Array(states.length);
  if (notes.clipEvents.length < tracks.length) notes.clipEvents = new Uint8Array(tracks.length);
  if (notes.sharedPulses.length < tracks.length * tables.words)
    notes.sharedPulses = new Int32Array(tracks.length * tables.words);
  if (notes.used.length < tables.words) {
    notes.used = new Int32Array(tables.words);
    notes.words = new Int32Array(tables.words);
  }
}

export function clearClipEvents({ trackCount }: Rows): void {
  for (let track = 0; track < trackCount; track++) notes.clipEvents[track] = ClipEvent.nothing;
}

export function clearSwitches(): void {
  notes.anySwitch = false;
}

export function clearStarts(): void {
  if (!notes.anyStarts) return;
  notes.starts.fill(0);
  notes.anyStarts = false;
}

/** Forgets that the `when` of a state has just become true, because the state was entered. */
export function clearStartOf({ watched }: Rows, state: number): void {
  if (!notes.anyStarts) return;
  notes.starts[state] = 0;
  notes.anyStarts = false;
  for (const one of watched) if (notes.starts[one.state] !== 0) notes.anyStarts = true;
}

/**
 * Makes used pulses count as used for every track.
 *
 * @returns whether any track still saw one
 */
export function clearSharedPulses(): boolean {
  if (!notes.anyShared) return false;
  const { sharedPulses } = notes;
  let any = 0;
  for (let i = 0; i < sharedPulses.length; i++) {
    any |= sharedPulses[i]!;
    sharedPulses[i] = 0;
  }
  notes.anyShared = false;
  return any !== 0;
}

/** Lets the other tracks of a row still see the pulses that one track uses. They are noted. */
export function sharePulses(rows: Rows, at: number, track: number): void {
  const { ints, set, wordCount, trackCount } = rows;
  const { used, sharedPulses } = notes;
  for (let i = 0; i < wordCount; i++) {
    if (used[i] === 0) continue;
    // One that another track has used already is none to be shared any more.
    const shared = used[i]! & ints[2 * at + set + i]!;
    for (let other = 0; other < trackCount; other++)
      if (other !== track) sharedPulses[other * wordCount + i]! |= shared;
    sharedPulses[track * wordCount + i]! &= ~used[i]!;
    notes.anyShared = true;
  }
}

/** The situation as a track sees it: that of the signals, except for pulses that another track has just used. */
export function situationFor(rows: Rows, at: number, track: number): Situation {
  if (!notes.anyShared) return situationOf(rows, at);
  const { situations, ints, wordCount: count } = rows;
  const { words, sharedPulses } = notes;
  const first = 2 * at + rows.words;
  for (let i = 0; i < count; i++) words[i] = ints[first + i]! | sharedPulses[track * count + i]!;
  return situations.find(words, 0);
}
