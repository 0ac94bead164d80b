import type { Controller, Names } from 'dot-hop';
import { compileDocument, gatherJsonBases, readJsonDocument } from 'dot-hop/json';
import type { CharacterDocument } from 'dot-hop/json';
import type { Images } from './dyed.js';
import { Fetching, loadImages } from './images.js';
import type { LoadError, Progress } from './images.js';
import { sizesWorn } from './worn.js';

/** A character that is ready to be played and drawn. */
export interface LoadedCharacter<N extends Names = Names> {
  readonly controller: Controller<N>;
  /** The images by file, as the document names them. {@link dyeImages} adds the recoloured ones. */
  readonly images: Images;
  /** Images of clothes that could not be loaded: these clothes stay invisible. Any other image that cannot be loaded is an error. */
  readonly missing?: readonly LoadError[];
}

/** Where a character's files are. */
export interface CharacterFiles {
  /** The address of the document, YAML or JSON. */
  readonly document: string | URL;
  /** The addresses of the images, by the file that the document names. Default: beside the document. */
  readonly images?: Readonly<Record<string, string | URL>>;
  /** The addresses of the documents that it builds on. Default: beside the document. */
  readonly bases?: Readonly<Record<string, string | URL>>;
}

/**
 * Fetches a document, everything that it builds on and its images, and compiles them.
 *
 * @param progress is called for each file that has arrived
 * @throws {LoadError} when a file cannot be fetched or an image cannot be read, except images of clothes whose size is known
 * @throws {DocumentError} for a faulty document, with line and column
 */
export async function loadCharacter(files: CharacterFiles, progress?: Progress): Promise<LoadedCharacter> {
  const address = new URL(files.document, document.baseURI);
  const fetching = new Fetching(progress);
  const text = await textAt(address, fetching);
  const read = await readAt(address, text, (base) =>
    textAt(new URL(files.bases?.[base] ?? base, address), fetching),
  );
  const addresses = Object.fromEntries(
    [...read.images.keys()].map((file) => [file, new URL(files.images?.[file] ?? file, address)]),
  );
  const { images, missing } = await loadImages(addresses, fetching, sizesWorn(read.definition));
  return { controller: compileDocument(read, { images }), images, missing };
}

const textAt = (address: URL, fetching: Fetching): Promise<string> =>
  fetching.of(address, async () => {
    const answer = await fetch(address);
    if (!answer.ok) throw new Error(`${answer.status} ${answer.statusText}`);
    return answer.text();
  });

const isJson = (name: string): boolean => name.toLowerCase().endsWith('.json');

/** Reads a document. Only where one in YAML is among those that it builds on is the reader of YAML fetched. */
async function readAt(
  address: URL,
  text: string,
  readText: (address: string) => Promise<string>,
): Promise<CharacterDocument> {
  const name = address.pathname.split('/').pop() ?? '';
  if (isJson(name)) {
    const bases = await gatherJsonBases(text, readText);
    if ([...bases.keys()].every(isJson)) return readJsonDocument(text, name, bases);
  }
  const { gatherBases, readDocument } = await import('dot-hop/document');
  return readDocument(text, name, await gatherBases(text, name, readText));
}
