import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { PaletteDefinition } from '../controller/wardrobe-definition.js';

/** A palette with its colours as numbers, red in the highest of three bytes. */
export interface Palette {
  readonly name: string;
  readonly drawn: string;
  readonly shared: boolean;
  readonly colours: ReadonlyMap<string, readonly number[]>;
  readonly weights: Readonly<Record<string, number>>;
}

/** `#rrggbb` as a number; `undefined` for anything else. */
function colourOf(text: string): number | undefined {
  return /^#[0-9a-f]{6}$/i.test(text) ? Number.parseInt(text.slice(1), 16) : undefined;
}

/** A number as `#rrggbb`. */
export const colourText = (colour: number): string => `#${colour.toString(16).padStart(6, '0')}`;

/** Compiles palettes. Problems are added to the list. */
export function compilePalettes(
  definitions: Readonly<Record<string, PaletteDefinition>>,
  problems: ProblemList,
): Map<string, Palette> {
  const palettes = new Map<string, Palette>();
  for (const [name, { drawn, colours, shared = false, weights = {} }] of Object.entries(definitions)) {
    const path = ['palettes', name];
    const known = Object.keys(colours);
    const own = Object.hasOwn(colours, drawn) ? colours[drawn] : undefined;
    if (own === undefined) problems.add('colours-unknown', [...path, 'drawn'], { name: drawn, known });
    const length = own?.length ?? 0;
    const lists = new Map<string, readonly number[]>();
    for (const [list, texts] of Object.entries(colours)) {
      const at = [...path, 'colours', list];
      if (own !== undefined && texts.length !== length)
        problems.add('palette-length', at, { received: texts.length, drawn, length });
      lists.set(list, readColours(texts, at, problems));
    }
    readWeights(weights, known, [...path, 'weights'], problems);
    palettes.set(name, { name, drawn, shared, colours: lists, weights });
  }
  return palettes;
}

function readColours(texts: readonly string[], path: DocumentPath, problems: ProblemList): number[] {
  return texts.map((text, i) => {
    const colour = colourOf(text);
    if (colour === undefined) problems.add('palette-colour', [...path, i], { received: text });
    return colour ?? 0;
  });
}

function readWeights(
  weights: Readonly<Record<string, number>>,
  known: readonly string[],
  path: DocumentPath,
  problems: ProblemList,
): void {
  for (const [name, weight] of Object.entries(weights)) {
    if (!known.includes(name)) problems.add('colours-unknown', [...path, name], { name, known });
    if (!(weight >= 0)) problems.add('weight-range', [...path, name], { received: weight });
  }
}
