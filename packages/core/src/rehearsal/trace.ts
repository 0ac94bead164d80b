import type { Reports } from '../controller/reports.js';
import type { RuleName } from '../controller/rule.js';
import type { DocumentPath } from '../problem/problem.js';
import type { Pose } from '../sheet/pose.js';
import type { SignalValue } from '../signal/definition.js';

/** One thing that happened, at its exact instant in milliseconds. */
export type TraceEntry =
  | {
      readonly kind: 'set';
      readonly at: number;
      readonly name: string;
      readonly value: SignalValue;
      /** What set it, if not the line itself: a ramp, a held button, or the body. */
      readonly by?: 'ramp' | 'button' | 'body';
      /** The bounds of the number in words, if the value is outside them. */
      readonly outside?: string;
    }
  | {
      readonly kind: 'ramp';
      readonly at: number;
      readonly name: string;
      /** The number's target, and the milliseconds until it gets there. */
      readonly to: number;
      readonly over: number;
    }
  | { readonly kind: 'pace'; readonly at: number; readonly name: 'pace'; readonly value: number }
  | { readonly kind: 'reset'; readonly at: number; readonly name: 'reset' }
  | { readonly kind: 'pulse' | 'press' | 'release'; readonly at: number; readonly name: string }
  | {
      readonly kind: 'cue';
      readonly at: number;
      readonly name: string;
      /** The cue on the frame, if another name was told. */
      readonly from?: string;
      readonly track: string;
    }
  | {
      readonly kind: 'turn' | 'flipbook';
      readonly at: number;
      readonly name: string;
      readonly from: string;
      readonly track: string;
    }
  | {
      readonly kind: 'ask' | 'cut' | 'route';
      readonly at: number;
      readonly name: string;
      /** Whether the state was let in. */
      readonly granted: boolean;
    }
  | {
      readonly kind: 'switch';
      readonly at: number;
      readonly name: string;
      readonly from: string;
      readonly rule: RuleName;
      readonly track: string;
    };

/** The entry of a report, at an instant of the rehearsal. */
export function entryOf(reports: Reports, index: number, at: number): TraceEntry {
  const [kind, name, from] = [reports.kind(index), reports.name(index), reports.from(index)];
  const track = reports.track(index);
  if (kind === 'cue') return { kind, at, name, ...(from !== name && { from }), track };
  return kind === 'switch'
    ? { kind, at, name, from, rule: reports.rule(index)!, track }
    : { kind, at, name, from, track };
}

/** Whether an entry tells a cue of this name: the cue on the frame, or the name by which it was told. */
export const tellsCue = (entry: TraceEntry, cue: string): boolean =>
  entry.kind === 'cue' && (entry.name === cue || entry.from === cue);

/** What a track showed. */
export interface TrackSample {
  readonly state: string;
  readonly clip: string;
  readonly frame: number;
  readonly direction: string;
}

/** What showed from an instant until the next sample. `state` to `direction` are those of the first track. */
export interface Sample extends TrackSample {
  readonly at: number;
  /** What all tracks showed together. */
  readonly pose: Pose;
  /** What each track showed, in the order of the document. */
  readonly tracks: readonly TrackSample[];
}

/** The vector that turned the character from an instant on, and where it faced then. */
export interface TrailPoint {
  readonly at: number;
  /** The vector, to the right and downwards. */
  readonly x: number;
  readonly y: number;
  readonly direction: string;
}

/** Where the body was at an instant, in pixels, y downwards. */
export interface PathPoint {
  readonly at: number;
  readonly x: number;
  readonly y: number;
}

/** An expectation and its result. */
export interface Outcome {
  /** Its index among the outcomes: those of `expect` first, then those of the script. */
  readonly index: number;
  /** Its path in the rehearsal. */
  readonly path: DocumentPath;
  /** The time that it speaks of, in milliseconds. For an instant, `from` and `to` are the same. */
  readonly from: number;
  readonly to: number;
  readonly met: boolean;
  /** What was expected, in words. */
  readonly expected: string;
  /** What happened instead; empty if it was met. */
  readonly instead: string;
  /** The instant at which it failed, in milliseconds. */
  readonly failedAt: number | undefined;
  /** The performer's `why()` at that instant. */
  readonly why: string | undefined;
}

/** The result of a rehearsal. */
export interface RehearsalResult {
  readonly lasts: number;
  readonly trace: readonly TraceEntry[];
  /** What showed, with one entry for each change of picture or state. */
  readonly samples: readonly Sample[];
  /** The vectors in order, with one entry for each change of vector or direction. */
  readonly trail: readonly TrailPoint[];
  /** The path of the body, with one entry for each change of place. Empty without a body. */
  readonly path: readonly PathPoint[];
  readonly outcomes: readonly Outcome[];
}
