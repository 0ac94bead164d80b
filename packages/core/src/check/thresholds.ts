import type { State } from '../controller/controller.js';
import { isOn, termsOf } from '../signal/condition.js';
import type { Condition, Term } from '../signal/condition.js';
import { regionOf } from '../signal/regions.js';
import { decides, isSame, thresholdsOf, tiny, wordsAt } from './lines.js';
import type { Side, Threshold } from './lines.js';
import { Questions } from './questions.js';
import { all, literal, not } from './solver.js';

/** Situations that are looked at for one question before it is let be. */
const mostTries = 12;

/** What goes wrong at the thresholds of numbers: exact values that nobody covers or two cover, and trembling. */
export class Thresholds extends Questions {
  private readonly toldPairs = new Set<string>();

  check(): void {
    for (const threshold of thresholdsOf(this.controller)) {
      const { below, at, above } = threshold;
      const isBetween = !isSame(at, below) && !isSame(at, above);
      if (isBetween && this.checkGap(threshold)) continue;
      if (this.checkFlicker(threshold)) continue;
      this.checkOverlap(threshold);
    }
    this.checkSides();
  }

  /** What a state asks before it wants in, with comparisons as they are on one side of a threshold. */
  private here(state: State, side: Side): Condition {
    const put = (part: Condition): Condition => {
      if (part.op === 'term')
        return side.has(part.term) ? { op: 'constant', value: side.get(part.term)! } : part;
      if (part.op === 'not') return not(put(part.part));
      return part.op === 'constant' ? part : { op: part.op, left: put(part.left), right: put(part.right) };
    };
    return put(this.wants(state));
  }

  /**
   * Whether there is a situation in which something holds that speaks of several sides of a threshold at once, the
   * comparisons put in as they are there; and in which each of these sides can be met. The second has to be asked, since
   * what else reads the same numbers was left free: faster than 150 to the side, no whole speed is 100.
   */
  private meets(condition: Condition, sides: readonly Side[], shows?: State): boolean {
    const terms = termsOf(condition);
    let asked = condition;
    for (let tries = 0; tries < mostTries; tries++) {
      const found = this.seen.find(asked, shows && this.showing(shows));
      if (typeof found !== 'object') return false;
      const around = terms
        .filter(({ word, bit }) => (found.known[word] & bit) !== 0)
        .map((term) => literal(term, isOn(term, found.words)));
      const canBe = (side: Side): boolean =>
        this.seen.can(all([...around, ...[...side].map(([term, on]) => literal(term, on))]));
      if (sides.every(canBe)) return true;
      asked = all([asked, not(all(around))]);
    }
    return false;
  }

  private checkGap({ name, value, below, at, above }: Threshold): boolean {
    const rest = this.controller.states[this.track.rest]!;
    const postures = this.postures();
    const nobody = postures.map((one) => not(this.here(one, at)));
    for (const one of postures)
      for (const other of postures) {
        if (one === other) continue;
        const asked = all([this.here(one, below), this.here(other, above), ...nobody]);
        if (!this.meets(asked, [below, at, above], rest)) continue;
        const values = { name, value, below: one.name, above: other.name, rest: rest.name };
        this.found.add('threshold-gap', this.pathOf(other), values);
        return true;
      }
    return false;
  }

  /** Two states of one rank that both want in on a threshold, each alone on one side of it. */
  private checkOverlap({ name, value, below, at, above }: Threshold): void {
    const postures = this.postures();
    for (const one of postures)
      for (const other of postures) {
        if (one === other || one.priority !== other.priority) continue;
        const asked = all([
          this.here(one, below),
          not(this.here(other, below)),
          this.here(one, at),
          this.here(other, at),
          this.here(other, above),
          not(this.here(one, above)),
        ]);
        if (!this.meets(asked, [below, at, above])) continue;
        const first = one.index < other.index ? one : other;
        const values = { name, value, below: one.name, above: other.name, first: first.name };
        this.found.add('threshold-overlap', this.pathOf(other), values);
        return;
      }
  }

  private checkFlicker({ name, value, below, above }: Threshold): boolean {
    const { states } = this.controller;
    const { rest, order } = this.track;
    const ranked = order.map((index) => states[index]!).filter(({ kind }) => kind === 'posture');
    const shows = (state: State, side: Side): Condition => {
      const higher = ranked
        .slice(0, state.index === rest ? undefined : ranked.indexOf(state))
        .filter((one) => one !== state);
      const own = state.index === rest ? [] : [this.here(state, side)];
      return all([...own, ...higher.map((one) => not(this.here(one, side)))]);
    };
    const candidates = [...ranked, ...(ranked.some(({ index }) => index === rest) ? [] : [states[rest]!])];
    for (const one of candidates)
      for (const other of candidates) {
        if (one === other || one.atLeast > 0 || other.atLeast > 0 || one.leaves || other.leaves) continue;
        if (!this.meets(all([shows(one, below), shows(other, above)]), [below, above])) continue;
        const pair = [name, ...[one.name, other.name].sort()].join(' ');
        if (this.toldPairs.has(pair)) return true;
        this.toldPairs.add(pair);
        const place = one.index === rest ? other : one;
        const values = { name, value, below: one.name, above: other.name };
        this.found.add('flicker', this.pathOf(place, 'while'), values);
        return true;
      }
    return false;
  }

  /** Comparisons of the number that turns the character, on one side only. */
  private checkSides(): void {
    const { turning, tables } = this.controller;
    if (turning === undefined || turning.xPlace === 0) return;
    const signal = [...tables.signals.values()].find(
      ({ place, kind }) => kind === 'number' && place === turning.xPlace,
    );
    if (signal === undefined) return;
    const regions = tables.regions[signal.slot]!;
    const compares = tables.terms.filter(
      ({ kind, word, bit }) => kind === 'compare' && decides(regions, word, bit),
    );
    const values = [
      ...new Set(regions.bounds.filter(Number.isFinite).flatMap((b) => [b, b + tiny(b), b - tiny(b)])),
    ];
    const at = (term: Term, value: number): boolean => isOn(term, wordsAt(regions, regionOf(regions, value)));
    for (const term of compares) {
      const hasTwin = compares.some((other) =>
        values.every((value) => at(term, value) === at(other, -value)),
      );
      if (hasTwin) continue;
      for (const state of this.own)
        for (const field of ['while', 'when'] as const)
          if (state[field] >= 0 && termsOf(this.condition(state[field])).includes(term))
            this.found.add('one-sided', this.pathOf(state, field), { text: term.text, name: signal.name });
    }
  }
}
