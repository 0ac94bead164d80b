import type { RuleName } from '../controller/rule.js';
import type { BitWords } from '../signal/condition.js';
import type { SignalValue } from '../signal/definition.js';
import { StateBit } from '../engine/rows.js';

/** What a track plays, as plain data. Instants are milliseconds since the performer began. */
export interface TrackSnapshot {
  readonly state: string;
  readonly since: number;
  /** The clip or flipbook that shows, and whether it is a bridge. Empty if the track shows its part of another track's drawing. */
  readonly shows: string;
  /** Which of the flipbooks of the state shows, from 0. The name is not enough, because two gaits may show the same one. */
  readonly slot: number;
  readonly bridging: boolean;
  /** Whether the clip plays backwards. Then its place and segment count from the clip's end. */
  readonly backwards?: true;
  readonly facing: string;
  /** The direction in which the compass points. A state with `facing: held` may face elsewhere. */
  readonly pointsTo: string;
  /** From 0 to 1, and exactly in 4096ths of a microsecond. */
  readonly phase: number;
  readonly place: number;
  readonly segment: number;
  /** How far the state has come: whether its clip has ended, whether a press of it is queued. */
  readonly progress: readonly ProgressName[];
  readonly remembered: readonly { readonly hop: number; readonly to: string }[];
  readonly routeTo?: string;
  /** The instant at which the state is over, if it has `lasts`; and the instant until which it is kept, if that was read on entering. */
  readonly overAt?: number;
  readonly keptUntil?: number;
  readonly last: {
    readonly from?: string;
    readonly rule: RuleName;
    readonly used: readonly string[];
  };
}

/** The present moment of a performer, as plain data that goes through JSON unchanged. Its own fields describe the track `body`. */
export interface PerformerSnapshot extends TrackSnapshot {
  readonly dotHopSnapshot: 2;
  /** The character's name and the version of its document. */
  readonly controller: string;
  readonly version: string;
  readonly time: number;
  /** Every signal as it was set. A pulse is true while it counts. */
  readonly signals: Readonly<Record<string, SignalValue>>;
  /** When pulses expire and lasting flags change, by name. */
  readonly timers: Readonly<Record<string, number>>;
  /** The terms that were true at the last decision. */
  readonly on: readonly string[];
  /** Whether something was set since then. */
  readonly changed: boolean;
  /** How fast its own time runs, left out if that is 1; and the part of a microsecond that has passed, in thousandths. */
  readonly pace?: number;
  readonly paceRest?: number;
  /** The state of the random generator, and what each state picked last. Left out if nothing is picked. */
  readonly seed?: number;
  readonly picks?: Readonly<Record<string, Picked>>;
  /** The name by which each cue was told last, by cue. Left out if every cue has one name. */
  readonly told?: Readonly<Record<string, Picked>>;
  /** What the other tracks play, by name. Left out if there are none. */
  readonly tracks?: Readonly<Record<string, TrackSnapshot>>;
}

/** The same of one track as a performer keeps it: indices, bits and microseconds. */
export interface DecodedTrack {
  state: number;
  entered: number;
  flipbook: number;
  direction: number;
  targetDirection: number;
  place: number;
  segment: number;
  stateBits: number;
  backwards: boolean;
  /** The hops that are remembered, by index. */
  remembered: readonly number[];
  goal: number;
  /** The state that was left, -1 for none, and by which rule. */
  from: number;
  rule: number;
  /** The words of the pulses that were used. */
  used: BitWords;
  /** When it is over and until when it is kept; `undefined` where the state does not say so, or the snapshot does not. */
  over: number | undefined;
  kept: number | undefined;
}

/** The same of the whole. */
export interface DecodedSnapshot {
  time: number;
  /** The words of flags and pulses as they were set, and all words that were decided on last. */
  set: BitWords;
  words: BitWords;
  /** The values of number slots and the instants of timers; the rest of a performer's numbers is found again. */
  values: number[];
  timers: number[];
  /** Track by track. */
  tracks: DecodedTrack[];
  changed: boolean;
  /** Its pace, and what has passed of a microsecond, both in thousandths. */
  pace: number;
  paceRest: number;
  /** Where chance stands, and by the number of its variety what each state has picked last, -1 for nothing. */
  seed: number;
  picks: number[];
}

/** The bits of a track by the names that a snapshot has for them. */
export const progressBits = {
  ended: StateBit.ended,
  begun: StateBit.begun,
  queued: StateBit.queued,
  underway: StateBit.underway,
  undecided: StateBit.undecided,
};

export type ProgressName = keyof typeof progressBits;

/** What a state has picked last, or by which name a cue was told last, and its place among those to pick from, from 0: a name may be there twice. */
export interface Picked {
  readonly shows: string;
  readonly place: number;
}
