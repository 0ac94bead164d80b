import type { Clip } from '../clip/clip.js';
import type { Controller } from '../controller/controller.js';
import type { Timeline } from '../controller/timeline.js';
import { callError } from '../problem/problem.js';
import type { Cell } from '../sheet/sheet.js';
import type { Pose, PoseLayer } from '../sheet/pose.js';
import { dyeName, dyesOf } from './dyes.js';
import type { OutfitDefinition } from '../controller/wardrobe-definition.js';
import type { DyedImage, Outfit, Shown, ShownTracks } from '../performer/outfit.js';
import type { Palette } from './palette.js';
import type { LayerPiece, Wardrobe } from './layer.js';

/** A pose once it was made, by the timelines and segments that show it: track by track. */
interface KeptPose {
  pose: Pose | undefined;
  next: Map<object, KeptPose[]> | undefined;
}

/** The place of a pose that one more track shows. No closure: it is asked for at every picture. */
function keptAt(from: KeptPose, timeline: object, segment: number): KeptPose {
  const next = (from.next ??= new Map<object, KeptPose[]>());
  let segments = next.get(timeline);
  if (segments === undefined) next.set(timeline, (segments = []));
  return (segments[segment] ??= { pose: undefined, next: undefined });
}

/** On what a piece is to be laid. */
interface Wearer {
  readonly body: Pose;
  readonly shown: Shown;
  /** One of the body's parts where these are drawn apart, and whether it is the one at which whole pieces are drawn. */
  readonly part: PoseLayer | undefined;
  readonly isEnd: boolean;
}

/** An outfit of a wardrobe. */
export class MadeOutfit implements Outfit {
  readonly pieces: Readonly<Record<string, string>>;
  readonly colours: Readonly<Record<string, string>>;
  readonly dyed: readonly DyedImage[];
  private readonly worn: readonly (LayerPiece | undefined)[];
  private readonly names: readonly string[];
  private readonly dyes: ReadonlyMap<string, string>;
  /** The poses that were made. */
  private readonly kept: KeptPose = { pose: undefined, next: undefined };

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

  fittedTo(controller: Controller): Outfit | undefined {
    const wardrobe = this.wardrobe.of(controller);
    return wardrobe?.outfit(wardrobe.fitting(this));
  }

  poseAt(controller: Controller, timeline: Timeline, segment: number): Pose {
    const kept = keptAt(this.kept, timeline, segment);
    return (kept.pose ??= this.dress(
      timeline.poses[segment]!,
      shownBy(controller, timeline, segment, [timeline.state.name]),
    ));
  }

  composedAt(controller: Controller, composed: Pose, { timelines, segments, lead }: ShownTracks): Pose {
    let { kept } = this;
    for (let track = 0; track < timelines.length; track++)
      kept = keptAt(kept, timelines[track]!, segments[track]!);
    return (kept.pose ??= this.dress(
      composed,
      shownBy(
        controller,
        timelines[lead]!,
        segments[lead]!,
        timelines.map(({ state }) => state.name),
      ),
    ));
  }

  dress(body: Pose, shown: Shown): Pose {
    const order = this.wardrobe.orders.find(({ where }) => where(shown))!.names;
    const place = order.indexOf('body');
    const [under, over] = [order.slice(0, place), order.slice(place + 1)];
    const isWhole = body.layers.length === 1 && body.layers[0]!.cell === body.cell;
    const worn = (names: readonly string[], own: PoseLayer, isEnd: boolean): PoseLayer[] => {
      const wearer: Wearer = { body, shown, part: isWhole ? undefined : own, isEnd };
      return names.flatMap((name) => this.pieceOf(name, wearer) ?? []);
    };
    const dye = this.dyes.get('body') ?? '';
    const layers = body.layers.flatMap((own, i): PoseLayer[] => [
      ...worn(under, own, i === 0),
      { ...own, dye },
      ...worn(over, own, i === body.layers.length - 1),
    ]);
    return Object.freeze({ ...body, layers: Object.freeze(layers) });
  }

