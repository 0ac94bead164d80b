/** `[x, y, width, height]` in pixels from the upper left corner of the cell's untrimmed frame. */
export type BoxDefinition = readonly [number, number, number, number];

/** What is known of a drawing besides its pixels. What is nearer wins: frame, clip, cell, sheet. */
export interface MarksDefinition {
  /** The point that stands where the character stands. Default: the middle of the lower edge. */
  pivot?: readonly [number, number] | undefined;
  /** Named boxes, such as `body` or `strike`. */
  boxes?: Readonly<Record<string, BoxDefinition>> | undefined;
  /** Named points, such as `hand` or `lantern`. */
  points?: Readonly<Record<string, readonly [number, number]>> | undefined;
}

/** Rows of equal cells, numbered from 0 at the upper left, left to right. Lengths are whole pixels. */
export interface GridDefinition {
  /** `[width, height]` of a cell. */
  cell: readonly [number, number];
  /** Space around all cells. Default 0. */
  margin?: number | undefined;
  /** Space between cells: one number, or `[across, down]`. Default 0. */
  gap?: number | readonly [number, number] | undefined;
  /** Where the first cell begins, besides the margin. Default `[0, 0]`. */
  offset?: readonly [number, number] | undefined;
  /** Default: as many as fit. */
  columns?: number | undefined;
  rows?: number | undefined;
  /** How many cells there are; the rest of the grid is left out. Default: all. */
  count?: number | undefined;
}

/** One rectangle: alone, or with the untrimmed frame that it was cut from. */
export type RectangleDefinition =
  | BoxDefinition
  | {
      rect: BoxDefinition;
      /** `[left, top, width, height]`: where the rectangle lies in its untrimmed frame, and how large that is. */
      trim?: BoxDefinition | undefined;
    };

/** One piece of a composed cell. */
export interface PieceDefinition {
  /** The number of the piece, as the sheet is cut. */
  cell: number;
  /** Where its upper left corner lies in the composed cell. Default `[0, 0]`. */
  at?: readonly [number, number] | undefined;
  /** Mirrored left to right (`x`), top to bottom (`y`) or both. */
  flip?: 'x' | 'y' | 'xy' | undefined;
}

/** One of the parts of which a sheet's drawings consist, on an image of its own. */
export interface PartDefinition {
  /** The image's file: laid out like that of the sheet, with this part alone on it. */
  image: string;
  /** A point of both drawings by which it hangs on the body, where another track draws it. Default: it lies pivot on pivot. */
  joint?: string | undefined;
  /** Boxes and points that go with this part, such as what the hand strikes with. */
  boxes?: readonly string[] | undefined;
  points?: readonly string[] | undefined;
}

/** A sheet as it stands in a document: an image with `grid` or `cells`, or a sequence of `images`. */
export interface SheetDefinition extends MarksDefinition {
  /** The image's file, relative to the document. */
  image?: string | undefined;
  /** Files of a sequence; each is one cell. */
  images?: readonly string[] | undefined;
  /** `[width, height]` of the image in pixels; needed only where the images' sizes are not given otherwise. */
  size?: readonly [number, number] | undefined;
  grid?: GridDefinition | undefined;
  /** Rectangles, numbered in their order. */
  cells?: readonly RectangleDefinition[] | undefined;
  /** Cells put together from pieces, back to front; they take the place of the pieces as the sheet's cells. */
  compose?: readonly (readonly PieceDefinition[])[] | undefined;
  /** The drawings once more, cut in parts, back to front: by name an image, or one with what goes with it. */
  parts?: Readonly<Record<string, string | PartDefinition>> | undefined;
  /** Marks of single cells, by number. */
  perCell?: Readonly<Record<string, MarksDefinition>> | undefined;
}
