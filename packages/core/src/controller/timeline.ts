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
  /** For each frame the indices of its cues among the controller's cue names. */
  readonly cues: readonly (readonly number[])[];
  /** Whether no frame has a cue, hop or yield of its own: whole loops can then be passed over at once. */
  readonly idle: boolean;
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
  const inSpan = (span: string | undefined, frame: number): boolean => {
    if (span === undefined) return true;
    const range = clip.spans.get(span);
    return range !== undefined && frame >= range.first && frame <= range.last;
  };
  const bits = (count: number, on: (index: number) => boolean): number => {
    let word = 0;
    for (let index = 0; index < count; index++) if (on(index)) word |= 1 << index;
    return word;
  };
  const perFrame = (of: (frame: number) => number): number[] => clip.cells.map((_, frame) => of(frame));
  const begins = (hop: FrameRules['hops'][number], frame: number): boolean =>
    (hop.cue !== undefined && clip.cues[frame]!.includes(hop.cue)) ||
    (hop.start !== undefined && clip.spans.get(hop.start)?.first === frame);
  const ends = clip.ends.map((end) => end * unitsPerMicrosecond);
  return {
    clip,
    poses: clip.cells.map((cell) => poses.pose(cell, mirrored)),
    ends,
    length: ends[ends.length - 1]!,
    loops: clip.loop === 'forever',
    cues: clip.cues.map((names) => names.map(cueIndex)),
    idle:
      clip.cues.every((names) => names.length === 0) && rules.hops.length === 0 && rules.yields.length === 0,
    armed: perFrame((frame) => bits(rules.hops.length, (i) => inSpan(rules.hops[i]!.during, frame))),
    hopsAt: perFrame((frame) => bits(rules.hops.length, (i) => begins(rules.hops[i]!, frame))),
    yielding: perFrame((frame) => bits(rules.yields.length, (i) => inSpan(rules.yields[i]!.during, frame))),
  };
}

/** The frame that shows at a position; the last one at or past the end. */
export function frameAt(timeline: Timeline, position: number): number {
  const { ends } = timeline;
  let low = 0;
  let high = ends.length - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (position < ends[middle]!) high = middle;
    else low = middle + 1;
  }
  return low;
}
