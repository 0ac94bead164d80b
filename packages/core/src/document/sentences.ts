import { addSentences, hint, shown } from '../problem/sentences.js';
import type { Has, SentenceTable } from '../problem/sentences.js';

/** The wording of what is wrong with files: a game whose document is compiled into it carries none of it. */
const sentences = {
  'document-empty': () =>
    'the document is empty; a character begins with "dotHop: 1" ("dot-hop new FOLDER" gives one, "dot-hop cells IMAGES --write FILE" writes one), a rehearsal with "dotHopRehearsal: 1"',
  'document-syntax': (v: Has<'detail' | 'format'>) => `this is not ${v.format}: ${v.detail}`,
  'yaml-sign': (v: Has<'line' | 'meaning' | 'sign'>) =>
    `"${v.sign}" begins ${v.meaning} in YAML, and what follows would be read without it; ${typeof v.line !== 'string' ? 'write the value out where it is used' : `write the value itself, or, where the sign belongs to it, put it in quotes: ${v.line}`}`,
  'yaml-merge': () =>
    '"<<" takes the fields of another map over in YAML, which is not read here; write these fields out',
  'yaml-comma': (v: Has<'line'>) =>
    `inside braces and brackets a comma ends the value, so this would be cut in two; put it in quotes: ${v.line}`,
  'document-version': (v: Has<'current' | 'received'>) =>
    `this is version ${v.received} of the format, and this program reads up to version ${v.current}; bring the program up to date`,
  'document-compiled': () =>
    'this is a compiled document, which is only played (loadCompiled of dot-hop/play); take the document that it was made of',
  'base-unread': (v: Has<'received'>) =>
    `it builds on ${shown(v.received)}, which was not read; a document with "from" is read with the documents it names: readDocument(text, file, await gatherBases(text, file, readText))`,
  'base-missing': (v: Has<'detail' | 'received'>) =>
    `the document ${shown(v.received)} cannot be read (${v.detail}); it is looked for beside the document that names it`,
  'base-absolute': (v: Has<'received'>) =>
    `${shown(v.received)} is the same place on no other machine; name the document from where this one lies, such as ../common/mover.dothop.yaml`,
  'base-circle': (v: Has<'names'>) =>
    `these documents build on one another in a circle: ${(v.names as string[]).join(', ')}; take one "from" out`,
  'base-field': (v: Has<'expected' | 'field' | 'near'>) =>
    `"${v.field}" is missing; expected ${v.expected}. If it was to change what it builds on, that is named ${shown(v.near)}`,
  'base-nothing': (v: Has<'known' | 'name'>) =>
    `an empty value takes away what a document of "from" says, but none of them has ${shown(v.name)} here${hint(v.name, v.known)}`,
  'other-kind': (v: Has<'expected' | 'field' | 'received'>) =>
    `this is a ${v.received}, where a ${v.expected} is wanted; a ${v.expected} begins with "${v.field}: 1"`,
  'image-missing': (v: Has<'detail' | 'image'>) =>
    `the image ${shown(v.image)} cannot be read (${v.detail}); it is looked for beside the document`,
  'image-broken': (v: Has<'detail' | 'image'>) =>
    `the image ${shown(v.image)} is not a picture that can be read (${v.detail})`,
} satisfies SentenceTable;

type Sentences = typeof sentences;
declare module '../problem/sentences.js' {
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type -- it adds all of them by name
  interface FurtherSentences extends Sentences {}
}

/** The codes of problems with files. */
export type FileProblemCode = keyof Sentences;

/** Call this where such a problem may be found. A bundler leaves out a module that is only imported. */
export function useDocumentSentences(): void {
  addSentences(sentences);
}
