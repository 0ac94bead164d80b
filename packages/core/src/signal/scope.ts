import type { PlainShape } from './comparison.js';
import type { BitPlace, Condition } from './condition.js';
import type { DerivedDefinition, Signal } from './definition.js';
import { parseExpression, partsOf } from './expression.js';
import type { Expression } from './expression.js';
import type { Program } from './program.js';
import { slotNamed } from './signal-named.js';
import type { Band, SignalTables } from './tables.js';

/** The names that expressions can use: signals, the parts of vectors, derived signals, tags of states. */
export class Scope {
  readonly signals = new Map<string, Signal>();
  /** The tags of all states. */
  readonly tagNames = new Set<string>();
  /** The bit of each tag, and of each state with its track, that a condition asks for. */
  readonly tags = new Map<string, BitPlace>();
  readonly derivedFlags = new Map<string, Condition>();
  readonly derivedNumbers = new Map<string, Expression>();

  /** @param tracks the states that each track can show, whether they are asked for or not */
  constructor(
    readonly derived: Readonly<Record<string, DerivedDefinition>>,
    private readonly tracks: ReadonlyMap<string, readonly string[]>,
  ) {}

  /** How each derived signal is computed, in the order of the document, and the thresholds of bands. */
  rules(programOf: (number: Expression) => Program): Pick<SignalTables, 'derived' | 'bands'> {
    const derived = new Map<string, Program | Condition>();
    const bands = new Map<string, Band>();
    for (const [name, one] of Object.entries(this.derived)) {
      const number = this.derivedNumbers.get(name);
      const rule = number === undefined ? this.derivedFlags.get(name) : programOf(number);
      if (rule !== undefined) derived.set(name, rule);
      if (typeof one === 'object' && 'above' in one) bands.set(name, { above: one.above, below: one.below });
    }
    return { derived, bands };
  }

  /** Reads an expression. @throws {ExpressionError} with the place of the fault */
  parsed(text: string): Expression {
    return parseExpression(text, (name) => this.optionsOf(name));
  }

  /** Every name there is. */
  names(): string[] {
    const ofSignals = [...this.signals.values()].flatMap(({ name, kind }) =>
      kind === 'vector' ? [`${name}.x`, `${name}.y`] : [name],
    );
    const ofTracks = [...this.tracks].flatMap(([track, states]) => states.map((one) => askedAs(track, one)));
    // Where there is but the body, hardly anybody asks for it by its name.
    const asked = this.tracks.size > 1 ? ofTracks : [];
    return [...new Set([...ofSignals, ...Object.keys(this.derived), ...this.tagNames, ...asked])];
  }

  /** Whether it is a state with its track, such as `arms.swing`. */
  isState(name: string): boolean {
    const [track = '', state = ''] = name.split('.');
    return this.tracks.get(track)?.includes(state) === true;
  }

  /** What a choice can be; of a track, which is asked like one, its states. */
  optionsOf(name: string): readonly string[] | undefined {
    const signal = this.signals.get(name);
    if (signal !== undefined) return signal.kind === 'choice' ? signal.options : undefined;
    return Object.hasOwn(this.derived, name) ? undefined : this.tracks.get(name);
  }

  /** The slot of a number, or of a part of a vector. */
  slotOf(name: string): number | undefined {
    return slotNamed(this.signals, name);
  }

  /** A number as it was set, its negative or its size: what can be cut into regions exactly. */
  plainNumber(expression: Expression): { slot: number; shape: PlainShape } | undefined {
    if (expression.kind === 'name') {
      const slot = this.slotOf(expression.name);
      if (slot !== undefined) return { slot, shape: 'plain' };
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
  readsOf(expression: Expression, into = new Set<string>(), followed = new Set<string>()): string[] {
    const visit = (part: Expression): void => {
      if (part.kind === 'name') {
        const derived = Object.hasOwn(this.derived, part.name) ? this.derived[part.name] : undefined;
        if (derived === undefined) into.add(part.name);
        else if (!followed.has(part.name)) {
          followed.add(part.name);
          this.readsOf(this.parsed(typeof derived === 'string' ? derived : derived.of), into, followed);
        }
      } else partsOf(part).forEach(visit);
    };
    visit(expression);
    return [...into];
  }
}

/** How a condition asks for a state of a track: with a hyphen in its name it is a text, since that would be a minus. */
export function askedAs(track: string, state: string): string {
  return /^\w+$/.test(state) ? `${track}.${state}` : `${track} == '${state}'`;
}

/** The value of an expression without signals. */
export function constantOf(expression: Expression): number | undefined {
  if (expression.kind === 'number') return expression.value;
  if (expression.kind !== 'unary' || expression.operator !== '-') return undefined;
  const value = constantOf(expression.part);
  return value === undefined ? undefined : -value;
}
