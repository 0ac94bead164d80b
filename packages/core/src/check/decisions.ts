import type { Controller, Hop, State } from '../controller/controller.js';
import { isOn, termsOf } from '../signal/condition.js';
import type { Condition, Term, Words } from '../signal/condition.js';
import { regionOf } from '../signal/regions.js';
import type { Regions } from '../signal/regions.js';
import type { FindingList } from './finding.js';
import { Solver, all, always, not } from './solver.js';
import type { Found } from './solver.js';
import { outranks } from './structure.js';

const zero: Words = { flags: 0, terms: 0, more: 0 };

/** What follows from going through every situation that conditions can tell apart. */
export class Decisions {
  /** Over more than can be: what is not found here can not be. */
  readonly wide: Solver;
  /** Over what was tried out: what is found here can be. */
  readonly seen: Solver;
  private readonly tagMask: number;
  private readonly toldPairs = new Set<string>();

  constructor(
    private readonly controller: Controller,
    private readonly found: FindingList,
  ) {
    this.wide = new Solver(controller, true);
    this.seen = new Solver(controller, false);
    this.tagMask = controller.states.reduce((mask, { tagBits }) => mask | tagBits, 0);
  }

  check(): void {
    this.checkConditions();
    for (const state of this.controller.states) {
      this.checkShows(state);
      this.checkWaysOn(state);
      this.checkStuck(state);
    }
    this.checkCycles();
    this.checkRest();
    this.checkThresholds();
    this.checkSides();
  }

  private condition(index: number): Condition {
    return index < 0 ? always : this.controller.conditions[index]!;
  }

  /** What a state asks before it wants in; a state without a condition never does. */
  private wants({ while: during, when, kind }: State): Condition {
    if (kind === 'bare') return { op: 'constant', value: false };
    return all([this.condition(during), this.condition(when)]);
  }

  /** While a state shows, its tags are on and those of others off. */
  private showing({ tagBits }: State): { known: Words; words: Words } {
    return { known: { ...zero, flags: this.tagMask }, words: { ...zero, flags: tagBits } };
  }

  private pathOf(state: State, ...more: (string | number)[]): (string | number)[] {
    return ['states', state.name, ...more];
  }

  /** Conditions that are never or always true, whatever the signals are. */
  private checkConditions(): void {
    const { states, conditions, conditionTexts } = this.controller;
    conditions.forEach((condition, index) => {
      const text = conditionTexts[index]!;
      const never = !this.wide.can(condition);
      if ((!never && this.wide.can(not(condition))) || condition.op === 'constant') return;
      for (const state of states) {
        const places = [
          ...(['while', 'when'] as const).filter((field) => state[field] === index).map((field) => [field]),
          ...state.hops.flatMap((hop, i) => (hop.if === index ? [['hops', i, 'if']] : [])),
          ...state.yields.flatMap((one, i) => (one.if === index ? [['yields', i, 'if']] : [])),
        ];
        for (const place of places)
          this.found.add(never ? 'condition-never' : 'condition-always', this.pathOf(state, ...place), {
            text,
          });
      }
    });
  }

  /** A state that is outranked whenever it wants in, and that nothing else leads to. */
  private checkShows(state: State): void {
    const { states, rest, order } = this.controller;
    const isLedTo = states.some(
      ({ hops, then }) => then === state.index || hops.some(({ to }) => to === state.index),
    );
    if (state.kind === 'bare' || state.index === rest || isLedTo) return;
    const wants = this.wants(state);
    if (!this.wide.can(wants)) return;
    // An act above it may have been played already; a posture that stands is there for sure.
    const above = order
      .slice(0, order.indexOf(state.index))
      .map((index) => states[index]!)
      .filter((one) => one.kind === 'posture' && (outranks(one, state) || one.index < state.index))
      .filter(({ yields }) => !yields.some(({ to }) => to === undefined || to.has(state.index)));
    if (this.wide.can(all([wants, ...above.map((one) => not(this.wants(one)))]))) return;
    const alone = above.filter((one) => !this.wide.can(all([wants, not(this.wants(one))])));
    const by = (alone.length > 0 ? alone.slice(0, 1) : above).map(({ name }) => name);
    const rank = Math.max(...above.filter(({ name }) => by.includes(name)).map(({ priority }) => priority));
    this.found.add('state-never', this.pathOf(state), { state: state.name, by, rank });
  }

