import { callError } from '../problem/problem.js';

/**
 * Which way the axes of a 3D world lie. A ground vector is `[x, z]` where y is up, and `[x, y]` where z is up. The hand is
 * the one whose thumb, index and middle finger point along x, y and z.
 */
export type WorldAxes = 'y-up' | 'y-up-left-handed' | 'z-up' | 'z-up-left-handed';

/** A vector on the ground of a 3D world; see {@link WorldAxes}. */
export type GroundVector = readonly [number, number];

/** On which side of `[fy, -fx]` a viewer has the right hand who looks along `[fx, fy]`. */
const rightHands: Readonly<Record<WorldAxes, 1 | -1>> = {
  'z-up': 1,
  'y-up': -1,
  'z-up-left-handed': -1,
  'y-up-left-handed': 1,
};

/**
 * The vector that a compass reads for a drawn character in a 3D world: the velocity, or the direction in which a body faces, as
 * this viewer sees it. East is to the viewer's right. South is towards the viewer.
 *
 * Pass the camera for which the picture is drawn, also for characters that another player or the game moves. Near the edge of a
 * wide view, pass the way from the camera to the character instead of the camera's own direction. Then the side is right
 * wherever the character stands.
 *
 * With the up axis u and the viewing direction f flattened to the ground and of length 1, the right hand is f × u in a
 * right-handed world (u × f in a left-handed one), and the result is `[v · right, -(v · f)]`: the ground coordinates of the
 * view, as in the view matrix of any camera (Foley et al., "Computer Graphics: Principles and Practice", 3rd ed., 13.2).
 *
 * @param out is filled and returned; nothing is allocated
 * @param moved the velocity on the ground, in any unit; its length is kept
 * @param forward where the camera looks, on the ground, of any length. One that looks straight down has none: pass where the
 *   top of its picture points. Of length 0 the result is `[0, 0]`, so that a compass keeps its direction.
 * @param axes default `y-up`, right-handed
 * @throws {DotHopError} when a number is not finite
 */
export function seenFrom(
  out: [number, number],
  moved: GroundVector,
  forward: GroundVector,
  axes: WorldAxes = 'y-up',
): [number, number] {
  const [vx, vy] = moved;
  const [fx, fy] = unit(forward, moved);
  const hand = rightHands[axes];
  out[0] = 0 + hand * (vx * fy - vy * fx);
  out[1] = 0 - (vx * fx + vy * fy);
  return out;
}

/**
 * The angle about the up axis that turns an upright picture to the viewer.
 *
 * A picture at angle 0 is seen straight by a camera that looks along -z (y-up), +y (z-up), +z (y-up-left-handed) or +x
 * (z-up-left-handed). For y-up: a rotation by the angle a takes the picture's front, `[0, 1]` in x and z, to
 * `[sin a, cos a]`, and that is to be `-f`; likewise for the others.
 *
 * @param forward where the camera looks, on the ground, of any length: then all pictures stand parallel to the screen. Pass
 *   the way from the camera to the character for a picture that is turned to the camera's place instead.
 * @param axes default `y-up`, right-handed
 * @returns radians, over -π to π; 0 for a vector of length 0
 * @throws {DotHopError} when a number is not finite
 */
export function uprightYaw(forward: GroundVector, axes: WorldAxes = 'y-up'): number {
  const [fx, fy] = unit(forward, forward);
  if (fx === 0 && fy === 0) return 0;
  if (axes === 'y-up') return Math.atan2(-fx, -fy);
  if (axes === 'z-up') return Math.atan2(-fx, fy);
  return axes === 'z-up-left-handed' ? Math.atan2(fy, fx) : Math.atan2(fx, fy);
}

/** One scratch for all: a view is computed within one call. */
const looking: [number, number] = [0, 0];

/** A vector of length 1 along another; `[0, 0]` for none. Both vectors must be finite. */
function unit([x, y]: GroundVector, [a, b]: GroundVector): GroundVector {
  if (!(Number.isFinite(x) && Number.isFinite(y) && Number.isFinite(a) && Number.isFinite(b)))
    throw callError('view-finite', { received: [x, y, a, b].find((part) => !Number.isFinite(part)) });
  // Divided by the larger first, so that neither tiny nor huge vectors lose their length.
  const most = Math.max(Math.abs(x), Math.abs(y));
  const long = most === 0 ? 1 : Math.sqrt((x / most) ** 2 + (y / most) ** 2) * most;
  looking[0] = most === 0 ? 0 : x / long;
  looking[1] = most === 0 ? 0 : y / long;
  return looking;
}
