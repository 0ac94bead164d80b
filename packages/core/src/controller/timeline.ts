import { indexAt } from '../clip/clip.js';
import type { Clip } from '../clip/clip.js';
import type { Pose, PoseCache } from '../sheet/pose.js';
import type { State } from './state.js';
import type { AtDefinition } from './definition.js';

/** Positions in a clip are counted in parts of a microsecond, so that a rate is a whole number of parts. */
export const enum Units {
  perMicrosecond = 4096,
}

/**
 * A clip as one state shows it in one direction, cut into segments. Each showing of a frame is one segment, or several if the state's rules
 * name a phase inside it. So every instant that matters is the beginning or the end of a segment.
 */
export interface Segments {
  readonly clip: Clip;
  /** For each segment the frame that it shows, and the position at which it ends, in units. */
  readonly frames: readonly number[];
  readonly ends: readonly number[];
  readonly length: number;
  readonly loops: boolean;
  /** The segment and the position that follow the last one, if the clip loops. */
  readonly loopFrom: number;
  readonly loopStart: number;
  /** For each segment the cues that are reported as it begins, as indices into the controller's cue names. */
  readonly cues: readonly (readonly number[])[];
  /** For each segment the next one, if nothing can be decided at the border between them as long as no signal changes; else -1. */
  readonly quiet: readonly number[];
  /** The same for borders without cues. Nobody notices such a border, so it is crossed only when someone looks. */
  readonly silent: readonly number[];
  /**
   * The distance from each segment's end to the next border that somebody notices, in units: 0 at such a border, `Infinity` if there is
   * none.
   */
  readonly ahead: readonly number[];
  /** Whether nobody notices any border, so that whole passes can be crossed at once. */
  readonly isSilent: boolean;
  /** For each segment the hops whose `during` holds, or that have no `during`. */
  readonly armed: readonly (readonly number[])[];
  /** For each segment the hops that can be taken in it: at any time, at its beginning, or at its end, in order. */
  readonly ways: readonly (readonly number[])[];
  readonly waysAt: readonly (readonly number[])[];
  readonly waysAfter: readonly (readonly number[])[];
  /** For each segment the hops that remember their condition in it and are taken later. */
  readonly hearing: readonly (readonly number[])[];
  /** For each segment the hops that are taken at its beginning, and those that are taken at its end. */
  readonly hopsAt: readonly (readonly number[])[];
  readonly hopsAfter: readonly (readonly number[])[];
  /** For each segment the yields that are open. */
  readonly yielding: readonly (readonly number[])[];
  /** For each segment whether the state may be left at its beginning, and at its end. */
  readonly leavesAt: readonly boolean[];
  readonly leavesAfter: readonly boolean[];
  /** The poses of the segments. Each is made when it is first needed. */
  readonly poses: { drawn?: readonly Pose[]; mirrored?: readonly Pose[] };
}

/* eslint-disable @typescript-eslint/no-unsafe-declaration-merging, @typescript-eslint/no-empty-object-type --
   the constructor takes over all fields of the segments */
export interface Timeline extends Omit<Segments, 'poses'> {}

/**
 * The segments of a clip where they are shown: in one direction of one flipbook of one state. They are fields of its own:
 * performers read them at every border, and one object more on the way would cost. So would an object that is no class:
 * the engine then keeps the fields outside of it.
 */
export class Timeline {
  /** Its state. It is set after all timelines are made. It is a field because playing reads it all the time. */
  state!: State;
  /** The timeline of the same clip in the other direction of time, if the state's rate can be below 0. */
  reverse: Timeline | undefined = undefined;

  /**
   * @param number its place among all timelines of the controller
   * @param stateIndex the index of its state: a performer keeps only its timeline
   * @param bridge whether it is played in between, before the state's own clip
   * @param isBackwards whether it shows its clip backwards
   */
  constructor(
    readonly number: number,
    readonly stateIndex: number,
    readonly direction: number,
    readonly flipbook: number,
    readonly bridge: boolean,
    readonly isBackwards: boolean,
    readonly poses: readonly Pose[],
    segments: Segments,
  ) {
    Object.assign(this, segments);
    this.poses = poses;
  }
}
/* eslint-enable @typescript-eslint/no-unsafe-declaration-merging, @typescript-eslint/no-empty-object-type */

