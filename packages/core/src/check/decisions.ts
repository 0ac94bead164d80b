import type { Hop, State } from '../controller/state.js';
import { isOn, needsPulse, termsOf } from '../signal/condition.js';
import { rankText } from '../controller/rank.js';
import type { Condition, Term } from '../signal/condition.js';
import type { SignalValue } from '../signal/definition.js';
import { parseExpression, partsOf } from '../signal/expression.js';
import type { Expression } from '../signal/expression.js';
import { commonBits, hasBits } from './bits.js';
import { Questions } from './questions.js';
import { all, always, literal, not } from './solver.js';
import type { Found } from './solver.js';
import { outranks } from './structure.js';

/** Longer circles of hops are not followed; the check says that it gave them up. */
const longestCircle = 8;

/** How many situations of one kind are told. */
const mostSituations = 3;

/** The checks that go through every situation that conditions can tell apart. */
export class Decisions extends Questions {
  check(): void {
    this.checkConditions();
    for (const state of this.own) {
      this.checkShows(state);
      this.checkWaysOn(state);
      this.checkStuck(state);
      this.checkYields(state);
      this.checkPresses(state);
    }
    this.checkCycles();
    // Arms that hang while something goes on are no fault: it is the body that must show it.
    if (this.track.index === 0) this.checkRest();
  }

  /** Finds conditions that are never true or always true, whatever the values of the signals. */
  private checkConditions(): void {
    const { conditions, conditionTexts } = this.controller;
    const asked = new Set(
      this.own.flatMap((one) => [one.while, one.when, ...[...one.hops, ...one.yields].map((way) => way.if)]),
    );
    conditions.forEach((condition, index) => {
      if (!asked.has(index)) return;
      const text = conditionTexts[index]!;
      const never = !this.wide.can(condition);
      if ((!never && this.wide.can(not(condition))) || condition.op === 'constant') return;
      for (const state of this.own) {
        const places = [
          ...(['while', 'when'] as const).filter((field) => state[field] === index).map((field) => [field]),
          ...state.hops.flatMap((hop) => (hop.if === index ? [['hops', hop.place, 'if']] : [])),
          ...state.yields.flatMap((one, i) => (one.if === index ? [['yields', i, 'if']] : [])),
        ];
        for (const place of places)
          this.found.add(never ? 'condition-never' : 'condition-always', this.pathOf(state, ...place), {
            text,
          });
      }
    });
  }

  /** Finds states that are outranked whenever they want in, and to which nothing else leads. */
  private checkShows(state: State): void {
    const { states } = this.controller;
    const { rest } = this.track;
    // A yield that names it asks only those that it names.
    const isLedTo = states.some(
      ({ hops, then, yields }) =>
        then === state.index ||
        hops.some(({ to }) => to === state.index) ||
        yields.some(({ to }) => to?.has(state.index)),
    );
    if (state.kind === 'bare' || state.index === rest || isLedTo) return;
    const wants = this.wants(state);
    if (!this.wide.can(wants)) return;
    // An act above it may have been played already; a posture that stands is there for sure.
    const above = this.above(state);
    if (this.isReached(state)) return;
    const alone = above.find((one) => !this.wide.can(all([wants, not(this.wants(one))])));
    const by = (alone === undefined ? above : [alone]).map(({ name }) => name);
    const rank = rankText(above.find(({ name }) => by.includes(name))!);
    this.found.add('state-never', this.pathOf(state), {
      state: state.name,
      track: this.track.name,
      by,
      rank,
    });
  }

