import { poseOf, writeCells } from 'dot-hop';
import type {
  Cell,
  ClipDefinition,
  Controller,
  ControllerDefinition,
  MarksDefinition,
  Part,
  RectangleDefinition,
  SheetDefinition,
} from 'dot-hop';
import { inkOf } from 'dot-hop/pixels';
import { MaxRectsPacker } from 'maxrects-packer';
import type { Image } from './images.js';
import { Misuse } from './misuse.js';
import { Canvas } from './picture/canvas.js';

/** How an atlas is laid out. Lengths in pixels. */
export interface PackOptions {
  /** Empty pixels between drawings and at the edge, so that no neighbour bleeds in when it is drawn scaled. */
  readonly padding: number;
  /** Whether width and height become powers of two. */
  readonly powerOfTwo: boolean;
  /** The largest width and height. */
  readonly most: number;
}

/** One image and one document with only what the game needs. */
export interface Packed {
  readonly atlas: Image;
  /** The same drawings cut in parts, where tracks draw these: laid out like the atlas. */
  readonly parts: readonly { readonly file: string; readonly atlas: Image }[];
  readonly definition: ControllerDefinition;
  /** How many cells are used, of how many; and how many drawings they are, once equal ones are one. */
  readonly cells: { readonly used: number; readonly all: number; readonly drawings: number };
}

/** A used cell with what is drawn of it. */
interface Drawing {
  readonly cell: Cell;
  /** The whole, and after it its parts. */
  readonly images: readonly Image[];
  /** Where its ink lies in the untrimmed frame. */
  readonly left: number;
  readonly top: number;
  /** The first cell that looks the same, by its number in the atlas. */
  readonly same: string;
}

/**
 * Packs what a character shows into one image, trimmed, equal drawings once, and writes the document anew for it.
 *
 * @param image the name of the image in the new document
 * @throws {Misuse} when the drawings do not fit into the largest image allowed
 */
export function pack(
  controller: Controller,
  images: ReadonlyMap<string, Image>,
  image: string,
  options: PackOptions,
): Packed {
  const shown = shownNames(controller);
  const clips = clipsOf(controller, shown);
  const cells = usedCells(controller, clips);
  const parts = partsOf(controller);
  const drawings = cells.map((cell) => drawingOf(cell, controller, parts, images));
  const { atlases, places } = layOut(drawings, options);
  const [atlas] = atlases as [Image];
  const partFiles = parts.map(({ name }) => image.replace(/\.png$/, `-${name}.png`));
  const numbers = new Map(cells.map((cell, i) => [keyOf(cell), i]));
  const rectangles = drawings.map(({ cell, images: [whole], left, top, same }): RectangleDefinition => {
    const { width, height } = whole!;
    const { x, y } = places.get(same)!;
    const rect = [x, y, width, height] as const;
    const isWhole = left === 0 && top === 0 && width === cell.frameWidth && height === cell.frameHeight;
    return isWhole ? rect : { rect, trim: [left, top, cell.frameWidth, cell.frameHeight] };
  });
  const { definition } = controller;
  const sheet: SheetDefinition = {
    image,
    size: [atlas.width, atlas.height],
    cells: rectangles,
    ...marksOf(cells),
    ...(parts.length > 0 && {
      parts: Object.fromEntries(
        parts.map(({ name, joint, boxes, points }, i) => [
          name,
          { image: partFiles[i]!, joint, boxes, points },
        ]),
      ),
    }),
  };
  const all = [...controller.sheets.values()].reduce((sum, one) => sum + one.cells.length, 0);
  const flipbooks = flipbooksOf(controller, shown);
  return {
    atlas,
    parts: partFiles.map((file, i) => ({ file, atlas: atlases[i + 1]! })),
    definition: {
      ...without(definition, '$schema', 'accept'),
      sheets: { [definition.name ?? 'all']: sheet },
      clips: Object.fromEntries(clips.map((name) => [name, clipDefinition(controller, name, numbers)])),
      ...(Object.keys(flipbooks).length > 0 ? { flipbooks } : { flipbooks: undefined }),
    },
    cells: { used: cells.length, all, drawings: places.size },
  };
}

/** An object without some of its fields. */
function without<T extends object, K extends keyof T>(object: T, ...fields: readonly K[]): Omit<T, K> {
  const kept = Object.entries(object).filter(([name]) => !(fields as readonly string[]).includes(name));
  return Object.fromEntries(kept) as Omit<T, K>;
}

const keyOf = ({ sheet, index }: Cell): string => `${sheet} ${index}`;

/** The clips and flipbooks that anything shows; all of them where there are no states. */
function shownNames({ definition, states, clips, pages }: Controller): Set<string> {
  if (definition.states === undefined) return new Set([...pages.keys(), ...clips.keys()]);
  return new Set(states.flatMap(({ bookNames }) => bookNames));
}

