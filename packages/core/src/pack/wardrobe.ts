import type { Controller } from '../controller/controller.js';
import type { ControllerDefinition } from '../controller/definition.js';
import type { LayerPieceDefinition, WardrobeDefinition } from '../controller/wardrobe-definition.js';
import type { Cell } from '../sheet/sheet.js';
import { wardrobeOf } from '../wardrobe/of.js';
import type { LayerPiece } from '../wardrobe/layer.js';
import { PackError, noDrawing } from './atlas.js';
import type { PackedSheet } from './atlas.js';

/** What a wardrobe is packed with. */
interface WardrobePacking {
  /** The cells of the packed body. */
  readonly cells: readonly Cell[];
  /** The name of its sheet. */
  readonly body: string;
  /** Whether a clip or flipbook is still there. */
  readonly shows: (name: string) => boolean;
  readonly pack: (cells: readonly Cell[], sheet: string) => PackedSheet;
}

/** The sheets of what is worn, by name, and the wardrobe for them; none of a character without. */
export interface PackedWardrobe {
  readonly sheets: readonly (readonly [string, PackedSheet])[];
  readonly wardrobe: WardrobeDefinition | undefined;
}

/** The clips whose drawings pieces show in place of others. */
export function shownInWardrobe({ wardrobe }: ControllerDefinition): string[] {
  const pieces = Object.values(wardrobe?.layers ?? {}).flatMap((layer) => Object.values(layer.pieces));
  return pieces.flatMap(({ otherwise }) => (typeof otherwise === 'object' ? [otherwise.clip] : []));
}

/**
 * Lays out what is worn as the packed body is: pieces cell for cell, single drawings with those that any piece shows.
 *
 * @throws {PackError} for a single drawing that is of one sheet or another by the sheet of the body
 */
export function packWardrobe(controller: Controller, packing: WardrobePacking): PackedWardrobe {
  const { wardrobe: definition } = controller.definition;
  const wardrobe = wardrobeOf(controller);
  if (definition === undefined || wardrobe === undefined) return { sheets: [], wardrobe: undefined };
  const sheets = new Map<string, { readonly name: string; readonly sheet: PackedSheet }>();
  const pieces = [...wardrobe.layers.values()].flatMap((layer) => [...layer.pieces.values()]);
  const singles = singleCells(pieces);
  const names = new Set([packing.body]);
  const packed = (key: string, wanted: string, cells: () => readonly Cell[]): string => {
    const known = sheets.get(key);
    if (known !== undefined) return known.name;
    let name = wanted;
    for (let i = 2; names.has(name); i++) name = `${wanted}-${i}`;
    names.add(name);
    sheets.set(key, { name, sheet: packing.pack(cells(), name) });
    return name;
  };
  const pieceOf = (piece: LayerPiece): LayerPieceDefinition => {
    const { definition: given, layer, name } = piece;
    const { sheet, cell, clips } = given;
    const kept = clips && { clips: clips.filter(packing.shows) };
    if (cell === undefined) {
      const wanted = typeof sheet === 'string' ? sheet : `${layer}-${name}`;
      const laidOut = packed(JSON.stringify(sheet), wanted, () => alike(piece, packing.cells));
      return { ...given, ...kept, sheet: laidOut };
    }
    const own = singleSheet(piece);
    const numbers = singles.get(own)!;
    const cells = (): Cell[] => numbers.map((one) => controller.sheets.get(own)!.cells[one]!);
    const renumbered =
      typeof cell === 'number'
        ? numbers.indexOf(cell)
        : Object.fromEntries(
            Object.entries(cell).map(([direction, one]) => [direction, numbers.indexOf(one)]),
          );
    return { ...given, ...kept, sheet: packed(`single ${own}`, own, cells), cell: renumbered };
  };
  const layers = Object.fromEntries(
    [...wardrobe.layers.values()].map(({ name, definition: layer, pieces: some }) => [
      name,
      {
        ...layer,
        ...(layer.hidden && { hidden: stillThere(layer.hidden, packing.shows) }),
        pieces: Object.fromEntries([...some].map(([one, piece]) => [one, pieceOf(piece)])),
      },
    ]),
  );
  const orders = definition.orders && { orders: stillThere(definition.orders, packing.shows) };
  return {
    wardrobe: { ...definition, layers, ...orders },
    sheets: [...sheets.values()].map(({ name, sheet }) => [name, sheet] as const),
  };
}

/** The cells of a piece that lie over those of the body; without a drawing where it has no sheet for it. */
function alike({ sheetFor }: LayerPiece, body: readonly Cell[]): Cell[] {
  return body.map(
    (cell) =>
      sheetFor.get(cell.sheet)?.cells[cell.index] ?? {
        ...cell,
        sheet: '',
        image: noDrawing,
        boxes: {},
        points: {},
      },
  );
}

/** The numbers of the cells that pieces show whatever the body shows, in order, by their sheets. */
function singleCells(pieces: readonly LayerPiece[]): ReadonlyMap<string, readonly number[]> {
  const used = new Map<string, number[]>();
  for (const piece of pieces) {
    const { cell } = piece.definition;
    if (cell === undefined) continue;
    const own = singleSheet(piece);
    const numbers = typeof cell === 'number' ? [cell] : Object.values(cell);
    used.set(
      own,
      [...new Set([...(used.get(own) ?? []), ...numbers])].sort((a, b) => a - b),
    );
  }
  return used;
}

function singleSheet({ sheetFor, layer, name }: LayerPiece): string {
  const [first, ...rest] = new Set([...sheetFor.values()].map((sheet) => sheet.name));
  if (rest.length > 0)
    throw new PackError(
      `wardrobe.layers.${layer}.pieces.${name}: it shows one cell, of another sheet for each of the body's, and these become one; give it one sheet`,
    );
  return first!;
}

/** Places whose clips are still there; one that nothing is left of is left out. */
function stillThere<T extends { readonly clips?: readonly string[] | undefined }>(
  places: readonly T[],
  shows: (name: string) => boolean,
): T[] {
  return places.flatMap((place) => {
    if (place.clips === undefined) return [place];
    const clips = place.clips.filter(shows);
    return clips.length === 0 ? [] : [{ ...place, clips }];
  });
}
