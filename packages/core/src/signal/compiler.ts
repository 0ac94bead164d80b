import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { ProblemCode, ValuesOf } from '../problem/sentences.js';
import { BitPlaces, bitsOf } from './bits.js';
import { NumberExpression, compare, flipped, shaped } from './comparison.js';
import type { BitPlace, Condition, Term } from './condition.js';
import { joinedUpTo } from './joining.js';
import type { DerivedDefinition, Signal, SignalDefinition } from './definition.js';
import { ExpressionError, wordedSigns, written } from './expression.js';
import type { Comparison, Expression } from './expression.js';
import { conditionOf } from './condition-of.js';
import type { TermReader } from './condition-of.js';
import { mostParts, want, kindOf } from './kinds.js';
import type { BinaryExpression, Kind } from './kinds.js';
import { functions, slotsOf } from './program.js';
import type { Program } from './program.js';
import { RegionBuilder } from './regions.js';
import { isFromZero } from './sign.js';
import { Scope, constantOf } from './scope.js';
import { readSignal } from './signals.js';
import { programOf } from './writer.js';
import { isComputed } from './tables.js';
import type { ComputedTerm, SignalTables } from './tables.js';

/** Stops the reading of one expression after its problem was added. */
class Refused extends Error {}

/** The names of states and tags that expressions can ask for. */
export interface Askable {
  /** The tags, each with the place of the first state that has it. */
  readonly tags: ReadonlyMap<string, DocumentPath>;
  /** The states that each track can show. */
  readonly tracks: ReadonlyMap<string, readonly string[]>;
}

/** Reads signals, derived signals and every expression over them into tables. */
export class SignalCompiler implements TermReader {
  readonly scope: Scope;
  text = '';
  private readonly owner = Object.freeze({});
  private readonly regions: RegionBuilder[] = [];
  private readonly terms = new Map<string, Term>();
  private readonly computed: ComputedTerm[] = [];
  private readonly derivedKinds = new Map<string, Kind>();
  private readonly resolving: string[] = [];
  private readonly refused = new Set<string>();
  readonly joining = joinedUpTo(mostParts, () => this.refuse('expression-large', { most: mostParts }));
  private readonly bits = new BitPlaces();
  private timers = 0;
  /** One timer for all pulses without `keep`, because all of them expire a microsecond after the instant at which any was set. */
  private tapTimer: number | undefined;
  /** The path of the expression that is being read, for problems found inside it. */
  private path: DocumentPath = [];

  /**
   * @param askable what of states can be asked for
   */
  constructor(
    definitions: Readonly<Record<string, SignalDefinition>>,
    derived: Readonly<Record<string, DerivedDefinition>>,
    { tags, tracks }: Askable,
    private readonly problems: ProblemList,
  ) {
    this.scope = new Scope(derived, tracks);
    for (const [name, definition] of Object.entries(definitions)) {
      this.checkName(name, ['signals', name]);
      if (Object.hasOwn(derived, name)) problems.add('signal-twice', ['derived', name], { name });
      this.addSignal(readSignal(name, definition, ['signals', name], problems));
    }
    for (const [tag, path] of tags) {
      this.checkName(tag, path);
      if (Object.hasOwn(definitions, tag) || Object.hasOwn(derived, tag))
        problems.add('tag-signal', path, { name: tag });
      this.scope.tagNames.add(tag);
    }
    for (const name of Object.keys(derived)) {
      this.checkName(name, ['derived', name]);
      if (this.scope.signals.has(name)) continue;
      this.reading(['derived', name], '', () => this.derivedKind(name));
    }
  }

  /** Reads a condition; `undefined` after a problem was added. */
  condition(text: string, path: DocumentPath): Condition | undefined {
    return this.reading(path, text, () => this.toCondition(this.scope.parsed(text)));
  }

  /** Reads an expression that gives a number; `undefined` after a problem was added. */
  number(text: string | number, path: DocumentPath): NumberExpression | undefined {
    return this.reading(path, String(text), () => {
      const expression = this.scope.parsed(String(text));
      want(expression, 'number', this);
      return new NumberExpression(
        programOf(expression, this),
        this.scope.plainNumber(expression),
        constantOf(expression),
      );
    });
  }

  /**
   * Whether a number can never be below 0.
   *
   * @param text an expression that can be read
   */
  isFromZero(text: string | number): boolean {
    return isFromZero(this.scope.parsed(String(text)), this.scope);
  }

  /** Reads a length in milliseconds, which is never below 0; `undefined` after a problem was added. */
  length(ms: number | string, path: DocumentPath): NumberExpression | undefined {
    const number = this.number(ms, path);
    if (number?.constant !== undefined && number.constant < 0)
      this.problems.add('length-negative', path, { received: number.constant });
    return number;
  }