/** The clips behind them, in the order of the document. */
function clipsOf({ clips, pages, definition }: Controller, shown: ReadonlySet<string>): string[] {
  const used = new Set([...shown].flatMap((name) => (pages.get(name) ?? []).map(({ clip }) => clip.name)));
  if (definition.states === undefined) for (const name of clips.keys()) used.add(name);
  return [...clips.keys()].filter((name) => used.has(name));
}

/** Flipbooks with the clips that are drawn for each direction; what `rows` stood for is written out. */
function flipbooksOf(
  { pages, compass, clips }: Controller,
  shown: ReadonlySet<string>,
): Record<string, Record<string, string>> {
  const found: Record<string, Record<string, string>> = {};
  for (const [name, book] of pages) {
    if (!shown.has(name) || clips.has(name)) continue;
    const drawn = book.flatMap(({ clip, mirrored, drawnFor, standsIn }, i): [string, string][] =>
      !mirrored && !standsIn && drawnFor === i ? [[compass.names[i]!, clip.name]] : [],
    );
    found[name] = Object.fromEntries(drawn);
  }
  return found;
}

/** The cells that clips show, as their sheets have them, in the order of sheets and numbers. */
function usedCells({ clips, sheets }: Controller, names: readonly string[]): Cell[] {
  const used = new Set(names.flatMap((name) => clips.get(name)!.frames.map(keyOf)));
  return [...sheets.values()].flatMap((sheet) => sheet.cells.filter((cell) => used.has(keyOf(cell))));
}

/** The clip as the document has it, with its cells by their numbers in the atlas. */
function clipDefinition(
  { definition, clips }: Controller,
  name: string,
  numbers: ReadonlyMap<string, number>,
): ClipDefinition {
  const written = Object.keys(definition.clips).find(
    (one) => definition.clips[one]!.rows !== undefined && name.startsWith(`${one}-`),
  );
  const source = definition.clips[name] ?? definition.clips[written!]!;
  return {
    cells: writeCells(clips.get(name)!.frames.map((cell) => numbers.get(keyOf(cell))!)),
    ...without(source, 'sheet', 'rows', 'every', 'cells'),
  };
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

/** The parts of all sheets that tracks draw, back to front; none where no track draws any. */
function partsOf({ sheets, isSingle }: Controller): Part[] {
  const all = new Map<string, Part>();
  for (const { parts } of sheets.values())
    for (const part of parts.values()) if (!all.has(part.name)) all.set(part.name, part);
  return isSingle ? [] : [...all.values()];
}

/** The ink of a cell, and of its parts in the same rectangle; a composed one is put together first. */
function drawingOf(
  cell: Cell,
  { sheets }: Controller,
  parts: readonly Part[],
  images: ReadonlyMap<string, Image>,
): Drawing {
  const { frameWidth: width, frameHeight: height } = cell;
  const own = sheets.get(cell.sheet)!.parts;
  const layers = [undefined, ...parts].map((part) => {
    const frame = new Canvas(width, height);
    const image = part === undefined ? cell.image : own.get(part.name)?.image;
    if (image !== undefined)
      frame.pose(images, poseOf({ ...cell, image }, false), cell.pivotX, cell.pivotY, 1);
    return frame;
  });
  const inks = layers.flatMap((frame) => inkOf(frame, { x: 0, y: 0, width, height }) ?? []);
  // A cell without a drawing still shows: as one clear pixel.
  const least = (values: readonly number[]): number => (values.length === 0 ? 0 : Math.min(...values));
  const [left, top] = [least(inks.map(({ x }) => x)), least(inks.map(({ y }) => y))];
  const wide = Math.max(1, ...inks.map((ink) => ink.x + ink.width - left));
  const high = Math.max(1, ...inks.map((ink) => ink.y + ink.height - top));
  const cut = layers.map((frame): Image => {
    const pixels = new Uint8Array(wide * high * 4);
    for (let row = 0; row < high; row++)
      pixels.set(
        frame.pixels.subarray(((top + row) * width + left) * 4, ((top + row) * width + left + wide) * 4),
        row * wide * 4,
      );
    return { width: wide, height: high, pixels };
  });
  const inked = cut.map(({ pixels }) => Buffer.from(pixels).toString('latin1')).join(' ');
  return { cell, images: cut, left, top, same: `${wide}x${high} ${inked}` };
}

function layOut(
  drawings: readonly Drawing[],
  { padding, powerOfTwo, most }: PackOptions,
): { atlases: Image[]; places: ReadonlyMap<string, { x: number; y: number }> } {
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
    throw new Misuse(
      `${unique.size} drawings do not fit into an image of ${most} by ${most} pixels; allow a larger one with --most, or less --padding`,
    );
  const { width, height } = bin;
  const count = drawings[0]?.images.length ?? 1;
  const atlases = Array.from({ length: count }, (): Image => {
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
