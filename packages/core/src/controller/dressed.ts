import type { Pose } from '../sheet/pose.js';
import type { Outfit } from '../wardrobe/outfit.js';
import type { Shown } from '../wardrobe/where.js';
import type { Controller } from './controller.js';
import type { Timeline } from './timeline.js';

/** What a segment of a timeline shows, as a wardrobe asks for it. */
function shownBy({ states, compass }: Controller, timeline: Timeline, segment: number): Shown {
  const { direction, poses, clip, frames } = timeline;
  const { names, mirrorOf } = compass;
  return {
    state: states[timeline.state]!.name,
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
  const kept = outfit.keptAt(timeline, segment);
  if (kept !== undefined) return kept;
  return outfit.keep(timeline, segment, timeline.poses[segment]!, shownBy(controller, timeline, segment));
}

/**
 * What several tracks show together, in an outfit.
 *
 * @param timeline what the first of them shows, and which of its segments
 */
export function dressedFigure(
  controller: Controller,
  outfit: Outfit,
  figure: Pose,
  timeline: Timeline,
  segment: number,
): Pose {
  // Which drawings it is of does not say which state shows them: a layer may be hidden by a state.
  const key = timeline.poses[segment] === figure ? timeline : figure;
  const kept = outfit.keptAt(key, key === figure ? timeline.state : segment);
  if (kept !== undefined) return kept;
  return outfit.keep(
    key,
    key === figure ? timeline.state : segment,
    figure,
    shownBy(controller, timeline, segment),
  );
}
