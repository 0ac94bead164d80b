// Draws the fishwife: each clip a row of demo/fishwife/hedda.png, and the same frames once more in two parts.
import { Brush } from './brush.js';
import { DrawnSheet } from './drawn-sheet.js';
import { drawHedda, palette, parts } from './hedda-body.js';
import { clips } from './hedda-poses.js';

const cell = { width: 48, height: 56 };
const pivot = { x: 22, y: 53 };
const columns = 8;
const rows = Object.values(clips);
const empty = (): DrawnSheet => new DrawnSheet(cell, columns, rows.length);
const sheets = { hedda: empty(), 'hedda-legs': empty(), 'hedda-upper': empty() };

rows.forEach((poses, row) =>
  poses.forEach((pose, column) => {
    const brush = (): Brush => new Brush(cell.width, cell.height, pivot);
    const brushes = { legs: brush(), upper: brush() };
    drawHedda(brushes, pose);
    const layers = parts.map((part) => {
      brushes[part].cleanUp();
      brushes[part].outline(() => palette.line);
      return brushes[part].colours;
    });
    parts.forEach((part, i) => sheets[`hedda-${part}`].put(layers[i]!, column, row));
    sheets.hedda.put(
      layers[0]!.map((_, i) => layers.findLast((layer) => layer[i] !== undefined)?.[i]),
      column,
      row,
    );
  }),
);

for (const [name, sheet] of Object.entries(sheets)) await sheet.write(`../fishwife/${name}.png`);
console.log(
  `${rows.flat().length} frames in ${rows.length} rows drawn to demo/fishwife/hedda.png, and in parts: ${parts.join(', ')}`,
);
