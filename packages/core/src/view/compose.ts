import type { Controller } from '../controller/controller.js';
import type { Pose } from '../sheet/pose.js';

/**
 * What several tracks show together: each part of the body's sheet from the drawing of the track that draws it.
 *
 * @param shown what each track shows, in the order of `controller.tracks`
 */
export function composePoses(controller: Controller, shown: readonly Pose[]): Pose {
  return controller.composedPoses.pose(shown);
}
