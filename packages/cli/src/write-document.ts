import { existsSync } from 'node:fs';
import { compileController } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { compileDocument, readDocument } from 'dot-hop/document';
import type { Bases, CharacterDocument, Layers } from 'dot-hop/document';
import { changedText, changesOver, newClips, placePivots, styleOf, updateImages } from 'dot-hop/edit';
import type { Change } from 'dot-hop/edit';
import { commonFeet, feetOfCells } from 'dot-hop/gather';
import { readText } from './files/reading.js';
import { Misuse } from './misuse.js';
import { basesOf } from './read-document.js';
import type { Gathered } from './sources.js';

/** A document as it is to be written, and what is changed in it, in words. */
export interface Written {
  readonly text: string;
  readonly notes: string[];
}

/** Where pivots are put: on the feet, one for all that are drawn in frames of one size; or on each drawing's own feet. */
export type Pivot = 'feet' | 'own-feet';

/** The fields of a sheet that say how it is cut; all others are a person's and are kept. */
const cutFields = ['image', 'images', 'size', 'grid', 'cells'] as const;

/**
 * Writes a document with a gathered sheet and its clips, or brings an existing one up to date. The sheet is cut again, and new
 * clips are added. Everything else stays as it is, comments too.
 *
 * @param pivot where pivots are put; by default nowhere
 * @throws {DocumentError} when clips of the document name cells that are no longer there
 */
export async function bringUpToDate(
  file: string,
  gathered: Gathered,
  pivot: Pivot | undefined,
): Promise<Written> {
  const { name, sheet, clips, images, root } = gathered;
  const exists = existsSync(file);
  const style = styleOf(file);
  const before = exists ? await readText(file) : newText(name, style);
  const bases = await basesOf(file, before);
  const read = exists ? readDocument(before, file, bases) : undefined;
  const definition: ControllerDefinition = read?.definition ?? { dotHop: 1, sheets: {}, clips: {} };
  const notes: string[] = [];
  const changes: Change[] = [];
  const known = definition.sheets[name];
  if (known === undefined) changes.push({ op: 'set', path: ['sheets', name], value: sheet });
  else {
    for (const field of cutFields)
      if (known[field] !== undefined && sheet[field] === undefined)
        changes.push({ op: 'remove', path: ['sheets', name, field] });
    for (const field of cutFields)
      if (sheet[field] !== undefined && JSON.stringify(known[field]) !== JSON.stringify(sheet[field]))
        if (field !== 'images')
          changes.push({ op: 'set', path: ['sheets', name, field], value: sheet[field] });
  }
  let added = Object.keys(clips).filter((clip) => !Object.hasOwn(definition.clips, clip));
  if (known !== undefined && sheet.images !== undefined) {
    const { edit, renumbered, joined, lost, uneven } = updateImages(definition, name, sheet.images, root);
    if (uneven.length > 0)
      throw new Misuse(
        `${file}: nothing is written, since the rows of clip "${uneven[0]!}" would no longer lie evenly; write a clip for each direction`,
      );
    if (lost.length > 0)
      throw new Misuse(
        `${file}: nothing is written, since images that clips show are gone:\n  ${lost.map((one) => `clip "${one.clip}" shows ${one.images.join(', ')}`).join('\n  ')}\nTake these cells out of the clips, or bring the images back`,
      );
    if (renumbered.length > 0)
      notes.push(`renumbered, so that they show the same images: ${renumbered.join(', ')}`);
    for (const { clip, images: come } of joined)
      notes.push(`joined ${clip}, because of their names: ${come.join(', ')}`);
    const made = edit.changes
      .map(({ path }) => path)
      .filter((path) => path[0] === 'clips' && path.length === 2);
    added = made.map((path) => String(path[1]));
    changes.push(...edit.changes);
  } else {
    const made = Object.fromEntries(added.map((clip) => [clip, clips[clip]!]));
    changes.push(...newClips(definition, name, made));
  }
  let text = changedText(before, ofOwnText(read?.layers, definition, changes), style);
  if (pivot !== undefined) text = standing(text, file, bases, gathered, pivot, notes);
  // Clips that name cells which are gone are told at their place, and nothing is written.
  compileLoosely(readDocument(text, file, bases), Object.fromEntries(images));
  notes.push(`${exists ? 'brought up to date' : 'written'}: ${file}`);
  if (added.length > 0) notes.push(`clips added: ${added.join(', ')}`);
  return { text, notes };
}

/** What a new document begins with. */
const newText = (name: string, style: 'json' | 'yaml'): string =>
  style === 'json' ? `${JSON.stringify({ dotHop: 1, name }, null, 2)}\n` : `dotHop: 1\nname: ${name}\n`;

/** The text with pivots where the drawings of a sheet stand. */
function standing(
  text: string,
  file: string,
  bases: Bases,
  { name, sheet, images, picture }: Gathered,
  pivot: Pivot,
  notes: string[],
): string {
  const { definition, layers } = readDocument(text, file, bases);
  const alone: ControllerDefinition = {
    dotHop: 1,
    sheets: { [name]: definition.sheets[name]! },
    clips: { all: { cells: 0 } },
  };
  const { cells } = compileController(alone, { images: Object.fromEntries(images) }).sheets.get(name)!;
  const feet = feetOfCells(cells, (image) =>
    image === sheet.image ? (picture ?? images.get(image)) : images.get(image),
  );
  const count = Object.keys(feet).length;
  const sizes = new Set(cells.map(({ frameWidth, frameHeight }) => `${frameWidth}x${frameHeight}`));
  const common = pivot === 'feet' && sizes.size === 1 ? commonFeet(feet) : undefined;
  const pivots = common === undefined ? feet : Object.fromEntries(cells.map(({ index }) => [index, common]));
  notes.push(
    common === undefined
      ? `${count} ${count === 1 ? 'drawing stands' : 'drawings stand'} on ${count === 1 ? 'its' : 'their'} own feet`
      : `all cells stand on one pivot, ${common.join(', ')}: they are drawn in frames of one size; --pivot own-feet gives each its own`,
  );
  const { changes } = placePivots(definition, name, pivots, cells.length);
  return changedText(text, ofOwnText(layers, definition, changes), styleOf(file));
}

/** Compiles a document for its problems; sheets whose images were not gathered now are not looked at. */
function compileLoosely(
  document: CharacterDocument,
  images: Record<string, { width: number; height: number }>,
): void {
  const others = [...document.images.keys()];
  if (others.every((one) => one in images)) compileDocument(document, { images });
}

/** Changes of a document as changes of its own text, which may build on others. */
const ofOwnText = (
  layers: Layers | undefined,
  definition: ControllerDefinition,
  changes: readonly Change[],
): readonly Change[] => (layers === undefined ? changes : changesOver(layers, definition, changes));
