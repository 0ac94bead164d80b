import type { Cell, Controller, LayerPiece } from '../index.js';
import { wardrobeOf } from '../wardrobe/of.js';
import { colourText } from '../wardrobe/palette.js';
import type { Palette } from '../wardrobe/palette.js';
import { listed, pixelsApart } from './parts.js';
import type { Drawing } from './parts.js';
import { inkOf } from './picture.js';
import type { Picture } from './picture.js';
import { coloursOf } from './recolour.js';

/** The code of a finding about the drawings of a wardrobe. */
export type WardrobeCode =
  'piece-missing' | 'piece-drift' | 'piece-parts' | 'palette-unseen' | 'colour-unnamed';

/** One finding of {@link measureWardrobe}. */
export interface WardrobeFinding {
  readonly code: WardrobeCode;
  readonly path: readonly (string | number)[];
  /** The sentence: what is wrong, the measured values and what to do. */
  readonly text: string;
}

/**
 * Measures the drawings of a wardrobe. It finds pieces without a drawing where the body has one, pivots that differ from the
 * body's, pieces whose parts do not make up the whole piece, palettes with unused colours, and colours that no palette names.
 *
 * @param pictureOf gives the pixels of an image by its file
 */
export function measureWardrobe(
  controller: Controller,
  pictureOf: (image: string) => Picture,
): WardrobeFinding[] {
  const wardrobe = wardrobeOf(controller);
  if (wardrobe === undefined) return [];
  const found: WardrobeFinding[] = [];
  const used = new Map<Palette, Set<number>>();
  const lookAt = (cells: readonly Cell[], palettes: readonly Palette[]): Set<number> => {
    const colours = new Set(cells.flatMap((cell) => [...coloursOf(pictureOf(cell.image), cell).keys()]));
    for (const palette of palettes) {
      if (!used.has(palette)) used.set(palette, new Set());
      for (const colour of colours) used.get(palette)!.add(colour);
    }
    return colours;
  };
  const body = [...controller.clips.values()].flatMap(({ frames }) => frames);
  lookAt(body, wardrobe.bodyPalettes);
  const order = wardrobe.orders.at(-1)!.names;
  const under = new Set(order.slice(0, order.indexOf('body')));
  const worn: { readonly path: readonly string[]; readonly colours: ReadonlySet<number> }[] = [];
  for (const layer of wardrobe.layers.values())
    for (const piece of layer.pieces.values()) {
      const path = ['wardrobe', 'layers', layer.name, 'pieces', piece.name];
      const colours = lookAt(cellsOf(piece), piece.palettes);
      if (piece.palettes.length > 0) worn.push({ path, colours });
      found.push(
        ...missing(controller, piece, pictureOf, path),
        ...drift(controller, piece, path),
        ...inParts(controller, piece, under.has(layer.name), pictureOf, path),
      );
    }
  const named = new Set([...wardrobe.palettes.values()].flatMap((palette) => [...drawn(palette)]));
  for (const palette of wardrobe.palettes.values()) {
    const unseen = drawn(palette).filter((colour) => used.get(palette)?.has(colour) !== true);
    if (unseen.length === 0) continue;
    const text = `no drawing that has the palette "${palette.name}" has ${listed(unseen.map(colourText), 6)}; take the colours as they are in the drawings, or name the palette where it is worn`;
    found.push({ code: 'palette-unseen', path: ['palettes', palette.name], text });
  }
  const kept = new Set((wardrobe.definition.kept ?? []).map((text) => text.toLowerCase()));
  for (const { path, colours } of worn) {
    const loose = [...colours].map((colour) => [colour, colourText(colour)] as const);
    const unnamed = loose.filter(([colour, text]) => !named.has(colour) && !kept.has(text));
    if (unnamed.length === 0) continue;
    const text = `no palette names ${listed(unnamed.map(([, one]) => one).sort(), 6)}: these stay as they are whatever it is dyed; add them to a palette, or to "kept" if they are meant to`;
    found.push({ code: 'colour-unnamed', path, text });
  }
  return found;
}

/** The cells that a piece can show. */
function cellsOf({ definition: { cell }, sheetFor }: LayerPiece): Cell[] {
  const numbers = typeof cell === 'object' ? Object.values(cell) : [cell];
  return [...new Set(sheetFor.values())].flatMap(({ cells }) =>
    cell === undefined ? cells : cells.filter(({ index }) => numbers.includes(index)),
  );
}