/** The rules of a state that depend on the place in its clip. */
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

type HopRule = Partial<FrameRules['hops'][number]>;

/** Whether a hop can be taken at any time. */
export const isNow = ({ at }: HopRule): boolean => at === undefined || at === 'now';

/** Whether a hop remembers its condition within a span and is taken at a later instant. */
export const remembers = (hop: HopRule): boolean => hop.during !== undefined && !isNow(hop);

const phasesOf = (at: AtDefinition | undefined): readonly number[] =>
  typeof at === 'object' && 'phases' in at ? at.phases : [];

/**
 * Cuts a clip into segments by the rules of a state. Names that the clip lacks are simply never met.
 *
 * @param bridge whether it is played in between: it does not loop, and phases and ends are not meant of it
 * @param isBackwards whether the clip is one that is played backwards: a span begins with its last frame then, and phases count from its end
 */
export function buildSegments(
  clip: Clip,
  bridge: boolean,
  rules: FrameRules,
  cueIndex: (name: string) => number,
  isBackwards: boolean,
): Segments {
  const { hops, yields, leaves } = rules;
  const whole = clip.ends[clip.ends.length - 1]!;
  const atPhase = (phase: number): number =>
    isBackwards ? (whole - Math.round(phase * whole)) % whole : Math.round(phase * whole);
  const [opening, closing] = isBackwards ? (['last', 'first'] as const) : (['first', 'last'] as const);
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
    if ('start' in at) return isFirst(i) && clip.spans.get(at.start)?.[opening] === clip.order[showing];
    return 'phases' in at && !bridge && at.phases.some((phase) => atPhase(phase) === from);
  };
  const ends = (at: AtDefinition | undefined, { showing }: Segment, i: number): boolean => {
    if (at === 'end') return i === last && !bridge;
    if (typeof at !== 'object' || !('end' in at)) return false;
    return isLast(i) && clip.spans.get(at.end)?.[closing] === clip.order[showing];
  };
  // Most states have no rules about frames, and documents have many of those: nothing is asked of each segment then.
  const [nothing, never] = [perSegment(() => none), perSegment(() => false)];
  const those = <T>(
    list: readonly T[],
    isMeant: (one: T, segment: Segment, index: number, of: number) => boolean,
  ): (readonly number[])[] => {
    if (list.length === 0) return nothing;
    return perSegment((segment, index) =>
      list.flatMap((one, i) => (isMeant(one, segment, index, i) ? [i] : [])),
    );
  };

  const cues = perSegment(({ showing }, i) => (isFirst(i) ? clip.cues[showing]!.map(cueIndex) : none));
  const loops = clip.loopFrom >= 0 && !bridge;
  const loopFrom = loops ? segments.findIndex(({ showing }) => showing === clip.loopFrom) : 0;
  const frameOf = ({ showing }: Segment): number => clip.order[showing]!;
  const armed = those(hops, ({ during }, one) => inSpan(during, frameOf(one)));
  const hopsAt = those(hops, ({ at }, one, i) => begins(at, one, i));
  const hopsAfter = those(hops, ({ at }, one, i) => ends(at, one, i));
  // What is remembered is taken wherever its instant is, all else within its span.
  const waysWith = (instants: readonly (readonly number[])[]): (readonly number[])[] =>
    those(hops, (hop, _, i, index) => {
      const isHere = isNow(hop) || instants[i]!.includes(index);
      return isHere && (remembers(hop) || armed[i]!.includes(index));
    });
  const segmentsOf: Omit<Segments, 'quiet' | 'silent' | 'ahead' | 'isSilent'> = {
    clip,
    poses: {},
    frames: segments.map(frameOf),
    ends: asDoubles(segments.map((segment) => segment.ends * Units.perMicrosecond)),
    length: whole * Units.perMicrosecond,
    loops,
    loopFrom,
    loopStart: segments[loopFrom]!.begins * Units.perMicrosecond,
    cues,
    armed,
    ways: waysWith(nothing),
    waysAt: waysWith(hopsAt),
    waysAfter: waysWith(hopsAfter),
    hearing: those(hops, (hop, _, i, index) => remembers(hop) && armed[i]!.includes(index)),
    hopsAt,
    hopsAfter,
    yielding: those(yields, ({ during }, one) => inSpan(during, frameOf(one))),
    leavesAt: leaves === undefined ? never : perSegment((one, i) => begins(leaves, one, i)),
    leavesAfter: leaves === undefined ? never : perSegment((one, i) => ends(leaves, one, i)),
  };
  const quiet = quietBorders(segmentsOf);
  const silent = quiet.map((next) => (next >= 0 && cues[next]!.length === 0 ? next : -1));
  const ahead = segments.map((_, i) => noticedAfter(i, silent, segments));
  const isSilent = silent.every((next) => next >= 0);
  return Object.assign(segmentsOf, { quiet, silent, ahead: asDoubles(ahead), isSilent });
}

