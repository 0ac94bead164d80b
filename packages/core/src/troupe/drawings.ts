import type { Controller } from '../controller/controller.js';
import type { Timeline } from '../controller/timeline.js';

/** Your arrays, into which a troupe writes what its members show: one place for each member. */
export interface DrawnMembers {
  /** The number of the cell on its sheet; -1 if there is no member. */
  readonly cell: Int32Array;
  /** The number of its image among {@link Drawings.images}. */
  readonly image: Uint16Array | Int32Array;
  /** 1 if it is drawn mirrored, else 0. */
  readonly mirrored: Uint8Array;
}

/** The drawings of the segments of timelines, as numbers. */
export class Drawings {
  /** The files of the images. A number of an image is an index in this list. */
  readonly images: readonly string[];
  /** For each timeline and each of its segments: the cell, the image and whether it is mirrored. Made when first asked for. */
  private readonly known: (Int32Array | undefined)[];

  constructor(controller: Controller) {
    this.images = [
      ...new Set([...controller.sheets.values()].flatMap(({ cells }) => cells.map(({ image }) => image))),
    ];
    this.known = new Array<Int32Array | undefined>(controller.timelines.length).fill(undefined);
  }

  /** Three numbers for each segment of a timeline: cell, image, mirrored. */
  of(timeline: Timeline): Int32Array {
    return (this.known[timeline.number] ??= Int32Array.from(
      timeline.poses.flatMap(({ cell, mirrored }) => [
        cell.index,
        this.images.indexOf(cell.image),
        mirrored ? 1 : 0,
      ]),
    ));
  }
}
