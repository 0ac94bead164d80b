import { imagesOf } from '../sheet/images.js';
import type { ControllerDefinition } from '../controller/definition.js';
import type { DocumentPath, Problem } from '../problem/problem.js';
import { buildWith } from './bases.js';
import type { Bases } from './bases.js';
import type { CharacterDocument, ReaderOf } from './read.js';
import { isMap } from '../shape/check.js';
import { documentShape } from './shape.js';
import type { PlacedProblem } from './source.js';
import { validate } from './validate.js';

/** The part of a document that has the right shape. It may be impossible to compile. */
export interface SoundPart extends CharacterDocument {
  /** All problems of its structure. Empty if the definition is the whole document. */
  readonly problems: readonly PlacedProblem[];
}

/** What is taken out brings at most so many further faults to light, one behind the other: as deep as fields lie in fields. */
const mostPasses = 12;

/** See `readSoundPart`. */
export function soundPartWith(
  readerOf: ReaderOf,
  text: string,
  file: string | undefined,
  bases: Bases | undefined,
): SoundPart {
  const { source, layers } = buildWith(readerOf, text, file, bases);
  const problems = validate(documentShape, source.value, 'dotHop');
  let data = source.value;
  let left = problems;
  for (let pass = 0; left.length > 0 && pass < mostPasses; pass++) {
    // From the back, so that the numbers of items before stay as they are.
    for (const problem of [...left].reverse()) data = without(data, problem);
    left = validate(documentShape, data, 'dotHop');
  }
  const definition = left.length === 0 ? (data as ControllerDefinition) : empty;
  return {
    source,
    definition,
    images: imagesOf(definition.sheets),
    layers,
    problems: problems.length === 0 ? [] : source.placed(problems).problems,
  };
}

const empty: ControllerDefinition = { dotHop: 1, sheets: {}, clips: {} };

/** Takes out what a problem is about: the value at its place; of a field that is missing, what misses it. */
function without(data: unknown, { code, path }: Problem): unknown {
  const isMissing = code === 'field-missing';
  const at = isMissing ? path.slice(0, -1) : path;
  if (at.length > 0) return removed(data, at);
  // What every document has, whatever else is wrong with it.
  return { ...empty, ...(isMissing && isMap(data) ? data : {}) };
}

/** The data without what is at a path; the data given is not changed. */
function removed(data: unknown, [step, ...rest]: DocumentPath): unknown {
  const isHere = rest.length === 0;
  if (Array.isArray(data))
    return data.flatMap((one: unknown, i) =>
      i !== Number(step) ? [one] : isHere ? [] : [removed(one, rest)],
    );
  if (!isMap(data)) return data;
  return Object.fromEntries(
    Object.entries(data).flatMap(([name, one]) =>
      name !== String(step) ? [[name, one]] : isHere ? [] : [[name, removed(one, rest)]],
    ),
  );
}
