import type { Controller } from '../controller/controller.js';
import type { BitPlace, BitWords } from '../signal/condition.js';
import { Op, placeOf, slotsOf, valueOf } from '../signal/program.js';
import type { Program } from '../signal/program.js';
import { regionOf } from '../signal/regions.js';
import type { Regions } from '../signal/regions.js';
import type { Signal } from '../signal/definition.js';
import { isWithin } from '../signal/signals.js';
import type { ComputedTerm } from '../signal/tables.js';
import { bitsOf } from '../signal/bits.js';
import { Chance } from '../wardrobe/chance.js';
import { hasBits, withBits } from './bits.js';

/** One value of a source: its bits, and values of signals that bring it about. */
export interface Possibility {
  readonly words: BitWords;
  readonly set: Readonly<Record<number, number>>;
}

/** Something that varies by itself: a flag, a number, numbers that are read together, the state that shows. */
export interface Source {
  /** The bits it decides. */
  readonly mask: BitWords;
  readonly all: readonly Possibility[];
}

/** A source of one bit that may be on or off. @param count how many words there are */
function free(count: number, place: BitPlace): Source {
  const on = bitsOf(count, [place]);
  return {
    mask: on,
    all: [
      { words: bitsOf(count, []), set: {} },
      { words: on, set: {} },
    ],
  };
}

type JointTerm = Exclude<ComputedTerm, { kind: 'lasting' }>;
const isJoint = (term: ComputedTerm): term is JointTerm => term.kind !== 'lasting';

/** More combinations of numbers that are read together than this are not all tried. */
const mostCombinations = 30_000;

/**
 * Lists the sources of which a controller's situations are made.
 *
 * @param wide `true` lets a comparison of several numbers (`hypot(vx, vy) > 5`) be on or off whatever the numbers are. That allows more
 *   than is possible, so what is not found is impossible. `false` tries numbers out, so what is found is possible.
 */
export function sourcesOf(controller: Controller, wide: boolean): Source[] {
  const { tables, states, tracks } = controller;
  const { signals, regions, computed, words: count } = tables;
  const shown = tracks.map(({ order }): Source => {
    const all = distinct(order.map((index) => ({ words: states[index]!.tagBits, set: {} })));
    return { mask: all.reduce((bits, { words }) => withBits(bits, words), bitsOf(count, [])), all };
  });
  const lasting = computed.flatMap((term) => (isJoint(term) ? [] : [free(count, term)]));
  const flags = [...signals.values()]
    .filter(({ kind }) => kind === 'flag' || kind === 'pulse')
    .map((signal) => free(count, signal));
  const bitSources = [...shown.filter(({ mask }) => hasBits(mask)), ...lasting, ...flags];

  const joint = computed.filter(isJoint);
  const ofSlot: NumberSource[] = [];
  for (const signal of signals.values()) {
    if (signal.slot >= 0) ofSlot[signal.slot] = signal;
    if (signal.kind === 'vector') ofSlot[signal.slot + 1] = signal;
  }
  const masks = regions.map((of) => maskOf(count, of));
  const groups = wide ? [] : groupsOf(joint, masks, bitSources);
  const grouped = new Set(groups.flatMap(({ slots }) => slots));
  const taken = new Set(groups.flatMap((group) => group.bitSources));
  const sources = bitSources.filter((one) => !taken.has(one));
  regions.forEach((of, slot) => {
    if (grouped.has(slot)) return;
    const values = valuesOf(of, ofSlot[slot]!);
    const all = distinct(values.flatMap((value) => bitsAt(count, of, slot, value)));
    if (all.length > 1) sources.push({ mask: masks[slot]!, all });
  });
  if (wide) for (const term of joint) sources.push(free(count, term));
  for (const group of groups) sources.push(groupSource(count, group, regions, ofSlot));
  return sources;
}

/** The bits that the regions of a number decide. */
function maskOf(count: number, { words, keep }: Regions): BitWords {
  const mask = bitsOf(count, []);
  keep.forEach((kept, i) => (mask[words[i % words.length]!]! |= ~kept));
  return mask;
}