  /** Hops and follow-ups that can not be taken, or are overtaken as they are. */
  private checkWaysOn(state: State): void {
    const { states } = this.controller;
    const here = this.showing(state);
    state.hops.forEach((hop, i) => {
      const to = states[hop.to]!;
      // What is remembered may have been true before.
      const taken = hop.remembers
        ? this.condition(to.while)
        : all([this.condition(hop.if), this.condition(to.while)]);
      if (!this.wide.can(taken, here))
        this.found.add('hop-never', this.pathOf(state, 'hops', i), { to: to.name });
      else this.checkOvertaken(state, to, taken, this.pathOf(state, 'hops', i));
    });
    if (state.then < 0) return;
    const to = states[state.then]!;
    const taken = this.condition(to.while);
    if (!this.wide.can(taken, here))
      this.found.add('then-never', this.pathOf(state, 'then'), { to: to.name });
    else this.checkOvertaken(state, to, taken, this.pathOf(state, 'then'));
  }

  private checkOvertaken(from: State, to: State, taken: Condition, path: (string | number)[]): void {
    if (to.final) return;
    const here = this.showing(to);
    const above = this.controller.states.filter((one) => one.kind === 'posture' && outranks(one, to));
    const free = all([taken, ...above.map((one) => not(this.wants(one)))]);
    if (above.length === 0 || this.wide.can(free, here) || !this.wide.can(taken, here)) return;
    const by = above
      .filter((one) => this.wide.can(all([taken, this.wants(one)]), here))
      .map(({ name }) => name);
    const rank = Math.max(...above.map(({ priority }) => priority));
    this.found.add('follow-up-overtaken', path, { from: from.name, to: to.name, by, rank });
  }

  /** A state that, once it shows, nothing ends. */
  private checkStuck(state: State): void {
    const { states, rest } = this.controller;
    // A posture ends when its condition does; one whose condition is always true is told as such.
    if (state.kind !== 'bare' || state.index === rest) return;
    const loops = state.books.flat().some(({ loops: one }) => one) || state.scrub !== undefined;
    if (state.ends && !loops) return;
    const here = this.showing(state);
    const others = states.filter((one) => one !== state);
    const byRank = others.some(
      (one) => !state.final && outranks(one, state) && this.wide.can(this.wants(one), here),
    );
    const byHop = state.hops.some((hop) =>
      this.wide.can(all([this.condition(hop.if), this.condition(states[hop.to]!.while)])),
    );
    const gives = others.filter((one) => state.yields.some(({ to }) => to?.has(one.index) ?? true));
    if (byRank || byHop || gives.some((one) => this.wide.can(this.wants(one), here))) return;
    this.found.add('state-stuck', this.pathOf(state), { state: state.name });
  }

  /** Circles of hops that are taken at once. */
  private checkCycles(): void {
    const { states } = this.controller;
    const told = new Set<string>();
    const leads = (hop: Hop): Condition =>
      all([this.condition(hop.if), this.condition(states[hop.to]!.while)]);
    const walk = (path: State[], taken: Condition): void => {
      const last = path[path.length - 1]!;
      for (const hop of last.hops.filter(({ now }) => now)) {
        const to = states[hop.to]!;
        const together = all([taken, leads(hop)]);
        const again = path.indexOf(to);
        if (again > 0 || path.length > 6) continue;
        const answer = this.seen.find(together);
        if (answer === 'none' || answer === 'unknown') continue;
        if (again < 0) walk([...path, to], together);
        else if (path.length > 1) this.tellCycle([...path, to], answer, together, told);
      }
    };
    for (const state of states) walk([state], always);
  }

