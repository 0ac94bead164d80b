import { loadCharacter } from '@dot-hop/browser';
import type { LoadedCharacter, Progress } from '@dot-hop/browser';
import marlisUrl from '../../demo/townsfolk/marlis.dothop.yaml?url';
import marlisImage from '../../demo/townsfolk/marlis.png?url';
import oddeUrl from '../../demo/townsfolk/odde.dothop.yaml?url';
import oddeImage from '../../demo/townsfolk/odde.png?url';
import pimUrl from '../../demo/townsfolk/pim.dothop.yaml?url';
import pimImage from '../../demo/townsfolk/pim.png?url';
import sefaUrl from '../../demo/townsfolk/sefa.dothop.yaml?url';
import sefaImage from '../../demo/townsfolk/sefa.png?url';
import strollerUrl from '../../demo/townsfolk/stroller.dothop.yaml?url';

/** The people of the quay by name. */
export type Townsfolk = Readonly<Record<string, LoadedCharacter>>;

const bases = { 'stroller.dothop.yaml': strollerUrl };
const files = {
  marlis: { document: marlisUrl, images: { 'marlis.png': marlisImage } },
  odde: { document: oddeUrl, images: { 'odde.png': oddeImage }, bases },
  pim: { document: pimUrl, images: { 'pim.png': pimImage }, bases },
  sefa: { document: sefaUrl, images: { 'sefa.png': sefaImage }, bases },
};

/** Fetches everybody, and tells how many of the people have come. */
export async function loadTownsfolk(progress?: Progress): Promise<Townsfolk> {
  const people = Object.entries(files);
  let come = 0;
  const loaded = people.map(async ([name, file]) => {
    const character = await loadCharacter(file);
    progress?.(++come, people.length);
    return [name, character] as const;
  });
  return Object.fromEntries(await Promise.all(loaded));
}
