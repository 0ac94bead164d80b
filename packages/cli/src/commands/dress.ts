import type { Outfit, Wardrobe } from 'dot-hop';
import { randomCrowd, randomOutfit, wardrobeOf } from 'dot-hop/wardrobe';
import { loadCharacter } from '../character.js';
import { dyedImages } from '../dyed.js';
import { needPng } from '../files/kinds.js';
import { writeWhole } from '../files/writing.js';
import { crowdPicture, outfitPicture } from '../picture/crowd-picture.js';
import { asMisuse, noWardrobe, toldOf } from '../worn.js';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';
import { csv, printTable } from './table.js';

/** The options of `dot-hop dress`. */
export interface DressOptions {
  readonly count: number;
  readonly seed: string;
  /** In how many choices any two differ at least. */
  readonly differ: number;
  /** What is not left to chance: pieces by layer, colours by palette. */
  readonly wear?: Readonly<Record<string, string>>;
  readonly scale: number;
  readonly out?: string;
  readonly csv?: boolean;
  readonly json?: boolean;
}

/** Dresses people by chance, or as told: a table of what they wear, one picture with `-o`. */
export async function dress(file: string, options: DressOptions, output: Output): Promise<number> {
  if (options.out !== undefined) needPng(options.out, 'a picture of people');
  const { controller, images } = await loadCharacter(file);
  const wardrobe = wardrobeOf(controller);
  if (wardrobe === undefined) throw noWardrobe(controller);
  const people = asMisuse(() => dressed(wardrobe, options));
  if (options.out !== undefined) {
    const all = dyedImages(images, people);
    const picture =
      people.length > 1
        ? crowdPicture(controller, all, people, options.scale)
        : outfitPicture(controller, all, people[0]!, options.scale);
    await writeWhole(options.out, await picture);
    output.note(
      people.length > 1
        ? `${people.length} people in ${options.out}`
        : `one person, in every direction and frame, in ${options.out}`,
    );
  }
  const columns = [...wardrobe.layers.keys(), ...Object.keys(people[0]!.colours)];
  const rows = people.map(({ pieces, colours }) => [...Object.values(pieces), ...Object.values(colours)]);
  if (options.json === true)
    printJson(
      output,
      people.map(({ pieces, colours }) => ({ pieces, colours })),
    );
  else if (options.csv === true) output.line(csv(columns, rows));
  else if (options.out === undefined) printTable(output, columns, rows);
  return exit.well;
}

function dressed(wardrobe: Wardrobe, { count, seed, differ, wear = {} }: DressOptions): Outfit[] {
  const told = toldOf(wardrobe, wear);
  const people =
    count === 1
      ? [randomOutfit(wardrobe, seed, told)]
      : randomCrowd(wardrobe, seed, count, { differ, wear: told });
  return people.map((one) => wardrobe.outfit(one));
}
