import { useCompiledSentences } from '../compiled/sentences.js';
import { problemText, wordErrors as useSentences } from '../problem/problem.js';

export { pathText } from '../problem/problem.js';
export { problemText };

/**
 * Has errors of `dot-hop/play` say in sentences what is wrong and what to do: for whoever develops a game. Without it they say the code of
 * the problem and its values. Whatever else compiles or explains brings the sentences along by itself.
 *
 * ```ts
 * if (import.meta.env.DEV) (await import('dot-hop/words')).wordErrors();
 * ```
 */
export function wordErrors(): void {
  useSentences();
  useCompiledSentences();
}