  /** Finds hops and `then` that can never be taken, and those whose target is left at once. */
  private checkWaysOn(state: State): void {
    const { states } = this.controller;
    const here = this.showing(state);
    const places = new Set(state.hops.map((hop) => hop.place));
    for (const place of places) {
      const path = this.pathOf(state, 'hops', place);
      // Into a group there are several: of these the one is taken whose condition holds.
      const ways = state.hops
        .filter((hop) => hop.place === place)
        .map((hop) => {
          const to = states[hop.to]!;
          const [given, open] = [this.condition(hop.if), this.condition(to.while)];
          // What is remembered may have been true before.
          return { to, taken: hop.memory >= 0 ? open : all([given, open]) };
        });
      const [first, ...others] = ways;
      if (!ways.some(({ taken }) => this.wide.can(taken, here)))
        this.found.add('hop-never', path, { to: ways.map(({ to }) => to.name).join(', ') });
      else if (others.length === 0) this.checkOvertaken(state, first!.to, first!.taken, path);
    }
    if (state.then < 0) return;
    const endless = state.flipbooks.flat().find(({ loops, bridge }) => loops && !bridge);
    if (state.lasts === undefined && (endless !== undefined || state.scrub !== undefined)) {
      this.found.add('then-endless', this.pathOf(state, 'then'), {
        state: state.name,
        to: states[state.then]!.name,
        clip: endless?.clip.name,
        scrubbed: state.scrub !== undefined,
      });
      return;
    }
    const to = states[state.then]!;
    const taken = this.condition(to.while);
    if (!this.wide.can(taken, here))
      this.found.add('then-never', this.pathOf(state, 'then'), { to: to.name });
    else this.checkOvertaken(state, to, taken, this.pathOf(state, 'then'));
  }

  private checkOvertaken(from: State, to: State, taken: Condition, path: (string | number)[]): void {
    if (to.final) return;
    const here = this.showing(to);
    const above = this.own.filter((one) => one.kind === 'posture' && outranks(one, to));
    const free = all([taken, ...above.map((one) => not(this.wants(one)))]);
    if (above.length === 0 || this.wide.can(free, here) || !this.wide.can(taken, here)) return;
    const by = above
      .filter((one) => this.wide.can(all([taken, this.wants(one)]), here))
      .map(({ name }) => name);
    const rank = rankText(above.reduce((most, one) => (one.rank > most.rank ? one : most)));
    this.found.add('follow-up-overtaken', path, { from: from.name, to: to.name, by, rank });
  }

