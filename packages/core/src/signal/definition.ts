/**
 * The bounds between which a number stays, and its unit. The runtime accepts other values. The check, the rehearsals and the controls use
 * the bounds.
 */
export interface NumberBounds {
  /** The least and the greatest value, both included. Default: no bound. */
  from?: number | undefined;
  to?: number | undefined;
  /** Whether it is always whole. Default false. */
  whole?: boolean | undefined;
  /** What it counts, for people: `px/s`. */
  unit?: string | undefined;
}

/** A signal as it stands in a document; the value is the first one. */
export type SignalDefinition =
  | ({ number: number } & NumberBounds)
  | { flag: boolean }
  /** One of several names, tested by `mode == 'ladder'`. `first` is the first one by default. */
  | { choice: readonly string[]; first?: string | undefined }
  /** Two numbers that are set together, read as `aim.x` and `aim.y`. */
  | { vector: readonly [number, number] }
  /** `keep`: for how many milliseconds a press counts while nothing uses it. Default 0: at its instant only. */
  | { pulse: true | { keep?: number | undefined } };

/** A signal computed from others. */
export type DerivedDefinition =
  /** An expression: a number or a condition. */
  | string
  /** A band: on when the number is above one value, off when it is below the other, else as it was. */
  | { of: string; above: number; below: number }
  /** Stays true for `linger` milliseconds after the condition has turned false: a number, or an expression that is read at that instant. */
  | { of: string; linger: number | string }
  /** Becomes true once the condition has been true for `settle` milliseconds: likewise, read when it turns true. */
  | { of: string; settle: number | string };

declare const taken: unique symbol;

/**
 * A signal of a controller. It also serves as a handle, with which `set` is faster than with a name.
 *
 * @typeParam V the type of its value, for the compiler only; `never` for a pulse
 */
export interface Signal<out V = unknown> {
  readonly [taken]?: V;
  /** The same for all signals of one controller, and for no other. */
  readonly owner: object;
  readonly name: string;
  readonly kind: 'number' | 'flag' | 'choice' | 'vector' | 'pulse';
  /**
   * A number's place among the number slots; a choice's, which keeps the index of its option; a vector's first of
   * two. -1 for flags and pulses.
   */
  readonly slot: number;
  /** Where a number, a choice or a vector is kept in a row, or the word of a flag or pulse. */
  readonly place: number;
  /** The word of a flag or pulse, and its bit there; 0 for others. */
  readonly word: number;
  readonly bit: number;
  /** A pulse's place among the timers; -1 for others. */
  readonly timer: number;
  /** A pulse's `keep` in microseconds, at least 1. */
  readonly keep: number;
  /** The first value: flags are 1 or 0, choices the index of the option. A vector has two. */
  readonly first: readonly number[];
  /** The options of a choice. */
  readonly options: readonly string[];
  /** The bounds between which a number stays, if the document states them. */
  readonly bounds: NumberBounds | undefined;
}

/** The value of a signal: by its kind a number, true or false, the name of an option, or `[x, y]`. */
export type SignalValue = number | boolean | string | readonly [number, number];
