import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import { Decisions } from './decisions.js';
import { FindingList } from './finding.js';
import type { Finding } from './finding.js';
import type { MeasureFinding } from '../pixels/measure.js';
import type { PartFinding } from '../pixels/parts.js';
import type { WardrobeFinding } from '../pixels/wardrobe.js';
import { Solver } from './solver.js';
import { checkStructure } from './structure.js';
import { TakeoverChecks } from './takeovers.js';
import { Thresholds } from './thresholds.js';

export { findings } from './sentences.js';
export type { FindingCode, FindingWording, Severity } from './sentences.js';
export { acceptOf } from './finding.js';
export type { Finding } from './finding.js';
export { whoWins } from './winners.js';
export type { Winner } from './winners.js';

/** The result of a check. */
export interface CheckResult {
  /** The findings about structure first, then those about situations. */
  readonly findings: readonly Finding[];
  /** The number of situations that the conditions can tell apart. */
  readonly situations: number;
  /** The number of situations that were looked at, in part or whole. */
  readonly tried: number;
  /** The number of questions that were given up because they would have taken too long. Nothing is known about them. */
  readonly givenUp: number;
}

/** Further input for a check. */
export interface CheckOptions {
  /** The findings of `measureClips` of `dot-hop/pixels`. Default: none. */
  readonly drawings?: readonly MeasureFinding[];
  /** The findings of `measureWardrobe`. Default: none. */
  readonly wardrobe?: readonly WardrobeFinding[];
  /** The findings of `measureParts`. Default: none. */
  readonly parts?: readonly PartFinding[];
}

/** Where a drawing is named: its clip, or the sheet for what concerns cells alone. */
function placeOf({ clips }: Controller, { subject, frames }: MeasureFinding): (string | number)[] {
  if (frames.length === 0) return ['sheets', subject];
  // A clip that `rows` wrote out stands under the name of the one that has them.
  return ['clips', clips.get(subject)?.of ?? subject];
}

/**
 * Checks a controller without running it: finds what is never used, what can never show, what flickers and what gets stuck.
 *
 * It considers every situation that the conditions can tell apart: the thresholds of each number and the intervals between
 * them, flags, choices, pulses, tags, and numbers that are read together. It skips whatever does not matter to a question.
 */
export function checkController(
  controller: Controller,
  { drawings = [], wardrobe = [], parts = [] }: CheckOptions = {},
): CheckResult {
  const { accept = [], states } = controller.definition;
  const found = new FindingList(accept);
  checkStructure(controller, found);
  for (const one of drawings) found.add(one.code, placeOf(controller, one), { ...one });
  for (const { code, path, text } of [...wardrobe, ...parts]) found.add(code, path, { text });
  const solvers = {
    wide: new Solver(controller, true),
    seen: new Solver(controller, false),
    reached: new Map<State, boolean>(),
  };
  // Without states each clip is one, to be looked at: there is nothing to decide yet.
  if (states !== undefined) {
    for (const track of controller.tracks) {
      new Decisions(controller, track, found, solvers).check();
      new Thresholds(controller, track, found, solvers).check();
      new TakeoverChecks(controller, track, found, solvers).check();
    }
  }
  found.finish();
  const { wide, seen } = solvers;
  return {
    findings: found.all,
    situations: wide.situations,
    tried: wide.tried + seen.tried,
    givenUp: wide.givenUp + seen.givenUp,
  };
}
