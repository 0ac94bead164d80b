import { dropDyed, dyeImages } from '@dot-hop/browser';
import type { Images } from '@dot-hop/browser';
import { DotHopError, poseOf } from 'dot-hop';
import type { Clip, Controller, Outfit, OutfitDefinition, Performer, Pose, Wardrobe } from 'dot-hop';
import { randomOutfit, wardrobeOf } from 'dot-hop/wardrobe';
import { create } from 'zustand';
import type { Drawn } from '../character/pictures.js';
import { tell, useWorkbench } from '../character/store.js';

// What characters wear where they play. Nothing of it is in the document.

/** What was chosen for the character of a file: an outfit, or the bare body. Who is not in it is dressed by chance. */
export const useClothes = create<{ readonly chosen: ReadonlyMap<string, OutfitDefinition | 'bare'> }>(() => ({
  chosen: new Map(),
}));

/** Dresses the character that is open. */
export function choose(outfit: OutfitDefinition | 'bare'): void {
  const { file } = useWorkbench.getState();
  useClothes.setState(({ chosen }) => ({ chosen: new Map(chosen).set(file, outfit) }));
}

/** The seed of who was never dressed: the one with which the command dresses somebody for a picture. */
const firstSeed = '1';
let lastSeed = Number(firstSeed);

/** Clothes by chance, the same as the command's for the same seed; or why there are none, where the pieces never go together. */
function byChance(wardrobe: Wardrobe, seed: string): OutfitDefinition | DotHopError {
  try {
    return randomOutfit(wardrobe, seed);
  } catch (error) {
    if (error instanceof DotHopError) return error;
    throw error;
  }
}

/** Dresses the character that is open by chance, each time in other clothes. */
export function chooseByChance(wardrobe: Wardrobe): void {
  lastSeed += 1;
  const outfit = byChance(wardrobe, String(lastSeed));
  if (outfit instanceof DotHopError) {
    tell(outfit.message, true);
    return;
  }
  choose(outfit);
  tell(`Dressed by chance, as “dot-hop dress --seed ${lastSeed}” does.`);
}

interface Made {
  readonly of: OutfitDefinition | 'bare' | undefined;
  readonly outfit: Outfit | undefined;
}
const made = new WeakMap<Controller, Made>();

/** What a character wears, `undefined` for the bare body. Of names that its wardrobe does not have any more nothing is left. */
export function outfitOf(controller: Controller, file = useWorkbench.getState().file): Outfit | undefined {
  const of = useClothes.getState().chosen.get(file);
  const known = made.get(controller);
  if (known !== undefined && known.of === of) return known.outfit;
  const wardrobe = wardrobeOf(controller);
  const worn = wardrobe === undefined || of === 'bare' ? undefined : (of ?? byChance(wardrobe, firstSeed));
  const isBare = worn === undefined || worn instanceof DotHopError;
  const outfit = isBare ? undefined : wardrobe?.outfit(wardrobe.fitting(worn));
  made.set(controller, { of, outfit });
  return outfit;
}

const imagesOf = new WeakMap<ReadonlyMap<string, Drawn>, Images>();

/** The images that are drawn, by name; images in other colours join them when they are worn. */
export function imagesFor(drawn: ReadonlyMap<string, Drawn>): Images {
  let images = imagesOf.get(drawn);
  if (images === undefined) {
    images = Object.fromEntries([...drawn].map(([name, { bitmap }]) => [name, bitmap]));
    imagesOf.set(drawn, images);
  }
  return images;
}

/** What can be worn with the images that are there; its colours are made. While nothing changes it costs a few lookups. */
function wearable(controller: Controller, images: Images, file?: string): Outfit | undefined {
  const outfit = outfitOf(controller, file);
  if (outfit?.dyed.every((one) => one.file in images) !== true) return undefined;
  dyeImages(images, outfit);
  return outfit;
}

/** Dresses a performer. @param file of its document, if it is not the one that is open */
export function dress(performer: Performer, images: Images, file?: string): void {
  const outfit = wearable(performer.controller, images, file);
  if (performer.outfit === outfit) return;
  performer.wear(outfit);
  dropDyed(images, outfit === undefined ? [] : [outfit]);
}

/**
 * A frame of a clip by itself, dressed; `undefined` where nothing is worn.
 *
 * @param faced the direction in which the character faces, that for which the clip is drawn by default
 */
export function dressedFrame(
  controller: Controller,
  clip: Clip,
  frame: number,
  images: Images,
  faced?: string,
): Pose | undefined {
  const outfit = wearable(controller, images);
  if (outfit === undefined) return undefined;
  const drawnFor = clip.direction ?? directionOf(controller, clip);
  const body = poseOf(clip.frames[frame]!, false);
  return outfit.dress(body, { states: [], direction: faced ?? drawnFor, drawnFor, clip, frame });
}

/** A showing of a clip by itself, dressed. */
export function dressedShowing(controller: Controller, clip: Clip, showing: number, images: Images): Pose {
  return dressedFrame(controller, clip, clip.order[showing]!, images) ?? poseOf(clip.cells[showing]!, false);
}

/** The first direction for which a clip is drawn; that in which the character begins for one that none names. */
function directionOf({ compass, flipbooks }: Controller, clip: Clip): string {
  for (const book of flipbooks.values()) {
    const found = book.findIndex(
      (drawing) => drawing.clip === clip && !drawing.mirrored && !drawing.standsIn,
    );
    if (found >= 0) return compass.names[found]!;
  }
  return compass.names[compass.start]!;
}
