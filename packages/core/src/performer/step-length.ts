import { callError } from '../problem/error.js';

/** The longest time one step may take, in milliseconds: an hour. Its reports must fit into memory. */
export const longestStep = 3_600_000;

/**
 * The length of a step in whole microseconds.
 *
 * @param ms in milliseconds
 * @throws {DotHopError} when it is no number from 0 to an hour
 */
export function lengthOfStep(ms: unknown): number {
  if (!(typeof ms === 'number' && ms >= 0 && ms <= longestStep))
    throw callError('step-time', { received: ms, most: longestStep });
  return Math.round(ms * 1000);
}
