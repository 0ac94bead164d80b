// A sheet of equal cells that colours are put on, and that is written as a PNG with a palette.
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import type { Colour } from './brush.js';

/** How large a cell is, in pixels. */
export interface CellSize {
  readonly width: number;
  readonly height: number;
}

export class DrawnSheet {
  private readonly width: number;
  private readonly height: number;
  private readonly pixels: Buffer;

  /** @param cell its width and height @param columns cells in a row @param rows how many rows */
  constructor(
    private readonly cell: CellSize,
    columns: number,
    rows: number,
  ) {
    this.width = cell.width * columns;
    this.height = cell.height * rows;
    this.pixels = Buffer.alloc(this.width * this.height * 4);
  }

  /** Puts the colours of a cell, `#rrggbb` or none, over what is there. */
  put(colours: readonly Colour[], column: number, row: number): void {
    const { cell, width } = this;
    colours.forEach((colour, place) => {
      if (colour === undefined) return;
      const x = column * cell.width + (place % cell.width);
      const y = row * cell.height + Math.floor(place / cell.width);
      this.pixels.writeUInt32BE(Number.parseInt(colour.slice(1), 16) * 256 + 255, (y * width + x) * 4);
    });
  }

  /** @param name the file, seen from this folder */
  async write(name: string): Promise<void> {
    const { width, height } = this;
    await sharp(this.pixels, { raw: { width, height, channels: 4 } })
      .png({ palette: true, colours: 64, dither: 0, compressionLevel: 9 })
      .toFile(fileURLToPath(new URL(name, import.meta.url)));
  }
}
