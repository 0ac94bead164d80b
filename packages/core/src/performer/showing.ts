import { inStepFrame } from '../controller/figure.js';
import { Row, Strand } from '../controller/layout.js';
import type { Names } from '../controller/names.js';
import { phaseOf, segmentNow, valueNamed } from '../engine/inspect.js';
import { Mark, catchUp, situationOf, stateOf, strandAt, timelineOf } from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';
import { leadOf } from '../engine/switch.js';
import { rememberedBy, usedBy } from './row-snapshot.js';
import { explain } from './why.js';
import type { Why } from './why.js';

// What a track shows, and why.

/** What a track shows. */
export interface Showing<N extends Names = Names> {
  /** Where another track has taken this one, the state by which it has. */
  readonly state: N['states'];
  /** The track that it is in step with; `undefined` for none. */
  readonly inStep: N['tracks'] | undefined;
  /** Whether a state of another track has taken this one. */
  readonly isTaken: boolean;
  readonly facing: N['directions'];
  readonly clip: N['clips'];
  /** From 0. */
  readonly frameIndex: number;
  /** From 0 to 1, as that of the performer. */
  readonly phase: number;
  readonly isBridging: boolean;
}

/** What a track shows. What is in step with another track, or taken by a state of it, has that one's clip, frame and phase. */
export function showingOf<N extends Names>(rows: Rows, at: number, track: number): Showing<N> {
  const { controller } = rows;
  catchUp(rows, at);
  const { name, inStep, takenBy, drawsOwn } = stateOf(rows, strandAt(rows, at, track));
  const lead = leadOf(rows, at, track);
  const strand = strandAt(rows, at, lead < 0 ? track : lead);
  const timeline = timelineOf(rows, strand);
  const shown = drawsOwn ? timelineOf(rows, strandAt(rows, at, track)).clip : timeline.clip;
  const frame = timeline.frames[segmentNow(rows, at, strand)]!;
  return {
    state: name,
    inStep: controller.tracks[inStep]?.name,
    isTaken: takenBy >= 0,
    facing: controller.compass.names[timeline.direction]!,
    clip: shown.name,
    frameIndex: shown === timeline.clip ? frame : inStepFrame(frame, timeline.clip, shown),
    phase: phaseOf(rows, at, strand),
    isBridging: timeline.bridge,
  };
}

/** Why a track shows what it shows. */
export function whyOf(rows: Rows, at: number, track: number): Why {
  const { doubles, ints, controller } = rows;
  catchUp(rows, at);
  const strand = strandAt(rows, at, track);
  const marks = ints[2 * strand + Strand.marks]!;
  const last = ints[2 * strand + Strand.last]!;
  return explain(controller, {
    situation: situationOf(rows, at),
    timeline: timelineOf(rows, strand),
    segment: segmentNow(rows, at, strand),
    ended: (marks & Mark.ended) !== 0,
    queued: (marks & Mark.queued) !== 0,
    remembered: rememberedBy(rows, strand),
    at: doubles[at + Row.now]!,
    entered: doubles[strand + Strand.entered]!,
    from: (last >> 4) - 1,
    rule: last & 15,
    used: usedBy(rows, strand),
    goal: ints[2 * strand + Strand.goal]!,
    value: (name) => valueNamed(rows, at, name),
  });
}
