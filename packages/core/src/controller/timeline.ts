import { indexAt } from '../clip/clip.js';
import type { Clip } from '../clip/clip.js';
import type { Pose, PoseBook } from '../sheet/pose.js';

/** Positions in a clip are counted in parts of a microsecond, so that a rate is a whole number of parts. */
export const unitsPerMicrosecond = 4096;

/** A clip as one state shows it in one direction. */
export interface Timeline {
  readonly clip: Clip;
  readonly poses: readonly Pose[];
  /** For each frame the position at which it ends, in units. */
  readonly ends: readonly number[];
  readonly length: number;
  readonly loops: boolean;
  /** The showing and the position at which it goes on after its last, if it loops. */
  readonly loopFrom: number;
  readonly loopStart: number;
  /** For each frame the indices of its cues among the controller's cue names. */
  readonly cues: readonly (readonly number[])[];
  /** Whether no frame has a cue, hop or yield of its own: whole loops can then be passed over at once. */
  readonly idle: boolean;
  /** Whether no hop or yield of the state looks at frames, so that a border of frames decides nothing. */
  readonly plain: boolean;
  /** For each frame the hops (a bit each) whose `during` holds, or that have none. */
  readonly armed: readonly number[];
  /** For each frame the hops whose instant is its beginning. */
  readonly hopsAt: readonly number[];
  /** For each frame the yields (a bit each) that are open. */
  readonly yielding: readonly number[];
}

/** What of a state depends on frames: by hop and yield, the spans and instants they name. */
export interface FrameRules {
  readonly hops: readonly {
    readonly during: string | undefined;
    readonly cue: string | undefined;
    readonly start: string | undefined;
  }[];
  readonly yields: readonly { readonly during: string | undefined }[];
}

/** Builds the timeline of a clip, one direction of one state. Names that the clip lacks are simply never open. */
export function buildTimeline(
  clip: Clip,
  mirrored: boolean,
  rules: FrameRules,
  cueIndex: (name: string) => number,
  poses: PoseBook,
): Timeline {
  const inSpan = (span: string | undefined, showing: number): boolean => {
    if (span === undefined) return true;
    const range = clip.spans.get(span);
    return range !== undefined && clip.order[showing]! >= range.first && clip.order[showing]! <= range.last;
  };
  const bits = (count: number, on: (index: number) => boolean): number => {
    let word = 0;
    for (let index = 0; index < count; index++) if (on(index)) word |= 1 << index;
    return word;
  };
  const perShowing = (of: (showing: number) => number): number[] => clip.order.map((_, i) => of(i));
  const begins = (hop: FrameRules['hops'][number], showing: number): boolean =>
    (hop.cue !== undefined && clip.cues[showing]!.includes(hop.cue)) ||
    (hop.start !== undefined && clip.spans.get(hop.start)?.first === clip.order[showing]);
  const ends = clip.ends.map((end) => end * unitsPerMicrosecond);
  return {
    clip,
    poses: clip.cells.map((cell) => poses.pose(cell, mirrored)),
    ends,
    length: ends[ends.length - 1]!,
    loops: clip.loopFrom >= 0,
    loopFrom: Math.max(0, clip.loopFrom),
    loopStart: clip.loopFrom > 0 ? ends[clip.loopFrom - 1]! : 0,
    cues: clip.cues.map((names) => names.map(cueIndex)),
    idle:
      clip.cues.every((names) => names.length === 0) && rules.hops.length === 0 && rules.yields.length === 0,
    plain: rules.hops.length === 0 && rules.yields.length === 0,
    armed: perShowing((frame) => bits(rules.hops.length, (i) => inSpan(rules.hops[i]!.during, frame))),
    hopsAt: perShowing((frame) => bits(rules.hops.length, (i) => begins(rules.hops[i]!, frame))),
    yielding: perShowing((frame) => bits(rules.yields.length, (i) => inSpan(rules.yields[i]!.during, frame))),
  };
}

/** The showing at a position; the last one at or past the end. */
export function showingAtPosition({ ends }: Timeline, position: number): number {
  return indexAt(ends, position);
}
