/** The named compasses, or directions by name at degrees: 0 is right (east), 90 is down (south). */
export type DirectionsDefinition =
  'none' | 'sides' | 'four' | 'eight' | 'sixteen' | Readonly<Record<string, number>>;

/** The vector that turns a character: two expressions, or the name of a vector. */
export type VectorDefinition = string | readonly [string | number, string | number];

/** What a vector between two directions means. */
export type DiagonalRule = 'nearest' | 'keep' | 'horizontal' | 'vertical';

/** A compass as it stands in a document. */
export interface CompassDefinition {
  directions: DirectionsDefinition;
  /**
   * Directions drawn as the mirror image of another: `{ west: east }`. A side (`west`) means every direction that points
   * there, each from the one it mirrors.
   */
  mirror?: 'west' | 'east' | Readonly<Record<string, string>> | undefined;
  /** The vector that turns the character. */
  by?: VectorDefinition | undefined;
  /** Which way is up in that vector: `-y` as on a screen (the default), or `+y`. */
  up?: '-y' | '+y' | undefined;
  /** Below this length of the vector the character keeps facing where it faced. Default 0. */
  deadZone?: number | undefined;
  /**
   * Degrees by which the vector must pass the border between two directions before the character turns. Default 0;
   * less than what is left from a border to the next direction.
   */
  stick?: number | undefined;
  /**
   * What a vector means that is nearer to the middle between two directions than to either of them: the nearest direction
   * (default), the one of the two that the character faces already, or the more horizontal or vertical one.
   */
  diagonal?: DiagonalRule | undefined;
  /** Milliseconds each direction shows at least, so that a far turn passes through those in between. Default 0: at once. */
  through?: number | undefined;
  /** The direction it faces at first. Default: the first one. */
  start?: string | undefined;
}
