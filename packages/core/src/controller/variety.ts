import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { CueVariety, Variety } from './state.js';
import type { ControllerDefinition, VarietyDefinition } from './definition.js';

/**
 * How one of several is picked.
 *
 * @param index its number among the varieties of the controller
 * @param path where it stands
 */
export function varietyOf(
  definition: VarietyDefinition,
  index: number,
  path: DocumentPath,
  problems: ProblemList,
): Variety {
  const { any, pick = 'turn', weights, repeats = false } = definition;
  if (any.length < 2) problems.add('variety-count', [...path, 'any'], { received: any.length });
  for (const field of ['weights', 'repeats'] as const)
    if (pick === 'turn' && definition[field] !== undefined)
      problems.add('variety-turn', [...path, field], { field });
  if (weights !== undefined && weights.length !== any.length)
    problems.add('variety-weights', [...path, 'weights'], { received: weights.length, expected: any.length });
  else if (weights?.every((weight) => weight === 0) === true)
    problems.add('variety-none', [...path, 'weights']);
  return {
    index,
    count: any.length,
    weights: pick === 'turn' ? undefined : (weights ?? any.map(() => 1)),
    repeats,
  };
}

/** The names that cues are told by, and how one is picked where there are several. */
export interface ToldCues {
  /** The cues on frames, and behind them what some of these are told by. */
  readonly names: readonly string[];
  /** By the place of a cue among the names; empty where each is told by its own. */
  readonly varieties: readonly (CueVariety | undefined)[];
}

/**
 * Finds by which names cues are told.
 *
 * @param placed the cues on frames
 * @param first the number of the first of their varieties: those of states come before
 */
export function toldCues(
  { cues }: ControllerDefinition,
  placed: readonly string[],
  first: number,
  problems: ProblemList,
): ToldCues {
  if (cues === undefined) return { names: placed, varieties: [] };
  const names = [...new Set([...placed, ...Object.values(cues).flatMap(({ any }) => any)])];
  const numbers = new Map(Object.keys(cues).map((cue, i) => [cue, first + i]));
  for (const cue of numbers.keys())
    if (!placed.includes(cue)) problems.add('cue-unplaced', ['cues', cue], { name: cue, known: placed });
  const varieties = placed.map((cue): CueVariety | undefined => {
    const definition = numbers.has(cue) ? cues[cue] : undefined;
    if (definition === undefined) return undefined;
    const variety = varietyOf(definition, numbers.get(cue)!, ['cues', cue], problems);
    return { ...variety, names: definition.any.map((name) => names.indexOf(name)) };
  });
  return { names, varieties };
}