  private tellCycle(circle: readonly State[], when: Found, asked: Condition, told: Set<string>): void {
    const names = circle.map(({ name }) => name);
    const key = [...names.slice(1)].sort().join(' ');
    // A pulse is used by the first hop, so that the second is not taken by it.
    const pulses = this.controller.tables.pulseBits & when.known.flags & when.words.flags;
    if (told.has(key) || pulses !== 0) return;
    told.add(key);
    this.found.add('hop-cycle', this.pathOf(circle[0]!, 'hops'), {
      states: names,
      when: this.seen.words(when, asked),
    });
  }

  /** A situation in which something goes on and nothing but the rest wants in. */
  private checkRest(): void {
    const { states, rest } = this.controller;
    // An act is not there for good: what it covers it covers for a while.
    const nobody = this.postures().map((one) => not(this.wants(one)));
    const here = this.showing(states[rest]!);
    const told = new Set<Term>();
    for (const state of states) {
      if (state.kind !== 'posture' || state.index === rest || !this.wide.can(this.wants(state))) continue;
      for (const term of positiveTerms(this.condition(state.while))) {
        // A band, or a size that is compared, says that something goes on; a sign alone does not.
        if (told.has(term) || (term.kind !== 'band' && !/(abs|hypot)\(.*[<>]/.test(term.text))) continue;
        told.add(term);
        const on: Condition = { op: 'term', term };
        const asked = all([on, ...nobody]);
        const answer = this.seen.find(asked, here);
        if (answer === 'none' || answer === 'unknown') continue;
        const values = {
          when: this.seen.words(answer, asked),
          set: this.seen.signals(answer),
          rest: states[rest]!.name,
          term: term.text,
        };
        this.found.add('rest-while-moving', ['rest'], values);
        return;
      }
    }
  }

  /** Thresholds of single numbers at which states change: exact values that nobody covers, and trembling. */
  private checkThresholds(): void {
    const { tables } = this.controller;
    for (const { kind, name, slot } of tables.signals.values()) {
      if (kind !== 'number' && kind !== 'vector') continue;
      const names = kind === 'vector' ? [`${name}.x`, `${name}.y`] : [name];
      names.forEach((one, i) => this.checkNumber(one, tables.regions[slot + i]!));
    }
  }

  private checkNumber(name: string, regions: Regions): void {
    if (regions.joint) return;
    const { bounds } = regions;
    const compares = this.controller.tables.terms.filter(
      ({ kind, word, bit }) =>
        kind === 'compare' && word !== 'flags' && regions.bounds.length > 2 && decides(regions, word, bit),
    );
    if (compares.length === 0) return;
    const values = new Set(
      bounds.filter((bound) => Number.isFinite(bound)).map((bound) => roundedBound(bound)),
    );
    for (const value of values) {
      const [below, at, above] = [value - tiny(value), value, value + tiny(value)].map((one) =>
        regionOf(regions, one),
      );
      const [b, a] = [bitsAt(regions, compares, below!), bitsAt(regions, compares, above!)];
      if (b === a) continue;
      const middle = bitsAt(regions, compares, at!);
      if (
        middle !== b &&
        middle !== a &&
        this.checkGap(name, value, regions, compares, [below!, at!, above!])
      )
        continue;
      this.checkFlicker(name, value, regions, compares, [below!, above!]);
    }
  }

  /** A condition with the comparisons of one number as they are in a region. */
  private inRegion(
    condition: Condition,
    regions: Regions,
    compares: readonly Term[],
    region: number,
  ): Condition {
    const on = new Map(compares.map((term) => [term, isOn(term, wordsAt(regions, region))]));
    const put = (part: Condition): Condition => {
      if (part.op === 'term') return on.has(part.term) ? { op: 'constant', value: on.get(part.term)! } : part;
      if (part.op === 'not') return not(put(part.part));
      return part.op === 'constant' ? part : { op: part.op, left: put(part.left), right: put(part.right) };
    };
    return put(condition);
  }

  private postures(): State[] {
    return this.controller.states.filter(
      ({ kind, index }) => kind === 'posture' && index !== this.controller.rest,
    );
  }

  private checkGap(
    name: string,
    value: number,
    regions: Regions,
    compares: readonly Term[],
    [below, at, above]: readonly [number, number, number],
  ): boolean {
    const { states, rest } = this.controller;
    const postures = this.postures();
    const here = (state: State, region: number): Condition =>
      this.inRegion(this.wants(state), regions, compares, region);
    const nobody = postures.map((one) => not(here(one, at)));
    for (const one of postures)
      for (const other of postures) {
        if (one === other) continue;
        const answer = this.seen.find(
          all([here(one, below), here(other, above), ...nobody]),
          this.showing(states[rest]!),
        );
        if (answer === 'none' || answer === 'unknown') continue;
        const values = { name, value, below: one.name, above: other.name, rest: states[rest]!.name };
        this.found.add('threshold-gap', this.pathOf(other), values);
        return true;
      }
    return false;
  }

  private checkFlicker(
    name: string,
    value: number,
    regions: Regions,
    compares: readonly Term[],
    [below, above]: readonly [number, number],
  ): void {
    const { states, rest, order } = this.controller;
    const ranked = order.map((index) => states[index]!).filter(({ kind }) => kind === 'posture');
    const shows = (state: State, region: number): Condition => {
      const higher = ranked
        .slice(0, state.index === rest ? undefined : ranked.indexOf(state))
        .filter((one) => one !== state);
      const own = state.index === rest ? [] : [this.inRegion(this.wants(state), regions, compares, region)];
      return all([
        ...own,
        ...higher.map((one) => not(this.inRegion(this.wants(one), regions, compares, region))),
      ]);
    };
    const candidates = [...ranked, ...(ranked.some(({ index }) => index === rest) ? [] : [states[rest]!])];
    for (const one of candidates)
      for (const other of candidates) {
        if (one === other || one.atLeast > 0 || other.atLeast > 0 || one.leaves || other.leaves) continue;
        const answer = this.seen.find(all([shows(one, below), shows(other, above)]));
        if (answer === 'none' || answer === 'unknown') continue;
        const pair = [name, ...[one.name, other.name].sort()].join(' ');
        if (this.toldPairs.has(pair)) return;
        this.toldPairs.add(pair);
        const place = one.index === rest ? other : one;
        this.found.add('flicker', this.pathOf(place, 'while'), {
          name,
          value,
          below: one.name,
          above: other.name,
        });
        return;
      }
  }

  /** Comparisons of the number that turns the character, on one side only. */
  private checkSides(): void {
    const { turning, tables, states } = this.controller;
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
      for (const state of states)
        for (const field of ['while', 'when'] as const)
          if (state[field] >= 0 && termsOf(this.condition(state[field])).includes(term))
            this.found.add('one-sided', this.pathOf(state, field), { text: term.text, name: signal.name });
    }
  }
}

/** The next double after a threshold is taken for the threshold. */
const roundedBound = (bound: number): number =>
  Math.abs(bound) < 1e-300 ? 0 : Number(bound.toPrecision(12));

const tiny = (value: number): number => Math.max(1e-6, Math.abs(value) * 1e-6);

function decides({ keep, keepMore }: Regions, word: keyof Words, bit: number): boolean {
  return (word === 'terms' ? keep : keepMore).some((kept) => (kept & bit) === 0);
}

const wordsAt = ({ put, putMore }: Regions, region: number): Words => ({
  flags: 0,
  terms: put[region]!,
  more: putMore[region]!,
});

const bitsAt = (regions: Regions, terms: readonly Term[], region: number): string =>
  terms.map((term) => Number(isOn(term, wordsAt(regions, region)))).join('');

/** The terms that a condition needs to be on, not off. */
function positiveTerms(condition: Condition, isOnSide = true): Term[] {
  switch (condition.op) {
    case 'constant':
      return [];
    case 'term':
      return isOnSide ? [condition.term] : [];
    case 'not':
      return positiveTerms(condition.part, !isOnSide);
    default:
      return [...positiveTerms(condition.left, isOnSide), ...positiveTerms(condition.right, isOnSide)];
  }
}
