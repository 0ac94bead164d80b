import type { State } from '../controller/state.js';
import { isOn, termsOf } from '../signal/condition.js';
import type { Condition, Term, BitWords } from '../signal/condition.js';
import { placeOf } from '../signal/program.js';
import { regionOf } from '../signal/regions.js';
import { bitsOf } from '../signal/bits.js';
import { decides, isSame, thresholdsOf, tiny, wordsAt } from './lines.js';
import type { Side, Threshold } from './lines.js';
import { Questions } from './questions.js';
import { all, literal, needs, not } from './solver.js';

/** Situations that are looked at for one question before it is let be. */
const mostTries = 12;

/** Finds faults at the thresholds of numbers: values for which no state or two states want in, and states that flicker. */
export class Thresholds extends Questions {
  private readonly toldPairs = new Set<string>();
  private readonly hereOn = new WeakMap<Side, Map<State, Condition>>();
  private readonly sideBits = new WeakMap<Side, BitWords>();
  private readonly terms = new Map<State, readonly Term[]>();
  /** The terms that ask for the options of each choice. Two of them are never on at once. */
  private readonly choices = [...this.controller.tables.signals.values()]
    .filter(({ kind }) => kind === 'choice')
    .map(({ name }) =>
      this.controller.tables.terms.filter((term) => term.kind === 'compare' && term.reads[0] === name),
    );
  private readonly needed = new Map<State, ReturnType<typeof needs>>();

  check(): void {
    for (const threshold of thresholdsOf(this.controller)) {
      const { below, at, above } = threshold;
      const isBetween = !isSame(at, below) && !isSame(at, above);
      if (isBetween && this.checkGap(threshold)) continue;
      if (!threshold.isWhole && this.checkFlicker(threshold)) continue;
      this.checkOverlap(threshold);
    }
    this.checkSides();
  }

  /** The condition under which a state wants in, with the comparisons as they are on one side of a threshold. */
  private here(state: State, side: Side): Condition {
    let known = this.hereOn.get(side);
    if (known === undefined) this.hereOn.set(side, (known = new Map<State, Condition>()));
    const before = known.get(state);
    if (before !== undefined) return before;
    const put = (part: Condition): Condition => {
      if (part.op === 'term')
        return side.has(part.term) ? { op: 'constant', value: side.get(part.term)! } : part;
      if (part.op === 'not') return not(put(part.part));
      return part.op === 'constant' ? part : { op: part.op, left: put(part.left), right: put(part.right) };
    };
    // Most states ask for no side of this threshold, and are what they are.
    const asks = this.termsOfState(state).some((term) => side.has(term));
    const made = asks ? put(this.wants(state)) : this.wants(state);
    known.set(state, made);
    return made;
  }

  /**
   * Whether something that speaks of several sides of a threshold at once can hold, and each of these sides can be met. The
   * second question is needed because other comparisons of the same numbers were left free in the first: at more than 150 to
   * the side, the whole speed is never 100.
   */
  private meets(condition: Condition, sides: readonly Side[], shows?: State): boolean {
    let terms: readonly Term[] | undefined;
    let asked = condition;
    for (let tries = 0; tries < mostTries; tries++) {
      const found = this.seen.find(asked, shows && this.showing(shows));
      if (typeof found !== 'object') return false;
      terms ??= termsOf(condition);
      const around = terms
        .filter((term) => isOn(term, found.known))
        .map((term) => literal(term, isOn(term, found.words)));
      const canBe = (side: Side): boolean =>
        this.seen.can(all([...around, ...[...side].map(([term, on]) => literal(term, on))]));
      if (sides.every(canBe)) return true;
      asked = all([asked, not(all(around))]);
    }
    return false;
  }

  /**
   * The states whose condition asks for a side of a threshold. Only these can change at the threshold. In each question below at least one
   * of the two states is among them, so not all pairs need be tried.
   */
  private asking({ below }: Threshold, among: readonly State[]): State[] {
    return among.filter((state) => this.termsOfState(state).some((term) => below.has(term)));
  }

  private termsOfState(state: State): readonly Term[] {
    let terms = this.terms.get(state);
    if (terms === undefined) this.terms.set(state, (terms = termsOf(this.wants(state))));
    return terms;
  }

  /** Whether two states can want in at once, judging by single terms without the sides of the threshold. */
  private mayMeet(one: State, other: State, { below }: Threshold): boolean {
    const [a, b] = [this.needsOf(one), this.needsOf(other)];
    if (this.choices.some((options) => isTorn(options, a.on, b.on))) return false;
    const sides = this.bitsOf(below);
    return sides.every((side, i) => (((a.on[i]! & b.off[i]!) | (a.off[i]! & b.on[i]!)) & ~side) === 0);
  }

  /** The bits of the comparisons of a side. */
  private bitsOf(side: Side): BitWords {
    let bits = this.sideBits.get(side);
    if (bits === undefined)
      this.sideBits.set(side, (bits = bitsOf(this.controller.tables.words, side.keys())));
    return bits;
  }

