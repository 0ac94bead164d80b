import type { Clip } from '../clip/clip.js';
import type { Controller } from '../controller/controller.js';
import type { Cell, Sheet } from '../sheet/sheet.js';
import type {
  LayerDefinition,
  LayerPieceDefinition,
  OutfitDefinition,
  WardrobeDefinition,
} from '../controller/wardrobe-definition.js';
import type { Outfit } from '../performer/outfit.js';
import type { Palette } from './palette.js';
import type { Where } from './where.js';

/** A piece with its names resolved. */
export interface LayerPiece {
  readonly layer: string;
  readonly name: string;
  readonly definition: LayerPieceDefinition;
  /** The piece's sheet for each of the body's sheets. */
  readonly sheetFor: ReadonlyMap<string, Sheet>;
  /** Whether it is cut in parts as the body is. Each part then lies on the body's part. */
  readonly isCut: boolean;
  /** The clips for which it is drawn; `undefined` for all. */
  readonly clips: ReadonlySet<Clip> | undefined;
  readonly palettes: readonly Palette[];
}

/** A layer with its names resolved. */
export interface Layer {
  readonly name: string;
  readonly definition: LayerDefinition;
  readonly pieces: ReadonlyMap<string, LayerPiece>;
  readonly hidden: readonly Where[];
}

/** An order of layers, back to front, and where it counts. */
export interface LayerOrder {
  readonly where: Where;
  readonly names: readonly string[];
}

/** A compiled wardrobe: layers with their pieces, palettes, and orders. It is immutable, and all performers share it. */
export interface Wardrobe {
  readonly definition: WardrobeDefinition;
  readonly layers: ReadonlyMap<string, Layer>;
  readonly palettes: ReadonlyMap<string, Palette>;
  readonly bodyPalettes: readonly Palette[];
  /** The files of the body's own images. */
  readonly bodyImages: readonly string[];
  /** The orders of layers. The first one that fits counts, and the last one fits everywhere. */
  readonly orders: readonly LayerOrder[];
  readonly firstCell: (shows: string, direction: string) => Cell | undefined;
  /** The wardrobe of another controller. */
  readonly of: (controller: Controller) => Wardrobe | undefined;
  /**
   * Makes an outfit, for any number of performers to wear.
   *
   * @throws {DotHopError} for a layer, piece, palette or colours that the wardrobe does not have, with the nearest known name
   */
  outfit(definition: OutfitDefinition): Outfit;
  /** The part of an outfit, perhaps from another version of the document, that this wardrobe has too. */
  fitting(definition: OutfitDefinition): OutfitDefinition;
}
