/** One comparison, flag, pulse, band or lasting flag: what conditions are made of, each tested once for all. */
export interface Term {
  readonly index: number;
  /** As a person wrote it: `vy < 0`, `grounded`, or the name of a derived signal. */
  readonly text: string;
  readonly kind: 'flag' | 'pulse' | 'compare' | 'band' | 'lasting';
  /** Which word its bit is in: what was set (`flags`) or what is computed from it (`terms`). */
  readonly word: 'flags' | 'terms';
  readonly bit: number;
  /** The names of the signals it reads, first values not included. */
  readonly reads: readonly string[];
}

/** A condition broken into terms. */
export type Condition =
  | { readonly op: 'constant'; readonly value: boolean }
  | { readonly op: 'term'; readonly term: Term }
  | { readonly op: 'not'; readonly part: Condition }
  | { readonly op: 'and' | 'or'; readonly left: Condition; readonly right: Condition };

/** Whether a condition holds for the two words. */
export function holds(condition: Condition, flags: number, terms: number): boolean {
  switch (condition.op) {
    case 'constant':
      return condition.value;
    case 'term':
      return ((condition.term.word === 'flags' ? flags : terms) & condition.term.bit) !== 0;
    case 'not':
      return !holds(condition.part, flags, terms);
    case 'and':
      return holds(condition.left, flags, terms) && holds(condition.right, flags, terms);
    case 'or':
      return holds(condition.left, flags, terms) || holds(condition.right, flags, terms);
  }
}

/**
 * The pulses that a true condition reads as true: those that make it true, on every branch that holds.
 * A pulse under `!` is read as absent and never counts.
 *
 * @returns their bits in the word of flags; 0 when the condition is false or no pulse supports it
 */
export function pulsesRead(condition: Condition, flags: number, terms: number): number {
  if (!holds(condition, flags, terms)) return 0;
  switch (condition.op) {
    case 'term':
      return condition.term.kind === 'pulse' ? condition.term.bit : 0;
    case 'and':
    case 'or':
      return pulsesRead(condition.left, flags, terms) | pulsesRead(condition.right, flags, terms);
    default:
      return 0;
  }
}

/** The terms of a condition in reading order, each once. */
export function termsOf(condition: Condition): Term[] {
  const found = new Set<Term>();
  const visit = (part: Condition): void => {
    if (part.op === 'term') found.add(part.term);
    else if (part.op === 'not') visit(part.part);
    else if (part.op !== 'constant') {
      visit(part.left);
      visit(part.right);
    }
  };
  visit(condition);
  return [...found];
}

/** Whether a condition can hold only with the help of a pulse, so that no mere change of a flag makes it hold. */
export function needsPulse(condition: Condition): boolean {
  switch (condition.op) {
    case 'term':
      return condition.term.kind === 'pulse';
    case 'and':
      return needsPulse(condition.left) || needsPulse(condition.right);
    case 'or':
      return needsPulse(condition.left) && needsPulse(condition.right);
    default:
      return false;
  }
}
