import { addSentences, shown } from '../problem/sentences.js';
import type { Has, SentenceTable } from '../problem/sentences.js';

/** The wording of what is wrong with compiled documents. */
const sentences = {
  'compiled-none': (v: Has<'received'>) =>
    `this is not a compiled document but ${shown(v.received)}; make one with "dot-hop pack --compiled" or compiledOf(controller)`,
  'compiled-version': (v: Has<'expected' | 'received'>) =>
    `this document was compiled in version ${shown(v.received)} of the format, and this Dot Hop reads version ${v.expected}; compile it again from its source`,
  'compiled-changed': () =>
    'this compiled document was cut off or changed after it was made; compile it again from its source',
  'compiled-source': (v: Has<'name'>) =>
    `${shown(v.name)} was loaded from a compiled document, which holds what is played and not what it was written as; load the document itself for this`,
} satisfies SentenceTable;

type Sentences = typeof sentences;
declare module '../problem/sentences.js' {
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type -- it adds all of them by name
  interface FurtherSentences extends Sentences {}
}

/** Call this where such a problem may be found. A bundler leaves out a module that is only imported. */
export function useCompiledSentences(): void {
  addSentences(sentences);
}
