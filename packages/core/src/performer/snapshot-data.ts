import type { RuleName } from '../controller/rule.js';
import type { BitWords } from '../signal/condition.js';
import type { SignalValue } from '../signal/definition.js';
import { StateBit } from '../engine/rows.js';

/** What a track plays, as plain data. Instants are milliseconds since the performer began. */
export interface TrackSnapshot {
  readonly state: string;
  readonly since: number;
  /** The clip or flipbook that shows, and whether it is a bridge; empty for what shows its part of another track's. */
  readonly shows: string;
  /** Which of the flipbooks that the state can show, from 0: two gaits may show the same. */
  readonly slot: number;
  readonly bridging: boolean;
  /** Whether the clip plays backwards: its place and segment count from the clip's end then. */
  readonly backwards?: true;
  readonly facing: string;
  /** Where the compass points; a state that holds its direction may face elsewhere. */
  readonly pointsTo: string;
  /** From 0 to 1, and exactly in 4096ths of a microsecond. */
  readonly phase: number;
  readonly place: number;
  readonly segment: number;
  /** How far the state has come: whether its clip has ended, whether a press of it is queued. */
  readonly progress: readonly ProgressName[];
  readonly remembered: readonly { readonly hop: number; readonly to: string }[];
  readonly routeTo?: string;
  /** When the state is over, if it says how long it lasts; and until when it is kept, if that was read when it was entered. */
  readonly overAt?: number;
  readonly keptUntil?: number;
  readonly last: {
    readonly from?: string;
    readonly rule: RuleName;
    readonly used: readonly string[];
  };
}

/** Where a performer stands, as plain data: it goes through JSON unchanged. Of its own it says what the track `body` plays. */
export interface PerformerSnapshot extends TrackSnapshot {
  readonly dotHopSnapshot: 2;
  /** The character's name and the version of its document. */
  readonly controller: string;
  readonly version: string;
  readonly time: number;
  /** Every signal as it was set; a pulse is true while it counts. */
  readonly signals: Readonly<Record<string, SignalValue>>;
  /** When pulses expire and lasting flags change, by name. */
  readonly timers: Readonly<Record<string, number>>;
  /** The terms that were on when it decided last. */
  readonly on: readonly string[];
  /** Whether something was set that it has not yet decided upon. */
  readonly changed: boolean;
  /** How fast its own time runs, absent where it is 1; and what has passed of the next microsecond, in thousandths. */
  readonly pace?: number;
  readonly paceRest?: number;
  /** Where chance stands, and what was picked last, by state; absent where nothing is picked. */
  readonly seed?: number;
  readonly picks?: Readonly<Record<string, Picked>>;
  /** By which names cues were told last, by cue; absent where each is told by its own. */
  readonly told?: Readonly<Record<string, Picked>>;
  /** What the other tracks play, by name; absent without any. */
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
