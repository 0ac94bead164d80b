import fc from 'fast-check';
import { seenFrom, uprightYaw } from 'dot-hop/view';
import { Matrix4, PerspectiveCamera, Vector3 } from 'three';

const angle = fc.double({ min: -Math.PI, max: Math.PI, noNaN: true });
const place = fc.tuple(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 }));

/** A camera that looks at a place on the ground from some way off, turned and tilted. */
function cameraAt([x, z]: readonly [number, number], yaw: number, pitch: number): PerspectiveCamera {
  const camera = new PerspectiveCamera(50, 1.5, 0.1, 500);
  const far = 12;
  camera.position.set(
    x + Math.sin(yaw) * Math.cos(pitch) * far,
    Math.sin(pitch) * far,
    z + Math.cos(yaw) * Math.cos(pitch) * far,
  );
  camera.lookAt(x, 0, z);
  camera.updateMatrixWorld();
  return camera;
}

describe('seen by a camera', () => {
  test('right is right and nearer is south, as the matrices of a camera have it', () => {
    fc.assert(
      fc.property(
        place,
        angle,
        fc.double({ min: 0.05, max: 1.4, noNaN: true }),
        angle,
        (spot, yaw, pitch, way) => {
          const camera = cameraAt(spot, yaw, pitch);
          const moved = [Math.cos(way), Math.sin(way)] as const;
          const forward = camera.getWorldDirection(new Vector3());
          const [east, south] = seenFrom([0, 0], moved, [forward.x, forward.z]);
          // The same, brute force: a step on the ground, put through the view matrix.
          const view = new Matrix4().copy(camera.matrixWorld).invert();
          const before = new Vector3(spot[0], 0, spot[1]).applyMatrix4(view);
          const after = new Vector3(spot[0] + moved[0], 0, spot[1] + moved[1]).applyMatrix4(view);
          expect(east).toBeCloseTo(after.x - before.x, 9);
          // Towards the camera its z grows by what the tilt leaves of the step.
          expect(south * Math.cos(pitch)).toBeCloseTo(after.z - before.z, 9);
        },
      ),
    );
  });

  test('the viewer counts, not who moves: from the other side everything is turned about', () => {
    fc.assert(
      fc.property(angle, angle, (yaw, way) => {
        const moved = [Math.cos(way), Math.sin(way)] as const;
        const [x, y] = seenFrom([0, 0], moved, [Math.sin(yaw), Math.cos(yaw)]);
        const other = seenFrom([0, 0], moved, [-Math.sin(yaw), -Math.cos(yaw)]);
        expect(other[0]).toBeCloseTo(-x, 12);
        expect(other[1]).toBeCloseTo(-y, 12);
        expect(Math.hypot(x, y)).toBeCloseTo(1, 12);
      }),
    );
  });

  test.each([
    ['y-up', [0, -1], [1, 0]],
    ['y-up-left-handed', [0, 1], [1, 0]],
    ['z-up', [0, 1], [1, 0]],
    ['z-up-left-handed', [1, 0], [0, 1]],
  ] as const)('in a world %s', (axes, forward, right) => {
    expect(seenFrom([0, 0], right, forward, axes)).toEqual([1, 0]);
    expect(seenFrom([0, 0], forward, forward, axes)).toEqual([0, -1]);
    expect(uprightYaw(forward, axes) + 0).toBe(0);
  });

  test('an upright picture is turned to the camera, from wherever it looks', () => {
    fc.assert(
      fc.property(angle, fc.double({ min: 0.01, max: 1e6, noNaN: true }), (yaw, long) => {
        const forward = [Math.sin(yaw) * long, Math.cos(yaw) * long] as const;
        const front = new Vector3(0, 0, 1).applyAxisAngle(new Vector3(0, 1, 0), uprightYaw(forward));
        expect(front.x).toBeCloseTo(-Math.sin(yaw), 9);
        expect(front.z).toBeCloseTo(-Math.cos(yaw), 9);
      }),
    );
  });

  test('tiny and huge vectors are looked along like others, none at all gives none, and NaN is refused', () => {
    expect(seenFrom([0, 0], [2, 0], [0, -5e-324])).toEqual([2, 0]);
    expect(seenFrom([0, 0], [2, 0], [0, -1.7e308])).toEqual([2, 0]);
    expect(seenFrom([9, 9], [2, 1], [0, 0])).toEqual([0, 0]);
    expect(uprightYaw([0, 0])).toBe(0);
    expect(() => seenFrom([0, 0], [NaN, 0], [0, 1])).toThrow('computed from finite numbers, not NaN');
    expect(() => uprightYaw([0, Infinity])).toThrow('computed from finite numbers, not Infinity');
  });
});
