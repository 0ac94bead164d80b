import type { Box, Cell, Point } from './sheet.js';

/** What a performer shows. Immutable and shared: two reads of an unchanged picture give the same object. */
export interface Pose {
  readonly cell: Cell;
  /** Drawn flipped left to right about its pivot. */
  readonly mirrored: boolean;
  /** The cell's boxes in pixels from the pivot, right and down positive, mirrored as the cell is. */
  readonly boxes: Readonly<Record<string, Box>>;
  /** The cell's points, likewise. */
  readonly points: Readonly<Record<string, Point>>;
}

/** Makes each pose once. */
export class PoseBook {
  private readonly drawn = new Map<Cell, Pose>();
  private readonly flipped = new Map<Cell, Pose>();

  pose(cell: Cell, mirrored: boolean): Pose {
    const book = mirrored ? this.flipped : this.drawn;
    let pose = book.get(cell);
    if (pose === undefined) {
      pose = poseOf(cell, mirrored);
      book.set(cell, pose);
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
  return Object.freeze({ cell, mirrored, boxes: Object.freeze(boxes), points: Object.freeze(points) });
}

/** One rectangle of an image and where it is drawn. */
export interface Stamp {
  readonly cell: Cell;
  /** Its upper left corner, in pixels from the pivot, right and down positive. */
  readonly x: number;
  readonly y: number;
  readonly flipX: boolean;
  readonly flipY: boolean;
}

/** What is to be drawn for a pose, back to front: its rectangle, or each of its pieces. The pivot is the origin. */
export function stampsOf({ cell, mirrored }: Pose): Stamp[] {
  const parts = cell.pieces ?? [{ cell, x: cell.offsetX, y: cell.offsetY, flipX: false, flipY: false }];
  return parts.map(({ cell: part, x, y, flipX, flipY }) => ({
    cell: part,
    x: mirrored ? cell.pivotX - x - part.width : x - cell.pivotX,
    y: y - cell.pivotY,
    flipX: flipX !== mirrored,
    flipY,
  }));
}
