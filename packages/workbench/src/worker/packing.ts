import { DotHopError } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { PackError, compiledPack, leftOut, pack, withoutWardrobe } from 'dot-hop/pack';
import type { LeftOut } from 'dot-hop/pack';
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
  readonly leftOut: LeftOut;
  /** Whether a wardrobe is left out: a compiled document has none. */
  readonly isBare: boolean;
}

const packing = {
  /** @returns why it cannot be packed, where that is so */
  pack(
    definition: ControllerDefinition,
    pictures: readonly (readonly [string, Picture])[],
    { name, padding, powerOfTwo, compiled }: Packing,
  ): Shipped | string {
    const images = new Map(pictures);
    try {
      const worn = compileWorn(definition, { images: Object.fromEntries(images) });
      const controller = compiled ? withoutWardrobe(worn, images) : worn;
      const packed = pack(controller, images, `${name}.png`, { padding, powerOfTwo, most: 4096 });
      const document = JSON.stringify(compiled ? compiledPack(packed) : packed.definition);
      const [{ atlas }] = packed.images as [(typeof packed.images)[number]];
      const used = new Set([...controller.sheets.values()].flatMap((sheet) => sheet.images));
      const area = (all: readonly Picture[]): number =>
        all.reduce((sum, { width, height }) => sum + width * height, 0);
      return {
        files: [
          ...packed.images.map(({ file, atlas: { width, height, pixels } }) => ({
            name: file,
            content: UPNG.encode([new Uint8Array(pixels).buffer], width, height, 0),
          })),
          { name: `${name}.json`, content: new TextEncoder().encode(`${document}\n`).buffer },
        ],
        width: atlas.width,
        height: atlas.height,
        pixels: [
          area([...used].flatMap((file) => images.get(file) ?? [])),
          area(packed.images.map((one) => one.atlas)),
        ],
        cells: packed.cells,
        leftOut: leftOut(controller),
        isBare: controller !== worn,
      };
    } catch (error) {
      if (error instanceof DotHopError || error instanceof PackError) return error.message;
      throw error;
    }
  },
};

export type PackingWork = typeof packing;
expose(packing);
