import type { DiagonalRule } from './definition.js';

/**
 * The circle of directions cut at the borders between them. A place on it is not an angle but grows with it, from 0
 * (right) by 1 for each quarter turn clockwise: it is found by one division (see {@link findPlace}), so that every
 * machine finds the same, and a diagonal lies exactly in the middle of a quarter.
 */
export interface Circle {
  /** The directions clockwise, beginning with the one that lies across or after the place 0. */
  readonly order: readonly number[];
  /** Where the sector of each direction in `order` but the last ends; that of the last ends at the last border. */
  readonly borders: readonly number[];
  /** Where a direction is kept once it is faced; the first lies behind the second when 0 is between them. */
  readonly keepsFrom: readonly number[];
  readonly keepsTo: readonly number[];
  /** The two edges of that as vectors of length 1: x and y of the first, x and y of the second. */
  readonly edges: readonly (readonly number[])[];
}

/** The border clockwise after a direction. */
interface Border {
  readonly direction: number;
  readonly next: number;
  /** In degrees, from 0 to under 360. */
  readonly degrees: number;
  /** By how many degrees the vector must pass it. */
  readonly stick: number;
  /** Degrees from it to the nearer of its two directions. */
  readonly room: number;
}

/** An angle as degrees from 0 to under 360. */
export const clockwise = (degrees: number): number => ((degrees % 360) + 360) % 360;

/** How level an angle is, from 0 to 1, without the noise of rounding. */
const level = (degrees: number): number =>
  Math.round(Math.abs(Math.cos((degrees * Math.PI) / 180)) * 1e9) / 1e9;

/** The borders between neighbours: in the middle, or moved by what a diagonal means. */
export function bordersOf(degrees: readonly number[], diagonal: DiagonalRule, stick: number): Border[] {
  const order = degrees.map((_, index) => index).sort((a, b) => degrees[a]! - degrees[b]!);
  return order.map((direction, i) => {
    const next = order[(i + 1) % order.length]!;
    const gap = clockwise(degrees[next]! - degrees[direction]!) || 360;
    // What is nearer to the middle than to either direction is a quarter of the gap to both sides.
    const wider = level(degrees[direction]!) - level(degrees[next]!);
    const preferred = diagonal === 'horizontal' ? wider : diagonal === 'vertical' ? -wider : 0;
    const shift = (Math.sign(preferred) * gap) / 4;
    return {
      direction,
      next,
      degrees: clockwise(degrees[direction]! + gap / 2 + shift),
      stick: diagonal === 'keep' ? Math.max(stick, gap / 4) : stick,
      room: gap / 2 - Math.abs(shift),
    };
  });
}

/** Puts the borders on the circle. */
export function placeOnCircle(degrees: readonly number[], borders: readonly Border[]): Circle {
  const sorted = [...borders].sort((a, b) => a.degrees - b.degrees);
  const keepsFrom = new Array<number>(degrees.length).fill(0);
  const keepsTo = new Array<number>(degrees.length).fill(4);
  const edges = degrees.map((): number[] => [0, 0, 0, 0]);
  for (const { direction, next, degrees: at, stick } of borders.length > 1 ? borders : []) {
    keepsTo[direction] = placeOfDegrees(at + stick);
    keepsFrom[next] = placeOfDegrees(at - stick);
    edges[direction]!.splice(2, 2, ...unitAt(at + stick));
    edges[next]!.splice(0, 2, ...unitAt(at - stick));
  }
  return {
    order: sorted.map(({ direction }) => direction),
    borders: sorted.map(({ degrees: at }) => placeOfDegrees(at)),
    keepsFrom,
    keepsTo,
    edges,
  };
}

const unitAt = (degrees: number): [number, number] => [
  Math.cos((degrees * Math.PI) / 180),
  Math.sin((degrees * Math.PI) / 180),
];

/** The place on the circle of an angle; exact where the angle is a multiple of 45 degrees. */
function placeOfDegrees(degrees: number): number {
  const angle = clockwise(degrees);
  const quarter = Math.floor(angle / 90);
  const rest = angle - quarter * 90;
  if (rest === 0 || rest === 45) return quarter + rest / 90;
  const radians = (rest * Math.PI) / 180;
  const [x, y] = [Math.cos(radians), Math.sin(radians)];
  return quarter + y / (x + y);
}

