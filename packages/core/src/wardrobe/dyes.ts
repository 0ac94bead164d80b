import type { Palette } from './palette.js';
import type { Wardrobe } from './layer.js';

/** Everything that can be coloured, by its name in an outfit, with its palette. */
export function dyesOf({
  layers,
  bodyPalettes,
}: Pick<Wardrobe, 'layers' | 'bodyPalettes'>): ReadonlyMap<string, Palette> {
  const found = new Map<string, Palette>();
  for (const palette of bodyPalettes) found.set(dyeName('body', palette), palette);
  for (const layer of layers.values())
    for (const piece of layer.pieces.values())
      for (const palette of piece.palettes) found.set(dyeName(layer.name, palette), palette);
  return found;
}

/** The name of a layer's colours in an outfit. */
export const dyeName = (layer: string, { name, shared }: Palette): string =>
  shared ? name : `${layer}.${name}`;
