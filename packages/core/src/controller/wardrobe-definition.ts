/** A set of colours that can be exchanged for others: `cloth` in rust, moss or slate. */
export interface PaletteDefinition {
  /** The name of the colours that the drawings have. */
  drawn: string;
  /** Lists of colours as `#rrggbb`, all of the same length, by name: the first of one stands for the first of another. */
  colours: Readonly<Record<string, readonly string[]>>;
  /** One choice for everything that has this palette (skin, say), instead of one for each layer. Default false. */
  shared?: boolean | undefined;
  /** How often chance picks each, by name. Default 1. */
  weights?: Readonly<Record<string, number>> | undefined;
}

/** Where something holds: all that is named must be so. Nothing named is everywhere. */
export interface WhereDefinition {
  /** States of any track. */
  states?: readonly string[] | undefined;
  /** Directions faced; a mirrored one counts as the one it is mirrored from, too. */
  directions?: readonly string[] | undefined;
  /** Clips or flipbooks that show. */
  clips?: readonly string[] | undefined;
  /** Frames of the clip, such as `2-3`. */
  frames?: string | number | undefined;
  /** A span of the clip. */
  span?: string | undefined;
  /** From the frame with this cue on. */
  from?: string | undefined;
  /** Until the frame with this cue. */
  until?: string | undefined;
}

/** One of the things that a layer can be. */
export interface LayerPieceDefinition {
  /**
   * A sheet laid out as the body's, cell for cell; where the body has several, one for each by name. If it has `parts`, as the
   * body's has, each lies on the part of the same name wherever that is drawn apart.
   */
  sheet: string | Readonly<Record<string, string>>;
  /** One drawing whatever the body shows: a cell of the sheet, or one for each direction. */
  cell?: number | Readonly<Record<string, number>> | undefined;
  /** The point of the body on which the piece's pivot is hung; the piece moves with it. */
  at?: string | undefined;
  /** The clips and flipbooks for which it is drawn. Default: all. */
  clips?: readonly string[] | undefined;
  /** The directions for which it is drawn. Default: all. */
  directions?: readonly string[] | undefined;
  /** What shows where it is not drawn: nothing (`hide`), another piece of the layer, or its drawing for a clip's first frame. */
  otherwise?: string | { clip: string } | undefined;
  /** The palettes whose colours it has. */
  palettes?: readonly string[] | undefined;
  /** How often chance picks it. Default 1. */
  weight?: number | undefined;
  /** Pieces (`hat.straw`) or whole layers (`hat`) that do not go with it. */
  excludes?: readonly string[] | undefined;
  /** Pieces or layers of which each must be there with it. */
  requires?: readonly string[] | undefined;
}

/** A layer of the wardrobe: one of its pieces is drawn in step with the body. */
export interface LayerDefinition {
  pieces: Readonly<Record<string, LayerPieceDefinition>>;
  /** How often chance leaves it empty; a layer without `none` is never empty by chance. */
  none?: number | undefined;
  /** Where it is not drawn. */
  hidden?: readonly WhereDefinition[] | undefined;
}

/** Interchangeable layers drawn over one body, or under it. */
export interface WardrobeDefinition {
  layers: Readonly<Record<string, LayerDefinition>>;
  /** `body` and the layers, back to front. Default: the body, then the layers as they stand. */
  order?: readonly string[] | undefined;
  /** Other orders in some places; the first that fits counts. */
  orders?: readonly (WhereDefinition & { order: readonly string[] })[] | undefined;
  /** The palettes of the body's own sheets. */
  palettes?: readonly string[] | undefined;
  /**
   * What goes together: of these, chance takes one that fits. Each names what may be picked, by layer (`hat`) or by colour
   * (`coat.cloth`, or `skin` for a shared palette).
   */
  schemes?: readonly Readonly<Record<string, string | readonly string[]>>[] | undefined;
  /** Colours that no palette needs to name, such as that of the outline. */
  kept?: readonly string[] | undefined;
}

/** What somebody wears: pieces by layer (`none` for an empty one) and colours by palette. What is left out is as drawn. */
export interface OutfitDefinition {
  pieces?: Readonly<Record<string, string>> | undefined;
  /** By `layer.palette` (`body.cloth`, `hat.cloth`), or by the palette's name where it is shared. */
  colours?: Readonly<Record<string, string>> | undefined;
}
