import type { Compass, DiagonalRule } from 'dot-hop';
import { dialOf } from 'dot-hop/view';
import type { DialSector } from 'dot-hop/view';

/** Where two directions meet, in degrees clockwise from the right. */
export interface Meeting {
  /** Where one gives way to the next. */
  readonly border: number;
  /** The middle between the two. */
  readonly middle: number;
  /** Degrees between the two. */
  readonly gap: number;
  /** Which rule gives what is nearer to the middle to the first of them, and which to the next. Without them both are as level. */
  readonly leans: readonly [DiagonalRule, DiagonalRule] | undefined;
}

/** What of a compass is taken hold of on its dial. */
export type Grip =
  | { readonly kind: 'vector' }
  | { readonly kind: 'dead zone' }
  | { readonly kind: 'stick' | 'diagonal'; readonly at: Meeting };

/** The dial as it is drawn, in CSS pixels. */
export interface DialSize {
  readonly radius: number;
  readonly deadZone: number;
}

/** How near something is taken hold of, in CSS pixels. */
const near = 7;
/** A border is taken hold of in its outer part only: further in the vector is moved. */
const outer = 0.6;
/** Where the knobs of the diagonals lie, of the radius. */
export const knobsAt = 0.93;

const level = (degrees: number): number =>
  Math.round(Math.abs(Math.cos((degrees * Math.PI) / 180)) * 1e9) / 1e9;
const turnBetween = (from: number, to: number): number => ((((to - from) % 360) + 540) % 360) - 180;

/** Where the directions of a compass meet. */
export function meetingsOf(compass: Compass): Meeting[] {
  const sectors = dialOf(compass);
  if (sectors.length < 2) return [];
  const sorted = [...sectors].sort((a, b) => a.degrees - b.degrees);
  return sorted.map((one, i) => meeting(one, sorted[(i + 1) % sorted.length]!));
}

function meeting(one: DialSector, next: DialSector): Meeting {
  const gap = (((next.degrees - one.degrees) % 360) + 360) % 360 || 360;
  const [first, second] = [level(one.degrees), level(next.degrees)];
  return {
    border: one.to,
    middle: one.degrees + gap / 2,
    gap,
    leans:
      first === second ? undefined : first > second ? ['horizontal', 'vertical'] : ['vertical', 'horizontal'],
  };
}

/** What is taken hold of at a place of the dial, in CSS pixels from its middle. */
export function gripAt(compass: Compass, { radius, deadZone }: DialSize, x: number, y: number): Grip {
  const long = Math.hypot(x, y);
  if (deadZone > 0 && Math.abs(long - deadZone) < near) return { kind: 'dead zone' };
  const angle = (Math.atan2(y, x) * 180) / Math.PI;
  const meetings = meetingsOf(compass);
  const away = (degrees: number): number => Math.abs(turnBetween(degrees, angle) * (Math.PI / 180)) * long;
  if (Math.abs(long - radius * knobsAt) < near) {
    const at = meetings.find(({ border, leans }) => leans !== undefined && away(border) < near + 3);
    if (at !== undefined) return { kind: 'diagonal', at };
  }
  if (long < radius * outer || long > radius) return { kind: 'vector' };
  const at = meetings.find(({ border }) =>
    [border, border - compass.stick, border + compass.stick].some((edge) => away(edge) < near),
  );
  return at === undefined ? { kind: 'vector' } : { kind: 'stick', at };
}

/** By how many degrees a direction sticks whose border was dragged to an angle; what the compass can take at most. */
export function stickAt({ border, middle, gap }: Meeting, angle: number): number {
  const room = gap / 2 - Math.abs(turnBetween(middle, border));
  const wanted = Math.abs(turnBetween(border, angle));
  return Math.round(Math.min(wanted, Math.max(0, room - 1)) * 2) / 2;
}

/** What a diagonal means whose knob was dragged to an angle. */
export function diagonalAt({ middle, gap, leans }: Meeting, angle: number): DiagonalRule {
  const off = turnBetween(middle, angle);
  if (leans === undefined || Math.abs(off) < gap / 8) return 'nearest';
  // The border goes towards the next direction: the first gains what lies between.
  return off > 0 ? leans[0] : leans[1];
}
