// Draws the fishwife: each clip a row of demo/fishwife/hedda.png, and the same frames once more in two parts.
import { Brush } from './brush.mjs';
import { DrawnSheet } from './drawn-sheet.mjs';
import { drawHedda, palette, parts } from './hedda-body.mjs';
import { clips } from './hedda-poses.mjs';

const cell = { width: 48, height: 56 };
const pivot = { x: 22, y: 53 };
const columns = 8;
const rows = Object.values(clips);
const names = ['hedda', ...parts.map((part) => `hedda-${part}`)];
const sheets = Object.fromEntries(names.map((name) => [name, new DrawnSheet(cell, columns, rows.length)]));

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
    parts.forEach((part, i) => sheets[`hedda-${part}`].put(layers[i], column, row));
    sheets.hedda.put(
      layers[0].map((_, i) => layers.findLast((layer) => layer[i] !== undefined)?.[i]),
      column,
      row,
    );
  }),
);

for (const [name, sheet] of Object.entries(sheets)) await sheet.write(`../fishwife/${name}.png`);
console.log(
  `${rows.flat().length} frames in ${rows.length} rows drawn to demo/fishwife/hedda.png, and in parts: ${parts.join(', ')}`,
);
