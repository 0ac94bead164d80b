import type { Palette } from './palette.js';
import type { Wardrobe } from './layer.js';

/** Everything that can be coloured, by the name under which an outfit says it, with its palette. */
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

/** The name under which an outfit says the colours of a layer. */
export const dyeName = (layer: string, { name, shared }: Palette): string =>
  shared ? name : `${layer}.${name}`;
