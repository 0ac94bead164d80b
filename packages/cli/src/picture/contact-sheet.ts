import type { Clip, Sheet } from 'dot-hop';
import type { Image } from '../images.js';
import { Canvas, svgBox } from './canvas.js';
import { fitText, svgText, textWidth } from './letters.js';
import { markColour, theme } from './theme.js';

const margin = 24;
const heading = 56;
const gap = 8;
const ribbon = 22;
/** A cell is never narrower than its number needs. */
const narrowest = 44;
const preferredWidth = 1280;

/** For each cell the clips that show it. */
export function clipsByCell(sheet: Sheet, clips: Iterable<Clip>): Clip[][] {
  const users = sheet.cells.map((): Clip[] => []);
  for (const clip of clips)
    for (const cell of new Set(clip.cells)) if (cell.sheet === sheet.name) users[cell.index]!.push(clip);
  return users;
}

/** Every cell of a sheet with its number, a coloured ribbon under the cells of each clip. */
export function contactSheet(sheet: Sheet, image: Image, clips: readonly Clip[]): Promise<Buffer> {
  const [first] = sheet.cells;
  const { width, height } = first!;
  const room = (preferredWidth - margin * 2) / sheet.columns - gap;
  const scale = Math.max(1, Math.floor(room / width));
  const box = { width: Math.max(width * scale, narrowest), height: height * scale };
  const pitch = { x: box.width + gap, y: box.height + ribbon + gap };
  const title = `${sheet.name}   ${sheet.image}`;
  const facts = `${sheet.cells.length} cells of ${width}x${height}, drawn ${scale}x`;
  const content = Math.max(
    sheet.columns * pitch.x - gap,
    textWidth(title, { size: 18, bold: true }) + textWidth(facts, { size: 13 }) + 40,
  );
  const canvas = new Canvas(Math.ceil(content + margin * 2), heading + sheet.rows * pitch.y + margin - gap);
  canvas.fill(0, 0, canvas.width, canvas.height, theme.ground);
  canvas.draw(
    svgText(title, margin, 36, { size: 18, bold: true, colour: theme.text }),
    svgText(facts, canvas.width - margin, 36, { colour: theme.dim, align: 'right' }),
  );
  const users = clipsByCell(sheet, clips);
  for (const cell of sheet.cells) {
    const x = margin + (cell.index % sheet.columns) * pitch.x;
    const y = heading + Math.floor(cell.index / sheet.columns) * pitch.y;
    canvas.check(x, y, box.width, box.height, scale * 4, theme.checkDark, theme.checkLight);
    canvas.cell(image, cell, x + Math.floor((box.width - width * scale) / 2), y, scale);
    const number = String(cell.index);
    canvas.draw(
      svgBox(x, y, textWidth(number, { size: 13, bold: true }) + 10, 19, theme.ground, 'fill-opacity="0.85"'),
      svgText(number, x + 5, y + 14, { bold: true, colour: theme.lamp }),
    );
    drawRibbon(canvas, cell.index, users, sheet.columns, x, y + box.height, box.width, clips);
  }
  return canvas.png();
}

/** The bar of a cell's clip, joined to its right neighbour's when that shows the same clip; named where it begins. */
function drawRibbon(
  canvas: Canvas,
  index: number,
  users: readonly (readonly Clip[])[],
  columns: number,
  x: number,
  y: number,
  width: number,
  clips: readonly Clip[],
): void {
  const [clip, ...others] = users[index]!;
  if (clip === undefined) return;
  const sameRow = (other: number): boolean => Math.floor(other / columns) === Math.floor(index / columns);
  const joins = (other: number): boolean => other >= 0 && sameRow(other) && users[other]?.[0] === clip;
  const colour = markColour(clips.indexOf(clip));
  canvas.draw(svgBox(x, y, width + (joins(index + 1) ? gap : 0), 3, colour));
  if (joins(index - 1)) return;
  let cells = 1;
  while (joins(index + cells)) cells++;
  const name =
    others.length > 0 ? `${clip.name}, ${others.map((other) => other.name).join(', ')}` : clip.name;
  const style = { size: 12, colour };
  canvas.draw(svgText(fitText(name, cells * (width + gap) - gap, style), x, y + 16, style));
}
