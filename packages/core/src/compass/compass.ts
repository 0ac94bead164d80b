import type { DocumentPath, ProblemList } from '../problem/problem.js';

/** The named compasses, or directions by name at degrees: 0 is right (east), 90 is down (south). */
export type DirectionsDefinition = 'none' | 'sides' | 'four' | 'eight' | Readonly<Record<string, number>>;

/** A compass as it stands in a document. */
export interface CompassDefinition {
  directions: DirectionsDefinition;
  /** Directions drawn as the mirror image of another. */
  mirror?: Readonly<Record<string, string>> | undefined;
  /** The vector that turns the character: two expressions, or the name of a vector. */
  by?: string | readonly [string | number, string | number] | undefined;
  /** Below this length the character keeps facing where it faced. Default 0. */
  deadZone?: number | undefined;
  /** The direction it faces at first. Default: the first one. */
  start?: string | undefined;
}

/** The directions a character can face. */
export interface Compass {
  readonly names: readonly string[];
  /** Unit vectors, right and down positive. */
  readonly x: readonly number[];
  readonly y: readonly number[];
  /** For each direction the one whose drawing it mirrors, or -1. */
  readonly mirrorOf: readonly number[];
  readonly deadZone: number;
  readonly start: number;
}

const named: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  none: { front: 0 },
  sides: { east: 0, west: 180 },
  four: { east: 0, south: 90, west: 180, north: 270 },
  eight: {
    east: 0,
    southeast: 45,
    south: 90,
    southwest: 135,
    west: 180,
    northwest: 225,
    north: 270,
    northeast: 315,
  },
};

/** The compass of a character that never turns. */
export const noCompass: Compass = { names: ['front'], x: [1], y: [0], mirrorOf: [-1], deadZone: 0, start: 0 };

/** Builds a compass; problems leave a compass that can still be used to find further problems. */
export function buildCompass(
  definition: CompassDefinition,
  path: DocumentPath,
  problems: ProblemList,
): Compass {
  const { directions, deadZone = 0 } = definition;
  const degrees = typeof directions === 'string' ? named[directions]! : directions;
  const names = Object.keys(degrees);
  if (directions !== 'none' && names.length < 2) {
    problems.add('compass-few', [...path, 'directions'], { count: names.length });
    return noCompass;
  }
  checkAngles(degrees, path, problems);
  if (!(deadZone >= 0))
    problems.add('field-kind', [...path, 'deadZone'], { expected: '0 or more', received: deadZone });
  const place = (name: string, at: DocumentPath): number => {
    const index = names.indexOf(name);
    if (index < 0) problems.add('direction-unknown', at, { name, known: names });
    return index;
  };
  const mirrorOf = new Array<number>(names.length).fill(-1);
  for (const [direction, from] of Object.entries(definition.mirror ?? {})) {
    const at = [...path, 'mirror', direction];
    const index = place(direction, at);
    if (index >= 0) mirrorOf[index] = place(from, at);
    if (definition.mirror?.[from] !== undefined) problems.add('compass-mirror', at, { direction, from });
  }
  const start = definition.start === undefined ? 0 : Math.max(0, place(definition.start, [...path, 'start']));
  const radians = Object.values(degrees).map((angle) => (angle * Math.PI) / 180);
  return { names, x: radians.map(Math.cos), y: radians.map(Math.sin), mirrorOf, deadZone, start };
}

function checkAngles(
  degrees: Readonly<Record<string, number>>,
  path: DocumentPath,
  problems: ProblemList,
): void {
  const seen = new Map<number, string>();
  for (const [name, angle] of Object.entries(degrees)) {
    const at = [...path, 'directions', name];
    if (!Number.isFinite(angle)) problems.add('field-kind', at, { expected: 'degrees', received: angle });
    const turned = ((angle % 360) + 360) % 360;
    const one = seen.get(turned);
    if (one !== undefined) problems.add('compass-same', at, { one, other: name, degrees: turned });
    seen.set(turned, name);
  }
}

/**
 * The direction nearest to a vector.
 *
 * @returns its index; -1 where the vector is shorter than the dead zone, or has no length, so that the
 *   character keeps facing where it faced. Of two equally near directions the first named one is taken.
 */
export function nearestDirection(compass: Compass, x: number, y: number): number {
  const length = Math.hypot(x, y);
  if (length < compass.deadZone || length === 0) return -1;
  let nearest = -1;
  let most = -Infinity;
  for (let i = 0; i < compass.x.length; i++) {
    // The cosine of the angle between them; divided by the length, so that huge vectors do not overflow.
    const along = compass.x[i]! * (x / length) + compass.y[i]! * (y / length);
    if (along > most) {
      most = along;
      nearest = i;
    }
  }
  return nearest;
}
