import type { Controller } from '../controller/controller.js';
import { isOn } from '../signal/condition.js';
import type { BitPlace, Term, BitWords } from '../signal/condition.js';
import { compare, flipped, isComparison } from '../signal/comparison.js';
import { parseExpression, written } from '../signal/expression.js';
import type { Comparison } from '../signal/expression.js';
import { regionOf } from '../signal/regions.js';
import type { Regions } from '../signal/regions.js';
import type { NumberBounds } from '../signal/definition.js';
import { constantOf } from '../signal/scope.js';

/** The results of comparisons on one side of a threshold, or exactly on it. */
export type Side = ReadonlyMap<Term, boolean>;

/** A threshold: the number, its value, and the results of the comparisons just below it, exactly on it and just above it. */
export interface Threshold {
  readonly name: string;
  readonly value: number;
  /** Whether the number is always whole, so that it cannot tremble around the threshold. */
  readonly isWhole: boolean;
  readonly below: Side;
  readonly at: Side;
  readonly above: Side;
}

/** Every threshold at which comparisons change: of signals, and of numbers that are computed from several signals. */
export function thresholdsOf(controller: Controller): Threshold[] {
  const { tables } = controller;
  const found: Threshold[] = [];
  for (const { kind, name, slot, bounds } of tables.signals.values()) {
    if (kind !== 'number' && kind !== 'vector') continue;
    const names = kind === 'vector' ? [`${name}.x`, `${name}.y`] : [name];
    names.forEach((one, i) => found.push(...ofNumber(controller, one, tables.regions[slot + i]!, bounds)));
  }
  return [...found, ...ofComputed(controller)].filter(({ below, above }) => !isSame(below, above));
}

export const isSame = (one: Side, other: Side): boolean =>
  [...one].every(([term, on]) => other.get(term) === on);

function ofNumber(
  { tables }: Controller,
  name: string,
  regions: Regions,
  { from = -Infinity, to = Infinity, whole = false }: NumberBounds = {},
): Threshold[] {
  const compares = tables.terms.filter((term) => term.kind === 'compare' && decides(regions, term));
  if (compares.length === 0) return [];
  const sideAt = (value: number): Side => {
    const words = wordsAt(tables.words, regions, regionOf(regions, value));
    return new Map(compares.map((term) => [term, isOn(term, words)]));
  };
  const values = new Set(regions.bounds.filter((bound) => Number.isFinite(bound)).map(roundedBound));
  // Nothing is met at an end of what the number can be, or outside.
  const inside = [...values].filter((value) => value > from && value < to);
  return inside.map((value) => ({
    name,
    value,
    isWhole: whole,
    below: sideAt(value - tiny(value)),
    at: sideAt(value),
    above: sideAt(value + tiny(value)),
  }));
}

/** Comparisons such as `hypot(vx, vy) > 5`: those of the same expression with the same number are one threshold. */
function ofComputed({ tables }: Controller): Threshold[] {
  const lines = new Map<string, { name: string; value: number; terms: Map<Term, Comparison> }>();
  for (const computed of tables.computed) {
    const term = tables.terms.find(({ word, bit }) => word === computed.word && bit === computed.bit);
    if (computed.kind !== 'joint' || term?.kind !== 'compare') continue;
    const read = readComparison(term.text);
    if (read === undefined) continue;
    const key = `${read.name} ${read.value}`;
    const line = lines.get(key) ?? { name: read.name, value: read.value, terms: new Map<Term, Comparison>() };
    line.terms.set(term, read.operator);
    lines.set(key, line);
  }
  return [...lines.values()].map(({ name, value, terms }) => {
    const side = (number: number): Side =>
      new Map([...terms].map(([term, operator]) => [term, compare(operator, number, value)]));
    return { name, value, isWhole: false, below: side(value - 1), at: side(value), above: side(value + 1) };
  });
}

/** An expression that is compared with a number, on whichever side that stands. */
function readComparison(text: string): { name: string; operator: Comparison; value: number } | undefined {
  const expression = parseExpression(text);
  if (expression.kind !== 'binary') return undefined;
  const { left, right, operator } = expression;
  if (!isComparison(operator)) return undefined;
  const [onRight, onLeft] = [constantOf(right), constantOf(left)];
  if (onRight !== undefined) return { name: written(left), operator, value: onRight };
  return onLeft === undefined
    ? undefined
    : { name: written(right), operator: flipped[operator], value: onLeft };
}

/** The next double after a threshold is taken for the threshold. */
const roundedBound = (bound: number): number =>
  Math.abs(bound) < 1e-300 ? 0 : Number(bound.toPrecision(12));

/** A step from a threshold to one of its sides. */
export const tiny = (value: number): number => Math.max(1e-6, Math.abs(value) * 1e-6);

/** Whether the regions of a number decide a bit. */
export function decides({ words, keep }: Regions, { word, bit }: BitPlace): boolean {
  const at = words.indexOf(word);
  return at >= 0 && keep.some((kept, i) => i % words.length === at && (kept & bit) === 0);
}

/** The bits that a region puts. @param count how many words there are */
export function wordsAt(count: number, { words, put }: Regions, region: number): BitWords {
  const found = new Int32Array(count);
  words.forEach((word, i) => (found[word] = put[region * words.length + i]!));
  return found;
}
