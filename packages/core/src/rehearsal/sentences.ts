import { addSentences, shown, unknown } from '../problem/sentences.js';
import type { Has, SentenceTable } from '../problem/sentences.js';

/** The wording of what is wrong with rehearsals. */
const sentences = {
  'button-unknown': unknown('button, flag or pulse'),
  'rehearsal-document': () => '"document" names the file of the character, relative to the rehearsal',
  'rehearsal-order': (v: Has<'lasts' | 'received'>) =>
    `${v.received} ms is past the end of the rehearsal at ${v.lasts} ms; raise "lasts" or move it`,
  'rehearsal-expect': () =>
    'an expectation says what is expected: "state", "direction", "clip", "cell", "passes", "never" or "cues"',
  'rehearsal-time': () => 'say when it is expected: "at" an instant, or "from" and "to"',
  'rehearsal-when': () =>
    'say when the line takes place, in one way: "at" an instant, "after" the line above it, or "until" something is so',
  'rehearsal-pair': (v: Has<'one' | 'other'>) => `"${v.one}" and "${v.other}" go together; give both`,
  'rehearsal-with': (v: Has<'one' | 'other'>) =>
    `"${v.one}" says something about "${v.other}", which is not given here`,
  'rehearsal-steps': (v: Has<'from' | 'to'>) =>
    `steps of uneven length go from the shortest to the longest; here from ${v.from} to ${v.to} ms`,
  'rehearsal-ramp': (v: Has<'kind' | 'name'>) =>
    `"${v.name}" is a ${v.kind}, and only numbers change evenly; use "set"`,
  'rehearsal-feed': (v: Has<'from' | 'kind' | 'name' | 'wanted'>) =>
    `"${v.name}" is a ${v.kind}, and ${shown(v.from)} of the body feeds a ${v.wanted}`,
  'rehearsal-feeds': (v: Has<'known'>) =>
    `the body feeds no signal of this character; name some in "feeds", such as { SIGNAL: vx }. It tells ${(v.known as string[]).join(', ')}`,
} satisfies SentenceTable;

type Sentences = typeof sentences;
declare module '../problem/sentences.js' {
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type -- it adds all of them by name
  interface FurtherSentences extends Sentences {}
}

/** Call this where such a problem may be found. A bundler leaves out a module that is only imported. */
export function useRehearsalSentences(): void {
  addSentences(sentences);
}
