import type { State } from '../controller/state.js';
import type { Condition } from '../signal/condition.js';
import { Questions } from './questions.js';
import { all, not } from './solver.js';
import { outranks } from './structure.js';

/** Finds faults between tracks: a state that takes another track and thereby loses its own condition, or never lets go. */
export class TakeoverChecks extends Questions {
  check(): void {
    for (const taken of this.own) {
      if (taken.takenBy < 0) continue;
      const taker = this.controller.states[taken.takenBy]!;
      if (this.checkUndone(taker, taken)) continue;
      this.checkHeld(taker, taken);
    }
  }

  /** Finds a `takes` whose condition asks what the track showed before it was taken. */
  private checkUndone(taker: State, taken: State): boolean {
    const both = all([this.condition(taken.while), this.condition(taker.while)]);
    if (!this.wide.can(both) || this.wide.can(both, this.showing(taker, taken))) return false;
    const { name, track } = this.told(taker);
    this.found.add('take-undone', this.pathOf(taken), { state: name, track });
    return true;
  }

  /** Finds a track that is taken for ever: the state that takes it neither ends, nor is outranked, nor lets go. */
  private checkHeld(taker: State, taken: State): void {
    const loops = taker.flipbooks.flat().some((timeline) => timeline.loops) || taker.scrub !== undefined;
    if (taker.ends && (!loops || taker.lasts !== undefined)) return;
    const here = this.showing(taker, taken);
    const can = (condition: Condition): boolean => this.wide.can(condition, here);
    const { states } = this.controller;
    const isLeftFor = (one: State, other: State): boolean =>
      other !== one &&
      other.track === one.track &&
      !one.final &&
      outranks(other, one) &&
      can(this.wants(other));
    const isLeft =
      can(not(this.condition(taken.while))) ||
      (taker.while >= 0 && can(not(this.condition(taker.while)))) ||
      states.some((other) => isLeftFor(taker, other) || isLeftFor(taken, other)) ||
      taker.hops.some((hop) => can(all([this.condition(hop.if), this.condition(states[hop.to]!.while)]))) ||
      taker.yields.some(({ to }) =>
        states.some(
          (other) => other.track === taker.track && (to?.has(other.index) ?? true) && can(this.wants(other)),
        ),
      ) ||
      (taker.index === taker.rest &&
        states.some((other) => other !== taker && other.track === taker.track && can(this.wants(other))));
    if (isLeft) return;
    const { name, track } = this.told(taker);
    this.found.add('take-forever', this.pathOf(taken), { state: name, track });
  }

  private told({ name }: State): { name: string; track: string } {
    return { name, track: this.track.name };
  }
}
