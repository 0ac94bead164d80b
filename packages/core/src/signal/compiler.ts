import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { Condition, Term } from './condition.js';
import type { DerivedDefinition, Signal, SignalDefinition } from './definition.js';
import { ExpressionError, parseExpression, partsOf, written } from './expression.js';
import type { Comparison, Expression } from './expression.js';
import { Op, functions } from './program.js';
import type { Program } from './program.js';
import { RegionBuilder } from './regions.js';
import { NumberExpression, compare, flipped, isComparison, shaped, valueOps } from './comparison.js';
import type { PlainShape } from './comparison.js';
import type { ComputedTerm, SignalTables } from './tables.js';

/** The bits of a word: 30, so that a word stays a small integer on every engine. */
const wordBits = 30;

type Kind = 'number' | 'flag';
type BinaryExpression = Extract<Expression, { kind: 'binary' }>;
/** Stops the reading of one expression after its problem was added. */
class Refused extends Error {}

/** Reads signals, derived signals and every expression over them into tables. */
export class SignalCompiler {
  private readonly signals = new Map<string, Signal>();
  private readonly regions: RegionBuilder[] = [];
  private readonly terms = new Map<string, Term>();
  private readonly computed: ComputedTerm[] = [];
  private readonly derivedKinds = new Map<string, Kind>();
  private readonly resolving: string[] = [];
  private readonly derivedFlags = new Map<string, Condition>();
  private readonly derivedNumbers = new Map<string, Expression>();
  private readonly refused = new Set<string>();
  private flagBits = 0;
  private termBits = 0;
  private timers = 0;
  /** The place of the expression being read, for problems found inside it. */
  private path: DocumentPath = [];
  private text = '';

  constructor(
    definitions: Readonly<Record<string, SignalDefinition>>,
    private readonly derived: Readonly<Record<string, DerivedDefinition>>,
    private readonly problems: ProblemList,
  ) {
    for (const [name, definition] of Object.entries(definitions)) {
      this.checkName(name, ['signals', name]);
      if (name in derived) problems.add('signal-twice', ['derived', name], { name });
      this.signals.set(name, this.signal(name, definition, ['signals', name]));
    }
    for (const name of Object.keys(derived)) {
      this.checkName(name, ['derived', name]);
      if (this.signals.has(name)) continue;
      this.reading(['derived', name], '', () => this.kindOfDerived(name));
    }
  }

  /** Reads a condition; `undefined` after a problem was added. */
  condition(text: string, path: DocumentPath): Condition | undefined {
    return this.reading(path, text, () => this.toCondition(parseExpression(text)));
  }

  /** Reads an expression that gives a number; `undefined` after a problem was added. */
  number(text: string | number, path: DocumentPath): NumberExpression | undefined {
    return this.reading(path, String(text), () => {
      const expression = parseExpression(String(text));
      this.want(expression, 'number');
      return new NumberExpression(
        this.programOf(expression),
        this.plainNumber(expression),
        this.constant(expression),
      );
    });
  }

  /** The regions of a number, to be cut further by whatever else reads it. */
  regionsOf(slot: number): RegionBuilder {
    return this.regions[slot]!;
  }

  /** Has every change of the numbers that a program reads noticed. */
  watch({ program: { code } }: { readonly program: Program }): void {
    for (let i = 0; i < code.length; i += 2)
      if (code[i] === Op.number) this.regions[code[i + 1]!]!.joint = true;
  }

  finish(): SignalTables {
    if (this.flagBits > wordBits)
      this.problems.add('too-many-flags', ['signals'], { received: this.flagBits, most: wordBits });
    if (this.termBits > wordBits)
      this.problems.add('too-many-terms', ['states'], { received: this.termBits, most: wordBits });
    const slots = this.regions.length;
    // Instants are kept behind the numbers; their places are known only now that all numbers are.
    const signals = new Map(
      [...this.signals].map(([name, signal]): [string, Signal] => [
        name,
        signal.timer < 0 ? signal : { ...signal, timer: slots + signal.timer },
      ]),
    );
    const all = [...signals.values()];
    const derived = new Map<string, Program | Condition>(this.derivedFlags);
    for (const [name, expression] of this.derivedNumbers) derived.set(name, this.programOf(expression));
    return {
      signals,
      derived,
      terms: [...this.terms.values()],
      regions: this.regions.map((builder) => builder.build()),
      computed: this.computed.map((term) =>
        term.kind === 'lasting' ? { ...term, timer: slots + term.timer } : term,
      ),
      pulses: all.filter(({ kind }) => kind === 'pulse'),
      numbers: slots + this.timers,
      firstFlags: all.reduce(
        (word, { kind, bit, first }) => (kind === 'flag' && first === 1 ? word | bit : word),
        0,
      ),
    };
  }

