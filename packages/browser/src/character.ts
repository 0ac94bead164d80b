import { imagesOf } from 'dot-hop';
import type { Controller, Names } from 'dot-hop';
import { compileDocument, readJsonDocument } from 'dot-hop/json';
import type { Images } from './dyed.js';
import { Fetching, loadImages } from './images.js';
import type { Progress } from './images.js';

/** A character ready to be performed and drawn. */
export interface LoadedCharacter<N extends Names = Names> {
  readonly controller: Controller<N>;
  /** The images by file, as the document names them; {@link dyeImages} adds those in other colours. */
  readonly images: Images;
}

/** Where a character's files are. */
export interface CharacterFiles {
  /** The address of the document, YAML or JSON. */
  readonly document: string | URL;
  /** The addresses of images by file, as the document names it; by default each is found beside the document. */
  readonly images?: Readonly<Record<string, string | URL>>;
}

/**
 * Fetches a document and its images and compiles them.
 *
 * @param progress is told of each file that has come
 * @throws {LoadError} when a file cannot be fetched or an image cannot be read
 * @throws {DocumentError} for a faulty document, with line and column
 */
export async function loadCharacter(files: CharacterFiles, progress?: Progress): Promise<LoadedCharacter> {
  const address = new URL(files.document, document.baseURI);
  const fetching = new Fetching(progress);
  const text = await fetching.of(address, async () => {
    const answer = await fetch(address);
    if (!answer.ok) throw new Error(`${answer.status} ${answer.statusText}`);
    return answer.text();
  });
  const name = address.pathname.split('/').pop() ?? '';
  // Only a document in YAML has the reader of YAML fetched.
  const read = name.toLowerCase().endsWith('.json')
    ? readJsonDocument(text, name)
    : (await import('dot-hop/document')).readDocument(text, name);
  const addresses = Object.fromEntries(
    [...imagesOf(read.definition.sheets).keys()].map((file) => [
      file,
      new URL(files.images?.[file] ?? file, address),
    ]),
  );
  const images = await loadImages(addresses, fetching);
  return { controller: compileDocument(read, { images }), images };
}
