import type { ImageSize, Outfit } from 'dot-hop';
import { recolour } from 'dot-hop/pixels';

/** The images of a character by file, and the recoloured images by their names. */
export type Images = Record<string, CanvasImageSource & TexImageSource & ImageSize>;

/** The colours of images as they were drawn: reading them takes longer than changing them, and each is dyed many times. */
const drawnColours = new WeakMap<object, ImageData>();

/** What was made here, and may be dropped again. */
const copies = new WeakSet<object>();

/**
 * Makes the recoloured images that an outfit needs, and adds them to a character's images under the names that its poses use. It keeps
 * images that exist already, so everyone in the same clothes shares them.
 *
 * @returns the number of images that were made
 */
export function dyeImages(images: Images, { dyed }: Outfit): number {
  let made = 0;
  for (const { name, file, colours } of dyed) {
    if (images[name] !== undefined) continue;
    images[name] = dyedCopy(images[file]!, colours);
    made++;
  }
  return made;
}

/**
 * Drops the recoloured images that none of these outfits needs. An image takes four bytes for each pixel of its sheet. If many people
 * change their clothes, call this now and then with every outfit that somebody wears.
 *
 * @returns the number of images that were dropped
 */
export function dropDyed(images: Images, worn: Iterable<Outfit>): number {
  const needed = new Set<string>();
  for (const { dyed } of worn) for (const { name } of dyed) needed.add(name);
  const idle = Object.keys(images).filter((name) => copies.has(images[name]!) && !needed.has(name));
  for (const name of idle) Reflect.deleteProperty(images, name);
  return idle.length;
}

function dyedCopy(image: Images[string], colours: Outfit['dyed'][number]['colours']): HTMLCanvasElement {
  const { width, height, data } = coloursOf(image);
  const { pixels } = recolour({ width, height, pixels: new Uint8Array(data.buffer) }, colours);
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  const copy = new ImageData(new Uint8ClampedArray(pixels.buffer as ArrayBuffer), width, height);
  canvas.getContext('2d', { willReadFrequently: true })!.putImageData(copy, 0, 0);
  copies.add(canvas);
  return canvas;
}

function coloursOf(image: Images[string]): ImageData {
  const known = drawnColours.get(image);
  if (known !== undefined) return known;
  const { width, height } = image;
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  // Kept where the processor works on it: to be read back from a graphics card takes many times as long as to recolour it.
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0);
  const drawn = context.getImageData(0, 0, width, height);
  drawnColours.set(image, drawn);
  return drawn;
}
