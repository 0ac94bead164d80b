import type { LoadedCharacter } from '@dot-hop/browser';
import { Upright, seenByCamera } from '@dot-hop/three';
import type { Performer } from 'dot-hop';
import type { Camera } from 'three';

/** How many pixels of a drawing are as long as one unit of the world. */
const pixelsPerUnit = 18;

/** Units of the world that one pixel of a drawing takes. */
export const pixel = 1 / pixelsPerUnit;

/** Somebody on the quay: a place, a velocity, and the upright picture that shows it. */
export class Figure {
  readonly upright: Upright;
  x = 0;
  z = 0;
  vx = 0;
  vz = 0;

  constructor(
    readonly name: string,
    character: LoadedCharacter,
  ) {
    // A little of the dusk lies over everybody.
    this.upright = new Upright(seenByCamera(character), { pixelsPerUnit, tint: '#e6d2e2' });
    this.upright.object.name = name;
  }

  get performer(): Performer {
    return this.upright.performer;
  }

  /** Moves by its velocity in units a second, tells the performer, and lets its time pass. */
  step(ms: number, camera: Camera): void {
    const { upright, vx, vz } = this;
    const seconds = ms / 1000;
    this.x += vx * seconds;
    this.z += vz * seconds;
    upright.object.position.set(this.x, 0, this.z);
    const speed = Math.hypot(vx, vz);
    if (speed > 0.05) upright.face(vx, vz);
    upright.performer.set('vx', speed / pixel);
    upright.step(ms, camera);
  }

  draw(camera: Camera): void {
    this.upright.draw(camera);
  }
}
