import { indexAt } from '../clip/clip.js';
import type { Clip } from '../clip/clip.js';
import type { Pose, PoseBook } from '../sheet/pose.js';
import type { State } from './controller.js';
import type { AtDefinition } from './definition.js';
import { Place } from './numbers.js';

/** Positions in a clip are counted in parts of a microsecond, so that a rate is a whole number of parts. */
export const enum Units {
  perMicrosecond = 4096,
}

/** A row of {@link Segments.glides}: side by side, since at a border all of it is read. */
export const enum Glide {
  /** The position at which the segment ends, in units. */
  end = 0,
  /** Twice the quiet segment that follows it, and one more if that has cues; -1 for none. */
  next = 1,
  /** The position at which that begins, in units, and how long it lasts as it is drawn, in microseconds. */
  begin = 2,
  lasts = 3,
  size = 4,
}

/**
 * A clip as one state shows it in one direction, cut into segments: each showing of a frame is one, or several where
 * a phase that the state's rules name lies within it. So every instant that matters is the beginning or the end of a
 * segment, and nothing else has to be watched for.
 */
export interface Segments {
  readonly clip: Clip;
  /** For each segment the frame it shows, and the position at which it ends, in units. */
  readonly frames: readonly number[];
  readonly ends: readonly number[];
  readonly length: number;
  readonly loops: boolean;
  /** The segment and the position at which it goes on after its last, if it loops. */
  readonly loopFrom: number;
  readonly loopStart: number;
  /** For each segment the indices of the cues reported as it begins, among the controller's cue names. */
  readonly cues: readonly (readonly number[])[];
  /** Whether no segment has a cue, hop or yield of its own: whole loops can then be passed over at once. */
  readonly idle: boolean;
  /**
   * For each segment the one that follows it without anything to be decided at the border, when no signal has
   * changed; -1 where there is something to decide. Most borders are such, and are passed by a short way.
   */
  readonly quiet: readonly number[];
  /** What is needed to pass such borders where the clip runs as it is drawn: a row of {@link Glide} for each segment. */
  readonly glides: Float64Array;
  /** For each segment the hops (a bit each) whose `during` holds, or that have none. */
  readonly armed: readonly number[];
  /** For each segment the hops whose instant is its beginning, and those whose instant is its end. */
  readonly hopsAt: readonly number[];
  readonly hopsAfter: readonly number[];
  /** For each segment the yields (a bit each) that are open. */
  readonly yielding: readonly number[];
  /** For each segment whether the state may be left at its beginning, and at its end. */
  readonly leavesAt: readonly boolean[];
  readonly leavesAfter: readonly boolean[];
  /** The poses of the segments, as they are drawn and mirrored; made when they are first wanted. */
  readonly poses: { drawn?: readonly Pose[]; mirrored?: readonly Pose[] };
}

/* eslint-disable @typescript-eslint/no-unsafe-declaration-merging, @typescript-eslint/no-empty-object-type --
   the constructor takes over all fields of the segments */
export interface Timeline extends Omit<Segments, 'poses'> {}

/**
 * The segments of a clip where they are shown: in one direction of one book of one state. They are fields of its own:
 * performers read them at every border, and one object more on the way would cost. So would an object that is no class:
 * the engine then keeps the fields outside of it.
 */
export class Timeline {
  /** Its state, which is made when all its timelines are: whoever plays it asks for that at every turn. */
  of!: State;

  /**
   * @param number its place among all timelines of the controller
   * @param state the index of its state: a performer keeps only its timeline
   * @param bridge whether it is played in between, before the state's own clip
   */
  constructor(
    readonly number: number,
    readonly state: number,
    readonly direction: number,
    readonly book: number,
    readonly bridge: boolean,
    readonly poses: readonly Pose[],
    segments: Segments,
  ) {
    Object.assign(this, segments);
    this.poses = poses;
  }
}
/* eslint-enable @typescript-eslint/no-unsafe-declaration-merging, @typescript-eslint/no-empty-object-type */

