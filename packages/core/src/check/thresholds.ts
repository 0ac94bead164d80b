import type { State } from '../controller/controller.js';
import { isOn, termsOf } from '../signal/condition.js';
import type { Condition, Term, Words } from '../signal/condition.js';
import { regionOf } from '../signal/regions.js';
import type { Regions } from '../signal/regions.js';
import { Questions } from './questions.js';
import { all, not } from './solver.js';

/** The line of a number, cut into regions, and the comparisons that these decide. */
interface NumberLine {
  readonly name: string;
  readonly regions: Regions;
  readonly compares: readonly Term[];
}

/** What goes wrong at the thresholds of numbers. */
export class Thresholds extends Questions {
  private readonly toldPairs = new Set<string>();

  check(): void {
    this.checkThresholds();
    this.checkSides();
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
    const line = { name, regions, compares };
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
      if (middle !== b && middle !== a && this.checkGap(line, value, [below!, at!, above!])) continue;
      this.checkFlicker(line, value, [below!, above!]);
    }
  }

  /** A condition with the comparisons of one number as they are in a region. */
  private inRegion(condition: Condition, { regions, compares }: NumberLine, region: number): Condition {
    const on = new Map(compares.map((term) => [term, isOn(term, wordsAt(regions, region))]));
    const put = (part: Condition): Condition => {
      if (part.op === 'term') return on.has(part.term) ? { op: 'constant', value: on.get(part.term)! } : part;
      if (part.op === 'not') return not(put(part.part));
      return part.op === 'constant' ? part : { op: part.op, left: put(part.left), right: put(part.right) };
    };
    return put(condition);
  }

  private checkGap(
    line: NumberLine,
    value: number,
    [below, at, above]: readonly [number, number, number],
  ): boolean {
    const { states, rest } = this.controller;
    const { name } = line;
    const postures = this.postures();
    const here = (state: State, region: number): Condition => this.inRegion(this.wants(state), line, region);
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

  private checkFlicker(line: NumberLine, value: number, [below, above]: readonly [number, number]): void {
    const { states, rest, order } = this.controller;
    const { name } = line;
    const ranked = order.map((index) => states[index]!).filter(({ kind }) => kind === 'posture');
    const shows = (state: State, region: number): Condition => {
      const higher = ranked
        .slice(0, state.index === rest ? undefined : ranked.indexOf(state))
        .filter((one) => one !== state);
      const own = state.index === rest ? [] : [this.inRegion(this.wants(state), line, region)];
      return all([...own, ...higher.map((one) => not(this.inRegion(this.wants(one), line, region)))]);
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