  /** Finds states that nothing ends once they show. */
  private checkStuck(state: State): void {
    const { states } = this.controller;
    // A posture ends when its condition does; one whose condition is always true is told as such.
    if (state.kind !== 'bare' || state.while >= 0 || state.index === state.rest) return;
    const loops = state.flipbooks.flat().some(({ loops: one }) => one) || state.scrub !== undefined;
    if (state.ends && (!loops || state.lasts !== undefined)) return;
    const here = this.showing(state);
    const others = this.own.filter((one) => one !== state);
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

  /** Finds states that yield only to states which can never want in meanwhile. Somebody meant such a state to end. */
  private checkYields(state: State): void {
    const here = this.showing(state);
    state.yields.forEach((one, i) => {
      const others = this.own.filter(({ index }) => one.to?.has(index) ?? index !== state.index);
      const given = this.condition(one.if);
      if (others.some((other) => this.wide.can(all([given, this.wants(other)]), here))) return;
      const to = one.to === undefined ? [] : others.map(({ name }) => name);
      this.found.add('yield-never', this.pathOf(state, 'yields', i), { state: state.name, to });
    });
  }

  /** Finds acts whose press is forgotten at once, and which other states keep out while they play. */
  private checkPresses(state: State): void {
    const { tables } = this.controller;
    if (state.when < 0 || !needsPulse(this.condition(state.when))) return;
    const presses = termsOf(this.condition(state.when)).filter(({ kind }) => kind === 'pulse');
    const lost = presses.filter(({ text }) => tables.signals.get(text)!.keep <= 1).map(({ text }) => text);
    if (lost.length === 0) return;
    const by = this.own.filter(
      (one) =>
        one !== state &&
        one.ends &&
        (one.final || !outranks(state, one)) &&
        !one.yields.some(({ to }) => to?.has(state.index) ?? true) &&
        !one.hops.some(({ to }) => to === state.index) &&
        this.wide.can(this.wants(state), this.showing(one)),
    );
    if (by.length > 0)
      this.found.add('press-lost', this.pathOf(state, 'when'), {
        state: state.name,
        pulse: lost[0],
        by: by.map(({ name }) => name),
      });
  }

  /** Finds circles of hops that are taken at once. */
  private checkCycles(): void {
    const { states } = this.controller;
    const told = new Set<string>();
    const leads = (hop: Hop): Condition =>
      all([this.condition(hop.if), this.condition(states[hop.to]!.while)]);
    const walk = (path: State[], taken: Condition): void => {
      const last = path[path.length - 1]!;
      for (const hop of hopsAtOnce(last)) {
        const to = states[hop.to]!;
        const together = all([taken, leads(hop)]);
        const again = path.indexOf(to);
        // A circle that does not come back to where it began is found from another of its states.
        if (again > 0) continue;
        if (path.length > longestCircle) {
          this.seen.givenUp++;
          continue;
        }
        const answer = this.seen.find(together);
        if (answer === 'none' || answer === 'unknown') continue;
        if (again < 0) walk([...path, to], together);
        else if (path.length > 1) this.tellCycle([...path, to], answer, together, told);
      }
    };
    for (const state of this.own) walk([state], always);
  }

  private tellCycle(circle: readonly State[], when: Found, asked: Condition, told: Set<string>): void {
    const names = circle.map(({ name }) => name);
    const key = [...names.slice(1)].sort().join(' ');
    // A pulse is used by the first hop, so that the second is not taken by it.
    const pulses = commonBits(this.controller.tables.pulseBits, commonBits(when.known, when.words));
    if (told.has(key) || hasBits(pulses)) return;
    told.add(key);
    this.found.add('hop-cycle', this.pathOf(circle[0]!, 'hops'), {
      states: names,
      when: this.seen.words(when, asked),
    });
  }

  /** Finds situations in which something goes on, and no state but the rest wants in. */
  private checkRest(): void {
    const { states, rest } = this.controller;
    // An act is not there for good: what it covers it covers for a while.
    const nobody = this.postures().map((one) => not(this.wants(one)));
    const here = this.showing(states[rest]!);
    const told = new Set<Term>();
    for (const state of this.own) {
      if (state.kind !== 'posture' || state.index === rest || !this.wide.can(this.wants(state))) continue;
      for (const term of positiveTerms(this.condition(state.while))) {
        // A band, or a size that is compared, says that something goes on; a sign alone does not.
        if (told.has(term) || (term.kind !== 'band' && !comparesSize(term))) continue;
        told.add(term);
        const on: Condition = { op: 'term', term };
        const situations: { when: string; set: Readonly<Record<string, SignalValue>> }[] = [];
        for (let asked = all([on, ...nobody]); situations.length < mostSituations;) {
          const answer = this.seen.find(asked, here);
          if (typeof answer !== 'object') break;
          situations.push({ when: this.seen.words(answer, asked), set: this.seen.signals(answer) });
          // Another situation is one that differs in what is on and off, not in numbers alone.
          const same = termsOf(asked).filter((one) => one.kind !== 'compare' && isOn(one, answer.known));
          asked = all([asked, not(all(same.map((one): Condition => literal(one, isOn(one, answer.words)))))]);
        }
        if (situations.length === 0) continue;
        const values = { situations, rest: states[rest]!.name, term: term.text };
        this.found.add('rest-while-moving', ['rest'], values);
      }
    }
  }
}

/** The hops that can be taken the moment a state is entered. */
function hopsAtOnce({ hops, flipbooks }: State): Hop[] {
  return hops.filter(({ now }, i) => now && flipbooks.some((flipbook) => flipbook[0]!.armed[0]!.includes(i)));
}

/** Whether a term compares the size of something, `abs(vx) > 5`, which says that it goes on whatever its direction. */
function comparesSize({ kind, text }: Term): boolean {
  if (kind !== 'compare') return false;
  const expression = parseExpression(text);
  const hasSize = (part: Expression): boolean =>
    (part.kind === 'call' && (part.name === 'abs' || part.name === 'hypot')) || partsOf(part).some(hasSize);
  return expression.kind === 'binary' && /[<>]/.test(expression.operator) && hasSize(expression);
}

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
