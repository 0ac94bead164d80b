import { holds, readsPulse } from '../signal/condition.js';
import type { Condition, BitWords } from '../signal/condition.js';

/** What the table needs of a state. Conditions are indices into the list of conditions, -1 for none. */
export interface StateConditions {
  /** A bare state never wants in, also where that of a group says while what it may show. */
  readonly kind: 'posture' | 'act' | 'bare';
  readonly while: number;
  readonly when: number;
}

/** How many conditions can be watched by their bits alone. */
export const mostWatchedBits = 30;

/** If there are more situations than this, only the latest are kept, so that memory stays bounded. */
const mostSituations = 8192;

const notAsked = new Int32Array(0);

/**
 * The words of bits at one instant, with what follows from them alone: which conditions hold and which state that
 * wants in ranks highest. Shared by all performers of a controller that meet it.
 */
export class Situation {
  /** For each track, the highest-ranked state that wants in for what holds (not for what has just become true); -1 for none. */
  private readonly bests: Int32Array;
  /** 32-bit words: the truth of each condition, then of each state whether it wants in. */
  private readonly bits: Int32Array;
  private readonly stateWords: number;
  /** A bit for each of the first conditions that are watched, whether it holds: see {@link mostWatchedBits}. */
  readonly watched: number;
  /**
   * For each state for which it follows from this situation alone, what is decided (see `Decision`); 0 where it has not been asked
   * yet. Empty until it is first needed.
   */
  decided: Int32Array;
  /**
   * For each timeline that may show in this situation, what comes of it where that follows from the two alone (see `Plain`); 0 where it
   * has not been asked yet. Empty until it is first needed.
   */
  plain: Int32Array;
  /** The first word: often the only one. */
  readonly first: number;
  /** The situation that came after this one when it changed last: it often does so again, and need not be looked up then. */
  followed: Situation;

  /** @param number its place in {@link Situations.list}, -1 for one that is not kept there */
  constructor(
    readonly words: BitWords,
    readonly number: number,
    { conditions, states, orders, watched }: SituationRules,
  ) {
    this.decided = notAsked;
    this.plain = notAsked;
    this.followed = this;
    this.first = words[0]!;
    this.stateWords = (conditions.length + 31) >> 5;
    this.bits = new Int32Array(this.stateWords + ((states.length + 31) >> 5));
    for (let index = 0; index < conditions.length; index++)
      if (holds(conditions[index]!, words)) this.bits[index >> 5]! |= 1 << (index & 31);
    this.watched = watched
      .slice(0, mostWatchedBits)
      .reduce((bits, condition, i) => (this.holds(condition) ? bits | (1 << i) : bits), 0);
    this.bests = new Int32Array(orders.length).fill(-1);
    orders.forEach((order, track) => {
      for (const index of order) {
        const state = states[index]!;
        if (!this.holds(state.while) || state.kind === 'bare') continue;
        if (state.when >= 0 && !readsPulse(conditions[state.when]!, words)) continue;
        this.bits[this.stateWords + (index >> 5)]! |= 1 << (index & 31);
        if (this.bests[track]! < 0) this.bests[track] = index;
      }
    });
  }

  /** The highest-ranked state of a track that wants in for what holds; -1 for none. */
  bestOf(track: number): number {
    return this.bests[track]!;
  }

  /** Whether a condition holds; a missing one (-1) does. */
  holds(condition: number): boolean {
    return condition < 0 || (this.bits[condition >> 5]! & (1 << (condition & 31))) !== 0;
  }

  /** Whether a state wants in for what holds. */
  wantsIn(state: number): boolean {
    return (this.bits[this.stateWords + (state >> 5)]! & (1 << (state & 31))) !== 0;
  }

  /** Whether it is that of some words. @param at where they begin in their array */
  isOf(words: BitWords, at: number): boolean {
    const own = this.words;
    for (let i = 0; i < own.length; i++) if (own[i] !== words[at + i]) return false;
    return true;
  }
}

/** What follows from words is found by these. */
export interface SituationRules {
  readonly conditions: readonly Condition[];
  readonly states: readonly StateConditions[];
  /** For each track, the states from the highest rank to the lowest, document order among equals. */
  readonly orders: readonly (readonly number[])[];
  /** The conditions that are watched for the instant at which they become true. */
  readonly watched: readonly number[];
}

/** Where situations are kept that are met when the list is full. */
const rarePlaces = 512;

/**
 * The situations met so far. One is made when it is first met and found again by hashing, so a decision costs the same
 * with forty states as with twelve.
 */
export class Situations {
  /** The situations by number. What is once in it stays there. */
  readonly list: Situation[] = [];
  private table = new Int32Array(64);
  /** When the list is full, the latest situation for each place. */
  private readonly rare: (Situation | undefined)[] = [];

  /** @param words how many words there are */
  constructor(
    private readonly words: number,
    private readonly rules: SituationRules,
  ) {}

  /** The situation of some words; its number is -1 where there was no more room in the list. @param at where they begin in their array */
  find(words: BitWords, at: number): Situation {
    const { table, list } = this;
    const mask = table.length - 1;
    const first = words[at]!;
    const hash = this.hash(words, at);
    let place = hash & mask;
    for (let met = table[place]!; met !== 0; met = table[place]!) {
      const situation = list[met - 1]!;
      if (situation.first === first && situation.isOf(words, at)) return situation;
      place = (place + 1) & mask;
    }
    return list.length < mostSituations
      ? this.add(words.slice(at, at + this.words))
      : this.findRare(words, at, hash);
  }

  private findRare(words: BitWords, at: number, hash: number): Situation {
    const place = hash % rarePlaces;
    const known = this.rare[place];
    if (known?.isOf(words, at) === true) return known;
    return (this.rare[place] = new Situation(words.slice(at, at + this.words), -1, this.rules));
  }

  /** The words are spread over the table by multiplications (Knuth, TAOCP 3, 6.4). */
  private hash(words: BitWords, at: number): number {
    let mixed = Math.imul(words[at]!, 0x9e3779b1);
    for (let i = 1; i < this.words; i++)
      mixed = Math.imul(mixed ^ (mixed >>> 15) ^ words[at + i]!, 0x9e3779b1);
    return mixed >>> 8;
  }

  private add(words: BitWords): Situation {
    const { list } = this;
    if (list.length * 2 >= this.table.length) {
      this.table = new Int32Array(this.table.length * 2);
      for (const one of list) this.put(one);
    }
    const found = new Situation(words, list.length, this.rules);
    list.push(found);
    this.put(found);
    return found;
  }

  private put({ words, number }: Situation): void {
    const mask = this.table.length - 1;
    let place = this.hash(words, 0) & mask;
    while (this.table[place] !== 0) place = (place + 1) & mask;
    this.table[place] = number + 1;
  }
}
