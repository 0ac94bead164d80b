import { dyeImages } from '@dot-hop/browser';
import { stampsOf } from 'dot-hop';
import type { Outfit, Pose } from 'dot-hop';
import { randomCrowd, wardrobeOf } from 'dot-hop/wardrobe';

import type { Folk } from './folk.js';

/** The room of one drawing, and where the feet stand in it. */
export const tile = { width: 40, height: 48, x: 20, y: 42 };

/** How wide and high the image of all drawings is: what every graphics card takes. */
export const sheetSize = 4096;
const across = Math.floor(sheetSize / tile.width);

/** How long it draws at a time, in milliseconds. */
const longestTask = 40;

/** How many different people there are; who has the same look as another is far away, mostly. */
const lookCount = 64;

/**
 * All that anybody shows in any clothes, drawn once on one image: then each person is one rectangle of it, found by the numbers that a
 * troupe gives.
 */
export class Looks {
  /** The first free line below the drawings. */
  readonly bottom: number;
  /** For each cell, drawn (even places) and mirrored (odd ones), which drawing it is; -1 for none. */
  private readonly places: Int16Array;
  private readonly poses: readonly { pose: Pose; dressed: (look: number) => Pose }[];
  /** Where the hand with the lantern is, from the feet: x and y for each drawing. */
  private readonly hands: Float32Array;
  private readonly outfits;
  readonly count = lookCount;

  constructor(private readonly folk: Folk) {
    const { controller } = folk;
    const wardrobe = wardrobeOf(controller)!;
    const wear = { pieces: { held: 'lantern' } };
    this.outfits = randomCrowd(wardrobe, 'lanterns', lookCount, { differ: 3, wear }).map((one) =>
      wardrobe.outfit(one),
    );
    const found = new Map<number, { pose: Pose; dressed: (look: number) => Pose }>();
    for (const { flipbooks: books } of controller.states)
      for (const timeline of books.flat())
        timeline.poses.forEach((pose, segment) => {
          const key = 2 * pose.cell.index + (pose.mirrored ? 1 : 0);
          const dressed = (look: number): Pose => this.outfits[look]!.poseAt(controller, timeline, segment);
          if (!found.has(key)) found.set(key, { pose, dressed });
        });
    this.places = new Int16Array(2 + Math.max(...found.keys())).fill(-1);
    [...found.keys()].forEach((key, i) => (this.places[key] = i));
    this.poses = [...found.values()];
    this.hands = Float32Array.from(
      this.poses.flatMap(({ pose }) => [pose.points.hand!.x, pose.points.hand!.y]),
    );
    this.bottom = Math.ceil((this.poses.length * lookCount) / across) * tile.height;
  }

  /** Draws them, some at a time, so that the page stays alive. */
  async draw(
    context: CanvasRenderingContext2D,
    progress: (done: number, all: number) => void,
  ): Promise<void> {
    const images = { ...this.folk.images };
    let begun = performance.now();
    for (let look = 0; look < lookCount; look++) {
      dyeImages(images, this.outfits[look]!);
      this.poses.forEach(({ dressed }, i) =>
        this.drawOne(context, images, dressed(look), this.tileOf(look, i)),
      );
      if (performance.now() - begun < longestTask) continue;
      progress(look + 1, lookCount);
      await new Promise((done) => setTimeout(done));
      begun = performance.now();
    }
  }

  /** The clothes of a look. */
  outfitOf(look: number): Outfit {
    return this.outfits[look]!;
  }

  /** Which drawing somebody shows. */
  placeOf(cell: number, mirrored: number): number {
    return this.places[2 * cell + mirrored]!;
  }

  /** Where a drawing lies on the image. */
  left(look: number, place: number): number {
    return (this.tileOf(look, place) % across) * tile.width;
  }

  top(look: number, place: number): number {
    return Math.floor(this.tileOf(look, place) / across) * tile.height;
  }

  handX(place: number): number {
    return this.hands[2 * place]!;
  }

  handY(place: number): number {
    return this.hands[2 * place + 1]!;
  }

  private tileOf(look: number, place: number): number {
    return look * this.poses.length + place;
  }

  private drawOne(context: CanvasRenderingContext2D, images: Folk['images'], pose: Pose, at: number): void {
    const [x, y] = [(at % across) * tile.width + tile.x, Math.floor(at / across) * tile.height + tile.y];
    for (const { cell, image, x: left, y: top, flipX } of stampsOf(pose)) {
      const { width, height } = cell;
      context.save();
      context.translate(Math.round(x + left) + (flipX ? width : 0), Math.round(y + top));
      if (flipX) context.scale(-1, 1);
      context.drawImage(images[image]!, cell.x, cell.y, width, height, 0, 0, width, height);
      context.restore();
    }
  }
}
