import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { CompassDefinition, DirectionsDefinition } from './definition.js';
import { bordersOf, clockwise, placeOnCircle } from './circle.js';
import type { Circle } from './circle.js';

/** The directions a character can face, and what turns it. */
export interface Compass extends Circle {
  readonly names: readonly string[];
  /** Degrees of each direction, from 0 to under 360: 0 is right, 90 is down. */
  readonly degrees: readonly number[];
  /** For each direction the one whose drawing it mirrors; -1 for none. */
  readonly mirrorOf: readonly number[];
  /** Whether the vector's second part grows upwards. */
  readonly isUpward: boolean;
  readonly deadZone: number;
  /** Degrees by which a border must be passed. */
  readonly stick: number;
  /** Microseconds that each direction shows at least; 0 for a compass that turns at once. */
  readonly through: number;
  readonly start: number;
}

const eight = ['east', 'southeast', 'south', 'southwest', 'west', 'northwest', 'north', 'northeast'];

/** Eight directions with one between each two, named as on a mariner's compass. */
const sixteen = eight.flatMap((name, i) => {
  const next = eight[(i + 1) % 8]!;
  const [main, between] = i % 2 === 0 ? [name, next] : [next, name];
  return [name, `${main}-${between}`];
});

const evenly = (names: readonly string[]): Record<string, number> =>
  Object.fromEntries(names.map((name, i) => [name, (i * 360) / names.length]));

const named: Readonly<Record<Extract<DirectionsDefinition, string>, Readonly<Record<string, number>>>> = {
  none: { front: 0 },
  sides: evenly(['east', 'west']),
  four: evenly(['east', 'south', 'west', 'north']),
  eight: evenly(eight),
  sixteen: evenly(sixteen),
};

/** The compass of a character that never turns. */
export const noCompass: Compass = {
  names: ['front'],
  degrees: [0],
  mirrorOf: [-1],
  isUpward: false,
  deadZone: 0,
  stick: 0,
  through: 0,
  start: 0,
  order: [0],
  borders: [],
  keepsFrom: [0],
  keepsTo: [4],
  edges: [[0, 0, 0, 0]],
};

/** Builds a compass; problems leave a compass that can still be used to find further problems. */
export function buildCompass(
  definition: CompassDefinition,
  path: DocumentPath,
  problems: ProblemList,
): Compass {
  const { directions, deadZone = 0, stick = 0, through = 0, diagonal = 'nearest' } = definition;
  const angles = typeof directions === 'string' ? named[directions] : directions;
  const names = Object.keys(angles);
  if (directions !== 'none' && names.length < 2) {
    problems.add('compass-few', [...path, 'directions'], { count: names.length });
    return noCompass;
  }
  checkAngles(angles, path, problems);
  const degrees = Object.values(angles).map(clockwise);
  const borders = bordersOf(degrees, diagonal, stick);
  const most = Math.min(...borders.map(({ room }) => room));
  if (!(stick >= 0 && stick < most))
    problems.add('compass-stick', [...path, 'stick'], { received: stick, most });
  const place = (name: string, at: DocumentPath): number => {
    const index = names.indexOf(name);
    if (index < 0) problems.add('direction-unknown', at, { name, known: names });
    return index;
  };
  const start = definition.start === undefined ? 0 : Math.max(0, place(definition.start, [...path, 'start']));
  return {
    names,
    degrees,
    mirrorOf: mirrors(definition, names, degrees, place, [...path, 'mirror'], problems),
    isUpward: definition.up === '+y',
    deadZone,
    stick,
    through: Math.round(through * 1000),
    start,
    ...placeOnCircle(degrees, borders),
  };
}

/** For each direction the one whose drawing it mirrors, or -1. */
function mirrors(
  { mirror = {} }: CompassDefinition,
  names: readonly string[],
  degrees: readonly number[],
  place: (name: string, at: DocumentPath) => number,
  path: DocumentPath,
  problems: ProblemList,
): number[] {
  const mirrorOf = new Array<number>(names.length).fill(-1);
  if (typeof mirror === 'string') {
    // Up and down (within rounding) are on neither side.
    const side = (angle: number): number => Math.sign(Math.round(Math.cos((angle * Math.PI) / 180) * 1e9));
    degrees.forEach((angle, index) => {
      if (side(angle) !== (mirror === 'west' ? -1 : 1)) return;
      mirrorOf[index] = degrees.findIndex((other) => apart(other, 180 - angle) < 1e-9);
      if (mirrorOf[index] < 0)
        problems.add('compass-mirror-none', path, {
          direction: names[index],
          degrees: clockwise(180 - angle),
        });
    });
    return mirrorOf;
  }
  for (const [direction, from] of Object.entries(mirror)) {
    const at = [...path, direction];
    const index = place(direction, at);
    const drawn = place(from, at);
    if (index >= 0) mirrorOf[index] = drawn;
    if (Object.hasOwn(mirror, from)) problems.add('compass-mirror', at, { direction, from });
    else if (index >= 0 && drawn >= 0 && apart(degrees[index]!, 180 - degrees[drawn]!) > 45)
      problems.add('compass-mirror-far', at, { direction, from, degrees: clockwise(180 - degrees[drawn]!) });
  }
  return mirrorOf;
}

/** Degrees between two angles, from 0 to 180. */
export function apart(one: number, other: number): number {
  const turned = clockwise(one - other);
  return Math.min(turned, 360 - turned);
}

function checkAngles(
  degrees: Readonly<Record<string, number>>,
  path: DocumentPath,
  problems: ProblemList,
): void {
  const seen = new Map<number, string>();
  for (const [name, angle] of Object.entries(degrees)) {
    const at = [...path, 'directions', name];
    const turned = clockwise(angle);
    const one = seen.get(turned);
    if (one !== undefined) problems.add('compass-same', at, { one, other: name, degrees: turned });
    seen.set(turned, name);
  }
}

/**
 * The next direction on the shorter way round from one to another; of two equal ways the one by the side
 * that faces the viewer, clockwise if both do.
 */
export function neighbourTowards({ degrees, order }: Compass, from: number, to: number): number {
  const turn = clockwise(degrees[to]! - degrees[from]!);
  // The sine is not quite 0 where it should be.
  const isSouthward = Math.sin(((degrees[from]! + 90) * Math.PI) / 180) > -1e-9;
  const step = turn < 180 || (turn === 180 && isSouthward) ? 1 : order.length - 1;
  return order[(order.indexOf(from) + step) % order.length]!;
}