  private checkName(name: string, path: DocumentPath): void {
    const reserved = name === 'true' || name === 'false' || name in functions;
    if (!/^[A-Za-z_]\w*$/.test(name) || reserved) this.problems.add('signal-name', path, { name });
  }

  private signal(name: string, definition: SignalDefinition, path: DocumentPath): Signal {
    const none = { name, slot: -1, bit: 0, timer: -1, keep: 0, first: 0 };
    if ('number' in definition) {
      if (!Number.isFinite(definition.number))
        this.problems.add('field-kind', [...path, 'number'], {
          expected: 'a finite number',
          received: definition.number,
        });
      this.regions.push(new RegionBuilder());
      return { ...none, kind: 'number', slot: this.regions.length - 1, first: definition.number };
    }
    const bit = 1 << (this.flagBits++ % wordBits);
    if ('flag' in definition) return { ...none, kind: 'flag', bit, first: definition.flag ? 1 : 0 };
    const keep = definition.pulse === true ? 0 : (definition.pulse.keep ?? 0);
    if (!(keep >= 0))
      this.problems.add('field-kind', [...path, 'pulse', 'keep'], {
        expected: '0 or more ms',
        received: keep,
      });
    return { ...none, kind: 'pulse', bit, timer: this.timers++, keep: Math.max(1, Math.round(keep * 1000)) };
  }

  /** Runs one reading; any fault becomes one problem at its place. */
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

  private refuse(
    code: Parameters<ProblemList['add']>[0],
    values: Record<string, unknown>,
    at?: number,
  ): never {
    this.problems.add(code, this.path, values, at);
    throw new Refused();
  }

  private kindOfDerived(name: string): Kind {
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
      const kind = this.reading(path, '', () => this.readDerived(name, this.derived[name]!));
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
    const expression = parseExpression(this.text);
    if (typeof definition === 'string') {
      const kind = this.kindOf(expression);
      if (kind === 'flag') this.derivedFlags.set(name, this.toCondition(expression));
      else this.derivedNumbers.set(name, expression);
      return kind;
    }
    this.path = [...this.path, 'of'];
    if ('above' in definition) this.readBand(name, expression, definition);
    else {
      const field = 'linger' in definition ? 'linger' : 'settle';
      const ms = 'linger' in definition ? definition.linger : definition.settle;
      if (!(ms >= 0 && Number.isFinite(ms))) {
        this.path = ['derived', name, field];
        this.refuse('field-kind', { expected: 'milliseconds, 0 or more', received: ms });
      }
      const condition = this.toCondition(expression);
      const term = this.term(name, 'lasting', this.readsOf(expression));
      const time = Math.round(ms * 1000);
      this.computed.push({
        kind: 'lasting',
        bit: term.bit,
        condition,
        linger: field === 'linger' ? time : 0,
        settle: field === 'settle' ? time : 0,
        timer: this.timers++,
      });
      this.derivedFlags.set(name, { op: 'term', term });
    }
    return 'flag';
  }

  private readBand(
    name: string,
    expression: Expression,
    { above, below }: { above: number; below: number },
  ): void {
    this.want(expression, 'number');
    if (!(below <= above)) this.refuse('band-order', { above, below });
    const term = this.term(name, 'band', this.readsOf(expression));
    this.derivedFlags.set(name, { op: 'term', term });
    const plain = this.plainNumber(expression);
    if (plain !== undefined) {
      const test = (value: number): boolean | undefined => {
        const seen = shaped(plain.shape, value);
        return seen > above ? true : seen < below ? false : undefined;
      };
      this.regions[plain.slot]!.addTest(term.bit, [above, below, -above, -below], test);
      return;
    }
    const program = this.programOf(expression);
    this.watch({ program });
    this.computed.push({ kind: 'band', bit: term.bit, program, above, below });
  }

