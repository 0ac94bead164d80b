import type { State } from '../controller/controller.js';
import type { CarryRule } from '../controller/definition.js';
import { Row, Strand } from '../controller/layout.js';
import { Units, segmentAt } from '../controller/timeline.js';
import type { Timeline } from '../controller/timeline.js';
import { isOn } from '../signal/condition.js';
import { programValue } from '../signal/program.js';
import { evaluate } from './read.js';
import { Mark, reportCues, timelineOf } from './rows.js';
import type { Rows } from './rows.js';

// Where a strand is in its clip, and how it gets on. All instants are whole microseconds and places in a clip are whole units, so
// they are exact at any rate. A border of segments that nobody notices is no event: it is passed when somebody looks.

/** Whether a strand runs by itself, so that its clip has borders. */
export const runs = ({ ints }: Rows, strand: number): boolean =>
  ints[2 * strand + Strand.rate]! !== 0 && (ints[2 * strand + Strand.marks]! & Mark.ended) === 0;

/** Whether a route leads a strand somewhere: it is decided at every border then. */
const isRouted = ({ ints }: Rows, strand: number): boolean => ints[2 * strand + Strand.goal]! >= 0;

/** Brings the place of a strand up to the present instant, over borders that nobody notices. @param timeline what it shows */
export function advance(rows: Rows, at: number, strand: number, timeline = timelineOf(rows, strand)): void {
  const { doubles, ints } = rows;
  const now = doubles[at + Row.now]!;
  const marked = doubles[strand + Strand.marked]!;
  if (marked === now) return;
  doubles[strand + Strand.marked] = now;
  if (!runs(rows, strand)) return;
  const { ends, silent, length, loopStart } = timeline;
  const place = 2 * strand + Strand.segment;
  let position = doubles[strand + Strand.position]! + (now - marked) * ints[2 * strand + Strand.rate]!;
  let segment = ints[place]!;
  // On a route it is decided at every border.
  const isWatched = isRouted(rows, strand);
  if (timeline.isSilent && position >= length && !isWatched) {
    // Whole loops at once. A silent clip loops, since its end would be noticed.
    const loop = length - loopStart;
    position -= Math.floor((position - loopStart) / loop) * loop;
    doubles[strand + Strand.position] = position;
    ints[place] = segmentAt(timeline, doubles, strand + Strand.position);
    return;
  }
  while (position >= ends[segment]!) {
    const next = isWatched ? -1 : silent[segment]!;
    if (next < 0) break;
    if (next <= segment) position -= length - loopStart;
    segment = next;
  }
  doubles[strand + Strand.position] = position;
  ints[place] = segment;
}

/** Whether a number says which frame a strand shows. */
export function followsNumber(rows: Rows, strand: number): boolean {
  const { of, bridge } = timelineOf(rows, strand);
  return of.scrub !== undefined && !bridge;
}

/** Shows the frame that the number says. @returns whether it is another than before */
export function scrub(rows: Rows, at: number, strand: number): boolean {
  const { ints } = rows;
  const before = ints[2 * strand + Strand.segment]!;
  placeByNumber(rows, at, strand);
  if (before === ints[2 * strand + Strand.segment]!) return false;
  reportCues(rows, at, strand);
  return true;
}

/** Takes the place in the clip that the number says. */
export function placeByNumber(rows: Rows, at: number, strand: number): void {
  const { doubles, ints } = rows;
  const timeline = timelineOf(rows, strand);
  const { program, from, to } = timeline.of.scrub!;
  evaluate(rows, at, program);
  const part = (programValue[0]! - from) / (to - from);
  const place = Math.floor(Math.max(0, Math.min(1, part)) * timeline.length);
  doubles[strand + Strand.position] = Math.min(place, timeline.length - 1);
  ints[2 * strand + Strand.segment] = segmentAt(timeline, doubles, strand + Strand.position);
}

/** Finds the rate of the state that shows, for the signals as they are. The place must be up to date. */
export function readRate(rows: Rows, at: number, strand: number): void {
  const { ints } = rows;
  const timeline = timelineOf(rows, strand);
  const { rate, inStep, scrub: frames } = timeline.of;
  const place = 2 * strand + Strand.rate;
  if (inStep >= 0 || (frames !== undefined && !timeline.bridge)) ints[place] = 0;
  else if (rate === undefined) ints[place] = Units.perMicrosecond;
  else {
    const { length, clip } = timeline;
    evaluate(rows, at, rate.program);
    let value = programValue[0]!;
    // One pass covers the stride: rate = speed * duration of a pass / stride.
    const seconds = length / Units.perMicrosecond / 1e6;
    if (rate.travels) value = clip.stride === undefined ? 1 : (Math.abs(value) * seconds) / clip.stride;
    ints[place] = Math.round(Math.max(rate.least, Math.min(rate.most, value)) * Units.perMicrosecond);
  }
}

