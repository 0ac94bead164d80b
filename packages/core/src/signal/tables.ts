import type { Condition, Term } from './condition.js';
import type { Signal } from './definition.js';
import type { Program } from './program.js';
import type { Regions } from './regions.js';

/** A term that is not read off one number's regions: computed in order whenever signals have changed. */
export type ComputedTerm =
  | { readonly kind: 'joint'; readonly bit: number; readonly program: Program }
  | {
      readonly kind: 'band';
      readonly bit: number;
      readonly program: Program;
      readonly above: number;
      readonly below: number;
    }
  | {
      readonly kind: 'lasting';
      readonly bit: number;
      readonly condition: Condition;
      /** Microseconds it stays on after its condition has turned false; 0 for a settling flag. */
      readonly linger: number;
      /** Microseconds its condition must have been true; 0 for a lingering flag. */
      readonly settle: number;
      /** Where the instant at which it changes is kept among a performer's numbers. */
      readonly timer: number;
    };

/** Everything about signals that a running performer reads. */
export interface SignalTables {
  readonly signals: ReadonlyMap<string, Signal>;
  /** Derived signals by name: a program for a number, a condition for a flag. */
  readonly derived: ReadonlyMap<string, Program | Condition>;
  readonly terms: readonly Term[];
  /** One entry a number slot. */
  readonly regions: readonly Regions[];
  readonly computed: readonly ComputedTerm[];
  readonly pulses: readonly Signal[];
  /** How many numbers a performer keeps for signals and their instants. */
  readonly numbers: number;
  readonly firstFlags: number;
}
