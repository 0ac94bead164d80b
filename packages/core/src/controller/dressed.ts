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
