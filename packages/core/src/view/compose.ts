import type { Controller } from '../controller/controller.js';
import type { Pose } from '../sheet/pose.js';

/**
 * The pose of several tracks together: each part of the body's sheet comes from the drawing of the track that draws it.
 *
 * @param shown what each track shows, in the order of `controller.tracks`
 */
export function composePoses(controller: Controller, shown: readonly Pose[]): Pose {
  return controller.composedPoses.pose(shown);
}
