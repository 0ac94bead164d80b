import type { Box, Cell, Point } from './sheet.js';

/** What a performer shows. Immutable and shared: two reads of an unchanged picture give the same object. */
export interface Pose {
  readonly cell: Cell;
  /** Drawn flipped left to right about its pivot. */
  readonly mirrored: boolean;
  /** The cell's boxes in pixels from the pivot, right and down positive, mirrored as the cell is. */
  readonly boxes: Readonly<Record<string, Box>>;
  /** The cell's points in pixels from the pivot, right and down positive, mirrored if the cell is mirrored. */
  readonly points: Readonly<Record<string, Point>>;
  /** What is drawn, back to front: the body, or its parts if several tracks draw it, and the clothes. */
  readonly layers: readonly PoseLayer[];
}

/** One of the drawings that a pose is made of. */
export interface PoseLayer {
  /** `body`, a part of it, or the name of a layer of the wardrobe. */
  readonly layer: string;
  /** The piece of that layer; `undefined` for the body and its parts. */
  readonly piece: string | undefined;
  readonly cell: Cell;
  /** Where the cell's pivot stands, in pixels from the pose's pivot, right and down positive. */
  readonly x: number;
  readonly y: number;
  /** Drawn flipped left to right about its pivot. */
  readonly mirrored: boolean;
  /** What is appended to the file's name to name the recoloured image. Empty for the image as drawn. */
  readonly dye: string;
}

/** Makes each pose once. */
export class PoseCache {
  private readonly drawn = new Map<Cell, Pose>();
  private readonly flipped = new Map<Cell, Pose>();

  pose(cell: Cell, mirrored: boolean): Pose {
    const cache = mirrored ? this.flipped : this.drawn;
    let pose = cache.get(cell);
    if (pose === undefined) {
      pose = poseOf(cell, mirrored);
      cache.set(cell, pose);
    }
    return pose;
  }
}

/** A pose of one cell. */
export function poseOf(cell: Cell, mirrored: boolean): Pose {
  const boxes: Record<string, Box> = {};
  for (const [name, { x, y, width, height }] of Object.entries(cell.boxes)) {
    const left = mirrored ? cell.pivotX - x - width : x - cell.pivotX;
    boxes[name] = Object.freeze({ x: left, y: y - cell.pivotY, width, height });
  }
  const points: Record<string, Point> = {};
  for (const [name, { x, y }] of Object.entries(cell.points))
    points[name] = Object.freeze({ x: mirrored ? cell.pivotX - x : x - cell.pivotX, y: y - cell.pivotY });
  const body = Object.freeze({ layer: 'body', piece: undefined, cell, x: 0, y: 0, mirrored, dye: '' });
  const layers = Object.freeze([body]);
  return Object.freeze({
    cell,
    mirrored,
    boxes: Object.freeze(boxes),
    points: Object.freeze(points),
    layers,
  });
}

/** One rectangle of an image and where it is drawn. */
export interface Stamp {
  readonly cell: Cell;
  /** The name of the image: the cell's file, followed by its colours if it is recoloured. */
  readonly image: string;
  /** Its upper left corner, in pixels from the pivot, right and down positive. */
  readonly x: number;
  readonly y: number;
  readonly flipX: boolean;
  readonly flipY: boolean;
}

/** Poses last, and what is drawn for one is asked for at every picture. */
const stamps = new WeakMap<Pose, readonly Stamp[]>();

/** The rectangles to draw for a pose, back to front. The pivot is the origin. */
export function stampsOf(pose: Pose): readonly Stamp[] {
  let all = stamps.get(pose);
  if (all === undefined) {
    all = pose.layers.flatMap(stampsOfLayer);
    stamps.set(pose, all);
  }
  return all;
}

function stampsOfLayer({ cell, x: left, y: top, mirrored, dye }: PoseLayer): Stamp[] {
  const parts = cell.pieces ?? [{ cell, x: cell.offsetX, y: cell.offsetY, flipX: false, flipY: false }];
  return parts.map(({ cell: part, x, y, flipX, flipY }) => ({
    cell: part,
    image: part.image + dye,
    x: left + (mirrored ? cell.pivotX - x - part.width : x - cell.pivotX),
    y: top + y - cell.pivotY,
    flipX: flipX !== mirrored,
    flipY,
  }));
}
