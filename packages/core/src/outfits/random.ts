import type { OutfitDefinition, Wardrobe } from '../index.js';
import { callError } from '../problem/problem.js';
import { dyesOf } from '../wardrobe/dyes.js';
import { Chance } from './chance.js';

/** How often one outfit is tried anew when its pieces do not go together, or when it is too like another. */
const tries = 400;

/** An outfit in which every layer and everything that can be coloured is named. */
export interface CompleteOutfit {
  readonly pieces: Readonly<Record<string, string>>;
  readonly colours: Readonly<Record<string, string>>;
}

interface Weighed {
  readonly one: string;
  readonly weight: number;
}

/**
 * A complete outfit by chance: pieces and colours by their weights, none together that exclude one another, everything there
 * that is required, and colours as one of the wardrobe's schemes has them. The same seed gives the same outfit on every machine.
 *
 * @throws {DotHopError} when the pieces never go together
 */
export function randomOutfit(wardrobe: Wardrobe, seed: number | string): CompleteOutfit {
  return draw(wardrobe, new Chance(seed));
}

/** What a crowd is asked for. */
export interface CrowdOptions {
  /** In how many choices, pieces and colours, any two differ at least. Default 1. */
  readonly differ?: number;
}

/**
 * Outfits for many people of whom no two look alike.
 *
 * @param count from 1
 * @throws {DotHopError} when not that many can be found
 */
export function randomCrowd(
  wardrobe: Wardrobe,
  seed: number | string,
  count: number,
  { differ = 1 }: CrowdOptions = {},
): CompleteOutfit[] {
  const chance = new Chance(seed);
  const crowd: CompleteOutfit[] = [];
  for (let failed = 0; crowd.length < count;) {
    const next = draw(wardrobe, chance);
    if (crowd.every((other) => differences(next, other) >= differ)) {
      crowd.push(next);
      failed = 0;
    } else if (++failed > tries) throw callError('crowd-few', { found: crowd.length, count, differ });
  }
  return crowd;
}

/** In how many choices two outfits differ. Colours of pieces that are not worn, or not the same piece, are not counted. */
export function differences(a: OutfitDefinition, b: OutfitDefinition): number {
  const pieces = Object.keys(a.pieces ?? {}).filter((layer) => a.pieces?.[layer] !== b.pieces?.[layer]);
  const colours = Object.keys(a.colours ?? {}).filter((name) => {
    const layer = name.includes('.') ? name.slice(0, name.indexOf('.')) : undefined;
    const isSame = layer === undefined || layer === 'body' || !pieces.includes(layer);
    const isWorn = layer === undefined || layer === 'body' || a.pieces?.[layer] !== 'none';
    return isSame && isWorn && a.colours?.[name] !== b.colours?.[name];
  });
  return pieces.length + colours.length;
}

function draw(wardrobe: Wardrobe, chance: Chance): CompleteOutfit {
  for (let i = 0; i < tries; i++) {
    const scheme = chance.pick((wardrobe.definition.schemes ?? []).map((one) => ({ one, weight: 1 }))) ?? {};
    const allowed = (key: string, name: string): boolean =>
      scheme[key] === undefined || scheme[key] === name || scheme[key].includes(name);
    const pieces: Record<string, string> = {};
    for (const { name: layer, pieces: known, definition } of wardrobe.layers.values()) {
      const some: Weighed[] = [{ one: 'none', weight: definition.none ?? 0 }];
      for (const [one, piece] of known) some.push({ one, weight: piece.definition.weight ?? 1 });
      pieces[layer] = chance.pick(some.filter(({ one }) => allowed(layer, one))) ?? 'none';
    }
    const colours: Record<string, string> = {};
    for (const [key, palette] of dyesOf(wardrobe)) {
      const some = [...palette.colours.keys()].map((one) => ({ one, weight: palette.weights[one] ?? 1 }));
      colours[key] = chance.pick(some.filter(({ one }) => allowed(key, one))) ?? palette.drawn;
    }
    if (goTogether(wardrobe, pieces)) return { pieces, colours };
  }
  throw callError('crowd-few', { found: 0, count: 1, differ: 0 });
}

/** Whether nothing worn excludes, and everything has what it requires. */
export function goTogether(wardrobe: Wardrobe, pieces: Readonly<Record<string, string>>): boolean {
  const isWorn = (name: string): boolean => {
    const [layer = '', piece] = name.split('.');
    const worn = pieces[layer] ?? 'none';
    return piece === undefined ? worn !== 'none' : worn === piece;
  };
  return [...wardrobe.layers.values()].every(({ name, pieces: known }) => {
    const piece = known.get(pieces[name] ?? 'none');
    const { excludes = [], requires = [] } = piece?.definition ?? {};
    return !excludes.some(isWorn) && requires.every(isWorn);
  });
}
