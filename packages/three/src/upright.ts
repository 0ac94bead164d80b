import { dyeImages } from '@dot-hop/browser';
import type { LoadedCharacter } from '@dot-hop/browser';
import { Performer } from 'dot-hop';
import type { Names, Outfit, Pose } from 'dot-hop';
import { seenFrom, uprightYaw } from 'dot-hop/view';
import {
  CircleGeometry,
  DoubleSide,
  Group,
  Mesh,
  MeshBasicMaterial,
  MeshDepthMaterial,
  MeshLambertMaterial,
  PlaneGeometry,
  RGBADepthPacking,
  Vector3,
} from 'three';
import type { Camera, ColorRepresentation, Material, Texture } from 'three';
import { Picture } from './picture.js';
import { seenSignal } from './seen.js';

export interface UprightOptions {
  /** How many pixels of a drawing are as long as one unit of the world. Default 16. */
  readonly pixelsPerUnit?: number;
  /** Whether the lights of the scene fall on it, so that it also throws a shadow. Default false. */
  readonly lit?: boolean;
  /** A colour by which its own colours are multiplied. Default: white, which changes nothing. */
  readonly tint?: ColorRepresentation;
  /** The radius of the dark spot below its feet, in units of the world; 0 for none. Default: 6 pixels of the drawing. */
  readonly spot?: number;
}

/** A material that shows a texture, of either kind. */
type Shows = Material & { map: Texture | null };

/**
 * A drawn character in a three.js scene, with y up: an upright picture that stands on its pivot and turns to the camera. Put its
 * `object` into the scene.
 *
 * @typeParam N the names of the character, where the plugin writes them down
 *
 * @example
 * const keeper = new Upright(seenByCamera(await openCharacter(document)));
 * scene.add(keeper.object);
 * // In each step: where it is, where it faces, what it does.
 * keeper.object.position.x += vx * seconds;
 * keeper.face(vx, vz);
 * keeper.performer.set('speed', Math.hypot(vx, vz));
 * keeper.step(ms, camera);
 * // Before each picture:
 * keeper.draw(camera);
 */
export class Upright<N extends Names = Names> {
  readonly performer: Performer<N>;
  /** Put this into the scene. Its position is where the character stands. */
  readonly object = new Group();
  private readonly turned = new Group();
  private readonly board: Mesh<PlaneGeometry, Shows>;
  private readonly spot: Mesh<CircleGeometry, MeshBasicMaterial> | undefined;
  private readonly picture: Picture;
  private readonly pixel: number;
  private readonly seen: [number, number] = [0, 1];
  private readonly facing: [number, number] = [0, 1];
  private readonly forward: [number, number] = [0, -1];
  private readonly place = new Vector3();
  private readonly eye = new Vector3();
  private shown: Pose | undefined;

  /** @param character made by {@link seenByCamera}, if it has directions; one without a compass is turned to the camera only */
  constructor(
    private readonly character: LoadedCharacter<N>,
    { pixelsPerUnit = 16, lit = false, tint = 'white', spot = 6 / pixelsPerUnit }: UprightOptions = {},
  ) {
    if (!(pixelsPerUnit > 0 && pixelsPerUnit < Infinity))
      throw new RangeError(`pixelsPerUnit is a number above 0, not ${pixelsPerUnit}`);
    this.pixel = 1 / pixelsPerUnit;
    this.performer = new Performer(character.controller);
    this.picture = new Picture(character.images);
    // A board has no thickness: without this it would throw a shadow only where the light sees its back.
    const look = { alphaTest: 0.5, color: tint, shadowSide: DoubleSide };
    this.board = new Mesh<PlaneGeometry, Shows>(
      new PlaneGeometry(1, 1),
      lit ? new MeshLambertMaterial(look) : new MeshBasicMaterial(look),
    );
    if (lit) {
      this.board.castShadow = true;
      // The shadow has the shape of the drawing, not of the board.
      this.board.customDepthMaterial = new MeshDepthMaterial({
        depthPacking: RGBADepthPacking,
        alphaTest: 0.5,
      });
    }
    this.board.userData.upright = this;
    this.turned.add(this.board);
    this.object.add(this.turned);
    if (spot > 0) {
      this.spot = spotOf(spot);
      this.object.add(this.spot);
    }
  }

  /** Tells which way the body faces on the ground, along x and z. The length does not matter; a vector of length 0 keeps the direction. */
  face(x: number, z: number): void {
    const long = Math.hypot(x, z);
    if (long === 0) return;
    this.facing[0] = x / long;
    this.facing[1] = z / long;
  }

  /** Tells the performer which side this camera sees, and lets time pass, in milliseconds. */
  step(ms: number, camera: Camera): void {
    if (this.character.controller.definition.signals?.[seenSignal] !== undefined) {
      seenFrom(this.seen, this.facing, this.wayFrom(camera));
      // A signal that was added to the document's own, and is none of its names.
      (this.performer as Performer).setVector(seenSignal, this.seen[0], this.seen[1]);
    }
    this.performer.step(ms);
  }

  /** Puts clothes on, or takes them off. */
  wear(outfit: Outfit | undefined): void {
    if (outfit !== undefined) dyeImages(this.character.images, outfit);
    this.performer.wear(outfit);
  }

  /** Turns the picture to the camera and shows the present pose. */
  draw(camera: Camera): void {
    this.turned.rotation.y = uprightYaw(this.wayFrom(camera)) - this.object.rotation.y;
    const { pose } = this.performer;
    if (pose !== this.shown) this.show(pose);
  }

  /** Frees its memory on the graphics card. Take its `object` out of the scene before. */
  dispose(): void {
    this.picture.dispose();
    const { board, spot } = this;
    for (const one of [
      board.geometry,
      board.material,
      board.customDepthMaterial,
      spot?.geometry,
      spot?.material,
    ])
      one?.dispose();
  }

  private show(pose: Pose): void {
    this.shown = pose;
    const { board, pixel } = this;
    const { texture, left, bottom, width, height } = this.picture.show(pose);
    const { material } = board;
    setMap(material, texture);
    if (board.customDepthMaterial !== undefined) setMap(board.customDepthMaterial as Shows, texture);
    board.scale.set(width * pixel, height * pixel, 1);
    board.position.set((left + width / 2) * pixel, (bottom + height / 2) * pixel, 0);
  }

  /** The way from the camera to here, on the ground: near the edges of a wide view it is another than the camera's own. */
  private wayFrom(camera: Camera): readonly [number, number] {
    camera.getWorldPosition(this.eye);
    this.object.getWorldPosition(this.place);
    this.forward[0] = this.place.x - this.eye.x;
    this.forward[1] = this.place.z - this.eye.z;
    return this.forward;
  }
}

function setMap(material: Shows, texture: Texture): void {
  // With its first texture it is another program for the card.
  if (material.map === null) material.needsUpdate = true;
  material.map = texture;
}

function spotOf(radius: number): Mesh<CircleGeometry, MeshBasicMaterial> {
  const spot = new Mesh(
    new CircleGeometry(radius, 16),
    new MeshBasicMaterial({ color: '#140f26', transparent: true, opacity: 0.4, depthWrite: false }),
  );
  spot.rotation.x = -Math.PI / 2;
  // A little above the ground, which would flicker through it.
  spot.position.y = radius / 18;
  return spot;
}
