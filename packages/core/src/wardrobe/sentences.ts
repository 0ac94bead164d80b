import { addSentences, hint, shown, unknown } from '../problem/sentences.js';
import type { Has, SentenceTable } from '../problem/sentences.js';

/** The wording of what is wrong with a wardrobe. */
const sentences = {
  'layer-unknown': unknown('layer of the wardrobe'),
  'layer-body': () => '"body" is what the layers are drawn over; give this layer another name',
  'layer-order': (v: Has<'names' | 'received'>) =>
    `an order names the body and each layer once, back to front: ${(v.names as string[]).join(', ')}; not ${shown(v.received)}`,
  'piece-unknown': (v: Has<'known' | 'layer' | 'name'>) =>
    `the layer "${v.layer}" has no piece ${shown(v.name)}${hint(v.name, v.known)}`,
  'piece-none': () => '"none" says that a layer is empty; give this piece another name',
  'piece-cells': (v: Has<'body' | 'has' | 'sheet' | 'wants'>) =>
    `the sheet "${v.sheet}" has ${v.has} cells and the body's sheet "${v.body}" ${v.wants}: a piece is laid out as the body is, cell for cell; or give "cell" for one drawing that always shows`,
  'piece-joint': () =>
    'a part of a piece hangs where the part of the body hangs on which it lies: give its image alone, without "joint", "boxes" and "points"',
  'wear-unknown': unknown('piece or layer'),
  'palette-unknown': unknown('palette'),
  'palette-layer': (v: Has<'name'>) =>
    `"${v.name}" is both a layer and a shared palette, and an outfit could not tell them apart; rename one`,
  'palette-length': (v: Has<'drawn' | 'length' | 'received'>) =>
    `there are ${v.received} colours here and ${v.length} in "${v.drawn}", which is how it is drawn; give one for each`,
  'palette-colour': (v: Has<'received'>) =>
    `a colour is written "#rrggbb", in quotes, not ${shown(v.received)}`,
  'colours-unknown': unknown('list of colours'),
  'dye-unknown': unknown('palette of a layer'),
  'weight-range': (v: Has<'received'>) => `a weight is a number from 0, not ${shown(v.received)}`,
  'scheme-unknown': unknown('layer or palette'),
  'pick-unknown': (v: Has<'known' | 'name' | 'of'>) =>
    `"${v.of}" has no ${shown(v.name)}${hint(v.name, v.known)}`,
  'crowd-few': (v: Has<'count' | 'differ' | 'found'>) =>
    `only ${v.found} of ${v.count} people were found that differ in ${v.differ} choices or more; ask for fewer, let "differ" be smaller, or add pieces and colours`,
  'outfit-none': (v: Has<'tries'>) =>
    `chance found no clothes that go together in ${v.tries} tries; ask less of them in "requires" and "excludes", or give the pieces that are required a weight`,
} satisfies SentenceTable;

type Sentences = typeof sentences;
declare module '../problem/sentences.js' {
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type -- it adds all of them by name
  interface FurtherSentences extends Sentences {}
}

/** Call this where such a problem may be found. A bundler leaves out a module that is only imported. */
export function useWardrobeSentences(): void {
  addSentences(sentences);
}
