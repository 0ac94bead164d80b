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
export type { FindingCode, Severity } from './sentences.js';
export { acceptOf } from './finding.js';
export type { Finding } from './finding.js';
export { whoWins } from './winners.js';
export type { Winner } from './winners.js';

/** What a check came to. */
export interface CheckResult {
  /** In the order of the check: structure first, then what follows from going through situations. */
  readonly findings: readonly Finding[];
  /** How many situations the conditions can tell apart. */
  readonly situations: number;
  /** How many had to be looked at, in part or whole, to answer every question. */
  readonly tried: number;
  /** Questions that were given up because they would have taken too long; what they ask is not proved. */
  readonly givenUp: number;
}

/** What a check is told besides the controller. */
export interface CheckOptions {
  /** What `measureClips` of `dot-hop/pixels` found in the drawings. */
  readonly drawings?: readonly MeasureFinding[];
  /** What `measureWardrobe` found between the body and what it wears. */
  readonly wardrobe?: readonly WardrobeFinding[];
  /** What `measureParts` found between the parts of drawings. */
  readonly parts?: readonly PartFinding[];
}

/** Where a drawing is named: its clip, or the sheet for what concerns cells alone. */
function placeOf({ clips }: Controller, { subject, frames }: MeasureFinding): (string | number)[] {
  if (frames.length === 0) return ['sheets', subject];
  // A clip that `rows` wrote out stands under the name of the one that has them.
  return ['clips', clips.get(subject)?.of ?? subject];
}

/**
 * Checks a controller before any game runs: what nothing uses, what can never show, what flickers, what gets stuck.
 *
 * Every situation that the conditions can tell apart is taken into account: intervals of each number between its
 * thresholds, and the thresholds themselves; flags, choices, pulses, tags; numbers that are read together. Whatever does not
 * matter to a question is not gone through.
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