/** A value of each region that can be; of a choice its options. */
function valuesOf({ bounds }: Regions, { kind, options, bounds: own = {} }: NumberSource): number[] {
  if (kind === 'choice') return options.map((_, i) => i);
  const { from = -Infinity, to = Infinity, whole = false } = own;
  return bounds.slice(0, -1).flatMap((least, i) => {
    const high = bounds[i + 1]!;
    const low = Math.max(least, from);
    if (low >= high || low > to) return [];
    const value = Math.min(to, within(low, high));
    if (!whole) return [value];
    const near = Number.isInteger(value) ? value : Math.ceil(low === -Infinity ? value : low);
    return near < high && near <= to ? [near] : [];
  });
}

/** What a slot of numbers is of: a number, one of the two of a vector, or the options of a choice. */
type NumberSource = Pick<Signal, 'kind' | 'options' | 'bounds'>;

/** A plain value from one bound on to under another. */
function within(low: number, high: number): number {
  if (low <= 0 && high > 0) return 0;
  if (low === -Infinity) return high - Math.max(1, Math.abs(high) / 2);
  if (high === Infinity) return low + Math.max(1, Math.abs(low) / 2);
  const middle = (low + high) / 2;
  return middle < high && middle > low ? Number(middle.toPrecision(6)) : low;
}

/** What a number can mean: a band that it leaves as it was may be on or off. */
function bitsAt(count: number, of: Regions, slot: number, value: number): Possibility[] {
  const region = regionOf(of, value);
  const open = maskOf(count, of);
  const own = bitsOf(count, []);
  of.words.forEach((word, i) => {
    const at = region * of.words.length + i;
    own[word] = of.put[at]!;
    open[word]! &= of.keep[at]!;
  });
  return spread({ words: own, set: { [slot]: value } }, open);
}

/** A possibility with some bits each way. */
function spread(one: Possibility, open: BitWords): Possibility[] {
  const word = open.findIndex((bits) => bits !== 0);
  if (word < 0) return [one];
  const bit = open[word]! & -open[word]!;
  const on = withBits(one.words, bitsOf(open.length, [{ word, bit }]));
  const left = open.slice();
  left[word]! &= ~bit;
  return [one, { ...one, words: on }].flatMap((each) => spread(each, left));
}

function distinct(all: readonly Possibility[]): Possibility[] {
  const seen = new Map<string, Possibility>();
  for (const one of all) {
    const key = one.words.join(' ');
    if (!seen.has(key)) seen.set(key, one);
  }
  return [...seen.values()];
}

/** The number of a bit, as programs name it. */
const bitNumber = ({ word, bit }: BitPlace): number => 32 * word + (31 - Math.clz32(bit));

/** Whether a bit is on. @param number as programs name it */
const hasBit = (words: BitWords, number: number): boolean =>
  ((words[number >> 5]! >>> (number & 31)) & 1) === 1;

/** The bits that a program reads. */
const bitsRead = ({ code }: Program): number[] =>
  code.flatMap((op, i) => (i % 2 === 0 && op === Op.bit ? [code[i + 1]!] : []));

/** Numbers and other sources that are read together, and the terms that read them. */
interface Group {
  readonly slots: number[];
  /** Flags, also those that last, and the states that show in a track. */
  readonly bitSources: Source[];
  readonly terms: JointTerm[];
}

/**
 * @param masks for each number slot the bits that it decides: comparisons of this number alone, and bands of it
 * @param bitSources the sources that are bits and no numbers
 */
function groupsOf(
  joint: readonly JointTerm[],
  masks: readonly BitWords[],
  bitSources: readonly Source[],
): Group[] {
  const slotOf = (bit: number): number => masks.findIndex((mask) => hasBit(mask, bit));
  let groups: Group[] = [];
  for (const term of joint) {
    const bits = bitsRead(term.program);
    const read = {
      slots: [...slotsOf(term.program), ...bits.map(slotOf).filter((slot) => slot >= 0)],
      bitSources: bitSources.filter(({ mask }) => bits.some((bit) => hasBit(mask, bit))),
    };
    const touched = groups.filter(
      (group) =>
        group.slots.some((slot) => read.slots.includes(slot)) ||
        group.bitSources.some((source) => read.bitSources.includes(source)) ||
        group.terms.some((other) => bits.includes(bitNumber(other))),
    );
    const together = [...touched, read];
    const merged = {
      slots: [...new Set(together.flatMap((group) => group.slots))],
      bitSources: [...new Set(together.flatMap((group) => group.bitSources))],
      terms: [...touched.flatMap((group) => group.terms), term],
    };
    groups = [...groups.filter((group) => !touched.includes(group)), merged];
  }
  return groups;
}

