import { writeFlag, writeNumber } from '../engine/write-signals.js';
import type { Rows } from '../engine/rows.js';
import { callError } from '../problem/error.js';
import type { Signal, SignalValue } from '../signal/definition.js';
import { placeOf } from '../signal/program.js';
import { signalNamed } from '../signal/signal-named.js';
import type { SignalTables } from '../signal/tables.js';

// Signals as a game sets them, of a performer or of a member of a troupe: checked, and handed to the engine.

/**
 * A signal by name, or a handle of this very controller: one of another version of the document could mean another signal.
 *
 * @throws {DotHopError} for an unknown name, and for a handle of another controller
 */
export function signalOf(tables: SignalTables, signal: unknown): Signal {
  if (typeof signal === 'string') return tables.signals.get(signal) ?? signalNamed(tables, signal);
  const one = signal as Signal | undefined | null;
  if (one?.owner === tables.owner) return one;
  throw callError('signal-handle', { received: one?.name ?? signal });
}

/**
 * Sets a signal of any kind but a pulse.
 *
 * @throws {DotHopError} for a value of another kind, or a number that is not finite; nothing is changed then
 */
export function setSignal(rows: Rows, at: number, signal: Signal, value: SignalValue): void {
  const { kind, name, place, options } = signal;
  if (kind === 'number' && typeof value === 'number') setNumber(rows, at, signal, value);
  else if (kind === 'flag' && typeof value === 'boolean') writeFlag(rows, at, signal, value);
  else if (kind === 'vector' && Array.isArray(value) && value.length === 2)
    setVector(rows, at, signal, value[0] as number, value[1] as number);
  else if (kind === 'choice' && typeof value === 'string') {
    const option = options.indexOf(value);
    if (option < 0) throw callError('choice-unknown', { choice: name, name: value, known: options });
    writeNumber(rows, at + place, at, option);
  } else throw wrongKind(signal, value);
}

/** @throws {DotHopError} for a number that is not finite */
export function setNumber(rows: Rows, at: number, signal: Signal, value: number): void {
  if (!Number.isFinite(value)) throw wrongKind(signal, value);
  writeNumber(rows, at + signal.place, at, value);
}

/** @throws {DotHopError} for a signal of another kind, and for numbers that are not finite */
export function setVector(rows: Rows, at: number, signal: Signal, x: number, y: number): void {
  if (signal.kind !== 'vector' || !Number.isFinite(x) || !Number.isFinite(y)) throw wrongKind(signal, [x, y]);
  const place = at + signal.place;
  writeNumber(rows, place, at, x);
  writeNumber(rows, place + placeOf(1), at, y);
}

/** The error of a value that a signal cannot have. */
export function wrongKind(signal: Signal, received: unknown): Error {
  const expected = {
    number: 'a finite number',
    flag: 'true or false',
    choice: `one of ${signal.options.join(', ')}`,
    vector: 'two finite numbers, [x, y]',
    pulse: 'no value; call pulse()',
  }[signal.kind];
  return callError('set-kind', { name: signal.name, kind: signal.kind, expected, received });
}
