import type { Outcome } from 'dot-hop/rehearsal';

/** What came of the expectations of a rehearsal, in words; empty where it has none. */
export function verdictOf(outcomes: readonly Outcome[]): { readonly text: string; readonly isMet: boolean } {
  const count = outcomes.length;
  const unmet = outcomes.filter(({ met }) => !met).length;
  const isMet = unmet === 0;
  if (count === 0) return { text: '', isMet };
  if (count === 1) return { text: isMet ? 'the expectation is met' : 'the expectation is not met', isMet };
  return {
    text: isMet ? `all ${count} expectations met` : `${unmet} of ${count} expectations not met`,
    isMet,
  };
}
