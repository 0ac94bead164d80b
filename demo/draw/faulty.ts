// Draws demo/faulty.png: Wick's walk and stand with every fault that measuring finds, each put there on purpose.
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';

const cell = { width: 64, height: 56 };
const columns = 8;
const source = await sharp(fileURLToPath(new URL('../wick.png', import.meta.url)))
  .ensureAlpha()
  .raw()
  .toBuffer({ resolveWithObject: true });
const pixels = Buffer.alloc(cell.width * columns * cell.height * 3 * 4);

/** Copies a cell of Wick's sheet to a cell of this one, moved by so many pixels and stretched so many times. */
function copy(
  from: number,
  to: number,
  { x = 0, y = 0, stretch = 1 }: { x?: number; y?: number; stretch?: number } = {},
): void {
  for (let row = 0; row < cell.height; row++)
    for (let column = 0; column < cell.width; column++) {
      const middle = cell.width / 2;
      const sx = Math.floor((column - x - middle) / stretch + middle);
      const sy = row - y;
      if (sx < 0 || sy < 0 || sx >= cell.width || sy >= cell.height) continue;
      const at =
        ((Math.floor(from / 8) * cell.height + sy) * source.info.width + (from % 8) * cell.width + sx) * 4;
      const target =
        ((Math.floor(to / columns) * cell.height + row) * cell.width * columns +
          (to % columns) * cell.width +
          column) *
        4;
      source.data.copy(pixels, target, at, at + 4);
    }
}

// Walk: frame 2 hangs two pixels too low, frame 4 jumps to the right, frame 6 is the same drawing as frame 5.
for (const [frame, change] of [{}, {}, { y: 2 }, {}, { x: 9 }, {}, {}, {}].entries())
  copy(8 + (frame === 6 ? 5 : frame), frame, change);
// Stand: frame 1 is empty, frame 3 is blown up, frame 5 runs over the edge of its cell.
for (const [frame, change] of [{}, undefined, {}, { stretch: 1.7 }, {}, { x: 18 }, {}, {}].entries())
  if (change) copy(frame, 8 + frame, change);
// Doze, the whole clip three pixels too high.
for (let frame = 0; frame < 6; frame++) copy(54 + frame, 16 + frame, { y: -3 });

await sharp(pixels, { raw: { width: cell.width * columns, height: cell.height * 3, channels: 4 } })
  .png({ palette: true, colours: 64, dither: 0, compressionLevel: 9 })
  .toFile(fileURLToPath(new URL('../faulty.png', import.meta.url)));
console.log('demo/faulty.png drawn');
