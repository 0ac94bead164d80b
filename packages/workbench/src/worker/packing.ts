import { compileController, DotHopError } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { compiledOf } from 'dot-hop/compiled';
import { PackError, pack, without } from 'dot-hop/pack';
import type { Picture } from 'dot-hop/pixels';
import { compileWorn } from 'dot-hop/wardrobe';
import { expose } from 'comlink';
import UPNG from 'upng-js';

/** How it is packed. */
export interface Packing {
  /** The name of the document, without its ending. */
  readonly name: string;
  readonly padding: number;
  readonly powerOfTwo: boolean;
  readonly compiled: boolean;
}

/** What packing gives: the files, and what became of what. */
export interface Shipped {
  /** By name; the document is the last. */
  readonly files: readonly { readonly name: string; readonly content: ArrayBuffer }[];
  readonly width: number;
  readonly height: number;
  /** Pixels of all images, before and after. */
  readonly pixels: readonly [before: number, after: number];
  readonly cells: { readonly used: number; readonly all: number; readonly drawings: number };
  /** The clips that nothing shows. */
  readonly clipsLeftOut: readonly string[];
  /** The cells that no clip shows, by sheet. */
  readonly cellsLeftOut: readonly { readonly sheet: string; readonly cells: readonly number[] }[];
  /** Whether a wardrobe is left out: a compiled document has none. */
  readonly isBare: boolean;
}

const packing = {
  /** @returns why it cannot be packed, where that is so */
  pack(
    whole: ControllerDefinition,
    pictures: readonly (readonly [string, Picture])[],
    { name, padding, powerOfTwo, compiled }: Packing,
  ): Shipped | string {
    const images = new Map(pictures);
    const sizes = { images: Object.fromEntries(images) };
    const isBare = compiled && whole.wardrobe !== undefined;
    try {
      const definition = isBare ? without(whole, 'wardrobe') : whole;
      const controller = compileWorn(definition, sizes);
      const packed = pack(controller, images, `${name}.png`, { padding, powerOfTwo, most: 4096 });
      const plain = JSON.parse(JSON.stringify(packed.definition)) as ControllerDefinition;
      const atlases = Object.fromEntries(packed.images.map(({ file, atlas }) => [file, atlas]));
      const document = compiled ? compiledOf(compileController(plain, { images: atlases })) : plain;
      const [{ atlas }] = packed.images as [(typeof packed.images)[number]];
      const used = [...controller.sheets.values()].flatMap((sheet) => sheet.images);
      const area = ({ width, height }: Picture): number => width * height;
      const sum = (all: readonly Picture[]): number => all.reduce((total, one) => total + area(one), 0);
      const kept = Object.keys(packed.definition.clips);
      const shown = new Set(
        [...controller.clips.values()]
          .filter((clip) => kept.includes(clip.name))
          .flatMap((clip) => clip.frames.map((cell) => `${cell.sheet} ${cell.index}`)),
      );
      const drawn = new Set(
        [...controller.clips.values()].flatMap((clip) => clip.frames.map((cell) => cell.sheet)),
      );
      return {
        files: [
          ...packed.images.map(({ file, atlas: { width, height, pixels } }) => ({
            name: file,
            content: UPNG.encode([new Uint8Array(pixels).buffer], width, height, 0),
          })),
          {
            name: `${name}.json`,
            content: new TextEncoder().encode(`${JSON.stringify(document)}\n`).buffer,
          },
        ],
        width: atlas.width,
        height: atlas.height,
        pixels: [
          sum([...new Set(used)].flatMap((file) => images.get(file) ?? [])),
          sum(packed.images.map((one) => one.atlas)),
        ],
        cells: packed.cells,
        clipsLeftOut: [...controller.clips.values()].flatMap((clip) =>
          kept.includes(clip.name) ? [] : [clip.name],
        ),
        cellsLeftOut: [...controller.sheets.values()].flatMap(({ name: sheet, cells }) => {
          const gone = cells.filter(({ index }) => !shown.has(`${sheet} ${index}`)).map(({ index }) => index);
          return drawn.has(sheet) && gone.length > 0 ? [{ sheet, cells: gone }] : [];
        }),
        isBare,
      };
    } catch (error) {
      if (error instanceof DotHopError || error instanceof PackError) return error.message;
      throw error;
    }
  },
};

export type PackingWork = typeof packing;
expose(packing);
