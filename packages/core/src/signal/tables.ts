import type { BitPlace, Condition, Term, BitWords } from './condition.js';
import type { Signal } from './definition.js';
import type { Program } from './program.js';
import type { Regions } from './regions.js';

/** A term that does not follow from the regions of one number. It is computed, in order, whenever signals have changed. */
export type ComputedTerm =
  | (BitPlace & { readonly kind: 'joint'; readonly program: Program })
  | (BitPlace & {
      readonly kind: 'band';
      readonly program: Program;
      readonly above: number;
      readonly below: number;
    })
  | (BitPlace & {
      readonly kind: 'lasting';
      readonly condition: Condition;
      /**
       * The expression of the length in milliseconds, which is read when it begins to count. If there is one, `linger` or `settle` is 1.
       */
      readonly length: Program | undefined;
      /** Microseconds it stays on after its condition has turned false; 0 for a settling flag. */
      readonly linger: number;
      /** Microseconds its condition must have been true; 0 for a lingering flag. */
      readonly settle: number;
      /** The index of its timer. */
      readonly timer: number;
    });

/** A band's two thresholds. */
export interface Band {
  readonly above: number;
  readonly below: number;
}

/** Everything about signals that a running performer reads. */
export interface SignalTables {
  /** What marks the handles of these signals. */
  readonly owner: object;
  readonly signals: ReadonlyMap<string, Signal>;
  /** Derived signals by name: a program for a number, a condition for a flag. */
  readonly derived: ReadonlyMap<string, Program | Condition>;
  /** Of each derived band above which number it turns on, and below which off. */
  readonly bands: ReadonlyMap<string, Band>;
  /** The bit of each tag, and of each state with its track, that something asks for. */
  readonly tags: ReadonlyMap<string, BitPlace>;
  /** How many words of bits there are, at least one. */
  readonly words: number;
  /** The bits that are computed: comparisons, bands, lasting flags. All others are set by the game or follow from what shows. */
  readonly computedBits: BitWords;
  readonly terms: readonly Term[];
  /** One entry for each number slot. */
  readonly regions: readonly Regions[];
  readonly computed: readonly ComputedTerm[];
  readonly pulses: readonly Signal[];
  /** The bits of all pulses. */
  readonly pulseBits: BitWords;
  /** The number of timers, for pulses and lasting flags. */
  readonly timers: number;
  /** The first values of flags. */
  readonly firstBits: BitWords;
}

/** Whether a term's bit is computed from signals. */
export const isComputed = ({ kind }: Term): boolean =>
  kind === 'compare' || kind === 'band' || kind === 'lasting';
