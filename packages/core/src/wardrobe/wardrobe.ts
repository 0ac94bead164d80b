import type { Controller } from '../controller/controller.js';
import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { Cell, Sheet } from '../sheet/sheet.js';
import type { LayerPieceDefinition, WardrobeDefinition } from '../controller/wardrobe-definition.js';
import { dyesOf } from './dyes.js';
import { MadeOutfit } from './outfit.js';
import type { Palette } from './palette.js';
import { compileWhere } from './where.js';
import type { PlaceNames } from './where.js';
import type { LayerPiece, Layer, LayerOrder, Wardrobe } from './layer.js';

/** What a wardrobe is compiled from, besides its definition. */
export interface WardrobeInput {
  readonly definition: WardrobeDefinition;
  readonly palettes: ReadonlyMap<string, Palette>;
  readonly sheets: ReadonlyMap<string, Sheet | undefined>;
  /** The sheets that the body's clips show. */
  readonly bodySheets: ReadonlySet<string>;
  readonly places: PlaceNames;
  /** The cell of a clip's or flipbook's first frame in a direction. */
  readonly firstCell: (shows: string, direction: string) => Cell | undefined;
  /** Finds the wardrobe of another controller. */
  readonly of: (controller: Controller) => Wardrobe | undefined;
  readonly problems: ProblemList;
}

/** Compiles a wardrobe. Problems are added to the list. */
export function compileWardrobe(input: WardrobeInput): Wardrobe {
  const { definition, problems, places, palettes } = input;
  const layers = new Map<string, Layer>();
  for (const [name, layer] of Object.entries(definition.layers)) {
    const path = ['wardrobe', 'layers', name];
    if (name === 'body') problems.add('layer-body', path);
    const pieces = new Map<string, LayerPiece>();
    for (const [piece, one] of Object.entries(layer.pieces))
      pieces.set(piece, compilePiece(input, palettes, name, piece, one));
    if (layer.pieces.none !== undefined) problems.add('piece-none', [...path, 'pieces', 'none']);
    if (layer.none !== undefined && !(layer.none >= 0))
      problems.add('weight-range', [...path, 'none'], { received: layer.none });
    const hidden = (layer.hidden ?? []).map((where, i) =>
      compileWhere(where, places, [...path, 'hidden', i], problems),
    );
    layers.set(name, { name, definition: layer, pieces, hidden });
  }
  const looked = new Set<Sheet>();
  for (const { sheetFor } of [...layers.values()].flatMap((layer) => [...layer.pieces.values()]))
    for (const [body, sheet] of sheetFor) {
      if (!looked.has(sheet)) checkParts(sheet, input.sheets.get(body), problems);
      looked.add(sheet);
    }
  const names = ['body', ...layers.keys()];
  const orderOf = (order: readonly string[], path: DocumentPath): readonly string[] => {
    const isWhole = order.length === names.length && names.every((name) => order.includes(name));
    if (!isWhole) problems.add('layer-order', path, { received: order, names });
    return order;
  };
  const orders = (definition.orders ?? []).map(({ order, ...where }, i): LayerOrder => {
    const path = ['wardrobe', 'orders', i];
    return { where: compileWhere(where, places, path, problems), names: orderOf(order, [...path, 'order']) };
  });
  const main = definition.order === undefined ? names : orderOf(definition.order, ['wardrobe', 'order']);
  orders.push({ where: () => true, names: main });
  for (const { name, shared } of palettes.values())
    if (shared && layers.has(name)) problems.add('palette-layer', ['palettes', name], { name });
  const path = ['wardrobe', 'palettes'];
  const bodyPalettes = palettesNamed(definition.palettes ?? [], palettes, path, problems);
  const wardrobe: Wardrobe = {
    definition,
    layers,
    palettes,
    bodyPalettes,
    bodyImages: [...input.bodySheets].flatMap((name) => input.sheets.get(name)?.images ?? []),
    orders,
    firstCell: input.firstCell,
    of: input.of,
    outfit: (one) => new MadeOutfit(wardrobe, one),
    fitting: ({ pieces = {}, colours = {} }) => {
      const dyes = dyesOf(wardrobe);
      const there = (list: Readonly<Record<string, string>>, has: (name: string, one: string) => boolean) =>
        Object.fromEntries(Object.entries(list).filter(([name, one]) => has(name, one)));
      return {
        pieces: there(pieces, (name, one) => layers.get(name)?.pieces.has(one) === true),
        colours: there(colours, (name, one) => dyes.get(name)?.colours.has(one) === true),
      };
    },
  };
  checkNames(wardrobe, problems);
  return wardrobe;
}

function palettesNamed(
  names: readonly string[],
  palettes: ReadonlyMap<string, Palette>,
  path: DocumentPath,
  problems: ProblemList,
): Palette[] {
  return names.flatMap((name, i) => {
    const palette = palettes.get(name);
    if (palette === undefined)
      problems.add('palette-unknown', [...path, i], { name, known: [...palettes.keys()] });
    return palette ?? [];
  });
}

