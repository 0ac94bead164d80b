import { callError } from '../problem/problem.js';
import type { Signal } from '../signal/definition.js';

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
