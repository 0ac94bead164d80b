import type { PlainShape } from './comparison.js';
import type { Condition } from './condition.js';
import type { DerivedDefinition, Signal } from './definition.js';
import { parseExpression, partsOf } from './expression.js';
import type { Expression } from './expression.js';

/** The names that expressions can use: signals, the parts of vectors, derived signals, tags of states. */
export class Scope {
  readonly signals = new Map<string, Signal>();
  /** The bit of each tag in the word of flags. */
  readonly tags = new Map<string, number>();
  readonly derivedFlags = new Map<string, Condition>();
  readonly derivedNumbers = new Map<string, Expression>();

  /** @param states every state with its track, such as `arms.swing`, whether it is asked for or not */
  constructor(
    readonly derived: Readonly<Record<string, DerivedDefinition>>,
    private readonly states: readonly string[],
  ) {}

  /** Every name there is. */
  names(): string[] {
    const ofSignals = [...this.signals.values()].flatMap(({ name, kind }) =>
      kind === 'vector' ? [`${name}.x`, `${name}.y`] : [name],
    );
    const all = new Set([...ofSignals, ...Object.keys(this.derived), ...this.tags.keys(), ...this.states]);
    // A state with a hyphen in its name cannot be asked for: that would be a minus.
    return [...all].filter((name) => /^[\w.]+$/.test(name));
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
  readsOf(expression: Expression, into = new Set<string>()): string[] {
    const visit = (part: Expression): void => {
      if (part.kind === 'name') {
        const derived = this.derived[part.name];
        if (derived === undefined) into.add(part.name);
        else this.readsOf(parseExpression(typeof derived === 'string' ? derived : derived.of), into);
      } else partsOf(part).forEach(visit);
    };
    visit(expression);
    return [...into];
  }
}

/** The slot of a number by name, or of `aim.x` for a vector `aim`. */
export function slotNamed(signals: ReadonlyMap<string, Signal>, name: string): number | undefined {
  const signal = signals.get(name);
  if (signal !== undefined) return signal.kind === 'number' ? signal.slot : undefined;
  const part = name.endsWith('.x') ? 0 : name.endsWith('.y') ? 1 : -1;
  const vector = part < 0 ? undefined : signals.get(name.slice(0, -2));
  return vector?.kind === 'vector' ? vector.slot + part : undefined;
}

/** The value of an expression without signals. */
export function constantOf(expression: Expression): number | undefined {
  if (expression.kind === 'number') return expression.value;
  if (expression.kind !== 'unary' || expression.operator !== '-') return undefined;
  const value = constantOf(expression.part);
  return value === undefined ? undefined : -value;
}
