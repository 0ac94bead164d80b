import { inStepFrame } from '../controller/composed-poses.js';
import type { State } from '../controller/state.js';
import { Row, TrackRow } from '../controller/layout.js';
import type { Timeline } from '../controller/timeline.js';
import type { Pose } from '../sheet/pose.js';
import { holds } from '../signal/condition.js';
import type { Signal, SignalValue } from '../signal/definition.js';
import { placeOf, valueOf } from '../signal/program.js';
import { slotNamed } from '../signal/signal-named.js';
import { callError } from '../problem/error.js';
import { advance } from './play.js';
import { StateBit, stateOf, trackRowAt, timelineOf } from './rows.js';
import type { Rows } from './rows.js';
import { leadOf } from './switch.js';

// What shows, and what is true: all that reads a row without changing what it does. A track row is brought up to the present instant
// when it is looked at, because nobody notices most borders of frames.

/** The segment that a track row shows now. */
export function segmentNow(rows: Rows, at: number, trackRow: number): number {
  advance(rows, at, trackRow);
  return rows.ints[2 * trackRow + TrackRow.segment]!;
}

/**
 * How far a track row is through its clip's pass, from 0 to under 1; 1 at the end of a clip that does not loop. If the clip plays
 * backwards, it falls from 1 to 0.
 */
export function phaseOf(rows: Rows, at: number, trackRow: number): number {
  advance(rows, at, trackRow);
  const { length, isBackwards } = timelineOf(rows, trackRow);
  const ended = (rows.ints[2 * trackRow + TrackRow.stateBits]! & StateBit.ended) !== 0;
  const passed = ended ? 1 : Math.min(rows.doubles[trackRow + TrackRow.position]!, length) / length;
  return isBackwards ? 1 - passed : passed;
}

/** The track row whose clip and frame a track shows: its own, or that of the track with which it is in step. */
export function leadingTrackRow(rows: Rows, at: number, track: number): number {
  const lead = leadOf(rows, at, track);
  return trackRowAt(rows, at, lead < 0 ? track : lead);
}

/** What a track shows by itself: its own frame, or that of the track it is in step with. */
function drawingOf(rows: Rows, at: number, track: number): Pose {
  const own = timelineOf(rows, trackRowAt(rows, at, track));
  const { inStep, drawsOwn, flipbooks } = own.state;
  const lead = inStep < 0 ? track : Math.max(0, leadOf(rows, at, track));
  const trackRow = trackRowAt(rows, at, lead);
  const leading = timelineOf(rows, trackRow);
  const segment = segmentNow(rows, at, trackRow);
  if (lead === track || !drawsOwn) return leading.poses[segment]!;
  const shown = flipbooks[own.flipbook]![leading.direction]!;
  const frame = inStepFrame(leading.frames[segment]!, leading.clip, shown.clip);
  return shown.poses[shown.frames.indexOf(frame)]!;
}

/** What each track shows of a character whose picture is put together. */
const drawings: Pose[] = [];

/** What all tracks show together, without clothes. */
export function poseOf(rows: Rows, at: number): Pose {
  const { tracks, composedPoses } = rows.controller;
  const first = at + Row.trackRows;
  if (tracks.length === 1) return timelineOf(rows, first).poses[segmentNow(rows, at, first)]!;
  drawings.length = tracks.length;
  for (let track = 0; track < tracks.length; track++) drawings[track] = drawingOf(rows, at, track);
  return composedPoses.pose(drawings);
}

/** What tracks show, for what is worn. */
const shown = { timelines: [] as Timeline[], segments: [] as number[], lead: 0 };

/** For each track its timeline and segment. For a track in step, those of the track that leads it. The list is reused. */
export function shownBy(rows: Rows, at: number): typeof shown {
  const { length } = rows.controller.tracks;
  shown.timelines.length = shown.segments.length = length;
  for (let track = 0; track < length; track++) {
    const lead = Math.max(0, leadOf(rows, at, track));
    shown.timelines[track] = timelineOf(rows, trackRowAt(rows, at, track));
    shown.segments[track] = segmentNow(rows, at, trackRowAt(rows, at, lead));
  }
  shown.lead = Math.max(0, leadOf(rows, at, 0));
  return shown;
}

/** The value of a signal as it was set. */
export function signalValue({ doubles, ints }: Rows, at: number, signal: Signal): SignalValue {
  const { kind, place, bit, options } = signal;
  if (kind === 'number') return doubles[at + place]!;
  if (kind === 'choice') return options[doubles[at + place]!]!;
  if (kind === 'vector') return [doubles[at + place]!, doubles[at + place + placeOf(1)]!];
  return (ints[2 * at + place]! & bit) !== 0;
}

/**
 * The value of a name: a signal as it was set, a derived signal as of the last decision, whether a state with a tag shows, or the state
 * that a track shows.
 *
 * @throws {DotHopError} for an unknown name
 */
export function valueNamed(rows: Rows, at: number, name: string): SignalValue {
  const { doubles, ints, controller } = rows;
  const { tables, layout, tracks, states } = controller;
  const { signals, derived } = tables;
  const signal = signals.get(name);
  if (signal !== undefined) return signalValue(rows, at, signal);
  const values = at + layout.values;
  const slot = slotNamed(signals, name);
  if (slot !== undefined) return doubles[values + placeOf(slot)]!;
  const rule = derived.get(name);
  const words = 2 * at + layout.words;
  if (rule !== undefined)
    return 'code' in rule ? valueOf(rule, doubles, values, ints, words) : holds(rule, ints, words);
  if (states.some(({ tags }) => tags.includes(name)))
    return tracks.some(({ index }) => stateOf(rows, trackRowAt(rows, at, index)).tags.includes(name));
  const [first, ...rest] = name.split('.');
  const track = tracks.find((one) => one.name === first);
  if (track !== undefined) {
    const shows = stateOf(rows, trackRowAt(rows, at, track.index));
    if (rest.length === 0) return shows.name;
    const asked = rest.join('.');
    const isOf = ({ name: own, groups }: State): boolean =>
      [own, ...groups.map((group) => group.name)].includes(asked);
    if (track.order.some((index) => isOf(states[index]!))) return isOf(shows);
  }
  const tags = states.flatMap((state) => state.tags);
  throw callError('set-unknown', {
    name,
    known: [...new Set([...signals.keys(), ...derived.keys(), ...tags])],
  });
}
