import type { Controller } from '../controller/controller.js';
import type { SignalValue } from '../signal/definition.js';
import { isOn, termsOf } from '../signal/condition.js';
import type { BitPlace, Condition, Term, BitWords } from '../signal/condition.js';
import { bitsOf } from '../signal/bits.js';
import { withBits } from './bits.js';
import type { Source } from './sources.js';
import { sourcesOf } from './sources.js';

/** A situation that was found. Whatever it does not name does not matter. */
export interface Found {
  readonly known: BitWords;
  readonly words: BitWords;
  /** Values of number slots that bring it about. */
  readonly set: Readonly<Record<number, number>>;
}

/** What a question came to: a situation, none, or no answer within what may be tried. */
type Answer = Found | 'none' | 'unknown';

/** Tries for one question before it is given up. */
const mostTries = 200_000;

/** Tries for all questions together, some seconds: past them what is left is given up, and the check says so. */
const mostInAll = 3_000_000;

export const not = (part: Condition): Condition => ({ op: 'not', part });
/** A term on or off. */
export const literal = (term: Term, on: boolean): Condition =>
  on ? { op: 'term', term } : not({ op: 'term', term });
export const always: Condition = { op: 'constant', value: true };
export const all = (parts: readonly Condition[]): Condition =>
  parts.reduce((left, right): Condition => (left === always ? right : { op: 'and', left, right }), always);
/** The parts of which all must hold. */
function conjuncts(condition: Condition, found: Condition[] = []): Condition[] {
  // A long `all` leans to the left, and is not walked by calls that lie in one another.
  const right: Condition[] = [];
  let rest = condition;
  for (; rest.op === 'and'; rest = rest.left) right.push(rest.right);
  for (const part of [rest, ...right.reverse()])
    if (part.op === 'and') conjuncts(part, found);
    else if (part.op === 'not' && part.part.op === 'or')
      found.push(...conjuncts(not(part.part.left)), ...conjuncts(not(part.part.right)));
    else found.push(part);
  return found;
}

/**
 * The terms that must be on and those that must be off for a condition to hold, as far as single terms say so.
 *
 * @param count the number of words
 */
export function needs(condition: Condition, count: number): { on: BitWords; off: BitWords } {
  const [on, off] = [new Int32Array(count), new Int32Array(count)];
  for (const part of conjuncts(condition)) {
    const isOff = part.op === 'not';
    const term = isOff ? part.part : part;
    if (term.op !== 'term') continue;
    const { word, bit } = term.term;
    (isOff ? off : on)[word]! |= bit;
  }
  return { on, off };
}

const some = (parts: readonly Condition[]): Condition => not(all(parts.map(not)));

/**
 * A condition whose parts must all hold. Most parts are terms joined by `and`, or the negation of that. These are tested with a
 * few bits: walking down the tree took most of the time of a check of hundreds of states.
 */
interface Part {
  readonly condition: Condition;
  /** The terms that must be on and off; `undefined` if the condition is more than terms joined by `and`. */
  readonly bits: { readonly on: BitWords; readonly off: BitWords } | undefined;
  /** Whether the opposite of `bits` is asked. */
  readonly isOpposite: boolean;
}

const parts = new WeakMap<Condition, Part>();

function partOf(condition: Condition, count: number): Part {
  let part = parts.get(condition);
  if (part === undefined) {
    const isOpposite = condition.op === 'not' && condition.part.op !== 'term';
    const inner = isOpposite ? condition.part : condition;
    const isPlain = conjuncts(inner).every(
      (one) => one.op === 'term' || (one.op === 'not' && one.part.op === 'term'),
    );
    part = { condition, bits: isPlain ? needs(inner, count) : undefined, isOpposite };
    parts.set(condition, part);
  }
  return part;
}

