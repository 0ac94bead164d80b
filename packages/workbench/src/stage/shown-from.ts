import type { Drawn } from '../character/pictures.js';
import { imagesFor } from './worn.js';

/** An image as parts of the page show it. */
export interface Shown {
  readonly address: string;
  readonly width: number;
  readonly height: number;
}

/** Images in other colours, under the addresses that were made for them. */
const copies = new Map<HTMLCanvasElement, Shown>();

/** Where the page finds an image by its name, also one that is worn in other colours. */
export function shownFrom(drawn: ReadonlyMap<string, Drawn>, name: string): Shown | undefined {
  const own = drawn.get(name);
  if (own !== undefined) {
    const { width, height } = own.picture;
    return { address: own.address, width, height };
  }
  const images = imagesFor(drawn);
  const copy = images[name];
  if (!(copy instanceof HTMLCanvasElement)) return undefined;
  const known = copies.get(copy);
  if (known !== undefined) return known;
  // Where one is made, others were taken off.
  for (const [other, { address }] of copies)
    if (!Object.values(images).includes(other)) {
      URL.revokeObjectURL(address);
      copies.delete(other);
    }
  const { width, height } = copy;
  const made = { address: URL.createObjectURL(fileOf(copy)), width, height };
  copies.set(copy, made);
  return made;
}

/** The file of a canvas, at once: the page's own way takes until after the picture. */
function fileOf(canvas: HTMLCanvasElement): Blob {
  const [, data] = canvas.toDataURL('image/png').split(',') as [string, string];
  return new Blob([Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0))], { type: 'image/png' });
}
