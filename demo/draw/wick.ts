// Draws the lamplighter: every frame, eight to a row. demo/wick.png is the whole; wick-behind, wick-legs and wick-upper
// have the same frames cut in parts, and lie on one another as the whole does. So do the pieces of his gear: what differs
// when he wears one.
import { drawWick, gear, palette, parts, waistOf } from './body.js';
import type { Change, Gear } from './body.js';
import { Brush } from './brush.js';
import type { Colour } from './brush.js';
import { DrawnSheet } from './drawn-sheet.js';
import { clips } from './poses.js';

const cell = { width: 64, height: 56 };
const pivot = { x: 32, y: 53 };
const columns = 8;

const frames = Object.values(clips).flat();
const rows = Math.ceil(frames.length / columns);
const unlined = new Set([...palette.sweep, ...palette.dust]);
const sheets: Record<string, DrawnSheet> = {};

/** The colours of a cell. */
type Layer = readonly Colour[];

/** Puts the colours of a frame onto a sheet, over what is there. */
function put(name: string, colours: Layer, index: number): void {
  sheets[name] ??= new DrawnSheet(cell, columns, rows);
  sheets[name].put(colours, index % columns, Math.floor(index / columns));
}

/** The colours of a pose, part by part. */
function draw(pose: Change, worn?: Gear): Layer[] {
  const brush = (): Brush => new Brush(cell.width, cell.height, pivot);
  const brushes = { behind: brush(), legs: brush(), upper: brush() };
  drawWick(brushes, pose, worn);
  return parts.map((part) => {
    brushes[part].cleanUp();
    brushes[part].outline((colour) => (unlined.has(colour) ? undefined : palette.line));
    return brushes[part].colours;
  });
}

/** Layers one upon the other, the last on top. */
const upon = (...layers: Layer[]): Layer =>
  layers[0]!.map((_, i) => layers.findLast((layer) => layer[i] !== undefined)?.[i]);
/** What must lie on something for it to look otherwise. */
const over = (bare: Layer, wanted: Layer): Layer =>
  wanted.map((colour, i) => (colour === bare[i] ? undefined : colour));

frames.forEach((pose, index) => {
  const bare = draw(pose);
  const whole = upon(...bare);
  put('wick', whole, index);
  parts.forEach((part, i) => put(`wick-${part}`, bare[i]!, index));
  for (const [piece, on] of Object.entries(gear) as [Gear, (typeof gear)[Gear]][]) {
    const dressed = draw(pose, piece);
    const pieces = parts.map((_, i) => over(bare[i]!, dressed[i]!));
    put(piece, over(whole, upon(...bare.map((layer, i) => upon(layer, pieces[i]!)))), index);
    // What lies on the foremost part alone is the same in parts.
    if (on.length > 1) for (const part of on) put(`${piece}-${part}`, pieces[parts.indexOf(part)]!, index);
  }
});

for (const [name, sheet] of Object.entries(sheets))
  await sheet.write(`../${name.startsWith('wick') ? name : `gear/${name}`}.png`);
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
