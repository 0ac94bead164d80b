import { callError } from '../problem/problem.js';
import { Chance } from './chance.js';
import type { OutfitDefinition } from '../controller/wardrobe-definition.js';
import { dyesOf } from './dyes.js';
import type { Wardrobe } from './layer.js';

/** How often one outfit is tried again when its pieces do not go together, or when it is too like another. */
const tries = 400;

/** An outfit that names every layer and every colour. */
export interface CompleteOutfit {
  readonly pieces: Readonly<Record<string, string>>;
  readonly colours: Readonly<Record<string, string>>;
}

interface Weighed {
  readonly one: string;
  readonly weight: number;
}

/**
 * Picks a complete outfit by chance. Pieces and colours are picked by their weights. Pieces that exclude one another are never worn
 * together, everything that a piece requires is there, and the colours fit one of the wardrobe's schemes. The same seed gives the same
 * outfit on every machine.
 *
 * @param wear what is not left to chance; the rest goes with it as well as possible
 * @throws {DotHopError} when no pieces go together, or for a name that the wardrobe does not have
 */
export function randomOutfit(
  wardrobe: Wardrobe,
  seed: number | string,
  wear: OutfitDefinition = {},
): CompleteOutfit {
  wardrobe.outfit(wear);
  return draw(wardrobe, new Chance(seed), wear);
}

/** Options for a crowd. */
export interface CrowdOptions {
  /** The number of choices (pieces and colours) in which any two outfits must differ. Default 1. */
  readonly differ?: number;
  /** What all outfits have in common. Default: nothing, all is left to chance. */
  readonly wear?: OutfitDefinition;
}

/**
 * Picks outfits for many people so that no two look alike.
 *
 * @param count the number of outfits, from 1
 * @throws {DotHopError} when it cannot find so many
 */
export function randomCrowd(
  wardrobe: Wardrobe,
  seed: number | string,
  count: number,
  { differ = 1, wear = {} }: CrowdOptions = {},
): CompleteOutfit[] {
  wardrobe.outfit(wear);
  const chance = new Chance(seed);
  const crowd: CompleteOutfit[] = [];
  for (let failed = 0; crowd.length < count;) {
    const next = draw(wardrobe, chance, wear);
    if (crowd.every((other) => differences(next, other) >= differ)) {
      crowd.push(next);
      failed = 0;
    } else if (++failed > tries) throw callError('crowd-few', { found: crowd.length, count, differ });
  }
  return crowd;
}

/** The number of choices in which two outfits differ. Colours of a piece count only if both outfits have that piece. */
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

function draw(wardrobe: Wardrobe, chance: Chance, wear: OutfitDefinition): CompleteOutfit {
  const told: Readonly<Record<string, string>> = { ...wear.pieces, ...wear.colours };
  const schemes = wardrobe.definition.schemes ?? [];
  const allows = (scheme: (typeof schemes)[number], key: string, name: string): boolean =>
    scheme[key] === undefined ||
    scheme[key] === name ||
    (Array.isArray(scheme[key]) && scheme[key].includes(name));
  const fitting = schemes.filter((one) =>
    Object.entries(told).every(([key, name]) => allows(one, key, name)),
  );
  let drawn: CompleteOutfit = { pieces: {}, colours: {} };
  for (let i = 0; i < tries; i++) {
    const scheme =
      chance.pick((fitting.length > 0 ? fitting : schemes).map((one) => ({ one, weight: 1 }))) ?? {};
    const isOpen = (key: string, name: string): boolean =>
      told[key] === undefined ? allows(scheme, key, name) : told[key] === name;
    const pieces: Record<string, string> = {};
    for (const { name: layer, pieces: known, definition } of wardrobe.layers.values()) {
      const some: Weighed[] = [{ one: 'none', weight: definition.none ?? 0 }];
      for (const [one, piece] of known) some.push({ one, weight: piece.definition.weight ?? 1 });
      pieces[layer] = told[layer] ?? chance.pick(some.filter(({ one }) => isOpen(layer, one))) ?? 'none';
    }
    const colours: Record<string, string> = {};
    for (const [key, palette] of dyesOf(wardrobe)) {
      const some = [...palette.colours.keys()].map((one) => ({ one, weight: palette.weights[one] ?? 1 }));
      colours[key] = told[key] ?? chance.pick(some.filter(({ one }) => isOpen(key, one))) ?? palette.drawn;
    }
    drawn = { pieces, colours };
    if (goTogether(wardrobe, pieces)) return drawn;
  }
  // What was told does not go together by itself: then it is meant so.
  if (Object.keys(wear.pieces ?? {}).length > 1) return drawn;
  throw callError('outfit-none', { tries });
}

/** Whether no worn piece excludes another, and every worn piece has what it requires. */
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
