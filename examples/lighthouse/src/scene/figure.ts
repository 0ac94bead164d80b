import type { LoadedCharacter } from '@dot-hop/browser';
import { Performer, compileController } from 'dot-hop';
import type { Pose } from 'dot-hop';
import { seenFrom, uprightYaw } from 'dot-hop/view';
import {
  CircleGeometry,
  Group,
  Mesh,
  MeshBasicMaterial,
  NearestFilter,
  PlaneGeometry,
  SRGBColorSpace,
  Texture,
} from 'three';
import type { OrbitingCamera } from './camera.js';

/** Units of the world that one pixel of a drawing takes. */
export const pixel = 0.055;

/**
 * Gives a character's compass a vector of its own: the way the body faces, as the viewer sees it. Its speed stays a signal of
 * its own, so that somebody who stands still is seen from another side when the camera goes round.
 */
export function forThreeDimensions({ controller, images }: LoadedCharacter): LoadedCharacter {
  const { definition } = controller;
  const changed = {
    ...definition,
    signals: { ...definition.signals, seen: { vector: [0, 1] as const } },
    compass: { ...definition.compass!, by: 'seen', deadZone: 0.2 },
  };
  return { controller: compileController(changed, { images }), images };
}

/** A drawn character in the world: an upright picture with its pivot on the ground, and what moves it. */
export class Figure {
  readonly performer: Performer;
  readonly group = new Group();
  /** Stands on the pivot and is turned to the camera; the picture lies in it where the pivot asks for. */
  private readonly upright = new Group();
  x = 0;
  z = 0;
  vx = 0;
  vz = 0;
  /** Where the body faces, on the ground, 1 long. */
  private faceX = 0;
  private faceZ = 1;
  private readonly seen: [number, number] = [0, 1];
  private readonly picture: Mesh<PlaneGeometry, MeshBasicMaterial>;
  private shown: Pose | undefined;

  constructor(
    readonly name: string,
    private readonly character: LoadedCharacter,
  ) {
    this.performer = new Performer(character.controller);
    const texture = new Texture(Object.values(character.images)[0] as HTMLImageElement);
    texture.magFilter = texture.minFilter = NearestFilter;
    texture.generateMipmaps = false;
    texture.colorSpace = SRGBColorSpace;
    texture.needsUpdate = true;
    this.picture = new Mesh(
      new PlaneGeometry(1, 1),
      new MeshBasicMaterial({ map: texture, alphaTest: 0.5, color: '#e6d2e2' }),
    );
    this.picture.userData.figure = this;
    const shadow = new Mesh(
      new CircleGeometry(0.36, 16),
      new MeshBasicMaterial({ color: '#140f26', transparent: true, opacity: 0.4, depthWrite: false }),
    );
    shadow.rotation.x = -Math.PI / 2;
    shadow.position.y = 0.02;
    this.upright.add(this.picture);
    this.group.add(this.upright, shadow);
  }

  /** Moves by a velocity in units a second, tells the performer, and lets its time pass. */
  step(ms: number, camera: OrbitingCamera): void {
    const seconds = ms / 1000;
    this.x += this.vx * seconds;
    this.z += this.vz * seconds;
    const speed = Math.hypot(this.vx, this.vz);
    if (speed > 0.05) {
      this.faceX = this.vx / speed;
      this.faceZ = this.vz / speed;
    }
    const { performer, seen } = this;
    // The side that this viewer sees: of where the body faces, along the way from the camera to here.
    seenFrom(seen, [this.faceX, this.faceZ], camera.forwardTo(this.x, this.z));
    performer.setVector('seen', seen[0], seen[1]);
    performer.set('vx', speed / pixel);
    performer.step(ms);
  }

  /** Places the picture, turned to the camera. */
  draw(camera: OrbitingCamera): void {
    this.group.position.set(this.x, 0, this.z);
    this.upright.rotation.y = uprightYaw(camera.forwardTo(this.x, this.z));
    const { pose } = this.performer;
    if (pose !== this.shown) this.show(pose);
  }

  /** Shows a cell of the sheet: the part of the texture, its size, and the pivot on the ground. */
  private show(pose: Pose): void {
    this.shown = pose;
    const { cell, mirrored } = pose;
    const { width, height } = this.character.images[cell.image]!;
    const map = this.picture.material.map!;
    map.repeat.set((mirrored ? -cell.width : cell.width) / width, cell.height / height);
    map.offset.set((mirrored ? cell.x + cell.width : cell.x) / width, 1 - (cell.y + cell.height) / height);
    const left = mirrored ? cell.pivotX - cell.offsetX - cell.width : cell.offsetX - cell.pivotX;
    const foot = cell.pivotY - cell.offsetY - cell.height;
    this.picture.scale.set(cell.width * pixel, cell.height * pixel, 1);
    this.picture.position.set((left + cell.width / 2) * pixel, (foot + cell.height / 2) * pixel, 0);
  }
}
