import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { CueVariety, Variety } from './controller.js';
import type { ControllerDefinition, VarietyDefinition } from './definition.js';

/**
 * How one of several is picked.
 *
 * @param index its number among the varieties of the controller
 * @param path where it stands
 */
export function varietyOf(
  { any, pick = 'turn', weights, repeats = false }: VarietyDefinition,
  index: number,
  path: DocumentPath,
  problems: ProblemList,
): Variety {
  if (any.length < 2) problems.add('variety-count', [...path, 'any'], { received: any.length });
  if (pick === 'turn') {
    if (weights !== undefined) problems.add('variety-turn', [...path, 'weights'], { field: 'weights' });
    if (repeats) problems.add('variety-turn', [...path, 'repeats'], { field: 'repeats' });
  }
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

/**
 * The cues that are told by one of several names each time.
 *
 * @param cueNames those on frames; what they are told by is added
 * @param first the number of the first of their varieties: those of states come before
 * @returns by the index of the cue on the frame
 */
export function cueVarietiesOf(
  { cues = {} }: ControllerDefinition,
  cueNames: string[],
  first: number,
  problems: ProblemList,
): (CueVariety | undefined)[] {
  const placed = cueNames.slice();
  const found: (CueVariety | undefined)[] = [];
  Object.entries(cues).forEach(([name, definition], i) => {
    const path = ['cues', name];
    const cue = placed.indexOf(name);
    // A place below 0 is read by nobody: there is a problem then.
    if (cue < 0) problems.add('cue-unplaced', path, { name, known: placed });
    const names = definition.any.map((one) => {
      const known = cueNames.indexOf(one);
      return known >= 0 ? known : cueNames.push(one) - 1;
    });
    found[cue] = { ...varietyOf(definition, first + i, path, problems), names };
  });
  return found;
}