  private term(
    text: string,
    kind: Term['kind'],
    reads: readonly string[],
    bit = 1 << (this.termBits++ % wordBits),
  ): Term {
    const word = kind === 'flag' || kind === 'pulse' ? 'flags' : 'terms';
    const term: Term = { index: this.terms.size, text, kind, word, bit, reads };
    this.terms.set(text, term);
    return term;
  }

  private kindOf(expression: Expression): Kind {
    switch (expression.kind) {
      case 'number':
        return 'number';
      case 'flag':
        return 'flag';
      case 'name': {
        const signal = this.signals.get(expression.name);
        if (signal !== undefined) return signal.kind === 'number' ? 'number' : 'flag';
        if (expression.name in this.derived) return this.kindOfDerived(expression.name);
        const known = [...this.signals.keys(), ...Object.keys(this.derived)];
        return this.refuse('signal-unknown', { name: expression.name, known }, expression.at);
      }
      case 'call': {
        const known = Object.hasOwn(functions, expression.name) ? functions[expression.name] : undefined;
        if (known === undefined)
          this.refuse(
            'function-unknown',
            { name: expression.name, known: Object.keys(functions) },
            expression.at,
          );
        if (known.takes !== expression.parts.length) {
          const values = { name: expression.name, expected: known.takes, received: expression.parts.length };
          this.refuse('function-count', values, expression.at);
        }
        for (const part of expression.parts) this.want(part, 'number');
        return 'number';
      }
      case 'unary':
        return this.want(expression.part, expression.operator === '!' ? 'flag' : 'number');
      case 'choose': {
        this.want(expression.test, 'flag');
        return this.want(expression.no, this.kindOf(expression.yes));
      }
      case 'binary': {
        const { operator, left, right } = expression;
        if (operator === '&&' || operator === '||') {
          this.want(left, 'flag');
          return this.want(right, 'flag');
        }
        if (operator === '==' || operator === '!=') this.want(right, this.kindOf(left));
        else {
          this.want(left, 'number');
          this.want(right, 'number');
        }
        return isComparison(operator) ? 'flag' : 'number';
      }
    }
  }

  /** Refuses an expression of the other kind, and says how it could be meant. */
  private want(expression: Expression, expected: Kind): Kind {
    const received = this.kindOf(expression);
    if (received !== expected) {
      const part = this.text.slice(expression.at, expression.end);
      const remedy = expected === 'flag' ? `compare it, such as ${part} > 0` : '';
      this.refuse('expression-kind', { part, received, expected, remedy }, expression.at);
    }
    return received;
  }

  private toCondition(expression: Expression): Condition {
    this.want(expression, 'flag');
    return this.conditionOf(expression);
  }

  /** @param expression a flag, already checked */
  private conditionOf(expression: Expression): Condition {
    const not = (part: Condition): Condition => ({ op: 'not', part });
    const both = (left: Condition, right: Condition): Condition => ({ op: 'and', left, right });
    const either = (left: Condition, right: Condition): Condition => ({ op: 'or', left, right });
    switch (expression.kind) {
      case 'flag':
        return { op: 'constant', value: expression.value };
      case 'name': {
        const signal = this.signals.get(expression.name);
        if (signal === undefined) return this.derivedFlags.get(expression.name)!;
        const known = this.terms.get(signal.name);
        const kind = signal.kind as 'flag' | 'pulse';
        return { op: 'term', term: known ?? this.term(signal.name, kind, [signal.name], signal.bit) };
      }
      case 'unary':
        return not(this.conditionOf(expression.part));
      case 'choose': {
        const test = this.conditionOf(expression.test);
        return either(
          both(test, this.conditionOf(expression.yes)),
          both(not(test), this.conditionOf(expression.no)),
        );
      }
      case 'binary': {
        const { operator, left, right } = expression;
        if (operator === '&&') return both(this.conditionOf(left), this.conditionOf(right));
        if (operator === '||') return either(this.conditionOf(left), this.conditionOf(right));
        if (this.kindOf(left) === 'number') return this.comparison(expression, operator as Comparison);
        const [a, b] = [this.conditionOf(left), this.conditionOf(right)];
        const same = either(both(a, b), both(not(a), not(b)));
        return operator === '==' ? same : not(same);
      }
      default:
        throw new Error(`a ${expression.kind} is no condition`);
    }
  }

