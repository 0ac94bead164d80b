import sharp from 'sharp';
import { readBytes } from './files/reading.js';
import { namedFileTrouble } from './files/trouble.js';

/** A picture as rows of red, green, blue and alpha, a byte each. */
export interface Image {
  readonly width: number;
  readonly height: number;
  readonly pixels: Uint8Array;
}

/** Why an image cannot be used. */
export class ImageTrouble extends Error {
  constructor(
    readonly missing: boolean,
    detail: string,
  ) {
    super(detail);
  }
}

/** The most pixels an image may have: 8192 times 8192. A small file can claim far more, and would fill the memory. */
const mostPixels = 8192 * 8192;

/** @throws {ImageTrouble} when the file is missing, no picture, or too large */
export async function readImage(file: string): Promise<Image> {
  let bytes: Buffer;
  try {
    bytes = await readBytes(file);
  } catch (error) {
    throw new ImageTrouble(true, await namedFileTrouble(error, file));
  }
  if (bytes.length === 0) throw new ImageTrouble(false, 'the file is empty');
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: mostPixels })
      .toColourspace('srgb')
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return { width: info.width, height: info.height, pixels: data };
  } catch (error) {
    const detail = error instanceof Error ? error.message.split('\n')[0]! : String(error);
    const large = detail.includes('exceeds pixel limit');
    throw new ImageTrouble(false, large ? `it has more than ${mostPixels} pixels` : detail);
  }
}
