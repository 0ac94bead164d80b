import type { Controller, Track } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import { documentStateOf } from '../controller/document-state.js';
import type { Condition, BitWords } from '../signal/condition.js';
import { bitsOf } from '../signal/bits.js';
import { withBits } from './bits.js';
import type { FindingList } from './finding.js';
import { all, always, not } from './solver.js';
import type { Solver } from './solver.js';

/** The searches through situations that all questions share. */
export interface Solvers {
  /** A search that allows more than is possible: what it does not find is impossible. */
  readonly wide: Solver;
  /** A search over numbers that were tried out: what it finds is possible. */
  readonly seen: Solver;
  /** For each posture whether it can take over at all, once that was asked. */
  readonly reached: Map<State, boolean>;
}

/** The condition under which a state wants in. A state without a condition never does. */
export function wantsOf({ conditions }: Controller, { while: during, when, kind }: State): Condition {
  if (kind === 'bare') return { op: 'constant', value: false };
  return all([during, when].filter((index) => index >= 0).map((index) => conditions[index]!));
}

/** Builds the conditions that questions about a controller ask for. */
export abstract class Questions {
  protected readonly wide: Solver;
  protected readonly seen: Solver;
  private readonly reached: Map<State, boolean>;
  /** The states of the track in question, in the document's order. */
  protected readonly own: readonly State[];
  private readonly wanted = new Map<State, Condition>();
  /** The tags of the states of each track. */
  private readonly tagBits: readonly BitWords[];

  constructor(
    protected readonly controller: Controller,
    protected readonly track: Track,
    protected readonly found: FindingList,
    { wide, seen, reached }: Solvers,
  ) {
    this.reached = reached;
    this.wide = wide;
    this.seen = seen;
    this.own = controller.states.filter((state) => state.track === track.index);
    const none = bitsOf(controller.tables.words, []);
    this.tagBits = controller.tracks.map(({ index }) =>
      controller.states.reduce(
        (bits, one) => (one.track === index ? withBits(bits, one.tagBits) : bits),
        none,
      ),
    );
  }

  protected condition(index: number): Condition {
    return index < 0 ? always : this.controller.conditions[index]!;
  }

  protected wants(state: State): Condition {
    let wanted = this.wanted.get(state);
    if (wanted === undefined) this.wanted.set(state, (wanted = wantsOf(this.controller, state)));
    return wanted;
  }

  /** The condition that states show: their tags are on, and those of the other states of their tracks are off. */
  protected showing(...shown: readonly State[]): { known: BitWords; words: BitWords } {
    const none = bitsOf(this.controller.tables.words, []);
    return {
      known: shown.reduce((bits, { track }) => withBits(bits, this.tagBits[track]!), none),
      words: shown.reduce((bits, { tagBits }) => withBits(bits, tagBits), none),
    };
  }

  /** The path of a state. For a state that has taken another track: the path of its `takes`. */
  protected pathOf(state: State, ...more: (string | number)[]): (string | number)[] {
    if (state.takenBy >= 0) return [...state.path];
    // Where it says none itself, it is the group's.
    const stated = documentStateOf(this.controller, state);
    if (more[0] === 'while' && stated?.definition.while === undefined)
      return [...(stated?.groups.at(-1)?.path ?? state.path), ...more];
    return [...state.path, ...more];
  }

  /** The postures that rank above a state, from the highest. While one of them wants in, the state cannot take over. */
  protected above(state: State): State[] {
    const { order } = this.track;
    return order
      .slice(0, order.indexOf(state.index))
      .map((index) => this.controller.states[index]!)
      .filter(({ kind }) => kind === 'posture');
  }

  /** Whether there is a situation in which a state wants in and no posture above it does. */
  protected isReached(state: State): boolean {
    let known = this.reached.get(state);
    if (known === undefined) {
      const free = this.above(state).map((one) => not(this.wants(one)));
      known = this.wide.can(all([this.wants(state), ...free]));
      this.reached.set(state, known);
    }
    return known;
  }

  protected postures(): State[] {
    return this.own.filter(({ kind, index, rest }) => kind === 'posture' && index !== rest);
  }
}
