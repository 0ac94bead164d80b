import type { Picture } from 'dot-hop/pixels';

/** An image file of a character, decoded. */
export interface Drawn {
  /** What is drawn on canvases. */
  readonly bitmap: ImageBitmap;
  /** Under which the page shows it, as long as the character is open. */
  readonly address: string;
  /** Its pixels, for finding drawings and measuring. */
  readonly picture: Picture;
}

/** The most pixels an image may have: more than this no graphics card takes as one texture. */
const mostPixels = 8192 * 8192;

/** Thrown for a file that cannot be taken as an image; the message names it, and what to do. */
export class PictureError extends Error {}

/**
 * Decodes an image file.
 *
 * @param name its name, for errors
 * @throws {PictureError} when it is no picture, or too large
 */
export async function drawnOf(file: Blob, name: string): Promise<Drawn> {
  const unreadable = (): never => {
    throw new PictureError(
      `${name} is not a picture that can be read. Save it again as PNG and drop it again.`,
    );
  };
  const bitmap = await createImageBitmap(file).catch(unreadable);
  const { width, height } = bitmap;
  if (width * height > mostPixels)
    throw new PictureError(
      `${name} is ${width} x ${height} pixels large; an image may have ${mostPixels}. Cut it in two sheets.`,
    );
  // Measured are the pixels as they are in the file: a browser would else multiply colours with their alpha and lose some. To
  // draw such an image costs more each time, so that is another one.
  const exact = await createImageBitmap(file, { premultiplyAlpha: 'none' }).catch(unreadable);
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(exact, 0, 0);
  exact.close();
  const { data } = context.getImageData(0, 0, width, height);
  return {
    bitmap,
    address: URL.createObjectURL(file),
    picture: { width, height, pixels: new Uint8Array(data.buffer) },
  };
}

/** Lets go of the files behind images that nothing shows any more. */
export function letGo(drawn: Iterable<Drawn>): void {
  for (const { address } of drawn) URL.revokeObjectURL(address);
}
