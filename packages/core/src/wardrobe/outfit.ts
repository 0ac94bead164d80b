import type { Controller } from '../controller/controller.js';
import { callError } from '../problem/problem.js';
import type { Cell } from '../sheet/sheet.js';
import type { Pose, PoseLayer } from '../sheet/pose.js';
import { dyeName, dyesOf } from './dyes.js';
import type { OutfitDefinition } from './definition.js';
import type { Palette } from './palette.js';
import type { LayerPiece, Wardrobe } from './wardrobe.js';
import type { Shown } from './where.js';

/** An image in other colours: made once, drawn wherever it is named. */
export interface DyedImage {
  /** The name under which poses ask for it: the file's, followed by what is dyed. */
  readonly name: string;
  readonly file: string;
  /** Colours (red in the highest of three bytes) and what each becomes. */
  readonly colours: ReadonlyMap<number, number>;
}

/** What somebody wears: for any number of performers of the controller whose wardrobe it is from. */
export class Outfit {
  /** Pieces by layer, `none` for an empty one; every layer is named. */
  readonly pieces: Readonly<Record<string, string>>;
  /** Colours by palette (see {@link OutfitDefinition}); everything that can be coloured is named. */
  readonly colours: Readonly<Record<string, string>>;
  /** The images in other colours that it needs. */
  readonly dyed: readonly DyedImage[];
  private readonly worn: readonly (LayerPiece | undefined)[];
  private readonly names: readonly string[];
  private readonly dyes: ReadonlyMap<string, string>;
  /** Poses once made, by the timeline and the segment that show them. */
  private readonly kept = new Map<object, (Pose | undefined)[]>();

  /** @throws {DotHopError} for a name that the wardrobe does not have */
  constructor(
    private readonly wardrobe: Wardrobe,
    { pieces = {}, colours = {} }: OutfitDefinition,
  ) {
    const { layers } = wardrobe;
    const dyes = dyesOf(wardrobe);
    for (const name of Object.keys(pieces))
      if (!layers.has(name)) throw callError('layer-unknown', { name, known: [...layers.keys()] });
    for (const [name, list] of Object.entries(colours)) {
      const palette = dyes.get(name);
      if (palette === undefined) throw callError('dye-unknown', { name, known: [...dyes.keys()] });
      if (!palette.colours.has(list))
        throw callError('colours-unknown', { name: list, known: [...palette.colours.keys()] });
    }
    this.names = [...layers.keys()];
    this.worn = this.names.map((layer) => {
      const known = layers.get(layer)!.pieces;
      const name = pieces[layer] ?? 'none';
      if (name !== 'none' && !known.has(name))
        throw callError('piece-unknown', { name, layer, known: ['none', ...known.keys()] });
      return known.get(name);
    });
    this.pieces = Object.freeze(
      Object.fromEntries(this.names.map((layer, i) => [layer, this.worn[i]?.name ?? 'none'])),
    );
    this.colours = Object.freeze(
      Object.fromEntries([...dyes].map(([name, { drawn }]) => [name, colours[name] ?? drawn])),
    );
    const parts = [
      { layer: 'body', palettes: wardrobe.bodyPalettes, files: wardrobe.bodyImages },
      ...this.worn.flatMap((piece) =>
        piece === undefined
          ? []
          : this.withOtherwise(piece).map((one) => ({
              layer: one.layer,
              palettes: one.palettes,
              files: [...one.sheetFor.values()].flatMap(({ images }) => images),
            })),
      ),
    ];
    this.dyes = new Map(parts.map(({ layer, palettes }) => [layer, this.suffix(layer, palettes)]));
    this.dyed = parts.flatMap(({ layer, palettes, files }) => {
      const suffix = this.suffix(layer, palettes);
      return suffix === ''
        ? []
        : files.map((file) => ({ name: file + suffix, file, colours: this.map(layer, palettes) }));
    });
  }

  /** The same for another version of the controller, as far as its wardrobe has it; `undefined` where it has none. */
  fittedTo(controller: Controller): Outfit | undefined {
    const wardrobe = this.wardrobe.of(controller);
    return wardrobe?.outfit(wardrobe.fitting(this));
  }