/** Whether a part holds as far as bits are known; `undefined` while it is open. */
function partTruth(
  { condition, bits, isOpposite }: Part,
  known: BitWords,
  words: BitWords,
): boolean | undefined {
  if (bits === undefined) return truth(condition, known, words);
  const { on, off } = bits;
  let open = 0;
  for (let i = 0; i < on.length; i++) {
    const word = words[i]!;
    if ((known[i]! & ((on[i]! & ~word) | (off[i]! & word))) !== 0) return isOpposite;
    open |= (on[i]! | off[i]!) & ~known[i]!;
  }
  return open === 0 ? !isOpposite : undefined;
}

/** Whether a condition holds as far as bits are known; `undefined` while it is open. */
function truth(condition: Condition, known: BitWords, words: BitWords): boolean | undefined {
  switch (condition.op) {
    case 'constant':
      return condition.value;
    case 'term': {
      return isOn(condition.term, known) ? isOn(condition.term, words) : undefined;
    }
    case 'not': {
      const part = truth(condition.part, known, words);
      return part === undefined ? undefined : !part;
    }
    case 'and':
    case 'or': {
      const decides = condition.op === 'or';
      const left = truth(condition.left, known, words);
      if (left === decides) return decides;
      const right = truth(condition.right, known, words);
      if (right === decides) return decides;
      return left === undefined || right === undefined ? undefined : !decides;
    }
  }
}

/** A bit of the first open term of a condition that decides it. */
function openTerm(condition: Condition, known: BitWords, words: BitWords): BitPlace | undefined {
  if (truth(condition, known, words) !== undefined) return undefined;
  switch (condition.op) {
    case 'constant':
      return undefined;
    case 'term':
      return condition.term;
    case 'not':
      return openTerm(condition.part, known, words);
    default:
      return openTerm(condition.left, known, words) ?? openTerm(condition.right, known, words);
  }
}

/**
 * Finds situations in which conditions hold, over every value that signals can have. It decides one source after the other, and skips those
 * on which the answer does not depend.
 */
export class Solver {
  /** The number of partial situations that it looked at, over all questions. */
  tried = 0;
  /** The number of questions that it gave up. */
  givenUp = 0;
  private readonly sources: readonly Source[];
  private readonly sourceOf = new Map<string, Source>();
  /** The conditions of lasting flags, each with the flag's bit. */
  private readonly lasting: readonly (BitPlace & { readonly rule: Condition })[];
  /** How many words there are. */
  private readonly count: number;

  /** @param wide see {@link sourcesOf} */
  constructor(
    private readonly controller: Controller,
    wide: boolean,
  ) {
    this.count = controller.tables.words;
    this.sources = sourcesOf(controller, wide);
    for (const source of this.sources)
      source.mask.forEach((mask, word) => {
        for (let bits = mask; bits !== 0; bits &= bits - 1)
          this.sourceOf.set(`${word} ${bits & -bits}`, source);
      });
    this.lasting = controller.tables.computed.flatMap((term) => {
      if (term.kind !== 'lasting') return [];
      const { word, bit, condition, linger } = term;
      const flag: Condition = {
        op: 'term',
        term: controller.tables.terms.find((one) => one.word === word && one.bit === bit)!,
      };
      // One that lingers is on while its condition is, one that settles only while it is.
      return [{ word, bit, rule: linger > 0 ? some([not(condition), flag]) : some([not(flag), condition]) }];
    });
  }

  /** The number of situations in all, as far as conditions can tell them apart. */
  get situations(): number {
    return this.sources.reduce((product, { all: { length } }) => product * length, 1);
  }

  /**
   * Finds a situation in which a condition holds.
   *
   * @param fixed bits that are given, such as the tags of a state
   */
  find(condition: Condition, fixed = this.nothing()): Answer {
    const budget = { left: Math.min(mostTries, mostInAll - this.tried) };
    const given = budget.left;
    const { known, words } = fixed;
    const answer = this.search(
      conjuncts(condition).map((part) => partOf(part, this.count)),
      known,
      words,
      {},
      budget,
    );
    // One try more than there are left is made, and told by its answer.
    this.tried += given - Math.max(0, budget.left);
    if (answer === 'unknown') this.givenUp++;
    return answer;
  }

