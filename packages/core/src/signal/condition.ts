/** Words of 32 bits, one bit for each term. They may begin anywhere in their array: see `at` below. */
export type BitWords = Int32Array;

/** How many bits a word has. */
export const wordBits = 32;

/** The place of a bit: the word, counted from 0, and a mask with that bit. */
export interface BitPlace {
  readonly word: number;
  readonly bit: number;
}

/** One comparison, flag, pulse, tag, band or lasting flag. Conditions consist of terms, and each term is tested once for all of them. */
export interface Term {
  readonly index: number;
  /** As a person wrote it: `vy < 0`, `grounded`, or the name of a derived signal. */
  readonly text: string;
  readonly kind: 'flag' | 'pulse' | 'tag' | 'compare' | 'band' | 'lasting';
  /** The place of its bit. */
  readonly word: number;
  readonly bit: number;
  /** The names of the signals it reads. */
  readonly reads: readonly string[];
}

/** A condition split into terms. */
export type Condition =
  | { readonly op: 'constant'; readonly value: boolean }
  | { readonly op: 'term'; readonly term: Term }
  | { readonly op: 'not'; readonly part: Condition }
  | { readonly op: 'and' | 'or'; readonly left: Condition; readonly right: Condition };

/** Whether a bit is on. @param at where the words begin in the array */
export function isOn({ word, bit }: BitPlace, words: BitWords, at = 0): boolean {
  return (words[at + word]! & bit) !== 0;
}

/** Whether a condition holds for the words. @param at where the words begin in the array */
export function holds(condition: Condition, words: BitWords, at = 0): boolean {
  switch (condition.op) {
    case 'constant':
      return condition.value;
    case 'term':
      return isOn(condition.term, words, at);
    case 'not':
      return !holds(condition.part, words, at);
    case 'and':
      return holds(condition.left, words, at) && holds(condition.right, words, at);
    case 'or':
      return holds(condition.left, words, at) || holds(condition.right, words, at);
  }
}

/**
 * Adds the pulses that make a condition true, on every branch that holds. A pulse under `!` is read as absent and never counts.
 *
 * @param at where the words begin in the array
 * @param into gains the bits of these pulses
 * @returns whether there is any; false if the condition is false or needs no pulse
 */
export function addPulsesRead(condition: Condition, words: BitWords, at: number, into: BitWords): boolean {
  if (!holds(condition, words, at)) return false;
  switch (condition.op) {
    case 'term': {
      const { kind, word, bit } = condition.term;
      if (kind !== 'pulse') return false;
      into[word]! |= bit;
      return true;
    }
    case 'and':
    case 'or': {
      const left = addPulsesRead(condition.left, words, at, into);
      return addPulsesRead(condition.right, words, at, into) || left;
    }
    default:
      return false;
  }
}

/** Whether a pulse helps to make a condition true. */
export function readsPulse(condition: Condition, words: BitWords, at = 0): boolean {
  if (!holds(condition, words, at)) return false;
  switch (condition.op) {
    case 'term':
      return condition.term.kind === 'pulse';
    case 'and':
    case 'or':
      return readsPulse(condition.left, words, at) || readsPulse(condition.right, words, at);
    default:
      return false;
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

/** Whether a condition can hold only with the help of a pulse, so that a change of a flag alone never makes it true. */
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
