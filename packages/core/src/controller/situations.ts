import { holds, readsPulse } from '../signal/condition.js';
import type { Condition, BitWords } from '../signal/condition.js';

/** What the table needs of a state. Conditions are indices into the list of conditions, -1 for none. */
export interface StateConditions {
  /** A bare state never wants in, even if its group says that it may show. */
  readonly kind: 'posture' | 'act' | 'bare';
  readonly while: number;
  readonly when: number;
}

/** The number of conditions that can be watched by bits alone. */
export const mostWatchedBits = 30;

/** If there are more situations than this, only the latest are kept, so that memory stays bounded. */
const mostSituations = 8192;

const notAsked = new Int32Array(0);

/**
 * The words of bits at one instant, and everything that follows from them alone: which conditions hold, and which state that wants in ranks
 * highest. All performers of a controller share it.
 */
export class Situation {
  /**
   * For each track the highest-ranked state that wants in because a condition holds; -1 for none. Conditions that have just become true do
   * not count here.
   */
  private readonly bests: Int32Array;
  /** 32-bit words: whether each condition holds, then whether each state wants in. */
  private readonly bits: Int32Array;
  private readonly stateWords: number;
  /** One bit for each of the first watched conditions, whether it holds: see {@link mostWatchedBits}. */
  readonly watched: number;
  /**
   * For each state the decision (see `Decision`), if it follows from this situation alone; 0 if nobody has asked yet. Empty until it is
   * first needed.
   */
  decided: Int32Array;
  /**
   * For each timeline that may show in this situation, what it leads to if that follows from the two alone (see `Plain`); 0 if nobody has
   * asked yet. Empty until it is first needed.
   */
  plain: Int32Array;
  /** The first word. Often it is the only one. */
  readonly first: number;
  /** The situation that came after this one last time. It often comes next again, and then need not be looked up. */
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

  /** The highest-ranked state of a track that wants in because a condition holds; -1 for none. */
  bestOf(track: number): number {
    return this.bests[track]!;
  }

  /** Whether a condition holds. No condition (-1) always holds. */
  holds(condition: number): boolean {
    return condition < 0 || (this.bits[condition >> 5]! & (1 << (condition & 31))) !== 0;
  }

  /** Whether a state wants in because its condition holds. */
  wantsIn(state: number): boolean {
    return (this.bits[this.stateWords + (state >> 5)]! & (1 << (state & 31))) !== 0;
  }

  /**
   * Whether this is the situation of some words.
   *
   * @param at where they begin in their array
   */
  isOf(words: BitWords, at: number): boolean {
    const own = this.words;
    for (let i = 0; i < own.length; i++) if (own[i] !== words[at + i]) return false;
    return true;
  }
}

/** The rules by which a situation is worked out from its words. */
export interface SituationRules {
  readonly conditions: readonly Condition[];
  readonly states: readonly StateConditions[];
  /** For each track its states from the highest rank to the lowest. Equal ranks keep the order of the document. */
  readonly orders: readonly (readonly number[])[];
  /** The conditions that are watched for the instant at which they become true. */
  readonly watched: readonly number[];
}

/** Where situations are kept that are met when the list is full. */
const rarePlaces = 512;

/**
 * The situations met so far. Each is made when it is first met, and found by hashing from then on. So a decision costs the same with forty
 * states as with twelve.
 */
export class Situations {
  /** The situations by number. A situation never leaves the list. */
  readonly list: Situation[] = [];
  private table = new Int32Array(64);
  /** When the list is full: the latest situation for each place. */
  private readonly rare: (Situation | undefined)[] = [];

  /** @param words how many words there are */
  constructor(
    private readonly words: number,
    private readonly rules: SituationRules,
  ) {}

  /**
   * Finds or makes the situation of some words. Its number is -1 if the list had no more room.
   *
   * @param at where the words begin in their array
   */
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
