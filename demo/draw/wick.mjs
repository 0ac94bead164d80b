// Draws the lamplighter: every frame, eight to a row. demo/wick.png is the whole; wick-behind, wick-legs and wick-upper
// have the same frames cut in parts, and lie on one another as the whole does.
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { drawWick, palette, parts, waistOf } from './body.mjs';
import { Brush } from './brush.mjs';
import { clips } from './poses.mjs';

const cell = { width: 64, height: 56 };
const pivot = { x: 32, y: 53 };
const columns = 8;

const frames = Object.values(clips).flat();
const rows = Math.ceil(frames.length / columns);
const width = cell.width * columns;
const sheets = Object.fromEntries(
  ['whole', ...parts].map((name) => [name, Buffer.alloc(width * cell.height * rows * 4)]),
);
const unlined = new Set([...palette.sweep, ...palette.dust]);

/** Puts what a brush has drawn onto a sheet, over what is there. */
function put(sheet, brush, index) {
  const left = (index % columns) * cell.width;
  const top = Math.floor(index / columns) * cell.height;
  brush.colours.forEach((colour, place) => {
    if (colour === undefined) return;
    const x = left + (place % cell.width);
    const y = top + Math.floor(place / cell.width);
    sheet.writeUInt32BE(Number.parseInt(colour.slice(1), 16) * 256 + 255, (y * width + x) * 4);
  });
}

frames.forEach((pose, index) => {
  const brushes = Object.fromEntries(parts.map((part) => [part, new Brush(cell.width, cell.height, pivot)]));
  drawWick(brushes, pose);
  for (const part of parts) {
    brushes[part].cleanUp();
    brushes[part].outline((colour) => (unlined.has(colour) ? undefined : palette.line));
    put(sheets[part], brushes[part], index);
    put(sheets.whole, brushes[part], index);
  }
});

for (const [name, pixels] of Object.entries(sheets)) {
  const file = fileURLToPath(new URL(`../wick${name === 'whole' ? '' : `-${name}`}.png`, import.meta.url));
  await sharp(pixels, { raw: { width, height: cell.height * rows, channels: 4 } })
    .png({ palette: true, colours: 64, dither: 0, compressionLevel: 9 })
    .toFile(file);
}
console.log(`${frames.length} frames drawn to demo/wick.png, and in parts: ${parts.join(', ')}`);
let at = 0;
for (const [name, poses] of Object.entries(clips)) {
  const waists = poses.map((pose) => {
    const { x, y } = waistOf(pose);
    return `[${Math.round(x + pivot.x)}, ${Math.round(y + pivot.y)}]`;
  });
  console.log(`  ${name.padEnd(10)} ${at}-${at + poses.length - 1}`.padEnd(22), `waists ${waists.join(' ')}`);
  at += poses.length;
}