/** How far it is from the end of a segment to the next border that somebody notices, in units. */
function noticedAfter(from: number, silent: readonly number[], segments: readonly Segment[]): number {
  let distance = 0;
  let at = from;
  for (let passed = 0; silent[at]! >= 0; passed++) {
    if (passed === segments.length) return Infinity;
    at = silent[at]!;
    distance += segments[at]!.ends - segments[at]!.begins;
  }
  return distance * Units.perMicrosecond;
}

const none: readonly number[] = [];

/** An array that the engine keeps as doubles whatever the values: arrays of several kinds in one place are slow. */
export function asDoubles(values: readonly number[]): number[] {
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

type Borders = Pick<
  Segments,
  'ends' | 'loops' | 'loopFrom' | 'armed' | 'yielding' | 'hopsAt' | 'hopsAfter' | 'leavesAt' | 'leavesAfter'
>;

function quietBorders(timeline: Borders): number[] {
  const { ends, loops, loopFrom, armed, yielding, hopsAt, hopsAfter, leavesAt, leavesAfter } = timeline;
  const isSame = (one: readonly number[], other: readonly number[]): boolean =>
    one === other || (one.length === other.length && one.every((index, i) => index === other[i]));
  return ends.map((_, i) => {
    const isLast = i === ends.length - 1;
    // At the end of a pass it is decided before the next frame; after an intro that is not where the clip begins.
    if (isLast && (!loops || loopFrom > 0)) return -1;
    const next = isLast ? loopFrom : i + 1;
    const same = isSame(armed[i]!, armed[next]!) && isSame(yielding[i]!, yielding[next]!);
    const still =
      hopsAfter[i]!.length === 0 && hopsAt[next]!.length === 0 && !leavesAfter[i] && !leavesAt[next]!;
    return same && still ? next : -1;
  });
}

/** The poses of segments, mirrored or not. It is the same list each time. */
export function posesOf(segments: Segments, mirrored: boolean, cache: PoseCache): readonly Pose[] {
  const { clip, ends, poses } = segments;
  // A segment shows the cell of the showing in which it ends.
  const make = (): Pose[] =>
    ends.map((end) => cache.pose(clip.cells[indexAt(clip.ends, end / Units.perMicrosecond - 1)]!, mirrored));
  return mirrored ? (poses.mirrored ??= make()) : (poses.drawn ??= make());
}

/**
 * The segment that a position lies in. At or past the end: the last one.
 *
 * @param at where the position is in the array of numbers
 */
export function segmentAt({ ends }: Timeline, numbers: Float64Array, at: number): number {
  const place = numbers[at]!;
  let low = 0;
  let high = ends.length - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (place < ends[middle]!) high = middle;
    else low = middle + 1;
  }
  return low;
}
