import { createHash } from 'node:crypto';
import { readFile, readdir } from 'node:fs/promises';
import path from 'node:path';
import type { ImageSize, Problem } from 'dot-hop';
import { nearestFile } from 'dot-hop/document';
import type { CharacterDocument } from 'dot-hop/document';
import { imageSize } from 'image-size';

/** An image as a page needs to know it. */
export interface ImageFile extends ImageSize {
  /** Eight digits that change with the image. */
  readonly mark: string;
}

/**
 * Reads the sizes of the images that a document names, which lie beside it. It does not decode the pictures, so it needs no large package.
 *
 * @throws {DocumentError} with each image that is missing or is not an image
 */
export async function readImageFiles(
  file: string,
  { images, source }: CharacterDocument,
): Promise<ReadonlyMap<string, ImageFile>> {
  const found = new Map<string, ImageFile>();
  const problems: Problem[] = [];
  for (const [image, place] of images) {
    const full = path.join(path.dirname(file), image);
    const bytes = await readFile(full).catch((error: unknown) => error as NodeJS.ErrnoException);
    if (bytes instanceof Error) {
      const values = { image, detail: await troubleWith(full, bytes) };
      problems.push({ code: 'image-missing', path: place, values });
      continue;
    }
    try {
      const { width, height } = imageSize(bytes);
      if (isCutOff(bytes)) throw new Error('its end is missing');
      const mark = createHash('sha256').update(bytes).digest('hex').slice(0, 8);
      found.set(image, { width, height, mark });
    } catch (error) {
      const detail = bytes.length === 0 ? 'the file is empty' : (error as Error).message;
      problems.push({ code: 'image-broken', path: place, values: { image, detail } });
    }
  }
  if (problems.length > 0) throw source.placed(problems);
  return found;
}

/** Whether the end of a PNG or WebP is missing, of which the beginning has told the size. */
function isCutOff(bytes: Buffer): boolean {
  if (bytes.toString('latin1', 1, 4) === 'PNG') return !bytes.includes('IEND');
  return bytes.toString('latin1', 0, 4) === 'RIFF' && bytes.readUInt32LE(4) + 8 > bytes.length;
}

/** Why a file cannot be read, with the name that was probably meant. */
export async function troubleWith(file: string, { code, message }: NodeJS.ErrnoException): Promise<string> {
  if (code !== 'ENOENT') return message;
  const beside = await readdir(path.dirname(file)).catch(() => []);
  const near = nearestFile(path.basename(file), beside);
  return `there is no such file${near === undefined ? '' : `; did you mean "${near}"?`}`;
}
