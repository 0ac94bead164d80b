import { addSentences, shown } from '../problem/sentences.js';
import type { Has, SentenceTable } from '../problem/sentences.js';

/** The wording of what is wrong with calls of a troupe. */
const sentences = {
  'troupe-count': (v: Has<'most' | 'received'>) =>
    `a troupe has 0 to ${v.most} members, not ${shown(v.received)}; make several troupes for more`,
  'troupe-memory': (v: Has<'members'>) =>
    `there is no memory for more than ${v.members} members; remove those that nobody sees`,
  'member-unknown': (v: Has<'end' | 'index'>) =>
    `there is no member ${shown(v.index)}; members are numbered from 0, the troupe has had ${v.end} so far, and those that were removed are gone`,
  'member-range': (v: Has<'end' | 'from' | 'to'>) =>
    `the members from ${shown(v.from)} up to ${shown(v.to)} are not all there; a range is { from, to } with whole numbers from 0 to ${v.end}`,
} satisfies SentenceTable;

type Sentences = typeof sentences;
declare module '../problem/sentences.js' {
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type -- it adds all of them by name
  interface FurtherSentences extends Sentences {}
}

/** Call this where such a problem may be found. A bundler leaves out a module that is only imported. */
export function useTroupeSentences(): void {
  addSentences(sentences);
}
