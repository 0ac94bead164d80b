import { useCompiledSentences } from '../compiled/sentences.js';
import { problemText, wordErrors as useSentences } from '../problem/problem.js';

export { pathText } from '../problem/problem.js';
export { problemText };

/**
 * Makes errors of `dot-hop/play` say in sentences what is wrong and what to do. Use it during development. Without it, an error gives the
 * code of the problem and its values. A game that also loads the compiler or `dot-hop/explain` has the sentences already.
 *
 * ```ts
 * if (import.meta.env.DEV) (await import('dot-hop/words')).wordErrors();
 * ```
 */
export function wordErrors(): void {
  useSentences();
  useCompiledSentences();
}
