import { existsSync } from 'node:fs';
import { compileDocument, readDocument } from 'dot-hop/document';
import { Document, YAMLMap, isMap, parseDocument } from 'yaml';
import { readText, writeWhole } from './files.js';
import type { Gathered } from './sources.js';

/** What writing changed, in words. */
export interface Written {
  readonly notes: readonly string[];
}

/** The fields of a sheet that say how it is cut; all others are a person's and are kept. */
const cutFields = ['image', 'images', 'size', 'grid', 'cells'] as const;

/**
 * Writes a document with a gathered sheet and its clips, or brings an existing one up to date: the sheet is cut anew,
 * clips that are not there are added; everything else, comments too, stays as it is.
 *
 * @throws {DocumentError} when clips of the document name cells that are no longer there; nothing is written then
 */
export async function writeDocument(
  file: string,
  { name, sheet, clips, images }: Gathered,
): Promise<Written> {
  const exists = existsSync(file);
  const before = exists ? await readText(file) : '';
  if (exists) readDocument(before, file);
  const tree = exists ? parseDocument(before) : new Document({ dotHop: 1, name });
  const known = tree.getIn(['sheets', name]);
  const flow = (value: unknown) => tree.createNode(value, { flow: true });
  const cutNode = (field: string, value: unknown) => tree.createNode(value, { flow: field !== 'images' });
  if (isMap(known)) {
    for (const field of cutFields) known.delete(field);
    for (const [field, value] of Object.entries(sheet)) known.set(field, cutNode(field, value));
  } else tree.setIn(['sheets', name], sheetNode(tree, sheet));
  const notes: string[] = [];
  const added: string[] = [];
  for (const [clip, definition] of Object.entries(clips)) {
    if (tree.hasIn(['clips', clip])) continue;
    const first = firstSheet(tree) === name;
    tree.setIn(['clips', clip], flow(first ? definition : { sheet: name, ...definition }));
    added.push(clip);
  }
  const text = tree.toString({ lineWidth: 0, flowCollectionPadding: true });
  // Clips that name cells which are gone are told at their place, and nothing is written.
  const sizes = Object.fromEntries(images);
  compileDocumentLoosely(text, file, sizes);
  await writeWhole(file, text);
  notes.push(`${exists ? 'brought up to date' : 'written'}: ${file}`);
  if (added.length > 0) notes.push(`clips added: ${added.join(', ')}`);
  return { notes };
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
  const others = Object.values(document.definition.sheets).flatMap(
    ({ image, images: list }) => list ?? image ?? [],
  );
  if (others.every((one) => one in images)) compileDocument(document, { images });
}
