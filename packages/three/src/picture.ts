import { drawPose } from '@dot-hop/browser';
import type { Images } from '@dot-hop/browser';
import { stampsOf } from 'dot-hop';
import type { Pose } from 'dot-hop';
import { CanvasTexture, NearestFilter, SRGBColorSpace, Texture } from 'three';

/** What of a texture shows, and where it lies from the pivot: pixels, to the right and up. */
export interface Shown {
  readonly texture: Texture;
  readonly left: number;
  readonly bottom: number;
  readonly width: number;
  readonly height: number;
}

/** Textures of whole sheets: the pixels are on the graphics card once, however many show a part of them. */
const sheets = new WeakMap<object, Texture>();

function sheetTexture(image: Images[string]): Texture {
  let texture = sheets.get(image);
  if (texture === undefined) {
    texture = sharp(new Texture(image as HTMLImageElement));
    sheets.set(image, texture);
  }
  return texture;
}

function sharp<T extends Texture>(texture: T): T {
  texture.magFilter = texture.minFilter = NearestFilter;
  texture.generateMipmaps = false;
  texture.colorSpace = SRGBColorSpace;
  return texture;
}

/**
 * The picture of one character: a part of its sheet as long as its pose is one drawing, else all layers drawn into one picture of its
 * own.
 */
export class Picture {
  private parts = new Map<Images[string], Texture>();
  private own: { readonly canvas: HTMLCanvasElement; readonly texture: CanvasTexture } | undefined;

  constructor(private readonly images: Images) {}

  show(pose: Pose): Shown {
    const stamps = stampsOf(pose);
    return stamps.length === 1 ? this.showPart(stamps[0]!) : this.showLayers(pose, stamps);
  }

  dispose(): void {
    for (const texture of this.parts.values()) texture.dispose();
    this.own?.texture.dispose();
    this.parts = new Map();
    this.own = undefined;
  }

  private showPart({ cell, image: file, x, y, flipX, flipY }: Stamp): Shown {
    const image = this.images[file]!;
    let texture = this.parts.get(image);
    if (texture === undefined) {
      texture = sheetTexture(image).clone();
      texture.needsUpdate = true;
      this.parts.set(image, texture);
    }
    const { width, height } = image;
    texture.repeat.set(
      (flipX ? -cell.width : cell.width) / width,
      (flipY ? -cell.height : cell.height) / height,
    );
    texture.offset.set(
      (flipX ? cell.x + cell.width : cell.x) / width,
      1 - (flipY ? cell.y : cell.y + cell.height) / height,
    );
    return { texture, left: x, bottom: -(y + cell.height), width: cell.width, height: cell.height };
  }

  private showLayers(pose: Pose, stamps: readonly Stamp[]): Shown {
    const left = Math.min(...stamps.map(({ x }) => x));
    const top = Math.min(...stamps.map(({ y }) => y));
    const width = Math.max(...stamps.map(({ x, cell }) => x + cell.width)) - left;
    const height = Math.max(...stamps.map(({ y, cell }) => y + cell.height)) - top;
    const { canvas, texture } = this.roomFor(width, height);
    const context = canvas.getContext('2d')!;
    context.clearRect(0, 0, canvas.width, canvas.height);
    drawPose(context, this.images, pose, -left, -top);
    texture.needsUpdate = true;
    texture.repeat.set(width / canvas.width, height / canvas.height);
    texture.offset.set(0, 1 - height / canvas.height);
    return { texture, left, bottom: -(top + height), width, height };
  }

  /** A picture at least so large. It only grows: a texture of another size is made again. */
  private roomFor(width: number, height: number): NonNullable<Picture['own']> {
    const { own } = this;
    if (own !== undefined && own.canvas.width >= width && own.canvas.height >= height) return own;
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(width, own?.canvas.width ?? 0);
    canvas.height = Math.max(height, own?.canvas.height ?? 0);
    own?.texture.dispose();
    this.own = { canvas, texture: sharp(new CanvasTexture(canvas)) };
    return this.own;
  }
}

type Stamp = ReturnType<typeof stampsOf>[number];
