import type { CheckResult, Finding } from 'dot-hop/check';
import type { PlacedProblem } from 'dot-hop/document';
import type { Character } from './character.js';

/** A finding with its place in the file. */
export interface PlacedFinding extends Finding {
  readonly file: string;
  readonly line: number;
  readonly column: number;
}

/** A document that was checked. */
export interface Checked {
  readonly file: string;
  readonly character: Character;
  readonly result: CheckResult;
  /** In the order of the file. */
  readonly findings: readonly PlacedFinding[];
}

/** A document that can not be compiled: there is nothing to check yet. */
export interface Broken {
  readonly file: string;
  readonly problems: readonly PlacedProblem[];
}

export const isBroken = (one: Checked | Broken): one is Broken => 'problems' in one;
