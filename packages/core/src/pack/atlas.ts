import { MaxRectsPacker } from 'maxrects-packer';
import type { Controller } from '../controller/controller.js';
import { inkOf } from '../pixels/picture.js';
import type { Picture } from '../pixels/picture.js';
import { stampPose } from '../pixels/stamp.js';
import type { MarksDefinition, RectangleDefinition, SheetDefinition } from '../sheet/definition.js';
import { poseOf, stampsOf } from '../sheet/pose.js';
import type { Cell, Part } from '../sheet/sheet.js';

/** Thrown when a character cannot be packed as asked. */
export class PackError extends Error {
  override readonly name = 'PackError';

  /** @param isTooLarge whether a larger image or less padding would do */
  constructor(
    message: string,
    readonly isTooLarge = false,
  ) {
    super(message);
  }
}

/** The layout of an atlas. Lengths are pixels. */
export interface PackOptions {
  /** Empty pixels between drawings and at the edge, so that a scaled drawing shows nothing of its neighbour. */
  readonly padding: number;
  /** Whether width and height are rounded up to powers of two. */
  readonly powerOfTwo: boolean;
  /** The largest width and height. */
  readonly most: number;
}

/** An image and the name of its file. */
export interface PackedImage {
  readonly file: string;
  readonly atlas: Picture;
}

/** A sheet laid out again. */
export interface PackedSheet {
  readonly definition: SheetDefinition;
  /** Its image first, then those of its parts, laid out like it. */
  readonly images: readonly PackedImage[];
  /** How many drawings its cells are, once equal ones are one. */
  readonly drawings: number;
}

/** The image of a cell that has no drawing. */
export const noDrawing = '';

/** A cell with what is drawn of it. */
interface Drawing {
  readonly cell: Cell;
  /** The whole, and after it its parts. */
  readonly images: readonly Picture[];
  /** Where its ink lies in the untrimmed frame. */
  readonly left: number;
  readonly top: number;
  /** The first cell that looks the same, by its number in the atlas. */
  readonly same: string;
}

/**
 * Lays out some cells as a sheet of its own, in their order.
 *
 * @param parts of which the cells consist, back to front
 * @param image the name of its image
 * @param partFile gives the image of a part a name
 * @throws {PackError} when the drawings do not fit into the largest image allowed, or an image is not there
 */
export function packSheet(
  cells: readonly Cell[],
  parts: readonly Part[],
  controller: Controller,
  images: ReadonlyMap<string, Picture>,
  image: string,
  partFile: (part: string) => string,
  options: PackOptions,
): PackedSheet {
  const drawings = cells.map((cell) => drawingOf(cell, controller, parts, images));
  const { atlases, places } = layOut(drawings, options);
  const [atlas] = atlases as [Picture];
  const files = parts.map(({ name }, i) => {
    const isSame = atlases[i + 1]!.pixels.every((byte, at) => byte === atlas.pixels[at]);
    return isSame ? image : partFile(name);
  });
  const rectangles = drawings.map(({ cell, images: [whole], left, top, same }): RectangleDefinition => {
    const { width, height } = whole!;
    const { x, y } = places.get(same)!;
    const rect = [x, y, width, height] as const;
    const isWhole = left === 0 && top === 0 && width === cell.frameWidth && height === cell.frameHeight;
    return isWhole ? rect : { rect, trim: [left, top, cell.frameWidth, cell.frameHeight] };
  });
  const definition: SheetDefinition = {
    image,
    size: [atlas.width, atlas.height],
    cells: rectangles,
    ...marksOf(cells),
    ...(parts.length > 0 && {
      parts: Object.fromEntries(parts.map((part, i) => [part.name, partDefinition(part, files[i]!)])),
    }),
  };
  const further = files.map((file, i) => ({ file, atlas: atlases[i + 1]! }));
  return {
    definition,
    images: [{ file: image, atlas }, ...further.filter(({ file }) => file !== image)],
    drawings: places.size,
  };
}

function partDefinition(
  { joint, boxes, points }: Part,
  image: string,
): NonNullable<SheetDefinition['parts']>[string] {
  return joint === undefined && boxes.length === 0 && points.length === 0
    ? image
    : { image, joint, boxes, points };
}

/** Pivots, boxes and points: once for all where they are the same, else for each cell that differs. */
function marksOf(cells: readonly Cell[]): MarksDefinition & Pick<SheetDefinition, 'perCell'> {
  const own = cells.map(({ pivotX, pivotY, boxes, points }) => ({
    pivot: [pivotX, pivotY] as const,
    boxes: Object.fromEntries(
      Object.entries(boxes).map(([name, { x, y, width, height }]) => [name, [x, y, width, height] as const]),
    ),
    points: Object.fromEntries(Object.entries(points).map(([name, { x, y }]) => [name, [x, y] as const])),
  }));
  const most = mostCommon(own.map(({ pivot }) => JSON.stringify(pivot)));
  const marks = own.map(({ boxes, points }) => JSON.stringify({ boxes, points }));
  const areSame = new Set(marks).size <= 1;
  const filled = ({ boxes, points }: (typeof own)[number]): MarksDefinition => ({
    ...(Object.keys(boxes).length > 0 && { boxes }),
    ...(Object.keys(points).length > 0 && { points }),
  });
  const perCell: Record<string, MarksDefinition> = {};
  own.forEach((one, i) => {
    const differs = {
      ...(JSON.stringify(one.pivot) !== most && { pivot: one.pivot }),
      ...(!areSame && filled(one)),
    };
    if (Object.keys(differs).length > 0) perCell[i] = differs;
  });
  return {
    ...(most !== undefined && { pivot: JSON.parse(most) as [number, number] }),
    ...(areSame && own.length > 0 && filled(own[0]!)),
    ...(Object.keys(perCell).length > 0 && { perCell }),
  };
}

