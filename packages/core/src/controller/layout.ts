import { placeOf } from '../signal/program.js';
import type { SignalTables } from '../signal/tables.js';
import type { State } from './state.js';

/**
 * The places of a row's own numbers. A row holds everything that changes while one character plays. It lies in one buffer that is read as
 * doubles and as 32-bit integers; two integers take the room of a double. Places are counted from where the row begins.
 */
export const enum Row {
  /**
   * The instant that is being decided, or up to which time has passed, in microseconds. It is older while the row is left alone: see
   * `Rows.waits`.
   */
  now = 0,
  /** The next instant at which anything can change by itself; `Infinity` for none. */
  due = 1,
  /** The first of the instants of pulses, lasting flags, turns and `atLeast`. */
  timer = 2,
  /** Bits of `Attention`: what the next step has to do before time passes. An integer. */
  attention = 6,
  /** The number of the situation that was read last. An integer. */
  situation = 7,
  /** Where the track rows begin, in doubles. */
  trackRows = 4,
}

/** The places of the numbers of one track, inside the row. They are counted from where the track row begins. */
export const enum TrackRow {
  /** The place within the clip at {@link TrackRow.positionTime}, in units; it goes on from there by the rate. */
  position = 0,
  positionTime = 1,
  /** When the state was entered. */
  entered = 2,
  /** The number of the timeline that shows, which also says the state and the direction. From here on integers. */
  timeline = 6,
  /** The segment of the timeline that was reached at {@link TrackRow.positionTime}. */
  segment = 7,
  /** Four bits of `StateBit`, and above them where the compass points. */
  stateBits = 8,
  /** Units of the clip that pass in a microsecond; 0 while a number says the frame. */
  rate = 9,
  /** By which rule the state was entered (four bits), and above them from which state, plus one. */
  lastSwitch = 10,
  /** The state that a route leads to; -1 for none. */
  goal = 11,
  /** Where the words begin of the hops that remember their condition, and after them those of the pulses that were used last. */
  words = 12,
}

/** How far the direction to which the compass points is shifted in `TrackRow.stateBits`; below it are the bits of `StateBit`. */
export const targetDirectionShift = 5;

/** The places of everything in the rows of one controller. They are counted in doubles, and those of bits in integers. */
export interface Layout {
  /** The size of a row, in doubles. */
  readonly size: number;
  /** The size of a track row, and where the last one ends. */
  readonly trackRowSize: number;
  readonly trackRowsEnd: number;
  /** The number of words in a track row that remember hops. */
  readonly memories: number;
  /**
   * The place in a track row of the instant at which its state is over. The instant until which the state is kept follows. Only if a state
   * needs them.
   */
  readonly lengths: number;
  /**
   * The place of the random generator's state; the last pick of each variety follows, -1 for none. In integers; -1 if nothing is picked.
   */
  readonly picks: number;
  /** The place of the number slots: for each its value and the two ends of its interval. */
  readonly values: number;
  /** The place of the instants of pulses, lasting flags and turns. */
  readonly timers: number;
  /** Where the words of flags and pulses begin as they were set, and those that were decided on last; in integers. */
  readonly set: number;
  readonly words: number;
  /** Whether a condition asks for tags or states, whether a state has gaits or variants, and whether one follows a number by its frame. */
  readonly asksAnything: boolean;
  readonly hasFlipbookChoices: boolean;
  readonly hasScrubs: boolean;
  /** A new row. */
  readonly first: Float64Array;
}

/**
 * Gives everything its place.
 *
 * @param varieties the number of varieties, of states and of cues
 * @param rests the timelines with which tracks begin
 * @param targetDirection the direction to which the compass points at first
 */
export function layOut(
  { regions, signals, timers, words, firstBits, tags }: SignalTables,
  states: readonly State[],
  varieties: number,
  rests: readonly number[],
  targetDirection: number,
  unitsPerMicrosecond: number,
): Layout {
  const memories = states.reduce(
    (most, { hops }) => Math.max(most, Math.ceil(hops.filter(({ memory }) => memory >= 0).length / 32)),
    0,
  );
  const lengths = TrackRow.words / 2 + Math.ceil((memories + words) / 2);
  const hasLengths = states.some(({ lasts, keeps }) => lasts !== undefined || keeps !== undefined);
  const trackRowSize = lengths + (hasLengths ? 2 : 0);
  const trackRowsEnd = Row.trackRows + trackRowSize * rests.length;
  const values = trackRowsEnd;
  const timersAt = values + placeOf(regions.length);
  const set = 2 * (timersAt + timers);
  const picks = varieties === 0 ? -1 : set + 2 * words;
  const size = set / 2 + words + (varieties === 0 ? 0 : Math.ceil((1 + varieties) / 2));
  const first = new Float64Array(size);
  const ints = new Int32Array(first.buffer);
  first[Row.timer] = Infinity;
  // The intervals are empty, so that the first reading finds them.
  first.fill(Infinity, values, set / 2);
  for (const { slot, first: value } of signals.values())
    if (slot >= 0) value.forEach((one, i) => (first[values + placeOf(slot + i)] = one));
  if (picks >= 0) ints.fill(-1, picks + 1, picks + 1 + varieties).fill(1, picks, picks + 1);
  ints.set(firstBits, set);
  ints.set(firstBits, set + words);
  rests.forEach((timeline, track) => {
    const at = 2 * (Row.trackRows + track * trackRowSize);
    ints[at + TrackRow.timeline] = timeline;
    ints[at + TrackRow.stateBits] = targetDirection << targetDirectionShift;
    ints[at + TrackRow.rate] = unitsPerMicrosecond;
    ints[at + TrackRow.goal] = -1;
  });
  return {
    size,
    trackRowSize,
    trackRowsEnd,
    memories,
    lengths,
    picks,
    values,
    timers: timersAt,
    set,
    words: set + words,
    asksAnything: tags.size > 0,
    hasFlipbookChoices: states.some(({ slots }) => slots.some(({ axes }) => axes.length > 0)),
    hasScrubs: states.some(({ scrub }) => scrub !== undefined),
    first,
  };
}