const drawn = (palette: Palette): readonly number[] => palette.colours.get(palette.drawn) ?? [];

/** Cells that the body shows and for which the piece, by what it says of itself, should have a drawing. */
function missing(
  { clips }: Controller,
  piece: LayerPiece,
  pictureOf: (image: string) => Picture,
  path: readonly string[],
): WardrobeFinding[] {
  const { cell, directions, otherwise } = piece.definition;
  if (cell !== undefined) return [];
  const empty: string[] = [];
  let full = 0;
  for (const clip of clips.values()) {
    if (piece.clips !== undefined && !piece.clips.has(clip)) continue;
    if (directions !== undefined && clip.direction !== undefined && !directions.includes(clip.direction))
      continue;
    const bare = clip.frames.filter((frame) => {
      const own = piece.sheetFor.get(frame.sheet)?.cells[frame.index];
      return own !== undefined && inkOf(pictureOf(own.image), own) === undefined;
    });
    if (bare.length === clip.frames.length) empty.push(clip.name);
    else full++;
  }
  if (empty.length === 0 || full === 0 || otherwise !== undefined) return [];
  const text = `there is no drawing for ${listed(empty, 6)}, although the piece says it is drawn for all; draw it, or say what it is drawn for with "clips" or "directions", and with "otherwise" what shows elsewhere`;
  return [{ code: 'piece-missing', path, text }];
}

/** A piece laid out as the body is stands on the same pivot. */
function drift({ clips }: Controller, piece: LayerPiece, path: readonly string[]): WardrobeFinding[] {
  if (piece.definition.cell !== undefined || piece.definition.at !== undefined) return [];
  const apart = new Map<string, string>();
  for (const clip of clips.values())
    for (const frame of clip.frames) {
      const own = piece.sheetFor.get(frame.sheet)?.cells[frame.index];
      if (own === undefined) continue;
      const [dx, dy] = [own.pivotX - frame.pivotX, own.pivotY - frame.pivotY];
      if (dx !== 0 || dy !== 0) apart.set(clip.name, `${dx} px across and ${dy} px down`);
    }
  const [first] = apart;
  if (first === undefined) return [];
  const text = `its pivot is ${first[1]} from the body's in ${listed([...apart.keys()], 6)}, so it is drawn beside the body; give its sheet the body's pivot`;
  return [{ code: 'piece-drift', path, text }];
}

/**
 * A piece that is cut in parts looks the same on the body whether both are drawn whole or in parts.
 *
 * @param isUnder whether it lies under the body, or under each part of it
 */
function inParts(
  { clips, sheets }: Controller,
  piece: LayerPiece,
  isUnder: boolean,
  pictureOf: (image: string) => Picture,
  path: readonly string[],
): WardrobeFinding[] {
  if (!piece.isCut) return [];
  const drawnFor = [...clips.values()].filter((clip) => piece.clips?.has(clip) !== false);
  const wrong = new Map<string, number>();
  for (const clip of drawnFor)
    for (const cell of clip.frames) {
      const body = sheets.get(cell.sheet)!;
      const own = piece.sheetFor.get(cell.sheet);
      const worn = own?.cells[cell.index];
      if (own === undefined || worn === undefined || body.parts.size === 0) continue;
      const together = (image: string, piece: string | undefined): Drawing[] => {
        const both = [{ cell, picture: pictureOf(image) }];
        if (piece !== undefined) both.unshift({ cell: worn, picture: pictureOf(piece) });
        return isUnder ? both.reverse() : both;
      };
      const front = [...body.parts.values()].reverse();
      const count = pixelsApart(
        together(cell.image, worn.image),
        front.flatMap(({ name, image }) => together(image, own.parts.get(name)?.image)),
      );
      if (count > 0) wrong.set(clip.name, Math.max(count, wrong.get(clip.name) ?? 0));
    }
  if (wrong.size === 0) return [];
  const text = `on the body drawn in parts it is not what it is on the whole body in ${listed([...wrong.keys()], 6)} (up to ${Math.max(...wrong.values())} pixels differ), so there is a flash where an act of another track begins or ends; cut its parts again, each with what is seen of it on that part`;
  return [{ code: 'piece-parts', path, text }];
}
