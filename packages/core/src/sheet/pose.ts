import type { Box, Cell } from './sheet.js';

/** What a performer shows. Immutable and shared: two reads of an unchanged picture give the same object. */
export interface Pose {
  readonly cell: Cell;
  /** Drawn flipped left to right about its pivot. */
  readonly mirrored: boolean;
  /** The cell's boxes in pixels from the pivot, right and down positive, mirrored as the cell is. */
  readonly boxes: Readonly<Record<string, Box>>;
}

/** Makes each pose once. */
export class PoseBook {
  private readonly drawn = new Map<Cell, Pose>();
  private readonly flipped = new Map<Cell, Pose>();

  pose(cell: Cell, mirrored: boolean): Pose {
    const book = mirrored ? this.flipped : this.drawn;
    let pose = book.get(cell);
    if (pose === undefined) {
      pose = Object.freeze({ cell, mirrored, boxes: placeBoxes(cell, mirrored) });
      book.set(cell, pose);
    }
    return pose;
  }
}

function placeBoxes(cell: Cell, mirrored: boolean): Record<string, Box> {
  const placed: Record<string, Box> = {};
  for (const [name, box] of Object.entries(cell.boxes)) {
    const left = box.x - cell.pivotX;
    placed[name] = Object.freeze({
      x: mirrored ? -left - box.width : left,
      y: box.y - cell.pivotY,
      width: box.width,
      height: box.height,
    });
  }
  return Object.freeze(placed);
}