  private comparison(expression: BinaryExpression, operator: Comparison): Condition {
    const constants = { left: this.constant(expression.left), right: this.constant(expression.right) };
    if (constants.left !== undefined && constants.right !== undefined)
      return { op: 'constant', value: compare(operator, constants.left, constants.right) };
    const text = written(expression);
    const known = this.terms.get(text);
    if (known !== undefined) return { op: 'term', term: known };
    const term = this.term(text, 'compare', this.readsOf(expression));
    const swap = constants.left !== undefined;
    const plain = this.plainNumber(swap ? expression.right : expression.left);
    const threshold = swap ? constants.left : constants.right;
    if (plain !== undefined && threshold !== undefined) {
      const facing = swap ? flipped[operator] : operator;
      this.regions[plain.slot]!.addTest(term.bit, [threshold, -threshold], (value) =>
        compare(facing, shaped(plain.shape, value), threshold),
      );
    } else {
      const program = this.programOf(expression);
      this.watch({ program });
      this.computed.push({ kind: 'joint', bit: term.bit, program });
    }
    return { op: 'term', term };
  }

  /** The value of an expression without signals. */
  private constant(expression: Expression): number | undefined {
    if (expression.kind === 'number') return expression.value;
    if (expression.kind !== 'unary' || expression.operator !== '-') return undefined;
    const value = this.constant(expression.part);
    return value === undefined ? undefined : -value;
  }

  /** A number as it was set, its negative or its size: what can be cut into regions exactly. */
  private plainNumber(expression: Expression): { slot: number; shape: PlainShape } | undefined {
    if (expression.kind === 'name') {
      const signal = this.signals.get(expression.name);
      if (signal !== undefined) return { slot: signal.slot, shape: 'plain' };
      const derived = this.derivedNumbers.get(expression.name);
      return derived && this.plainNumber(derived);
    }
    if (expression.kind === 'call' && expression.name === 'abs') {
      const inner = this.plainNumber(expression.parts[0]!);
      return inner && { ...inner, shape: 'absolute' };
    }
    if (expression.kind !== 'unary' || expression.operator !== '-') return undefined;
    const inner = this.plainNumber(expression.part);
    if (inner === undefined || inner.shape === 'absolute') return undefined;
    return { ...inner, shape: inner.shape === 'plain' ? 'negated' : 'plain' };
  }

  /** The signals an expression reads, derived ones followed to their sources. */
  private readsOf(expression: Expression, into = new Set<string>()): string[] {
    const visit = (part: Expression): void => {
      if (part.kind === 'name') {
        const derived = this.derived[part.name];
        if (this.signals.has(part.name)) into.add(part.name);
        else if (derived !== undefined)
          this.readsOf(parseExpression(typeof derived === 'string' ? derived : derived.of), into);
      } else partsOf(part).forEach(visit);
    };
    visit(expression);
    return [...into];
  }

  private programOf(expression: Expression): Program {
    const code: number[] = [];
    const constants: number[] = [];
    const emit = (part: Expression): void => {
      if (part.kind === 'name') {
        const signal = this.signals.get(part.name);
        const derived = this.derivedNumbers.get(part.name);
        if (derived !== undefined) emit(derived);
        else if (signal?.kind === 'number') code.push(Op.number, signal.slot);
        else emitCondition(this.conditionOf(part));
        return;
      }
      if (part.kind === 'number' || part.kind === 'flag') {
        code.push(Op.constant, constants.push(Number(part.value)) - 1);
        return;
      }
      partsOf(part).forEach(emit);
      if (part.kind === 'call') code.push(functions[part.name]!.op, 0);
      else if (part.kind === 'unary') code.push(part.operator === '!' ? Op.not : Op.negate, 0);
      else if (part.kind === 'choose') code.push(Op.choose, 0);
      else code.push(valueOps[part.operator]!, 0);
    };
    const emitCondition = (condition: Condition): void => {
      if (condition.op === 'term')
        code.push(condition.term.word === 'flags' ? Op.flagBit : Op.termBit, condition.term.bit);
      else if (condition.op === 'constant')
        code.push(Op.constant, constants.push(condition.value ? 1 : 0) - 1);
      else if (condition.op === 'not') {
        emitCondition(condition.part);
        code.push(Op.not, 0);
      } else {
        emitCondition(condition.left);
        emitCondition(condition.right);
        code.push(condition.op === 'and' ? Op.and : Op.or, 0);
      }
    };
    emit(expression);
    return { code, constants };
  }
}
