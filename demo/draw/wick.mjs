// Draws demo/wick.png: every frame of the lamplighter, eight to a row.
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { drawWick, palette } from './body.mjs';
import { Brush } from './brush.mjs';
import { clips } from './poses.mjs';

const cell = { width: 64, height: 56 };
const pivot = { x: 32, y: 53 };
const columns = 8;

const frames = Object.values(clips).flat();
const rows = Math.ceil(frames.length / columns);
const width = cell.width * columns;
const pixels = Buffer.alloc(width * cell.height * rows * 4);
const unlined = new Set([...palette.sweep, ...palette.dust]);

frames.forEach((pose, index) => {
  const brush = new Brush(cell.width, cell.height, pivot);
  drawWick(brush, pose);
  brush.cleanUp();
  brush.outline((colour) => (unlined.has(colour) ? undefined : palette.line));
  const left = (index % columns) * cell.width;
  const top = Math.floor(index / columns) * cell.height;
  brush.colours.forEach((colour, place) => {
    if (colour === undefined) return;
    const x = left + (place % cell.width);
    const y = top + Math.floor(place / cell.width);
    pixels.writeUInt32BE(Number.parseInt(colour.slice(1), 16) * 256 + 255, (y * width + x) * 4);
  });
});

const file = fileURLToPath(new URL('../wick.png', import.meta.url));
await sharp(pixels, { raw: { width, height: cell.height * rows, channels: 4 } })
  .png({ palette: true, colours: 64, dither: 0, compressionLevel: 9 })
  .toFile(file);
console.log(`${frames.length} frames drawn to demo/wick.png`);
let at = 0;
for (const [name, { length }] of Object.entries(clips)) {
  console.log(`  ${name.padEnd(10)} ${at}-${at + length - 1}`);
  at += length;
}