  private needsOf(state: State): ReturnType<typeof needs> {
    let found = this.needed.get(state);
    if (found === undefined)
      this.needed.set(state, (found = needs(this.wants(state), this.controller.tables.words)));
    return found;
  }

  private checkGap(threshold: Threshold): boolean {
    const { name, value, below, at, above } = threshold;
    const rest = this.controller.states[this.track.rest]!;
    const postures = this.postures();
    const asking = this.asking(threshold, postures);
    let nobody: Condition[] | undefined;
    for (const one of asking)
      for (const other of asking) {
        if (one === other || !this.mayMeet(one, other, threshold)) continue;
        const both = all([this.here(one, below), this.here(other, above)]);
        if (!this.seen.can(both, this.showing(rest))) continue;
        nobody ??= postures.map((posture) => not(this.here(posture, at)));
        if (!this.meets(all([both, ...nobody]), [below, at, above], rest)) continue;
        const values = { name, value, below: one.name, above: other.name, rest: rest.name };
        this.found.add('threshold-gap', this.pathOf(other), values);
        return true;
      }
    return false;
  }

  /** Two states of one rank that both want in on a threshold, each alone on one side of it. */
  private checkOverlap(threshold: Threshold): void {
    const { name, value, below, at, above } = threshold;
    const asking = this.asking(threshold, this.postures());
    for (const one of asking)
      for (const other of asking) {
        if (one === other || one.rank !== other.rank) continue;
        if (!this.mayMeet(one, other, threshold)) continue;
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

  private checkFlicker(threshold: Threshold): boolean {
    const { name, value, below, above } = threshold;
    const { states } = this.controller;
    const { rest, order } = this.track;
    const ranked = order.map((index) => states[index]!).filter(({ kind }) => kind === 'posture');
    const places = new Map(
      ranked.map((state, place) => [state, state.index === rest ? ranked.length : place]),
    );
    const placeOf = (state: State): number => places.get(state) ?? ranked.length;
    const asking = new Set(this.asking(threshold, ranked));
    const blocked = new Map<Side, Condition[]>();
    /** What those that rank above a state say on a side: that they do not want in. */
    const blockedBy = (state: State, side: Side): Condition[] => {
      let all = blocked.get(side);
      if (all === undefined) blocked.set(side, (all = ranked.map((one) => not(this.here(one, side)))));
      return state.index === rest
        ? all.filter((_, place) => ranked[place] !== state)
        : all.slice(0, placeOf(state));
    };
    const own = (state: State, side: Side): Condition[] =>
      state.index === rest ? [] : [this.here(state, side)];
    const showing = new Map<Side, Map<State, boolean>>([
      [below, new Map<State, boolean>()],
      [above, new Map<State, boolean>()],
    ]);
    /** Whether a state can show on a side at all. To ask this of each state first spares most pairs of hundreds of states. */
    const canShow = (state: State, side: Side): boolean => {
      const known = showing.get(side)!;
      let can = known.get(state);
      if (can === undefined) {
        can =
          (state.index === rest || this.isReached(state)) &&
          this.seen.can(all([...own(state, side), ...blockedBy(state, side)]));
        known.set(state, can);
      }
      return can;
    };
    const candidates = [...ranked, ...(ranked.some(({ index }) => index === rest) ? [] : [states[rest]!])];
    for (const one of candidates)
      for (const other of candidates) {
        if (one === other || one.atLeast > 0 || other.atLeast > 0 || one.leaves || other.leaves) continue;
        // The higher of the two is what goes and comes at the threshold.
        if (!asking.has(placeOf(one) < placeOf(other) ? one : other)) continue;
        const isRest = one.index === rest || other.index === rest;
        if (!isRest && !this.mayMeet(one, other, threshold)) continue;
        if (!canShow(one, below) || !canShow(other, above)) continue;
        const both = [...own(one, below), ...own(other, above)];
        if (!this.seen.can(all(both))) continue;
        const asked = all([...both, ...blockedBy(one, below), ...blockedBy(other, above)]);
        if (!this.meets(asked, [below, above])) continue;
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
    if (turning === undefined || turning.xPlace < 0) return;
    const signal = [...tables.signals.values()].find(
      ({ slot, kind }) => kind === 'number' && placeOf(slot) === turning.xPlace,
    );
    if (signal === undefined) return;
    const regions = tables.regions[signal.slot]!;
    const compares = tables.terms.filter((term) => term.kind === 'compare' && decides(regions, term));
    const values = [
      ...new Set(regions.bounds.filter(Number.isFinite).flatMap((b) => [b, b + tiny(b), b - tiny(b)])),
    ];
    const at = (term: Term, value: number): boolean =>
      isOn(term, wordsAt(tables.words, regions, regionOf(regions, value)));
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

/** Whether two needs ask for different options of one choice. */
function isTorn(options: readonly Term[], one: BitWords, other: BitWords): boolean {
  const a = options.find((term) => isOn(term, one));
  const b = a && options.find((term) => isOn(term, other));
  return b !== undefined && a !== b;
}
