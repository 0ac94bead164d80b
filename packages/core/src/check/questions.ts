import type { Controller, State } from '../controller/controller.js';
import type { Condition, Words } from '../signal/condition.js';
import type { FindingList } from './finding.js';
import { all, always } from './solver.js';
import type { Solver } from './solver.js';

/** The searches through situations that all questions share. */
export interface Solvers {
  /** Over more than can be: what is not found here can not be. */
  readonly wide: Solver;
  /** Over what was tried out: what is found here can be. */
  readonly seen: Solver;
}

const zero: Words = { flags: 0, terms: 0, more: 0 };

/** What a state asks before it wants in; a state without a condition never does. */
export function wantsOf({ conditions }: Controller, { while: during, when, kind }: State): Condition {
  if (kind === 'bare') return { op: 'constant', value: false };
  return all([during, when].filter((index) => index >= 0).map((index) => conditions[index]!));
}

/** What questions about a controller are put together from. */
export abstract class Questions {
  protected readonly wide: Solver;
  protected readonly seen: Solver;
  private readonly tagMask: number;

  constructor(
    protected readonly controller: Controller,
    protected readonly found: FindingList,
    { wide, seen }: Solvers,
  ) {
    this.wide = wide;
    this.seen = seen;
    this.tagMask = controller.states.reduce((mask, { tagBits }) => mask | tagBits, 0);
  }

  protected condition(index: number): Condition {
    return index < 0 ? always : this.controller.conditions[index]!;
  }

  protected wants(state: State): Condition {
    return wantsOf(this.controller, state);
  }

  /** While a state shows, its tags are on and those of others off. */
  protected showing({ tagBits }: State): { known: Words; words: Words } {
    return { known: { ...zero, flags: this.tagMask }, words: { ...zero, flags: tagBits } };
  }

  protected pathOf(state: State, ...more: (string | number)[]): (string | number)[] {
    return ['states', state.name, ...more];
  }

  protected postures(): State[] {
    return this.controller.states.filter(
      ({ kind, index }) => kind === 'posture' && index !== this.controller.rest,
    );
  }
}