/** Values worth trying for a number that is read with others: around whatever its expressions and thresholds name. */
function triedValues(of: Regions, terms: readonly JointTerm[], source: NumberSource): number[] {
  const named = terms.flatMap((term) => [
    ...term.program.constants,
    ...(term.kind === 'band' ? [term.above, term.below, (term.above + term.below) / 2] : []),
  ]);
  const sizes = new Set([1, ...named.map(Math.abs).filter((size) => size > 0)]);
  const tried = [...sizes].flatMap((size) => [
    size / 2,
    size * Math.SQRT1_2,
    size,
    size * 1.5,
    size * 4,
    Math.sqrt(size),
  ]);
  const all = [...valuesOf(of, source), 0, ...tried, ...tried.map((value) => -value)];
  return [...new Set(all)].filter((value) => isWithin(value, source.bounds));
}

/** Tries combinations of numbers and other sources that are read together. */
function groupSource(
  count: number,
  { slots, bitSources, terms }: Group,
  regions: readonly Regions[],
  ofSlot: readonly NumberSource[],
): Source {
  const candidates = slots.map((slot) =>
    ofSlot[slot]!.kind === 'choice'
      ? valuesOf(regions[slot]!, ofSlot[slot]!)
      : triedValues(regions[slot]!, terms, ofSlot[slot]!),
  );
  const masks = [
    ...slots.map((slot) => maskOf(count, regions[slot]!)),
    ...bitSources.map(({ mask }) => mask),
  ];
  const decided = masks.reduce(withBits, bitsOf(count, []));
  const lengths = [...candidates, ...bitSources.map(({ all }) => all)].map(({ length }) => length);
  const combinations = lengths.reduce((product, length) => product * length, 1);
  // Too many are tried by chance: steps of even length would never turn some of the flags on.
  const chance = combinations > mostCombinations ? new Chance(1) : undefined;
  const numbers = new Float64Array(placeOf(regions.length));
  // What follows from the values alone comes first: examples need not speak of what a band remembers then.
  const [certain, remembered]: [Possibility[], Possibility[]] = [[], []];
  for (let at = 0; at < Math.min(combinations, mostCombinations); at++) {
    let rest = at;
    const next = (length: number): number => {
      if (chance !== undefined) return Math.floor(chance.next() * length);
      const one = rest % length;
      rest = Math.floor(rest / length);
      return one;
    };
    const none: Possibility = { words: bitsOf(count, []), set: {} };
    let all = [bitSources.reduce((one, { all: each }) => joined(one, each[next(each.length)]!), none)];
    slots.forEach((slot, i) => {
      const value = candidates[i]![next(candidates[i]!.length)]!;
      numbers[placeOf(slot)] = value;
      all = all.flatMap((one) =>
        bitsAt(count, regions[slot]!, slot, value).map((other) => joined(one, other)),
      );
    });
    const each = all.flatMap((one) => withTerms(one, terms, numbers));
    (each.length === 1 ? certain : remembered).push(...each);
  }
  return { mask: withBits(decided, bitsOf(count, terms)), all: distinct([...certain, ...remembered]) };
}

const joined = (one: Possibility, other: Possibility): Possibility => ({
  words: withBits(one.words, other.words),
  set: { ...one.set, ...other.set },
});

/** Adds the terms that are computed from the rest, in order. A band between its thresholds may be on or off. */
const withTerms = (
  one: Possibility,
  terms: readonly JointTerm[],
  numbers: Float64Array,
): readonly Possibility[] =>
  terms.reduce<readonly Possibility[]>(
    (all, term) =>
      all.flatMap((each) => {
        const value = valueOf(term.program, numbers, 0, each.words);
        const on = { ...each, words: withBits(each.words, bitsOf(each.words.length, [term])) };
        if (term.kind !== 'band') return [value !== 0 ? on : each];
        if (value > term.above) return [on];
        return value < term.below ? [each] : [each, on];
      }),
    [one],
  );
