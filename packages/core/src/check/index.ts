import type { Controller } from '../controller/controller.js';
import { Decisions } from './decisions.js';
import { FindingList } from './finding.js';
import type { Finding } from './finding.js';
import { Solver } from './solver.js';
import { checkStructure } from './structure.js';
import { Thresholds } from './thresholds.js';

export { findings } from './sentences.js';
export type { FindingCode, Severity } from './sentences.js';
export type { Finding } from './finding.js';

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

/**
 * Checks a controller before any game runs: what nothing uses, what can never show, what flickers, what gets stuck.
 *
 * Every situation that the conditions can tell apart is taken into account: intervals of each number between its
 * thresholds, and the thresholds themselves; flags, choices, pulses, tags; numbers that are read together. Whatever does not
 * matter to a question is not gone through.
 */
export function checkController(controller: Controller): CheckResult {
  const found = new FindingList(controller.definition.accept ?? []);
  checkStructure(controller, found);
  const solvers = { wide: new Solver(controller, true), seen: new Solver(controller, false) };
  new Decisions(controller, found, solvers).check();
  new Thresholds(controller, found, solvers).check();
  found.finish();
  const { wide, seen } = solvers;
  return {
    findings: found.all,
    situations: wide.situations,
    tried: wide.tried + seen.tried,
    givenUp: wide.givenUp + seen.givenUp,
  };
}
