/* What a body stands on, is stopped by, and swims in. Lengths in pixels, x to the right, y downwards. */

/**
 * A piece of ground from one x to another: at a height above 0, or a slope between two heights. It is solid, so a higher piece beside it is
 * a wall.
 */
export type GroundPiece = readonly [number, number, number] | readonly [number, number, number, number];

/** A plank, or water, from one x to another at a height above 0. */
export type LevelPiece = readonly [number, number, number];

/** The ground of a body. */
export interface GroundDefinition {
  /** Level pieces and slopes. Default: level ground without end. */
  readonly ground?: readonly GroundPiece[] | undefined;
  /** Planks: the body stands on them, and passes them from below and from the side. */
  readonly planks?: readonly LevelPiece[] | undefined;
  /** Water, given by its surface. It slows a fall, and every press of `jump` in it is a stroke. */
  readonly water?: readonly LevelPiece[] | undefined;
}

/** Heights are written upwards, as a person draws them; inside, y goes down. */
interface Piece {
  readonly from: number;
  readonly to: number;
  /** The height at its left end. */
  readonly left: number;
  readonly right: number;
}

/** A slope that rises more than this for each pixel is a wall. */
const steepest = 1.5;

const pieceOf = ([from, to, left, right = left]: GroundPiece): Piece => ({
  from,
  to,
  left: 0 - left,
  right: 0 - right,
});

const covers = ({ from, to }: Piece, x: number): boolean => x >= from && x <= to;
const isSlope = ({ left, right }: Piece): boolean => left !== right;
const topAt = ({ from, to, left, right }: Piece, x: number): number =>
  left === right ? left : left + ((right - left) * (x - from)) / (to - from);

/** Ground, planks and water, for a body to move on. */
export class Ground {
  private readonly solid: readonly Piece[];
  private readonly slopes: readonly Piece[];
  private readonly planks: readonly Piece[];
  private readonly water: readonly Piece[];

  constructor({ ground = [[-Infinity, Infinity, 0]], planks = [], water = [] }: GroundDefinition) {
    this.solid = ground.map(pieceOf);
    this.slopes = this.solid.filter(isSlope);
    this.planks = planks.map(pieceOf);
    this.water = water.map(pieceOf);
  }

  /** How far the ground may rise or fall under a body that walks along a slope, onto it or off it; 0 on level ground. */
  private reach(from: number, to: number): number {
    const isAtSlope = this.slopes.some((one) => covers(one, from) || covers(one, to));
    return isAtSlope ? Math.abs(to - from) * steepest : 0;
  }

  /** Whether something solid stops a body at a height. */
  isWall(from: number, to: number, y: number): boolean {
    const highest = y - this.reach(from, to);
    return this.solid.some(
      (piece) => covers(piece, to) && topAt(piece, to) < highest && (isSlope(piece) || !covers(piece, from)),
    );
  }

  /**
   * The height of the highest ground at or below a place. On a slope it may be a little above the place.
   *
   * @param from where the body came from
   */
  floorAt(x: number, y: number, from = x): number {
    const highest = y - this.reach(from, x);
    const tops = [...this.solid, ...this.planks].flatMap((piece) =>
      covers(piece, x) ? [topAt(piece, x)] : [],
    );
    return Math.min(...tops.filter((top) => top >= highest));
  }

  /** The height of the slope on which a body stays while it walks, up or down; `undefined` if none is within reach. */
  slopeUnder(from: number, to: number, y: number): number | undefined {
    const reach = this.reach(from, to);
    if (reach === 0) return undefined;
    const floor = this.floorAt(to, y, from);
    return Math.abs(floor - y) <= reach ? floor : undefined;
  }

  /** Whether feet at a place are under water. */
  isWet(x: number, y: number): boolean {
    return this.water.some((piece) => covers(piece, x) && y > piece.left);
  }
}
