import type { Outfit } from 'dot-hop';
import { recolour } from 'dot-hop/pixels';
import type { Image } from './images.js';

/** A character's images with those in other colours that some outfits need, each made once. */
export function dyedImages(
  images: ReadonlyMap<string, Image>,
  outfits: readonly Outfit[],
): Map<string, Image> {
  const all = new Map(images);
  for (const { dyed } of outfits)
    for (const { name, file, colours } of dyed)
      if (!all.has(name)) all.set(name, recolour(images.get(file)!, colours));
  return all;
}