function mostCommon(texts: readonly string[]): string | undefined {
  const counts = new Map<string, number>();
  for (const text of texts) counts.set(text, (counts.get(text) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}

/** Bytes as a text, a letter each: the same for the same bytes. */
function lettersOf(bytes: Uint8Array): string {
  let text = '';
  // So many at once are as many arguments as every engine takes.
  for (let at = 0; at < bytes.length; at += 8192)
    text += String.fromCharCode(...bytes.subarray(at, at + 8192));
  return text;
}

/** The ink of a cell, and of its parts in the same rectangle; a composed one is put together first. */
function drawingOf(
  cell: Cell,
  { sheets }: Controller,
  parts: readonly Part[],
  images: ReadonlyMap<string, Picture>,
): Drawing {
  const { frameWidth: width, frameHeight: height } = cell;
  const own = sheets.get(cell.sheet)?.parts;
  const layers = [undefined, ...parts].map((part) => {
    const frame: Picture = { width, height, pixels: new Uint8Array(width * height * 4) };
    const image = part === undefined ? cell.image : own?.get(part.name)?.image;
    if (image === undefined || image === noDrawing) return frame;
    const pose = poseOf({ ...cell, image }, false);
    const missing = stampsOf(pose).find((stamp) => !images.has(stamp.image));
    if (missing !== undefined)
      throw new PackError(`the image "${missing.image}" is not there, so it cannot be packed`);
    stampPose(frame, images, pose, cell.pivotX, cell.pivotY);
    return frame;
  });
  const inks = layers.flatMap((frame) => inkOf(frame, { x: 0, y: 0, width, height }) ?? []);
  // A cell without a drawing still shows: as one clear pixel.
  const least = (values: readonly number[]): number => (values.length === 0 ? 0 : Math.min(...values));
  const [left, top] = [least(inks.map(({ x }) => x)), least(inks.map(({ y }) => y))];
  const wide = Math.max(1, ...inks.map((ink) => ink.x + ink.width - left));
  const high = Math.max(1, ...inks.map((ink) => ink.y + ink.height - top));
  const cut = layers.map((frame): Picture => {
    const pixels = new Uint8Array(wide * high * 4);
    for (let row = 0; row < high; row++)
      pixels.set(
        frame.pixels.subarray(((top + row) * width + left) * 4, ((top + row) * width + left + wide) * 4),
        row * wide * 4,
      );
    return { width: wide, height: high, pixels };
  });
  const inked = cut.map(({ pixels }) => lettersOf(pixels)).join(' ');
  return { cell, images: cut, left, top, same: `${wide}x${high} ${inked}` };
}

function layOut(
  drawings: readonly Drawing[],
  { padding, powerOfTwo, most }: PackOptions,
): { atlases: Picture[]; places: ReadonlyMap<string, { x: number; y: number }> } {
  const packer = new MaxRectsPacker(most, most, padding, {
    smart: true,
    pot: powerOfTwo,
    square: false,
    allowRotation: false,
    border: padding,
  });
  const unique = new Map(drawings.map((one) => [one.same, one.images]));
  packer.addArray(
    [...unique].map(([same, [whole]]) => ({
      x: 0,
      y: 0,
      width: whole!.width,
      height: whole!.height,
      rot: false,
      data: same,
      oversized: false,
      allowRotation: false,
    })) as never[],
  );
  const [bin] = packer.bins;
  if (packer.bins.length > 1 || bin === undefined || bin.width > most || bin.height > most)
    throw new PackError(
      `${unique.size} drawings do not fit into an image of ${most} by ${most} pixels; allow a larger one, or less padding`,
      true,
    );
  const { width, height } = bin;
  const count = drawings[0]?.images.length ?? 1;
  const atlases = Array.from({ length: count }, (): Picture => {
    return { width, height, pixels: new Uint8Array(width * height * 4) };
  });
  const places = new Map<string, { x: number; y: number }>();
  for (const { x, y, data } of bin.rects as unknown as { x: number; y: number; data: string }[]) {
    places.set(data, { x, y });
    unique.get(data)!.forEach((image, i) => {
      for (let row = 0; row < image.height; row++)
        atlases[i]!.pixels.set(
          image.pixels.subarray(row * image.width * 4, (row + 1) * image.width * 4),
          ((y + row) * width + x) * 4,
        );
    });
  }
  return { atlases, places };
}
