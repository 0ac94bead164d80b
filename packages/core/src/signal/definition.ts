/** A signal as it stands in a document; the value is the first one. */
export type SignalDefinition =
  | { number: number }
  | { flag: boolean }
  /** `keep`: for how many milliseconds a press counts while nothing uses it. Default 0: at its instant only. */
  | { pulse: true | { keep?: number | undefined } };

/** A signal computed from others. */
export type DerivedDefinition =
  /** An expression: a number or a condition. */
  | string
  /** A band: on when the number is above one value, off when it is below the other, else as it was. */
  | { of: string; above: number; below: number }
  /** Stays true for `linger` milliseconds after the condition has turned false. */
  | { of: string; linger: number }
  /** Becomes true once the condition has been true for `settle` milliseconds. */
  | { of: string; settle: number };

/** How a signal stands in a controller. */
export interface Signal {
  readonly name: string;
  readonly kind: 'number' | 'flag' | 'pulse';
  /** A number's place among a performer's numbers; -1 for others. */
  readonly slot: number;
  /** A flag's or pulse's bit in the word of flags; 0 for numbers. */
  readonly bit: number;
  /** A pulse's place among a performer's numbers for the instant at which it expires; -1 for others. */
  readonly timer: number;
  /** A pulse's `keep` in microseconds, at least 1. */
  readonly keep: number;
  /** The first value; flags are 1 or 0. */
  readonly first: number;
}
