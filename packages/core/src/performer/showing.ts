import { inStepFrame } from '../controller/composed-poses.js';
import type { Names } from '../controller/names.js';
import { leadingTrackRow, phaseOf, segmentNow } from '../engine/inspect.js';
import { catchUp, stateOf, trackRowAt, timelineOf } from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';

/** What a track shows. */
export interface Showing<N extends Names = Names> {
  /** The state that shows. If another track has taken this one, it is the name of that track's state. */
  readonly state: N['states'];
  /** The track that it is in step with; `undefined` for none. */
  readonly inStep: N['tracks'] | undefined;
  /** Whether a state of another track has taken this one. */
  readonly isTaken: boolean;
  readonly facing: N['directions'];
  readonly clip: N['clips'];
  /** From 0. */
  readonly frameIndex: number;
  /** From 0 to 1, like the performer's `phase`. */
  readonly phase: number;
  readonly isBridging: boolean;
}

/** What a track shows. What is in step with another track, or taken by a state of it, has that one's clip, frame and phase. */
export function showingOf<N extends Names>(rows: Rows, at: number, track: number): Showing<N> {
  const { controller } = rows;
  catchUp(rows, at);
  const { name, inStep, takenBy, drawsOwn } = stateOf(rows, trackRowAt(rows, at, track));
  const trackRow = leadingTrackRow(rows, at, track);
  const timeline = timelineOf(rows, trackRow);
  const shown = drawsOwn ? timelineOf(rows, trackRowAt(rows, at, track)).clip : timeline.clip;
  const frame = timeline.frames[segmentNow(rows, at, trackRow)]!;
  return {
    state: name,
    inStep: controller.tracks[inStep]?.name,
    isTaken: takenBy >= 0,
    facing: controller.compass.names[timeline.direction]!,
    clip: shown.name,
    frameIndex: shown === timeline.clip ? frame : inStepFrame(frame, timeline.clip, shown),
    phase: phaseOf(rows, at, trackRow),
    isBridging: timeline.bridge,
  };
}
