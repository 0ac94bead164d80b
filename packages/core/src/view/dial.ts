import { pickDirection } from '../compass/circle.js';
import type { Compass } from '../compass/compass.js';

/** The part of a compass that means one direction, in degrees clockwise from right. `to` may be over 360. */
export interface DialSector {
  readonly direction: string;
  /** The angle of the direction itself. */
  readonly degrees: number;
  /** A vector from `from` to `to` turns the character to this direction. */
  readonly from: number;
  readonly to: number;
  /** While the character faces this direction, it keeps it from `keepsFrom` to `keepsTo`: past the borders by `stick`. */
  readonly keepsFrom: number;
  readonly keepsTo: number;
}

/** The angle of a place on the circle, in degrees. */
function degreesOfPlace(place: number): number {
  const quarter = Math.floor(place);
  const part = place - quarter;
  return quarter * 90 + (Math.atan2(part, 1 - part) * 180) / Math.PI;
}

/** The sectors of a compass, in the order of its directions, for drawing a picture of it. */
export function dialOf(compass: Compass): DialSector[] {
  const { names, degrees, order, borders, keepsFrom, keepsTo } = compass;
  if (borders.length < 2)
    return [{ direction: names[0]!, degrees: degrees[0]!, from: 0, to: 360, keepsFrom: 0, keepsTo: 360 }];
  const after = (from: number, to: number): number => (to <= from ? to + 360 : to);
  return names.map((direction, i) => {
    const sector = order.indexOf(i);
    const from = degreesOfPlace(borders[(sector + borders.length - 1) % borders.length]!);
    const keeps = degreesOfPlace(keepsFrom[i]!);
    return {
      direction,
      degrees: degrees[i]!,
      from,
      to: after(from, degreesOfPlace(borders[sector]!)),
      keepsFrom: keeps,
      keepsTo: after(keeps, degreesOfPlace(keepsTo[i]!)),
    };
  });
}

const vector = new Float64Array(2);

/**
 * The direction to which a vector turns a character.
 *
 * @param x to the right
 * @param y downwards, or upwards if the compass says `up: +y`
 * @param present the direction to which it points now; default: the direction in which the compass starts
 * @returns the name of a direction. It is the present one within the dead zone, near its borders, and for a vector that is not finite
 */
export function directionOf(compass: Compass, x: number, y: number, present?: string): string {
  const { names, start, isUpward } = compass;
  const now = present === undefined ? start : Math.max(0, names.indexOf(present));
  vector[0] = x;
  vector[1] = isUpward ? -y : y;
  return names[Number.isFinite(x) && Number.isFinite(y) ? pickDirection(compass, vector, now) : now]!;
}
