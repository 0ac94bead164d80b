import type { Condition, Term, Words } from './condition.js';
import type { Signal } from './definition.js';
import type { Program } from './program.js';
import type { Regions } from './regions.js';

/** Where the bit of a computed term is. */
interface Place {
  readonly word: keyof Words;
  readonly bit: number;
}

/** A term that is not read off one number's regions: computed in order whenever signals have changed. */
export type ComputedTerm =
  | (Place & { readonly kind: 'joint'; readonly program: Program })
  | (Place & {
      readonly kind: 'band';
      readonly program: Program;
      readonly above: number;
      readonly below: number;
    })
  | (Place & {
      readonly kind: 'lasting';
      readonly condition: Condition;
      /** Microseconds it stays on after its condition has turned false; 0 for a settling flag. */
      readonly linger: number;
      /** Microseconds its condition must have been true; 0 for a lingering flag. */
      readonly settle: number;
      /** Its place among the timers. */
      readonly timer: number;
    });

/** Everything about signals that a running performer reads. */
export interface SignalTables {
  /** What marks the handles of these signals as theirs. */
  readonly owner: object;
  readonly signals: ReadonlyMap<string, Signal>;
  /** Derived signals by name: a program for a number, a condition for a flag. */
  readonly derived: ReadonlyMap<string, Program | Condition>;
  /** The bit of each tag in the word of flags. */
  readonly tags: ReadonlyMap<string, number>;
  readonly terms: readonly Term[];
  /** One entry a number slot. */
  readonly regions: readonly Regions[];
  readonly computed: readonly ComputedTerm[];
  readonly pulses: readonly Signal[];
  /** The bits of all pulses. */
  readonly pulseBits: number;
  /** How many instants of pulses and lasting flags are kept. */
  readonly timers: number;
  readonly firstFlags: number;
}
