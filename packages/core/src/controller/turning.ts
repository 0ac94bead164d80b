import type { Compass } from '../compass/compass.js';
import type { VectorDefinition } from '../compass/definition.js';
import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { SignalCompiler } from '../signal/compiler.js';
import { placeOf } from '../signal/program.js';
import type { NumberExpression } from '../signal/comparison.js';
import type { Program } from '../signal/program.js';
import type { ControllerDefinition, StateDefinition } from './definition.js';

/** A vector that turns the character. */
export interface Turning {
  readonly x: Program;
  readonly y: Program;
  /** Where its parts are kept among the number slots, if they are signals as they stand; -1 where a program computes them. */
  readonly xPlace: number;
  readonly yPlace: number;
  /** The compass it turns, with the dead zone that counts for this vector. */
  readonly compass: Compass;
  /** Whether a number's regions say where it turns, so that a step has nothing to compute. */
  readonly inRegions: boolean;
}

/**
 * Compiles what turns the character. A compass of two sides over one signal is cut into the regions of that number, so turning
 * costs nothing until a border is passed. Any other vector is read again when a part of it has left the square in which the
 * compass cannot point elsewhere (see `safeRadius`).
 *
 * @param states all that may take vectors of their own
 * @returns `undefined` for a character that never turns
 */
export function compileTurning(
  { compass: definition }: ControllerDefinition,
  states: readonly { readonly definition: StateDefinition }[],
  compass: Compass,
  signals: SignalCompiler,
  problems: ProblemList,
): Turning | undefined {
  if (definition === undefined || definition.directions === 'none') return undefined;
  if (definition.by === undefined) {
    problems.add('compass-by', ['compass', 'by']);
    return undefined;
  }
  // Where states take other vectors too, each counts while its state shows.
  const isOnlyVector = states.every((one) => typeof one.definition.facing !== 'object');
  if (definition.directions === 'sides' && isOnlyVector && isOneNumber(definition.by)) {
    const x = signals.number(definition.by[0], ['compass', 'by', 0]);
    if (x === undefined) return undefined;
    if (x.plain?.shape === 'plain') {
      const { deadZone } = compass;
      const y = signals.number(0, ['compass', 'by', 1])!;
      signals
        .regionsOf(x.plain.slot)
        .addTurn([0, deadZone, -deadZone], (value) =>
          Math.abs(value) < deadZone || value === 0 ? -1 : value > 0 ? 0 : 1,
        );
      return { ...partsOf(x, y), compass, inRegions: true };
    }
  }
  return turningBy(definition.by, compass, ['compass', 'by'], signals);
}

const isOneNumber = (by: VectorDefinition): by is readonly [string | number, string | number] =>
  typeof by !== 'string' && Number(by[1]) === 0;

/** Reads one vector; `undefined` after a problem was added. */
export function turningBy(
  by: VectorDefinition,
  compass: Compass,
  path: DocumentPath,
  signals: SignalCompiler,
): Turning | undefined {
  const parts = typeof by === 'string' ? [`${by}.x`, `${by}.y`] : by;
  const at = (part: number): DocumentPath => (typeof by === 'string' ? path : [...path, part]);
  const x = signals.number(parts[0], at(0));
  const y = signals.number(parts[1], at(1));
  if (x === undefined || y === undefined) return undefined;
  // Of a signal as it stands the interval is narrowed by the compass; any other expression is looked at each time.
  for (const part of [x, y]) if (part.plain?.shape !== 'plain') signals.watch(part);
  return { ...partsOf(x, y), compass, inRegions: false };
}

function partsOf(x: NumberExpression, y: NumberExpression): Pick<Turning, 'x' | 'y' | 'xPlace' | 'yPlace'> {
  const place = ({ plain }: NumberExpression): number =>
    plain?.shape === 'plain' ? placeOf(plain.slot) : -1;
  return { x: x.program, y: y.program, xPlace: place(x), yPlace: place(y) };
}
