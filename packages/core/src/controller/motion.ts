import type { Clip } from '../clip/clip.js';
import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { SignalCompiler } from '../signal/compiler.js';
import type { Condition } from '../signal/condition.js';
import type { Rate, Scrub, State } from './state.js';
import type { StateDefinition } from './definition.js';

/** The fastest that a state's time can run, as a multiple of what is drawn. */
const fastest = 64;

interface MotionInput {
  readonly signals: SignalCompiler;
  readonly problems: ProblemList;
}

/** The bands that pick a gait. */
export function gaitBands({ gaits }: StateDefinition, path: DocumentPath, input: MotionInput): Condition[] {
  if (gaits === undefined) return [];
  const { by, shows, above, margin = 0 } = gaits;
  const at = [...path, 'gaits'];
  const { problems, signals } = input;
  if (shows.length < 2 || above.length !== shows.length - 1)
    problems.add('gaits-count', at, { shows: shows.length, above: above.length });
  if (above.some((one, i) => i > 0 && !(one > above[i - 1]!)))
    problems.add('gaits-order', [...at, 'above'], { received: above });
  return above.flatMap((one) => {
    const band = signals.band(by, one, one - margin, [...at, 'by']);
    return band === undefined ? [] : [band];
  });
}

/** How fast a state's time runs. */
export function rateOf(
  { rate }: StateDefinition,
  clips: readonly Clip[],
  path: DocumentPath,
  input: MotionInput,
): Rate | undefined {
  if (rate === undefined) return undefined;
  const { problems, signals } = input;
  const plain = typeof rate !== 'object';
  const { least = 0, most = fastest } = plain ? {} : rate;
  if (!(least >= 0 && least <= most && most <= fastest))
    problems.add('rate-bounds', path, { least, most, fastest });
  const number = signals.number(plain ? rate : rate.travel, plain ? path : [...path, 'travel']);
  const still = clips.find(({ stride }) => !plain && !(stride !== undefined && stride > 0));
  if (still !== undefined) problems.add('rate-stride', path, { clip: still.name });
  const constant = number?.constant;
  if (constant !== undefined && !(Math.abs(constant) <= fastest))
    problems.add('rate-fast', path, { received: constant, fastest });
  const backwards = number !== undefined && plain && !signals.isFromZero(rate) ? -fastest : least;
  return number && { program: number.program, travels: !plain, least: backwards, most };
}

/** How long a state lasts, if it says so. */
export function lastsOf(
  definition: StateDefinition,
  kind: State['kind'],
  path: DocumentPath,
  input: MotionInput,
): State['lasts'] {
  const { lasts, fit = false } = definition;
  const { problems, signals } = input;
  if (fit && lasts === undefined) problems.add('fit-alone', [...path, 'fit']);
  if (lasts === undefined) return undefined;
  if (kind === 'posture') problems.add('lasts-posture', [...path, 'lasts']);
  for (const field of ['rate', 'scrub', 'bridges'] as const)
    if (fit && definition[field] !== undefined) problems.add('fit-with', [...path, 'fit'], { field });
  const length = signals.length(lasts, [...path, 'lasts']);
  return length && { program: length.program, fits: fit };
}

/** The number that says which frame shows. */
export function scrubOf(
  { scrub, lasts }: StateDefinition,
  kind: State['kind'],
  path: DocumentPath,
  input: MotionInput,
): Scrub | undefined {
  if (scrub === undefined || (kind === 'act' && lasts === undefined)) return undefined;
  const { by, from, to } = scrub;
  const number = input.signals.number(by, [...path, 'by']);
  if (from === to) input.problems.add('scrub-range', path, { from, to });
  return number && { program: number.program, from, to };
}