/** The book of the gait that shows for the signals as they are. */
export function gaitOf(rows: Rows, at: number, { gaits }: State): number {
  if (gaits.length === 0) return 0;
  const { ints, words } = rows;
  let count = 0;
  while (count < gaits.length && isOn(gaits[count]!, ints, 2 * at + words)) count++;
  return count;
}

/** Shows the same state in another direction or gait: the phase is kept. */
export function changeTimeline(rows: Rows, at: number, strand: number, after: Timeline): void {
  const before = timelineOf(rows, strand);
  if (before.clip === after.clip) {
    rows.ints[2 * strand + Strand.timeline] = after.number;
    return;
  }
  advance(rows, at, strand);
  rows.ints[2 * strand + Strand.timeline] = after.number;
  keepPhase(rows, strand, before, after);
  // What has ended in a clip that is played once goes on in one that loops.
  if (after.loops) rows.ints[2 * strand + Strand.marks]! &= ~Mark.ended;
  readRate(rows, at, strand);
}

/**
 * Keeps the phase from one timeline to another. A place at a border stays at a border, to the unit: else a cue there
 * would be reported twice or not at all.
 */
function keepPhase({ doubles, ints }: Rows, strand: number, before: Timeline, after: Timeline): void {
  const position = strand + Strand.position;
  const at = 2 * strand + Strand.segment;
  const place = doubles[position]!;
  const segment = ints[at]!;
  if (place >= before.length) {
    doubles[position] = after.length;
    ints[at] = after.ends.length - 1;
    return;
  }
  const ending = place >= before.ends[segment]!;
  const begins = segment === 0 ? 0 : before.ends[segment - 1]!;
  const scaled = Math.min(Math.floor(place * (after.length / before.length)), after.length - 1);
  if (ending || place - begins < Units.perMicrosecond) {
    doubles[position] = Math.min(scaled + Units.perMicrosecond, after.length - 1);
    const found = segmentAt(after, doubles, position);
    const start = found === 0 ? 0 : after.ends[found - 1]!;
    if (Math.abs(start - scaled) <= Units.perMicrosecond) {
      doubles[position] = start;
      ints[at] = ending && found > 0 ? found - 1 : found;
      return;
    }
  }
  doubles[position] = scaled;
  ints[at] = segmentAt(after, doubles, position);
}

/**
 * Takes its place in the clip of a state that is entered.
 *
 * @param before what was left, whose place may be kept
 * @returns whether a segment begins, so that what is bound to its beginning happens
 */
export function takePlace(
  rows: Rows,
  at: number,
  strand: number,
  before: Timeline,
  carry: CarryRule,
): boolean {
  const { doubles, ints } = rows;
  const timeline = timelineOf(rows, strand);
  const position = strand + Strand.position;
  const place = 2 * strand + Strand.segment;
  if (carry === 'none') {
    ints[place] = 0;
    doubles[position] = 0;
    readRate(rows, at, strand);
    if (!followsNumber(rows, strand)) {
      reportCues(rows, at, strand);
      return true;
    }
  }
  // At its end a clip is at no phase, or again at its first: what follows begins at its beginning.
  const over = doubles[position]! >= before.length;
  const kept = over || before.bridge || timeline.bridge ? 'none' : carry;
  if (kept === 'phase') keepPhase(rows, strand, before, timeline);
  else {
    const frame =
      kept === 'none' ? 0 : Math.min(before.frames[ints[place]!]!, timeline.clip.frames.length - 1);
    ints[place] = kept === 'none' ? 0 : timeline.frames.indexOf(frame);
    doubles[position] = ints[place] === 0 ? 0 : timeline.ends[ints[place] - 1]!;
  }
  // A border that was about to be crossed is crossed by entering.
  if (doubles[position]! >= timeline.ends[ints[place]!]!) ints[place]!++;
  readRate(rows, at, strand);
  if (followsNumber(rows, strand)) placeByNumber(rows, at, strand);
  const begins = ints[place] === 0 ? 0 : timeline.ends[ints[place]! - 1]!;
  if (doubles[position]! - begins >= Units.perMicrosecond) return false;
  reportCues(rows, at, strand);
  return true;
}
