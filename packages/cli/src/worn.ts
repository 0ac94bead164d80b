import { DotHopError } from 'dot-hop';
import type { Controller, Outfit, OutfitDefinition, Pose, Wardrobe } from 'dot-hop';
import { randomOutfit, wardrobeOf } from 'dot-hop/wardrobe';
import { Misuse } from './misuse.js';

/** What shows, as a wardrobe asks for it. */
type Shown = Parameters<Outfit['dress']>[1];

/** How a picture that is about something else shows what is worn. */
export interface WornOptions {
  /** What is not left to chance: pieces by layer, colours by palette. */
  readonly wear?: Readonly<Record<string, string>>;
  /** The body alone. */
  readonly bare?: boolean;
}

/** @throws {Misuse} where something is to be worn and nothing is drawn */
export function checkWorn({ out, wear, bare }: WornOptions & { readonly out?: string }): void {
  if (out !== undefined || (wear === undefined && bare !== true)) return;
  throw new Misuse(`--${wear === undefined ? 'bare' : 'wear'} is for the picture; it needs -o`);
}

/** Splits one list of choices into pieces of layers and colours of palettes. */
export function toldOf({ layers }: Wardrobe, wear: Readonly<Record<string, string>>): OutfitDefinition {
  const some = (isPiece: boolean): Record<string, string> =>
    Object.fromEntries(Object.entries(wear).filter(([name]) => layers.has(name) === isPiece));
  return { pieces: some(true), colours: some(false) };
}

/**
 * What somebody wears in a picture that is about something else: as told, the rest by chance, always the same.
 *
 * @throws {Misuse} for a name that the wardrobe does not have, or where something is told and there is no wardrobe
 */
export function wornIn(controller: Controller, { wear, bare = false }: WornOptions): Outfit | undefined {
  if (bare) return undefined;
  const wardrobe = wardrobeOf(controller);
  if (wardrobe !== undefined)
    return asMisuse(() => wardrobe.outfit(randomOutfit(wardrobe, '1', toldOf(wardrobe, wear ?? {}))));
  if (wear === undefined) return undefined;
  throw noWardrobe(controller);
}

export const noWardrobe = ({ name }: Controller): Misuse =>
  new Misuse(`"${name}" has no wardrobe; add one under "wardrobe" with layers and pieces`);

/** What a wardrobe refuses was asked for wrongly here. */
export function asMisuse<T>(act: () => T): T {
  try {
    return act();
  } catch (error) {
    if (error instanceof DotHopError) throw new Misuse(error.message);
    throw error;
  }
}

/** A pose in an outfit, for a picture that no performer shows. */
export function dressedAs(
  { compass }: Controller,
  outfit: Outfit,
  pose: Pose,
  { facing, ...shown }: Pick<Shown, 'states' | 'clip' | 'frame'> & { readonly facing: number },
): Pose {
  const direction = compass.names[facing]!;
  const drawnFor = (pose.mirrored ? compass.names[compass.mirrorOf[facing]!] : undefined) ?? direction;
  return outfit.dress(pose, { ...shown, direction, drawnFor });
}
