import path from 'node:path';
import type { Controller, ImageSize, Problem } from 'dot-hop';
import { compileDocument } from 'dot-hop/document';
import type { CharacterDocument } from 'dot-hop/document';
import { settle } from './files/drafts.js';
import { readText } from './files/reading.js';
import { ImageTrouble, readImage } from './images.js';
import type { Image } from './images.js';
import { readDocumentText } from './read-document.js';

/** A document with its images, compiled. */
export interface Character {
  readonly file: string;
  readonly document: CharacterDocument;
  /** The files of the documents that it builds on. */
  readonly baseFiles: readonly string[];
  readonly controller: Controller;
  /** The images by file, as the document names them. */
  readonly images: ReadonlyMap<string, Image>;
}

/**
 * Reads a document and the images it names, which are looked for beside it.
 *
 * @param text the document, where it was read already
 * @throws {DocumentError} with every problem of the document and its images
 */
export async function loadCharacter(file: string, text?: string): Promise<Character> {
  if (file !== '-') settle(path.dirname(file));
  const { document, baseFiles } = await readDocumentText(file, text ?? (await readText(file)));
  const folder = file === '-' ? '.' : path.dirname(file);
  const images = new Map<string, Image>();
  const problems: Problem[] = [];
  for (const [image, place] of document.images) {
    try {
      images.set(image, await readImage(path.join(folder, image)));
    } catch (error) {
      if (!(error instanceof ImageTrouble)) throw error;
      const code = error.missing ? 'image-missing' : 'image-broken';
      problems.push({ code, path: place, values: { image, detail: error.message } });
    }
  }
  if (problems.length > 0) throw document.source.placed(problems);
  const sizes: Record<string, ImageSize> = Object.fromEntries(images);
  return { file, document, baseFiles, controller: compileDocument(document, { images: sizes }), images };
}