  /** Makes a band over a number a term of its own. Gaits are picked by such bands. `undefined` after a problem was added. */
  band(of: string, above: number, below: number, path: DocumentPath): Condition | undefined {
    return this.reading(path, of, () => {
      const name = `${of} above ${above}, below ${below}`;
      const known = this.terms.get(name);
      if (known !== undefined) return { op: 'term', term: known };
      return this.bandOf(name, this.scope.parsed(of), { above, below });
    });
  }

  /** The regions of a number. Other readers of the number may cut them further. */
  regionsOf(slot: number): RegionBuilder {
    return this.regions[slot]!;
  }

  /** Adds a timer: an instant that each performer keeps. */
  addTimer(): number {
    return this.timers++;
  }

  /** Makes every change of the numbers count that a program reads. */
  watch(expression: { readonly program: Program }): void {
    for (const slot of slotsOf(expression.program)) this.regions[slot]!.joint = true;
  }

  finish(): SignalTables {
    this.bits.check(this.problems);
    const { words } = this.bits;
    const all = [...this.scope.signals.values()];
    const pulses = all.filter(({ kind }) => kind === 'pulse');
    return {
      owner: this.owner,
      signals: this.scope.signals,
      ...this.scope.rules((number) => programOf(number, this)),
      tags: this.scope.tags,
      terms: [...this.terms.values()],
      regions: this.regions.map((builder) => builder.build()),
      computed: this.computed,
      words,
      computedBits: bitsOf(words, [...this.terms.values()].filter(isComputed)),
      pulses,
      pulseBits: bitsOf(words, pulses),
      timers: this.timers,
      firstBits: bitsOf(
        words,
        all.filter(({ kind, first }) => kind === 'flag' && first[0] === 1),
      ),
    };
  }

  private checkName(name: string, path: DocumentPath): void {
    const reserved = ['true', 'false', ...wordedSigns.keys(), ...Object.keys(functions)].includes(name);
    if (!/^[A-Za-z_]\w*$/.test(name) || reserved) this.problems.add('signal-name', path, { name });
  }

  /** Gives a signal its places: a number slot for each of its values, or a bit, and a timer for a pulse. */
  private addSignal(signal: Signal): void {
    const { name, kind, keep, first, options, bounds } = signal;
    const isBit = kind === 'flag' || kind === 'pulse';
    const { word, bit } = isBit ? this.bits.next(kind === 'flag' ? 'flags' : 'pulses') : { word: 0, bit: 0 };
    const slot = isBit ? -1 : this.regions.length;
    if (!isBit) this.regions.push(...first.map(() => new RegionBuilder()));
    const timer = kind !== 'pulse' ? -1 : keep > 1 ? this.timers++ : (this.tapTimer ??= this.timers++);
    this.scope.signals.set(name, {
      owner: this.owner,
      name,
      kind,
      slot,
      // Known when the rows are laid out.
      place: 0,
      word,
      bit,
      timer,
      keep,
      first,
      options,
      bounds,
    });
  }

  /** Runs one reading. A fault in it becomes one problem at its path. */
  private reading<T>(path: DocumentPath, text: string, read: () => T): T | undefined {
    const outer = { path: this.path, text: this.text };
    this.path = path;
    this.text = text;
    try {
      return read();
    } catch (error) {
      if (error instanceof ExpressionError)
        this.problems.add('expression-syntax', path, { text: this.text, detail: error.message }, error.at);
      else if (!(error instanceof Refused)) throw error;
      return undefined;
    } finally {
      this.path = outer.path;
      this.text = outer.text;
    }
  }

  refuse<C extends ProblemCode>(code: C, values: ValuesOf<C>, at?: number): never {
    // The compiler cannot tell of which code the values are.
    this.problems.add<ProblemCode>(code, this.path, values, at);
    throw new Refused();
  }

  derivedKind(name: string): Kind {
    const known = this.derivedKinds.get(name);
    if (known !== undefined) return known;
    if (this.refused.has(name)) throw new Refused();
    const again = this.resolving.indexOf(name);
    if (again >= 0) {
      const names = [...this.resolving.slice(again), name];
      this.path = ['derived', name];
      for (const one of names) this.refused.add(one);
      this.refuse('derived-cycle', { names });
    }
    this.resolving.push(name);
    try {
      const path = ['derived', name];
      const kind = this.reading(path, '', () => this.readDerived(name, this.scope.derived[name]!));
      if (kind === undefined) {
        this.refused.add(name);
        throw new Refused();
      }
      this.derivedKinds.set(name, kind);
      return kind;
    } finally {
      this.resolving.pop();
    }
  }