  /** The pose of a body in this outfit, made anew. {@link keep} keeps what it has made. */
  dress(body: Pose, shown: Shown): Pose {
    const { wardrobe, names, worn } = this;
    const order = wardrobe.orders.find(({ where }) => where(shown))!.names;
    const layers = order.flatMap((name): PoseLayer | readonly PoseLayer[] => {
      if (name === 'body') return body.layers.map((own) => ({ ...own, dye: this.dyes.get('body') ?? '' }));
      const piece = worn[names.indexOf(name)];
      if (piece === undefined) return [];
      if (wardrobe.layers.get(name)!.hidden.some((where) => where(shown))) return [];
      return this.layerOf(piece, body, shown, 0) ?? [];
    });
    return Object.freeze({ ...body, layers: Object.freeze(layers) });
  }

  /**
   * A pose that was made before: what shows it, as a key, and which of its frames. No closure and no array: it is asked for at
   * every picture.
   */
  keptAt(timeline: object, showing: number): Pose | undefined {
    return this.kept.get(timeline)?.[showing];
  }

  /** The pose of a body in this outfit, made and kept. */
  keep(timeline: object, showing: number, body: Pose, shown: Shown): Pose {
    let poses = this.kept.get(timeline);
    if (poses === undefined) this.kept.set(timeline, (poses = []));
    return (poses[showing] = this.dress(body, shown));
  }

  private layerOf(piece: LayerPiece, body: Pose, shown: Shown, depth: number): PoseLayer | undefined {
    const { definition, name, layer } = piece;
    const { directions, otherwise, at } = definition;
    const isDrawn =
      (piece.clips === undefined || piece.clips.has(shown.clip)) &&
      (directions === undefined ||
        directions.includes(shown.direction) ||
        directions.includes(shown.drawnFor));
    let from: Cell | undefined = body.cell;
    if (!isDrawn) {
      if (otherwise === undefined || otherwise === 'hide') return undefined;
      if (typeof otherwise === 'string') {
        const other = this.wardrobe.layers.get(layer)!.pieces.get(otherwise)!;
        // A circle of pieces that stand in for one another ends with nothing.
        return depth > this.names.length + 8 ? undefined : this.layerOf(other, body, shown, depth + 1);
      }
      from = this.wardrobe.firstCell(otherwise.clip, shown.drawnFor);
    }
    const cell = from && cellOf(piece, from, shown);
    if (cell === undefined) return undefined;
    const point = at === undefined ? { x: 0, y: 0 } : body.points[at];
    // Where the body has no such point on this drawing, there is nothing to hang it on.
    if (point === undefined) return undefined;
    const { x, y } = point;
    const { mirrored } = body;
    return { layer, piece: name, cell, x, y, mirrored, dye: this.suffix(layer, piece.palettes) };
  }

  /** A piece and those that may stand in for it. */
  private withOtherwise(piece: LayerPiece): LayerPiece[] {
    const all = [piece];
    for (const { definition, layer } of all) {
      const { otherwise } = definition;
      const other =
        typeof otherwise === 'string' ? this.wardrobe.layers.get(layer)!.pieces.get(otherwise) : undefined;
      if (other !== undefined && !all.includes(other)) all.push(other);
    }
    return all;
  }

  private suffix(layer: string, palettes: readonly Palette[]): string {
    const parts = palettes.flatMap((palette) => {
      const colours = this.colours[dyeName(layer, palette)]!;
      return colours === palette.drawn ? [] : [`${palette.name}=${colours}`];
    });
    return parts.length === 0 ? '' : `?${parts.join('&')}`;
  }

  private map(layer: string, palettes: readonly Palette[]): Map<number, number> {
    const map = new Map<number, number>();
    for (const palette of palettes) {
      const to = palette.colours.get(this.colours[dyeName(layer, palette)]!)!;
      palette.colours.get(palette.drawn)!.forEach((colour, i) => {
        map.set(colour, to[i]!);
      });
    }
    return map;
  }
}

function cellOf(
  { definition, sheetFor }: LayerPiece,
  body: Cell,
  { direction, drawnFor }: Shown,
): Cell | undefined {
  const sheet = sheetFor.get(body.sheet);
  const { cell } = definition;
  if (cell === undefined) return sheet?.cells[body.index];
  return sheet?.cells[typeof cell === 'number' ? cell : (cell[drawnFor] ?? cell[direction] ?? -1)];
}
