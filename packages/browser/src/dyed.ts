import type { ImageSize, Outfit } from 'dot-hop';
import { recolour } from 'dot-hop/pixels';

/** The images of a character by file, and by the names of those in other colours. */
export type Images = Record<string, CanvasImageSource & TexImageSource & ImageSize>;

/**
 * Makes the images in other colours that an outfit needs, and puts them among a character's under the names by which its poses
 * ask for them. What is there already is left as it is, so that many who wear the same share it.
 *
 * @returns how many were made
 */
export function dyeImages(images: Images, { dyed }: Outfit): number {
  let made = 0;
  for (const { name, file, colours } of dyed) {
    if (images[name] !== undefined) continue;
    const { width, height } = images[file]!;
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [width, height];
    // Kept where the processor works on it: to be read back from a graphics card takes many times as long as to recolour it.
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    context.drawImage(images[file]!, 0, 0);
    const drawn = context.getImageData(0, 0, width, height);
    const { pixels } = recolour({ width, height, pixels: new Uint8Array(drawn.data.buffer) }, colours);
    drawn.data.set(pixels);
    context.putImageData(drawn, 0, 0);
    images[name] = canvas;
    made++;
  }
  return made;
}
