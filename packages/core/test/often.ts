import fc from 'fast-check';

/** How many cases a law is tried on. `npm run laws` tries twenty times as many as `npm test`. */
export const often = (usual: number): number => Math.ceil(usual * Number(process.env.LAWS ?? 1));

/**
 * Tries a law on `usual` random cases, and on as many more as it takes until `met()` is above `moreThan`. A law that never
 * meets what it is about proves nothing, and how often random cases meet it varies from run to run.
 *
 * @throws after ten rounds that did not meet it often enough
 */
export function lawThatMeets<Cases extends unknown[]>(
  property: fc.IProperty<Cases>,
  { usual, met, moreThan }: { usual: number; met: () => number; moreThan: number },
): void {
  for (let round = 0; round === 0 || met() <= moreThan; round++) {
    if (round === 10)
      throw new Error(`${round} rounds of ${usual} cases met ${met()}, not more than ${moreThan}`);
    fc.assert(property, { numRuns: often(usual) });
  }
}
