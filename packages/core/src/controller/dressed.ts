import type { Pose } from '../sheet/pose.js';
import type { KeptPose, Outfit } from '../wardrobe/outfit.js';
import type { Shown } from '../wardrobe/where.js';
import type { Controller } from './controller.js';
import type { Timeline } from './timeline.js';

/** The place of a pose that one more track shows. No closure: it is asked for at every picture. */
function keptAt(from: KeptPose, timeline: object, segment: number): KeptPose {
  const next = (from.next ??= new Map<object, KeptPose[]>());
  let segments = next.get(timeline);
  if (segments === undefined) next.set(timeline, (segments = []));
  return (segments[segment] ??= { pose: undefined, next: undefined });
}

/** What a segment of a timeline shows, as a wardrobe asks for it. @param states with those of further tracks */
function shownBy(
  { compass }: Controller,
  timeline: Timeline,
  segment: number,
  states: readonly string[],
): Shown {
  const { direction, poses, clip, frames } = timeline;
  const { names, mirrorOf } = compass;
  return {
    states,
    direction: names[direction]!,
    drawnFor: names[poses[segment]!.mirrored ? mirrorOf[direction]! : direction] ?? names[direction]!,
    clip,
    frame: frames[segment]!,
  };
}

/**
 * A picture of what a state shows, in an outfit, without a performer: `state.books[0][direction]` is a timeline.
 *
 * @param segment which of the timeline's poses
 */
export function dressedAt(controller: Controller, outfit: Outfit, timeline: Timeline, segment: number): Pose {
  const kept = keptAt(outfit.kept, timeline, segment);
  return (kept.pose ??= outfit.dress(
    timeline.poses[segment]!,
    shownBy(controller, timeline, segment, [timeline.of.name]),
  ));
}

/** What several tracks show at an instant: of each its timeline and a segment, of what is in step that of the one that leads. */
export interface ShownTracks {
  readonly timelines: readonly Timeline[];
  readonly segments: readonly number[];
  /** The track that leads the body. */
  readonly lead: number;
}

/** What several tracks show together, in an outfit. */
export function dressedFigure(
  controller: Controller,
  outfit: Outfit,
  figure: Pose,
  { timelines, segments, lead }: ShownTracks,
): Pose {
  let { kept } = outfit;
  for (let track = 0; track < timelines.length; track++)
    kept = keptAt(kept, timelines[track]!, segments[track]!);
  return (kept.pose ??= outfit.dress(
    figure,
    shownBy(
      controller,
      timelines[lead]!,
      segments[lead]!,
      timelines.map(({ of }) => of.name),
    ),
  ));
}
