import type { Clip } from '../clip/clip.js';
import type { ClipDefinition } from '../clip/definition.js';
import type { Controller } from '../controller/controller.js';
import type { ControllerDefinition } from '../controller/definition.js';
import { variantsShown } from '../controller/variants.js';
import { writeCells } from '../clip/cells.js';
import type { Picture } from '../pixels/picture.js';
import type { Cell, Part } from '../sheet/sheet.js';
import { packSheet } from './atlas.js';
import { FileNames } from './file-names.js';
import type { PackOptions, PackedImage } from './atlas.js';
import { packWardrobe, shownInWardrobe } from './wardrobe.js';

/** A packed character: one image for the body, one for each sheet of clothes, and a document with only what the game needs. */
export interface Packed {
  /** The body's image first. Images of parts, which tracks draw, are laid out like the sheet that they belong to. */
  readonly images: readonly PackedImage[];
  readonly definition: ControllerDefinition;
  /** The number of cells of the body that are used, the number that there are, and the number of different drawings among them. */
  readonly cells: { readonly used: number; readonly all: number; readonly drawings: number };
}

/**
 * Packs the drawings that a character shows into one image, and writes a document for it. Drawings are trimmed, and equal ones are packed
 * once.
 *
 * @param image the name of the image in the new document; the names of other images begin with it
 * @throws {PackError} when the drawings do not fit into the largest image allowed, or an image is missing
 */
export function pack(
  controller: Controller,
  images: ReadonlyMap<string, Picture>,
  image: string,
  options: PackOptions,
): Packed {
  const shown = shownNames(controller);
  const clips = clipsOf(controller, shown);
  const cells = usedCells(controller, clips);
  const files = new FileNames(image);
  const body = packSheet(
    cells,
    partsOf(controller, cells),
    controller,
    images,
    image,
    (part) => files.next(part),
    options,
  );
  const numbers = new Map(cells.map((cell, i) => [keyOf(cell), i]));
  const { definition } = controller;
  const name = definition.name ?? 'all';
  const flipbooks = flipbooksOf(controller, shown);
  const worn = packWardrobe(controller, {
    cells,
    body: name,
    shows: (one) => clips.includes(one) || Object.hasOwn(flipbooks, one),
    pack: (some, sheet) =>
      packSheet(
        some,
        partsOf(controller, some),
        controller,
        images,
        files.next(sheet),
        (part) => files.next(sheet, part),
        options,
      ),
  });
  const all = [...bodySheetsOf(controller)].reduce(
    (sum, one) => sum + controller.sheets.get(one)!.cells.length,
    0,
  );
  return {
    images: [...body.images, ...worn.sheets.flatMap(([, sheet]) => sheet.images)],
    definition: {
      ...without(definition, '$schema', 'accept'),
      sheets: {
        [name]: body.definition,
        ...Object.fromEntries(worn.sheets.map(([one, sheet]) => [one, sheet.definition])),
      },
      clips: Object.fromEntries(clips.map((one) => [one, clipDefinition(controller, one, numbers)])),
      cues: cuesPlaced(
        definition.cues,
        clips.map((one) => controller.clips.get(one)!),
      ),
      ...(definition.variants && { variants: variantsShown(controller) }),
      ...(Object.keys(flipbooks).length > 0 ? { flipbooks } : { flipbooks: undefined }),
      ...(worn.wardrobe && { wardrobe: worn.wardrobe }),
    },
    cells: { used: cells.length, all, drawings: body.drawings },
  };
}

/** The parts of a character that are not packed. */
export interface LeftOut {
  /** The clips that nothing shows. */
  readonly clips: readonly string[];
  /** The cells that no packed clip shows, by the sheets of the body. */
  readonly cells: readonly { readonly sheet: string; readonly cells: readonly number[] }[];
}

/** Lists what packing leaves out because nothing shows it. */
export function leftOut(controller: Controller): LeftOut {
  const kept = new Set(clipsOf(controller, shownNames(controller)));
  const clips = [...controller.clips.values()];
  const used = new Set(usedCells(controller, [...kept]).map(keyOf));
  return {
    clips: clips.flatMap(({ name }) => (kept.has(name) ? [] : [name])),
    cells: [...bodySheetsOf(controller)].flatMap((sheet) => {
      const gone = controller.sheets.get(sheet)!.cells.filter((cell) => !used.has(keyOf(cell)));
      return gone.length === 0 ? [] : [{ sheet, cells: gone.map(({ index }) => index) }];
    }),
  };
}

/** The sheets that the body's own clips show. */
const bodySheetsOf = ({ clips }: Controller): Set<string> =>
  new Set([...clips.values()].flatMap((clip) => clip.cells.map(({ sheet }) => sheet)));

/** How the cues are told that still stand on a frame; `undefined` where there is none. */
function cuesPlaced(
  cues: ControllerDefinition['cues'],
  clips: readonly Clip[],
): ControllerDefinition['cues'] {
  const placed = Object.entries(cues ?? {}).filter(([cue]) =>
    clips.some((clip) => clip.cues.flat().includes(cue)),
  );
  return placed.length === 0 ? undefined : Object.fromEntries(placed);
}

/** An object without some of its fields. */
export function without<T extends object, K extends keyof T>(object: T, ...fields: readonly K[]): Omit<T, K> {
  const kept = Object.entries(object).filter(([name]) => !(fields as readonly string[]).includes(name));
  return Object.fromEntries(kept) as Omit<T, K>;
}

const keyOf = ({ sheet, index }: Cell): string => `${sheet} ${index}`;

/** The clips and flipbooks that anything shows; all of them where there are no states. */
function shownNames({ definition, states, clips, flipbooks }: Controller): Set<string> {
  if (definition.states === undefined) return new Set([...flipbooks.keys(), ...clips.keys()]);
  return new Set([...states.flatMap(({ flipbookNames }) => flipbookNames), ...shownInWardrobe(definition)]);
}

/** The clips behind them, in the order of the document. */
function clipsOf({ clips, flipbooks, definition }: Controller, shown: ReadonlySet<string>): string[] {
  const used = new Set(
    [...shown].flatMap((name) => flipbooks.get(name)?.map(({ clip }) => clip.name) ?? [name]),
  );
  if (definition.states === undefined) for (const name of clips.keys()) used.add(name);
  return [...clips.keys()].filter((name) => used.has(name));
}

/** Flipbooks with the clips that are drawn for each direction; what `rows` stood for is written out. */
function flipbooksOf(
  { flipbooks, compass, clips }: Controller,
  shown: ReadonlySet<string>,
): Record<string, Record<string, string>> {
  const found: Record<string, Record<string, string>> = {};
  for (const [name, drawings] of flipbooks) {
    if (!shown.has(name) || clips.has(name)) continue;
    const drawn = drawings.flatMap(({ clip, mirrored, drawnFor, standsIn }, i): [string, string][] =>
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
  const clip = clips.get(name)!;
  return {
    cells: writeCells(clip.frames.map((cell) => numbers.get(keyOf(cell))!)),
    ...without(definition.clips[clip.of]!, 'sheet', 'rows', 'every', 'cells'),
  };
}

/** The parts that tracks draw of the sheets of some cells, back to front; none where no track draws any. */
function partsOf({ sheets, tracks }: Controller, cells: readonly Cell[]): Part[] {
  const all = new Map<string, Part>();
  for (const name of new Set(cells.map(({ sheet }) => sheet)))
    for (const part of sheets.get(name)?.parts.values() ?? [])
      if (!all.has(part.name)) all.set(part.name, part);
  return tracks.length === 1 ? [] : [...all.values()];
}
