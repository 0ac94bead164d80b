import type { Controller } from '../controller/controller.js';
import { runRehearsal } from './run.js';
import type { RehearsalScript } from './definition.js';
import type { RehearsalResult } from './trace.js';

/** The expectations that failed, with what happened instead and why. Empty if all were met. */
export function unmetText({ outcomes }: RehearsalResult): string {
  return outcomes
    .filter(({ met }) => !met)
    .map(({ expected, instead, why }) => {
      const reason = why === undefined ? '' : `\n    ${why.split('\n').join('\n    ')}`;
      return `expected ${expected}\n  instead: ${instead}${reason}`;
    })
    .join('\n');
}

/**
 * Runs a rehearsal in a test.
 *
 * @returns what happened
 * @throws {Error} if an expectation failed; the message says what happened instead, and why
 * @throws {DotHopError} if the rehearsal cannot be carried out
 */
export function assertRehearsal(controller: Controller, rehearsal: RehearsalScript): RehearsalResult {
  const result = runRehearsal(controller, rehearsal);
  const text = unmetText(result);
  if (text !== '') throw new Error(text);
  return result;
}

/**
 * A matcher for test runners that have `expect.extend`: `expect.extend({ toGoAsRehearsed })`, then
 * `expect(controller).toGoAsRehearsed({ lasts, script, expect })`.
 */
export function toGoAsRehearsed(
  controller: Controller,
  rehearsal: RehearsalScript,
): { pass: boolean; message: () => string } {
  const text = unmetText(runRehearsal(controller, rehearsal));
  return {
    pass: text === '',
    message: () => (text === '' ? 'everything went as rehearsed, which was not expected' : text),
  };
}
