/** The bits that a situation consists of. Each word has 30, so that it stays a small integer on every engine. */
export interface Words {
  /** Flags, pulses and tags. */
  readonly flags: number;
  /** The first 30 computed terms: comparisons, bands, lasting flags. */
  readonly terms: number;
  /** The next 30. */
  readonly more: number;
}

/** How many bits a word has. */
export const wordBits = 30;

/** One comparison, flag, pulse, tag, band or lasting flag: what conditions are made of, each tested once for all. */
export interface Term {
  readonly index: number;
  /** As a person wrote it: `vy < 0`, `grounded`, or the name of a derived signal. */
  readonly text: string;
  readonly kind: 'flag' | 'pulse' | 'tag' | 'compare' | 'band' | 'lasting';
  readonly word: keyof Words;
  readonly bit: number;
  /** The names of the signals it reads. */
  readonly reads: readonly string[];
}

/** A condition broken into terms. */
export type Condition =
  | { readonly op: 'constant'; readonly value: boolean }
  | { readonly op: 'term'; readonly term: Term }
  | { readonly op: 'not'; readonly part: Condition }
  | { readonly op: 'and' | 'or'; readonly left: Condition; readonly right: Condition };

/** Whether a term is on. */
export function isOn({ word, bit }: Pick<Term, 'word' | 'bit'>, words: Words): boolean {
  return ((word === 'flags' ? words.flags : word === 'terms' ? words.terms : words.more) & bit) !== 0;
}

/** Whether a condition holds for the words. */
export function holds(condition: Condition, words: Words): boolean {
  switch (condition.op) {
    case 'constant':
      return condition.value;
    case 'term':
      return isOn(condition.term, words);
    case 'not':
      return !holds(condition.part, words);
    case 'and':
      return holds(condition.left, words) && holds(condition.right, words);
    case 'or':
      return holds(condition.left, words) || holds(condition.right, words);
  }
}

/**
 * The pulses that a true condition reads as true: those that make it true, on every branch that holds.
 * A pulse under `!` is read as absent and never counts.
 *
 * @returns their bits in the word of flags; 0 when the condition is false or no pulse supports it
 */
export function pulsesRead(condition: Condition, words: Words): number {
  if (!holds(condition, words)) return 0;
  switch (condition.op) {
    case 'term':
      return condition.term.kind === 'pulse' ? condition.term.bit : 0;
    case 'and':
    case 'or':
      return pulsesRead(condition.left, words) | pulsesRead(condition.right, words);
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
