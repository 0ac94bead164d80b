// Draws the fishwife: each clip a row of demo/fishwife/hedda.png, and the same frames once more in two parts.
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { Brush } from './brush.mjs';
import { drawHedda, palette, parts } from './hedda-body.mjs';
import { clips } from './hedda-poses.mjs';

const cell = { width: 48, height: 56 };
const pivot = { x: 22, y: 53 };
const columns = 8;
const rows = Object.values(clips);
const width = cell.width * columns;
const height = cell.height * rows.length;
const names = ['hedda', ...parts.map((part) => `hedda-${part}`)];
const sheets = Object.fromEntries(names.map((name) => [name, Buffer.alloc(width * height * 4)]));

function put(name, colours, column, row) {
  colours.forEach((colour, place) => {
    if (colour === undefined) return;
    const x = column * cell.width + (place % cell.width);
    const y = row * cell.height + Math.floor(place / cell.width);
    sheets[name].writeUInt32BE(Number.parseInt(colour.slice(1), 16) * 256 + 255, (y * width + x) * 4);
  });
}

rows.forEach((poses, row) =>
  poses.forEach((pose, column) => {
    const brushes = Object.fromEntries(
      parts.map((part) => [part, new Brush(cell.width, cell.height, pivot)]),
    );
    drawHedda(brushes, pose);
    const layers = parts.map((part) => {
      brushes[part].cleanUp();
      brushes[part].outline(() => palette.line);
      return brushes[part].colours;
    });
    parts.forEach((part, i) => put(`hedda-${part}`, layers[i], column, row));
    put(
      'hedda',
      layers[0].map((_, i) => layers.findLast((layer) => layer[i] !== undefined)?.[i]),
      column,
      row,
    );
  }),
);

for (const [name, pixels] of Object.entries(sheets))
  await sharp(pixels, { raw: { width, height, channels: 4 } })
    .png({ palette: true, colours: 64, dither: 0, compressionLevel: 9 })
    .toFile(fileURLToPath(new URL(`../fishwife/${name}.png`, import.meta.url)));
console.log(
  `${rows.flat().length} frames in ${rows.length} rows drawn to demo/fishwife/hedda.png, and in parts: ${parts.join(', ')}`,
);
