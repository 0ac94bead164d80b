import { existsSync } from 'node:fs';
import { cellNumbers, imagesOf, writeCells } from 'dot-hop';
import type { ClipDefinition, ControllerDefinition } from 'dot-hop';
import { compileDocument, readDocument } from 'dot-hop/document';
import { Document, YAMLMap, isMap, parseDocument } from 'yaml';
import { readText } from './files/reading.js';
import { Misuse } from './misuse.js';
import type { Gathered } from './sources.js';

/** A document as it is to be written, and what is changed in it, in words. */
export interface Written {
  readonly text: string;
  readonly notes: string[];
}

/** The fields of a sheet that say how it is cut; all others are a person's and are kept. */
const cutFields = ['image', 'images', 'size', 'grid', 'cells'] as const;

/**
 * A document with a gathered sheet and its clips, or an existing one brought up to date: the sheet is cut anew, clips that
 * are not there are added; everything else, comments too, stays as it is.
 *
 * @throws {DocumentError} when clips of the document name cells that are no longer there
 */
export async function bringUpToDate(
  file: string,
  { name, sheet, clips, images }: Gathered,
): Promise<Written> {
  const exists = existsSync(file);
  const before = exists ? await readText(file) : '';
  if (exists) readDocument(before, file);
  const tree = exists ? parseDocument(before) : new Document({ dotHop: 1, name });
  const renumbered = renumber(tree, name, sheet.images, file);
  const known = tree.getIn(['sheets', name]);
  const flow = (value: unknown) => tree.createNode(value, { flow: true });
  const cutNode = (field: string, value: unknown) => tree.createNode(value, { flow: field !== 'images' });
  if (isMap(known)) {
    for (const field of cutFields) known.delete(field);
    for (const [field, value] of Object.entries(sheet)) known.set(field, cutNode(field, value));
  } else tree.setIn(['sheets', name], sheetNode(tree, sheet));
  const notes: string[] = [];
  if (renumbered.length > 0)
    notes.push(`renumbered, so that they show the same images: ${renumbered.join(', ')}`);
  const added: string[] = [];
  for (const [clip, definition] of Object.entries(clips)) {
    if (tree.hasIn(['clips', clip])) continue;
    const first = firstSheet(tree) === name;
    tree.setIn(['clips', clip], flow(first ? definition : { sheet: name, ...definition }));
    added.push(clip);
  }
  const text = file.toLowerCase().endsWith('.json')
    ? `${JSON.stringify(tree.toJS(), null, 2)}\n`
    : tree.toString({ lineWidth: 0, flowCollectionPadding: true });
  // Clips that name cells which are gone are told at their place, and nothing is written.
  const sizes = Object.fromEntries(images);
  compileDocumentLoosely(text, file, sizes);
  notes.push(`${exists ? 'brought up to date' : 'written'}: ${file}`);
  if (added.length > 0) notes.push(`clips added: ${added.join(', ')}`);
  return { text, notes };
}

/**
 * Images that were put in between or taken away move the numbers of those behind them: clips are changed so that they
 * show the images that they showed.
 *
 * @returns the clips that were changed
 * @throws {Misuse} naming every clip that shows an image which is gone
 */
function renumber(
  tree: Document,
  sheet: string,
  images: readonly string[] | undefined,
  file: string,
): string[] {
  const { sheets, clips } = tree.toJS() as Partial<ControllerDefinition>;
  const before = sheets?.[sheet]?.images;
  if (before === undefined || images === undefined) return [];
  const changed: string[] = [];
  const lost: string[] = [];
  for (const [name, clip] of Object.entries(clips ?? {})) {
    if ((clip.sheet ?? Object.keys(sheets ?? {})[0]) !== sheet) continue;
    const numbers = cellNumbers(clip.cells, before.length, before.length) ?? [];
    const nowOf = (list: readonly number[]): number[] =>
      list.map((number) => images.indexOf(before[number] ?? ''));
    const now = nowOf(numbers);
    const rows = rowsOf(clip).map((row) => row * (clip.every ?? before.length));
    const shown = rows.flatMap((below) => numbers.map((number) => number + below));
    const gone = shown.filter((number) => before[number] !== undefined && !images.includes(before[number]));
    if (gone.length > 0) lost.push(`clip "${name}" shows ${gone.map((number) => before[number]).join(', ')}`);
    else if (nowOf(shown).join() !== rows.flatMap((below) => now.map((one) => one + below)).join())
      throw new Misuse(
        `${file}: nothing is written, since the rows of clip "${name}" would no longer lie evenly; write a clip for each direction`,
      );
    else if (now.every((number) => number >= 0) && now.some((number, i) => number !== numbers[i])) {
      tree.setIn(['clips', name, 'cells'], tree.createNode(writeCells(now), { flow: true }));
      changed.push(name);
    }
  }
  if (lost.length > 0)
    throw new Misuse(
      `${file}: nothing is written, since images that clips show are gone:\n  ${lost.join('\n  ')}\nTake these cells out of the clips, or bring the images back`,
    );
  return changed;
}

/** How many rows below its cells a clip is drawn too; `[0]` for a clip without rows. */
function rowsOf({ rows }: ClipDefinition): readonly number[] {
  if (rows === undefined) return [0];
  return Array.isArray(rows) ? rows.map((_, row) => row) : Object.values(rows as Record<string, number>);
}

/** The sheet that clips are on when they do not say. */
function firstSheet(tree: Document): string | undefined {
  const { sheets = {} } = tree.toJS() as { sheets?: object };
  return Object.keys(sheets)[0];
}

/** A sheet with one field a line, so that a person can read and change it. */
function sheetNode(tree: Document, sheet: object): YAMLMap {
  const node = new YAMLMap();
  for (const [field, value] of Object.entries(sheet))
    node.set(tree.createNode(field), tree.createNode(value, { flow: field !== 'images' }));
  return node;
}

/** Compiles a text for its problems; sheets whose images were not gathered now are not looked at. */
function compileDocumentLoosely(
  text: string,
  file: string,
  images: Record<string, { width: number; height: number }>,
): void {
  const document = readDocument(text, file);
  const others = [...imagesOf(document.definition.sheets).keys()];
  if (others.every((one) => one in images)) compileDocument(document, { images });
}
