import { callError } from '../problem/error.js';
import type { Signal } from './definition.js';
import type { SignalTables } from './tables.js';

/** The slot of a number by name, or of `aim.x` for a vector `aim`. */
export function slotNamed(signals: ReadonlyMap<string, Signal>, name: string): number | undefined {
  const signal = signals.get(name);
  if (signal !== undefined) return signal.kind === 'number' ? signal.slot : undefined;
  const part = name.endsWith('.x') ? 0 : name.endsWith('.y') ? 1 : -1;
  const vector = part < 0 ? undefined : signals.get(name.slice(0, -2));
  return vector?.kind === 'vector' ? vector.slot + part : undefined;
}

/** The handle of a signal by name. */
export function signalNamed({ signals, derived }: SignalTables, name: string): Signal {
  const signal = signals.get(name);
  if (signal !== undefined) return signal;
  if (derived.has(name)) throw callError('set-derived', { name });
  throw callError('set-unknown', { name, known: [...signals.keys()] });
}