  private readDerived(name: string, definition: DerivedDefinition): Kind {
    this.text = typeof definition === 'string' ? definition : definition.of;
    const expression = this.scope.parsed(this.text);
    const { derivedFlags, derivedNumbers } = this.scope;
    if (typeof definition === 'string') {
      const kind = kindOf(expression, this);
      if (kind === 'flag') derivedFlags.set(name, this.toCondition(expression));
      else if (want(expression, 'number', this) === 'number') derivedNumbers.set(name, expression);
      return kind;
    }
    this.path = [...this.path, 'of'];
    if ('above' in definition) derivedFlags.set(name, this.bandOf(name, expression, definition));
    else {
      const field = 'linger' in definition ? 'linger' : 'settle';
      const ms = 'linger' in definition ? definition.linger : definition.settle;
      const condition = this.toCondition(expression);
      const term = this.term(name, 'lasting', this.scope.readsOf(expression));
      const length = typeof ms === 'string' ? this.length(ms, ['derived', name, field])?.program : undefined;
      const time = length === undefined ? Math.round(Number(ms) * 1000) : 1;
      const [linger, settle] = field === 'linger' ? [time, 0] : [0, time];
      const { word, bit } = term;
      const timer = this.timers++;
      this.computed.push({ kind: 'lasting', word, bit, condition, length, linger, settle, timer });
      derivedFlags.set(name, { op: 'term', term });
    }
    return 'flag';
  }

  private bandOf(
    name: string,
    expression: Expression,
    { above, below }: { above: number; below: number },
  ): Condition {
    want(expression, 'number', this);
    if (!(below <= above)) this.refuse('band-order', { above, below });
    const term = this.term(name, 'band', this.scope.readsOf(expression));
    const plain = this.scope.plainNumber(expression);
    if (plain !== undefined) {
      const test = (value: number): boolean | undefined => {
        const seen = shaped(plain.shape, value);
        return seen > above ? true : seen < below ? false : undefined;
      };
      this.regions[plain.slot]!.addTest(term, [above, below, -above, -below], test);
    } else {
      const program = programOf(expression, this);
      this.watch({ program });
      const { word, bit } = term;
      this.computed.push({ kind: 'band', word, bit, program, above, below });
    }
    return { op: 'term', term };
  }

  private term(
    text: string,
    kind: Term['kind'],
    reads: readonly string[],
    place = this.bits.next('terms'),
  ): Term {
    const { word, bit } = place;
    const term: Term = { index: this.terms.size, text, kind, word, bit, reads };
    this.terms.set(text, term);
    return term;
  }

  private toCondition(expression: Expression): Condition {
    want(expression, 'flag', this);
    return this.conditionOf(expression);
  }

  /** @param expression a flag, already checked */
  conditionOf(expression: Expression): Condition {
    return conditionOf(expression, this);
  }

  /** Finds a flag, pulse, tag or derived flag by name. A state is named with its track, whatever the track's name. */
  flagNamed(name: string): Condition {
    const derived = this.scope.derivedFlags.get(name);
    if (derived !== undefined) return derived;
    const known = this.terms.get(name);
    if (known !== undefined) return { op: 'term', term: known };
    const signal = this.scope.signals.get(name);
    const kind = (signal?.kind ?? 'tag') as 'flag' | 'pulse' | 'tag';
    return { op: 'term', term: this.term(name, kind, [name], signal ?? this.tagBit(name)) };
  }

  /** The condition that a choice is one of its options, or that a track shows one of its states. */
  optionTest(choice: string, option: string): Condition {
    const signal = this.scope.signals.get(choice);
    return signal === undefined ? this.flagNamed(`${choice}.${option}`) : this.choiceTest(signal, option);
  }

  /** The bit of a tag, or of a state with its track. It gets one when it is first asked for. */
  private tagBit(name: string): BitPlace {
    const { tags } = this.scope;
    const place = tags.get(name) ?? this.bits.next('tags');
    tags.set(name, place);
    return place;
  }

  /** The test of a choice. A choice keeps the index of its option in a number slot, so the test is a comparison like any other. */
  private choiceTest({ name, slot, options }: Signal, option: string): Condition {
    const text = `${name} == '${option}'`;
    const term = this.terms.get(text) ?? this.term(text, 'compare', [name]);
    const index = options.indexOf(option);
    this.regions[slot]!.addTest(term, [index], (value) => value === index);
    return { op: 'term', term };
  }

  comparison(expression: BinaryExpression, operator: Comparison): Condition {
    const constants = { left: constantOf(expression.left), right: constantOf(expression.right) };
    if (constants.left !== undefined && constants.right !== undefined)
      return { op: 'constant', value: compare(operator, constants.left, constants.right) };
    const text = written(expression);
    const known = this.terms.get(text);
    if (known !== undefined) return { op: 'term', term: known };
    const term = this.term(text, 'compare', this.scope.readsOf(expression));
    const swap = constants.left !== undefined;
    const plain = this.scope.plainNumber(swap ? expression.right : expression.left);
    const threshold = swap ? constants.left : constants.right;
    if (plain !== undefined && threshold !== undefined) {
      const facing = swap ? flipped[operator] : operator;
      this.regions[plain.slot]!.addTest(term, [threshold, -threshold], (value) =>
        compare(facing, shaped(plain.shape, value), threshold),
      );
    } else {
      const program = programOf(expression, this);
      this.watch({ program });
      const { word, bit } = term;
      this.computed.push({ kind: 'joint', word, bit, program });
    }
    return { op: 'term', term };
  }
}
