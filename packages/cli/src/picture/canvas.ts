import { stampsOf } from 'dot-hop';
import type { Box, Pose } from 'dot-hop';
import sharp from 'sharp';
import type { Image } from '../images.js';
import { Misuse } from '../misuse.js';

interface Flip {
  readonly flipX: boolean;
  readonly flipY: boolean;
}

const noFlip: Flip = { flipX: false, flipY: false };

type Rgb = readonly [number, number, number];

function rgb(colour: string): Rgb {
  const value = Number.parseInt(colour.slice(1), 16);
  return [value >> 16, (value >> 8) & 255, value & 255];
}

/** The most pixels of a picture, or of all pictures of a film: they are held in memory at once, four bytes each. */
export const mostPixels = 2 ** 28;

/** A picture being drawn: pixels first, then outlines (text, lines) over them. */
export class Canvas {
  readonly pixels: Uint8Array;
  private readonly shapes: string[] = [];

  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    if (width * height > mostPixels)
      throw new Misuse(
        `the picture would be ${width}x${height} pixels, which is too large; choose a smaller --scale`,
      );
    this.pixels = new Uint8Array(width * height * 4);
  }

  /** Fills a rectangle; parts outside the picture are left out. */
  fill(x: number, y: number, width: number, height: number, colour: string): void {
    const [r, g, b] = rgb(colour);
    this.eachPixel(x, y, width, height, (at) => {
      this.pixels[at] = r;
      this.pixels[at + 1] = g;
      this.pixels[at + 2] = b;
      this.pixels[at + 3] = 255;
    });
  }

  /** Fills a rectangle with squares of two colours. */
  check(
    x: number,
    y: number,
    width: number,
    height: number,
    size: number,
    dark: string,
    light: string,
  ): void {
    const colours = [rgb(dark), rgb(light)];
    this.eachPixel(x, y, width, height, (at, px, py) => {
      const [r, g, b] = colours[(Math.floor((px - x) / size) + Math.floor((py - y) / size)) & 1]!;
      this.pixels[at] = r;
      this.pixels[at + 1] = g;
      this.pixels[at + 2] = b;
      this.pixels[at + 3] = 255;
    });
  }

  /**
   * Draws a rectangle of an image, its upper left corner at a place: `scale` times as large without blur, or, under 1,
   * every so many-th pixel of it. `strength` from 0 to 1 lets what is behind shine through.
   */
  stamp(
    image: Image,
    box: Box,
    x: number,
    y: number,
    scale: number,
    flip: Flip = noFlip,
    strength = 1,
  ): void {
    const [width, height] = [
      Math.max(1, Math.round(box.width * scale)),
      Math.max(1, Math.round(box.height * scale)),
    ];
    this.eachPixel(x, y, width, height, (at, px, py) => {
      const column = Math.min(box.width - 1, Math.floor((px - x) / scale));
      const row = Math.min(box.height - 1, Math.floor((py - y) / scale));
      const sx = box.x + (flip.flipX ? box.width - 1 - column : column);
      const sy = box.y + (flip.flipY ? box.height - 1 - row : row);
      const from = (sy * image.width + sx) * 4;
      const alpha = (image.pixels[from + 3]! / 255) * strength;
      if (alpha === 0) return;
      const under = this.pixels[at + 3]! / 255;
      const whole = alpha + under * (1 - alpha);
      for (let c = 0; c < 3; c++)
        this.pixels[at + c] =
          (image.pixels[from + c]! * alpha + this.pixels[at + c]! * under * (1 - alpha)) / whole;
      this.pixels[at + 3] = whole * 255;
    });
  }

  /** Draws a pose with its pivot at a place. */
  pose(
    images: ReadonlyMap<string, Image>,
    pose: Pose,
    x: number,
    y: number,
    scale: number,
    strength = 1,
  ): void {
    for (const stamp of stampsOf(pose)) {
      const [left, top] = [Math.round(x + stamp.x * scale), Math.round(y + stamp.y * scale)];
      this.stamp(images.get(stamp.image)!, stamp.cell, left, top, scale, stamp, strength);
    }
  }

  /** Adds SVG elements, drawn over all pixels in the order in which they were added. */
  draw(...elements: string[]): void {
    this.shapes.push(...elements);
  }

  /** The finished pixels. */
  async image(): Promise<Image> {
    const { width, height } = this;
    const raw = sharp(this.pixels, { raw: { width, height, channels: 4 } });
    if (this.shapes.length === 0) return { width, height, pixels: this.pixels };
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${this.shapes.join('')}</svg>`;
    const pixels = await raw
      .composite([{ input: Buffer.from(svg), top: 0, left: 0 }])
      .raw()
      .toBuffer();
    return { width, height, pixels };
  }

  /** The finished picture as PNG. */
  async png(): Promise<Buffer> {
    const { width, height, pixels } = await this.image();
    return sharp(pixels, { raw: { width, height, channels: 4 } })
      .png({ compressionLevel: 9 })
      .toBuffer();
  }

  private eachPixel(
    x: number,
    y: number,
    width: number,
    height: number,
    paint: (at: number, x: number, y: number) => void,
  ): void {
    const [left, top] = [Math.max(0, x), Math.max(0, y)];
    const [right, bottom] = [Math.min(this.width, x + width), Math.min(this.height, y + height)];
    for (let py = top; py < bottom; py++)
      for (let px = left; px < right; px++) paint((py * this.width + px) * 4, px, py);
  }
}

/** A rectangle as an SVG element. */
export function svgBox(
  x: number,
  y: number,
  width: number,
  height: number,
  colour: string,
  more = '',
): string {
  return `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="${colour}" ${more}/>`;
}

/** A straight line as an SVG element. */
export function svgLine(x1: number, y1: number, x2: number, y2: number, colour: string, more = ''): string {
  return `<line x1="${x1}" y1="${y1}" x2="${x2}" y2="${y2}" stroke="${colour}" ${more}/>`;
}