/** What of a state depends on the place of its clip. */
export interface FrameRules {
  readonly hops: readonly { readonly during: string | undefined; readonly at: AtDefinition | undefined }[];
  readonly yields: readonly { readonly during: string | undefined }[];
  readonly leaves: AtDefinition | undefined;
}

interface Segment {
  readonly showing: number;
  readonly begins: number;
  readonly ends: number;
}

const phasesOf = (at: AtDefinition | undefined): readonly number[] =>
  typeof at === 'object' && 'phases' in at ? at.phases : [];

/**
 * Cuts a clip into segments by the rules of a state. Names that the clip lacks are simply never met.
 *
 * @param bridge whether it is played in between: it does not loop, and phases and ends are not meant of it
 */
export function buildSegments(
  clip: Clip,
  bridge: boolean,
  rules: FrameRules,
  cueIndex: (name: string) => number,
): Segments {
  const { hops, yields, leaves } = rules;
  const whole = clip.ends[clip.ends.length - 1]!;
  const atPhase = (phase: number): number => Math.round(phase * whole);
  const cuts = [...hops.flatMap(({ at }) => phasesOf(at)), ...phasesOf(leaves)].map(atPhase);
  const segments = cutSegments(clip, bridge ? [] : cuts);
  const last = segments.length - 1;
  const perSegment = <T>(of: (segment: Segment, index: number) => T): T[] => segments.map(of);
  const isFirst = (i: number): boolean => segments[i - 1]?.showing !== segments[i]!.showing;
  const isLast = (i: number): boolean => segments[i + 1]?.showing !== segments[i]!.showing;

  const inSpan = (span: string | undefined, frame: number): boolean => {
    if (span === undefined) return true;
    const range = clip.spans.get(span);
    return range !== undefined && frame >= range.first && frame <= range.last;
  };
  const begins = (at: AtDefinition | undefined, { showing, begins: from }: Segment, i: number): boolean => {
    if (at === undefined) return false;
    if (typeof at === 'string') return isFirst(i) && clip.cues[showing]!.includes(at);
    if ('start' in at) return isFirst(i) && clip.spans.get(at.start)?.first === clip.order[showing];
    return 'phases' in at && !bridge && at.phases.some((phase) => atPhase(phase) === from);
  };
  const ends = (at: AtDefinition | undefined, { showing }: Segment, i: number): boolean => {
    if (at === 'end') return i === last && !bridge;
    if (typeof at !== 'object' || !('end' in at)) return false;
    return isLast(i) && clip.spans.get(at.end)?.last === clip.order[showing];
  };
  // Most states have no rules about frames, and documents have many of those: nothing is asked of each segment then.
  const [nothing, never] = [perSegment(() => 0), perSegment(() => false)];
  const bits = <T>(
    list: readonly T[],
    on: (one: T, segment: Segment, index: number) => boolean,
  ): number[] => {
    if (list.length === 0) return nothing;
    return perSegment((segment, index) =>
      list.reduce((word, one, i) => (on(one, segment, index) ? word | (1 << i) : word), 0),
    );
  };

  const cues = perSegment(({ showing }, i) => (isFirst(i) ? clip.cues[showing]!.map(cueIndex) : none));
  const loops = clip.loopFrom >= 0 && !bridge;
  const loopFrom = loops ? segments.findIndex(({ showing }) => showing === clip.loopFrom) : 0;
  const frameOf = ({ showing }: Segment): number => clip.order[showing]!;
  const plain = hops.length === 0 && yields.length === 0 && leaves === undefined;
  const segmentsOf: Omit<Segments, 'quiet' | 'glides'> = {
    clip,
    poses: {},
    frames: segments.map(frameOf),
    ends: doubles(segments.map((segment) => segment.ends * Units.perMicrosecond)),
    length: whole * Units.perMicrosecond,
    loops,
    loopFrom,
    loopStart: segments[loopFrom]!.begins * Units.perMicrosecond,
    cues,
    idle: plain && cues.every((names) => names.length === 0),
    armed: bits(hops, ({ during }, one) => inSpan(during, frameOf(one))),
    hopsAt: bits(hops, ({ at }, one, i) => begins(at, one, i)),
    hopsAfter: bits(hops, ({ at }, one, i) => ends(at, one, i)),
    yielding: bits(yields, ({ during }, one) => inSpan(during, frameOf(one))),
    leavesAt: leaves === undefined ? never : perSegment((one, i) => begins(leaves, one, i)),
    leavesAfter: leaves === undefined ? never : perSegment((one, i) => ends(leaves, one, i)),
  };
  const quiet = quietBorders(segmentsOf);
  const glides = new Float64Array(segments.length * Glide.size).fill(-1);
  quiet.forEach((next, i) => {
    const row = i * Glide.size;
    glides[row + Glide.end] = segmentsOf.ends[i]!;
    if (next < 0) return;
    const { begins: from, ends: to } = segments[next]!;
    glides[row + Glide.next] = next * 2 + (cues[next]!.length > 0 ? 1 : 0);
    glides[row + Glide.begin] = from * Units.perMicrosecond;
    glides[row + Glide.lasts] = to - from;
  });
  return Object.assign(segmentsOf, { quiet, glides });
}