  private pieceOf(layer: string, wearer: Wearer): PoseLayer | undefined {
    const piece = this.worn[this.names.indexOf(layer)];
    const { hidden } = this.wardrobe.layers.get(layer)!;
    if (piece === undefined || hidden.some((where) => where(wearer.shown))) return undefined;
    return this.layerOf(piece, wearer, 0);
  }

  private layerOf(piece: LayerPiece, wearer: Wearer, depth: number): PoseLayer | undefined {
    const { definition, layer, isCut } = piece;
    const { body, shown, part, isEnd } = wearer;
    const { otherwise } = definition;
    const lies = isCut ? part : undefined;
    let from: Cell | undefined = (lies ?? body).cell;
    if (!isDrawn(piece, shown, lies?.cell)) {
      if (otherwise === undefined || otherwise === 'hide') return undefined;
      if (typeof otherwise === 'string') {
        const other = this.wardrobe.layers.get(layer)!.pieces.get(otherwise)!;
        // A circle of pieces that stand in for one another ends with nothing.
        return depth > this.names.length + 8 ? undefined : this.layerOf(other, wearer, depth + 1);
      }
      from = this.wardrobe.firstCell(otherwise.clip, shown.drawnFor);
    }
    if (from === undefined) return undefined;
    if (lies !== undefined) return this.partOn(lies, piece, from);
    return part === undefined || isEnd ? this.whole(piece, from, wearer) : undefined;
  }

  /** A piece that is drawn whole. */
  private whole(piece: LayerPiece, from: Cell, { body, shown }: Wearer): PoseLayer | undefined {
    const { definition, name, layer, palettes } = piece;
    const { at } = definition;
    const cell = cellOf(piece, from, shown);
    const point = at === undefined ? { x: 0, y: 0 } : body.points[at];
    // Where the body has no such point on this drawing, there is nothing to hang it on.
    if (cell === undefined || point === undefined) return undefined;
    const { x, y } = point;
    return { layer, piece: name, cell, x, y, mirrored: body.mirrored, dye: this.suffix(layer, palettes) };
  }

  /** The part of a piece that lies on one of the body's. */
  private partOn(on: PoseLayer, piece: LayerPiece, from: Cell): PoseLayer | undefined {
    const { name, layer, palettes, sheetFor } = piece;
    const sheet = sheetFor.get(from.sheet);
    const [image, cell] = [sheet?.parts.get(on.layer)?.image, sheet?.cells[from.index]];
    if (image === undefined || cell === undefined) return undefined;
    const { x, y, mirrored } = on;
    const dye = this.suffix(layer, palettes);
    return { layer, piece: name, cell: Object.freeze({ ...cell, image }), x, y, mirrored, dye };
  }

  /** A piece, with the pieces that may stand in for it. */
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

/** What a segment of a timeline shows, as a wardrobe asks for it. @param states with those of further tracks */
function shownBy(
  { compass }: Controller,
  timeline: Timeline,
  segment: number,
  states: readonly string[],
): Shown {
  const { direction, poses, clip, frames } = timeline;
  const { names, mirrorOf } = compass;
  return {
    states,
    direction: names[direction]!,
    drawnFor: names[poses[segment]!.mirrored ? mirrorOf[direction]! : direction] ?? names[direction]!,
    clip,
    frame: frames[segment]!,
  };
}

/** @param cell what the part of the body shows on which it lies, where that is not what the body shows */
function isDrawn(
  { definition, clips }: LayerPiece,
  { clip, direction, drawnFor }: Shown,
  cell?: Cell,
): boolean {
  const { directions } = definition;
  const isThere = (clip: Clip): boolean =>
    clip.frames.some(({ sheet, index }) => sheet === cell?.sheet && index === cell.index);
  if (clips !== undefined && !(cell === undefined ? clips.has(clip) : [...clips].some(isThere))) return false;
  return directions === undefined || directions.includes(direction) || directions.includes(drawnFor);
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