/** What is found of the vector that is being read: a double handed from function to function would be boxed. */
const found = new Float64Array(3);
const enum Found {
  place,
  before,
  after,
}

/**
 * Finds the place of a vector on the circle, from 0 to under 4. Each quarter of the circle adds 1. Within a quarter, it is the
 * second coordinate divided by the sum of both (the "diamond angle"). The vector must not be 0.
 */
function findPlace(vector: Float64Array): void {
  let x = vector[0]!;
  let y = vector[1]!;
  if (Math.abs(x) + Math.abs(y) === Infinity) {
    x *= 0.25;
    y *= 0.25;
  }
  if (y >= 0) found[Found.place] = x > 0 ? y / (x + y) : 1 + -x / (y - x);
  else found[Found.place] = x < 0 ? 2 + y / (x + y) : 3 + x / (x - y);
}

/** Whether a direction that is faced is kept at the place that was found. */
function isKept({ keepsFrom, keepsTo }: Circle, direction: number): boolean {
  const place = found[Found.place]!;
  const from = keepsFrom[direction]!;
  const to = keepsTo[direction]!;
  return from <= to ? place >= from && place <= to : place >= from || place <= to;
}

/**
 * The direction that a vector picks.
 *
 * @param vector right and down positive; handed over in an array, since doubles as arguments would be boxed
 * @param present the direction it points to now: kept within the dead zone, near its borders, and on them
 */
export function pickDirection(
  circle: Circle & { readonly deadZone: number },
  vector: Float64Array,
  present: number,
): number {
  const x = vector[0]!;
  const y = vector[1]!;
  const { deadZone, order, borders } = circle;
  if ((x === 0 && y === 0) || x * x + y * y < deadZone * deadZone) return present;
  findPlace(vector);
  if (isKept(circle, present)) return present;
  const place = found[Found.place]!;
  let sector = 0;
  while (sector < borders.length && place > borders[sector]!) sector++;
  const picked = order[sector % order.length]!;
  // Exactly on a border, and facing neither: the direction that the document names first.
  const isBetween = sector < borders.length && place === borders[sector]!;
  return isBetween ? Math.min(picked, order[(sector + 1) % order.length]!) : picked;
}

/** Taken off for each unit of length, so that rounding errs on the side of reading once more. */
const rounding = 1e-12;

/**
 * How far both parts of a vector may change before the compass could point elsewhere. It is half the side of a square around
 * the vector. The square lies within the sector of the direction, or within the dead zone.
 *
 * @param direction where it points to
 * @param out is given the length; 0 where any change must be looked at
 */
export function safeRadius(
  circle: Circle & { readonly deadZone: number },
  vector: Float64Array,
  direction: number,
  out: Float64Array,
): void {
  const x = vector[0]!;
  const y = vector[1]!;
  const long = Math.sqrt(x * x + y * y);
  out[0] = 0;
  // Too large or too small to be squared: rare enough to be looked at each time.
  if (!(long > 1e-150 && long < 1e150)) {
    if (x === 0 && y === 0) out[0] = circle.deadZone * Math.SQRT1_2 * (1 - rounding);
    return;
  }
  let far = Math.max(0, circle.deadZone - long);
  findPlace(vector);
  if (isKept(circle, direction)) {
    findEdges(circle.edges[direction]!, vector);
    far = Math.max(far, Math.min(found[Found.before]!, found[Found.after]!));
  }
  out[0] = Math.max(0, far * Math.SQRT1_2 - long * rounding);
}

/** Finds the distances of a vector's end from the two edges of a sector, which are rays that begin at 0. */
function findEdges(edges: readonly number[], vector: Float64Array): void {
  const x = vector[0]!;
  const y = vector[1]!;
  for (let edge = 0; edge < 2; edge++) {
    const edgeX = edges[2 * edge]!;
    const edgeY = edges[2 * edge + 1]!;
    found[Found.before + edge] =
      edgeX * x + edgeY * y <= 0 ? Math.sqrt(x * x + y * y) : Math.abs(edgeX * y - edgeY * x);
  }
}