function compilePiece(
  input: WardrobeInput,
  palettes: ReadonlyMap<string, Palette>,
  layer: string,
  name: string,
  definition: LayerPieceDefinition,
): LayerPiece {
  const { problems, sheets, bodySheets, places } = input;
  const path = ['wardrobe', 'layers', layer, 'pieces', name];
  const { sheet, cell, at, clips, directions, otherwise } = definition;
  const named =
    typeof sheet === 'string' ? [...bodySheets].map((body) => [body, sheet] as const) : Object.entries(sheet);
  const sheetFor = new Map<string, Sheet>();
  for (const [body, own] of named) {
    const place = typeof sheet === 'string' ? [...path, 'sheet'] : [...path, 'sheet', body];
    if (!bodySheets.has(body)) problems.add('sheet-unknown', place, { name: body, known: [...bodySheets] });
    const found = sheets.get(own);
    if (!sheets.has(own)) problems.add('sheet-unknown', place, { name: own, known: [...sheets.keys()] });
    const [has, wants] = [found?.cells.length ?? 0, sheets.get(body)?.cells.length ?? 0];
    // A piece of fewer cells is laid out otherwise than the body.
    if (found !== undefined && cell === undefined && has < wants)
      problems.add('piece-cells', place, { sheet: own, has, body, wants });
    if (found !== undefined) sheetFor.set(body, found);
  }
  const count = [...sheetFor.values()][0]?.cells.length ?? Infinity;
  for (const [direction, number] of typeof cell === 'object'
    ? Object.entries(cell)
    : [['', cell ?? 0] as const]) {
    if (direction !== '' && !places.directions.includes(direction))
      problems.add('direction-unknown', [...path, 'cell', direction], {
        name: direction,
        known: places.directions,
      });
    if (!Number.isInteger(number) || number < 0 || number >= count)
      problems.add('cell-range', [...path, 'cell'], {
        cell: number,
        sheet: [...sheetFor.values()][0]?.name,
        count,
      });
  }
  // The same names as in any place; what it says of the piece is asked for elsewhere.
  compileWhere({ clips, directions }, places, path, problems);
  if (typeof otherwise === 'object' && !places.clips.has(otherwise.clip))
    problems.add('clip-unknown', [...path, 'otherwise', 'clip'], {
      name: otherwise.clip,
      known: [...places.clips.keys()],
    });
  return {
    layer,
    name,
    definition,
    sheetFor,
    isCut:
      cell === undefined && at === undefined && [...sheetFor.values()].some(({ parts }) => parts.size > 0),
    clips: clips && new Set(clips.flatMap((one) => [...(places.clips.get(one) ?? [])])),
    palettes: palettesNamed(definition.palettes ?? [], palettes, [...path, 'palettes'], problems),
  };
}

/** The parts of a piece are those of the body, and hang where these hang. */
function checkParts({ name, parts }: Sheet, body: Sheet | undefined, problems: ProblemList): void {
  for (const part of parts.values()) {
    const path = ['sheets', name, 'parts', part.name];
    const known = [...(body?.parts.keys() ?? [])];
    if (!known.includes(part.name)) problems.add('part-unknown', path, { name: part.name, known });
    const { joint, boxes, points } = part;
    if (joint !== undefined || boxes.length > 0 || points.length > 0) problems.add('piece-joint', path);
  }
}

/** Names of pieces, layers and colours in what pieces say of one another, and in schemes. */
function checkNames({ definition, layers, bodyPalettes }: Wardrobe, problems: ProblemList): void {
  const pieces = [...layers.values()].flatMap((layer) => [
    layer.name,
    ...[...layer.pieces.keys()].map((piece) => `${layer.name}.${piece}`),
  ]);
  for (const layer of layers.values())
    for (const [name, piece] of layer.pieces) {
      const path = ['wardrobe', 'layers', layer.name, 'pieces', name];
      const { weight = 1, otherwise, excludes = [], requires = [] } = piece.definition;
      if (!(weight >= 0)) problems.add('weight-range', [...path, 'weight'], { received: weight });
      const known = ['hide', ...layer.pieces.keys()];
      if (typeof otherwise === 'string' && !known.includes(otherwise))
        problems.add('piece-unknown', [...path, 'otherwise'], { name: otherwise, layer: layer.name, known });
      for (const [key, list] of Object.entries({ excludes, requires }))
        list.forEach((one, i) => {
          if (!pieces.includes(one))
            problems.add('wear-unknown', [...path, key, i], { name: one, known: pieces });
        });
    }
  const dyes = dyesOf({ layers, bodyPalettes });
  (definition.schemes ?? []).forEach((scheme, i) => {
    for (const [key, picks] of Object.entries(scheme)) {
      const path = ['wardrobe', 'schemes', i, key];
      const known = layers.has(key)
        ? ['none', ...layers.get(key)!.pieces.keys()]
        : [...(dyes.get(key)?.colours.keys() ?? [])];
      if (known.length === 0)
        problems.add('scheme-unknown', path, { name: key, known: [...layers.keys(), ...dyes.keys()] });
      else
        for (const name of typeof picks === 'string' ? [picks] : picks)
          if (!known.includes(name)) problems.add('pick-unknown', path, { name, of: key, known });
    }
  });
}