  private nothing(): { known: BitWords; words: BitWords } {
    const zero = new Int32Array(this.count);
    return { known: zero, words: zero };
  }

  /** Whether a condition can hold. In doubt: yes. */
  can(condition: Condition, fixed?: { known: BitWords; words: BitWords }): boolean {
    return this.find(condition, fixed) !== 'none';
  }

  private search(
    asked: readonly Part[],
    known: BitWords,
    words: BitWords,
    set: Readonly<Record<number, number>>,
    budget: { left: number },
  ): Answer {
    if (budget.left-- <= 0) return 'unknown';
    let open: BitPlace | undefined;
    // What holds already holds further in, and need not be looked at again: most of a long question is settled early.
    const left: Part[] = [];
    for (const part of asked) {
      const holds = partTruth(part, known, words);
      if (holds === false) return 'none';
      if (holds === undefined) left.push(part);
    }
    if (left.length > 0) open = openTerm(left[0]!.condition, known, words);
    // A lasting flag that is known must go with its condition.
    for (const place of this.lasting) {
      const { rule } = place;
      if (!isOn(place, known)) continue;
      const holds = truth(rule, known, words);
      if (holds === false) return 'none';
      open ??= holds === undefined ? openTerm(rule, known, words) : undefined;
    }
    if (open === undefined) return { known, words, set };
    const source = this.sourceOf.get(`${open.word} ${open.bit}`);
    // A bit that nothing turns on.
    if (source === undefined)
      return this.search(left, withBits(known, bitsOf(this.count, [open])), words, set, budget);
    const decided = withBits(known, source.mask);
    let unknown = false;
    for (const one of source.all) {
      const answer = this.search(left, decided, withBits(words, one.words), { ...set, ...one.set }, budget);
      if (answer === 'unknown') unknown = true;
      else if (answer !== 'none') return answer;
    }
    return unknown ? 'unknown' : 'none';
  }

  /** Values of signals that bring a situation about, as far as it depends on them. */
  signals({ known, words, set }: Found): Record<string, SignalValue> {
    const given: Record<string, SignalValue> = {};
    for (const signal of this.controller.tables.signals.values()) {
      const { name, kind, slot, options, first } = signal;
      const value = set[slot];
      if (kind === 'flag' && isOn(signal, known)) given[name] = isOn(signal, words);
      else if (kind === 'vector' && (value ?? set[slot + 1]) !== undefined)
        given[name] = [value ?? first[0]!, set[slot + 1] ?? first[1]!];
      else if (kind === 'choice' && value !== undefined) given[name] = options[value]!;
      else if (kind === 'number' && value !== undefined) given[name] = value;
    }
    return given;
  }

  /**
   * Describes a situation: numbers that bring it about, and the other parts of it that a question is about.
   *
   * @param about the conditions that were asked for
   */
  words(found: Found, about: Condition): string {
    const { known, words } = found;
    const numbers = Object.entries(this.signals(found)).flatMap(([name, value]) => {
      if (typeof value === 'boolean') return [];
      return [`${name} = ${typeof value === 'object' ? `[${value.join(', ')}]` : value}`];
    });
    // Comparisons follow from the numbers, and from the flags and tags that they read.
    const { signals, tags } = this.controller.tables;
    const read = termsOf(about).flatMap((term) =>
      term.kind === 'compare' || term.kind === 'band'
        ? term.reads.flatMap((name) => {
            const signal = signals.get(name);
            const place = signal?.kind === 'flag' || signal?.kind === 'pulse' ? signal : tags.get(name);
            return place === undefined ? [] : [{ word: place.word, bit: place.bit, text: name }];
          })
        : [],
    );
    const others = [...termsOf(about).filter((term) => term.kind !== 'compare'), ...read]
      .filter((term) => isOn(term, known))
      .map((term) => (isOn(term, words) ? term.text : `not ${term.text}`));
    return [...numbers, ...new Set(others)].join(', ') || 'whatever the signals are';
  }
}
