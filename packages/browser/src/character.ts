import type { Controller, ImageSize } from 'dot-hop';
import { compileDocument, readDocument } from 'dot-hop/document';

/** A character ready to be performed and drawn. */
export interface LoadedCharacter {
  readonly controller: Controller;
  /** The images by file, as the document names them. */
  readonly images: Readonly<Record<string, CanvasImageSource & ImageSize>>;
}

/** Where a character's files are. */
export interface CharacterFiles {
  /** The address of the document, YAML or JSON. */
  readonly document: string | URL;
  /** The addresses of images by file, as the document names it; by default each is found beside the document. */
  readonly images?: Readonly<Record<string, string | URL>>;
}

/** Thrown when a character's file cannot be fetched; the message names the address and the answer. */
export class LoadError extends Error {}

/**
 * Fetches a document and its images and compiles them.
 *
 * @throws {LoadError} when a file cannot be fetched or an image cannot be read
 * @throws {DocumentError} for a faulty document, with line and column
 */
export async function loadCharacter(files: CharacterFiles): Promise<LoadedCharacter> {
  const address = new URL(files.document, document.baseURI);
  const answer = await fetch(address).catch((error: unknown) => {
    throw new LoadError(`${address.pathname}: cannot be fetched (${String(error)})`);
  });
  if (!answer.ok)
    throw new LoadError(`${address.pathname}: cannot be fetched (${answer.status} ${answer.statusText})`);
  const read = readDocument(await answer.text(), address.pathname.split('/').pop());
  const sheets = Object.values(read.definition.sheets);
  const named = new Set(sheets.flatMap(({ image, images }) => images ?? image ?? []));
  const images = Object.fromEntries(
    await Promise.all(
      [...named].map(async (file) => {
        return [file, await loadImage(new URL(files.images?.[file] ?? file, address))] as const;
      }),
    ),
  );
  return { controller: compileDocument(read, { images }), images };
}

async function loadImage(address: URL): Promise<HTMLImageElement> {
  const image = new Image();
  image.src = address.href;
  try {
    await image.decode();
  } catch {
    throw new LoadError(`${address.pathname}: the image cannot be fetched or is no picture`);
  }
  return image;
}