const none: readonly number[] = [];

/** An array that the engine keeps as doubles whatever the values: arrays of several kinds in one place are slow. */
function doubles(values: readonly number[]): number[] {
  const list = values.map((value) => value + 0.5);
  for (let i = 0; i < values.length; i++) list[i] = values[i]!;
  return list;
}

/** Cuts the showings of a clip at some positions, all in microseconds. */
function cutSegments({ ends }: Clip, cuts: readonly number[]): Segment[] {
  const inside = [...cuts].sort((a, b) => a - b);
  const segments: Segment[] = [];
  let begins = 0;
  ends.forEach((end, showing) => {
    for (const cut of inside)
      if (cut > begins && cut < end) {
        segments.push({ showing, begins, ends: cut });
        begins = cut;
      }
    segments.push({ showing, begins, ends: end });
    begins = end;
  });
  return segments;
}

function quietBorders(timeline: Omit<Segments, 'quiet' | 'glides'>): number[] {
  const { ends, loops, loopFrom, armed, yielding, hopsAt, hopsAfter, leavesAt, leavesAfter } = timeline;
  return ends.map((_, i) => {
    const isLast = i === ends.length - 1;
    if (isLast && !loops) return -1;
    const next = isLast ? loopFrom : i + 1;
    const same = armed[i] === armed[next] && yielding[i] === yielding[next];
    const still = hopsAfter[i] === 0 && hopsAt[next] === 0 && !leavesAfter[i] && !leavesAt[next]!;
    return same && still ? next : -1;
  });
}

/** The poses of segments, drawn or mirrored; the same list each time. */
export function posesOf(segments: Segments, mirrored: boolean, book: PoseBook): readonly Pose[] {
  const { clip, ends, poses } = segments;
  // A segment shows the cell of the showing in which it ends.
  const make = (): Pose[] =>
    ends.map((end) => book.pose(clip.cells[indexAt(clip.ends, end / Units.perMicrosecond - 1)]!, mirrored));
  return mirrored ? (poses.mirrored ??= make()) : (poses.drawn ??= make());
}

/** The segment at the place that a performer's numbers say; the last one at or past the end. */
export function segmentAt({ ends }: Timeline, numbers: Float64Array, base: number): number {
  const place = numbers[base + Place.position]!;
  let low = 0;
  let high = ends.length - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (place < ends[middle]!) high = middle;
    else low = middle + 1;
  }
  return low;
}
