/** By which of the rules of decision a switch happened. */
export const Rule = {
  /** The state it began in. */
  start: 0,
  /** A higher rank took over. */
  rank: 1,
  /** A hop of the state that was left. */
  hop: 2,
  /** An act ended and its `then` followed. */
  then: 3,
  /** The state gave way to the highest-ranked one that wanted in. */
  way: 4,
  /** Nothing else wanted in. */
  rest: 5,
  /** A new press began the act again. */
  again: 6,
  /** It was asked for by `ask`. */
  ask: 7,
  /** It was put there by `cut`. */
  cut: 8,
  /** A step of a `route`. */
  route: 9,
} as const;

export type RuleName = keyof typeof Rule;

export const ruleNames = Object.keys(Rule) as RuleName[];
