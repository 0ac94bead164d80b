import { poseOf } from 'dot-hop';
import type { Cell, Clip, Sheet } from 'dot-hop';
import type { MeasureFinding } from 'dot-hop/pixels';
import type { Image } from '../images.js';
import { Canvas, svgBox } from './canvas.js';
import { fitText, svgText, textWidth } from './letters.js';
import { drawMarks } from './marks.js';
import { markColour, theme } from './theme.js';

const margin = 24;
const heading = 56;
const ribbon = 22;
/** The line above a cell with its number. */
const numberLine = 18;
const preferredWidth = 1280;
/** No picture is wider, so that a sheet of thousands of cells still opens everywhere. */
const widest = 4096;

/** What a contact sheet shows besides the drawings and their numbers. */
export interface ContactSheetOptions {
  /** Draws pivots, boxes and points. */
  readonly marks: boolean;
  /** Marks the cells that these are about. */
  readonly findings: readonly MeasureFinding[];
}

/** Where the cells stand on the picture. */
interface Layout {
  readonly columns: number;
  /** Pixels of the picture for each of a cell; under 1 for large cells in large numbers. */
  readonly scale: number;
  readonly box: { readonly width: number; readonly height: number };
  readonly gap: number;
  readonly ribbon: number;
}

/** For each cell the clips that show it. */
export function clipsByCell(sheet: Sheet, clips: Iterable<Clip>): Clip[][] {
  const users = sheet.cells.map((): Clip[] => []);
  for (const clip of clips)
    for (const index of new Set(
      clip.cells.filter((cell) => cell.sheet === sheet.name).map((cell) => cell.index),
    ))
      users[index]!.push(clip);
  return users;
}

function layOut(cells: readonly Cell[], sheet: Sheet): Layout {
  const width = Math.max(...cells.map((cell) => cell.frameWidth));
  const height = Math.max(...cells.map((cell) => cell.frameHeight));
  const fitting = Math.max(1, Math.floor((preferredWidth - margin * 2) / (Math.max(width, 72) + 8)));
  const columns = sheet.columns < cells.length ? sheet.columns : Math.min(cells.length, fitting, 16);
  const gap = columns > 24 ? 4 : 8;
  // Never narrower than the number of the last cell; where the drawings need more than there is room, they shrink.
  const least = Math.ceil(textWidth(String(cells.length - 1), { size: 13, bold: true }) + 6);
  const target = Math.min(widest, Math.max(preferredWidth, columns * (least + gap) + margin * 2));
  const room = Math.max(1, Math.floor((target - margin * 2) / columns) - gap);
  const scale = width <= room ? Math.min(12, Math.floor(room / width)) : room / width;
  const box = {
    width: Math.max(Math.ceil(width * scale), least),
    height: Math.max(20, Math.ceil(height * scale)),
  };
  return { columns, scale, box, gap, ribbon };
}

/** Every cell of a sheet with its number, a coloured ribbon under the cells of each clip. */
export async function contactSheet(
  sheet: Sheet,
  images: ReadonlyMap<string, Image>,
  clips: readonly Clip[],
  options: ContactSheetOptions,
): Promise<Buffer> {
  const { cells } = sheet;
  const layout = layOut(cells, sheet);
  const { columns, scale, box, gap } = layout;
  const pitch = { x: box.width + gap, y: numberLine + box.height + layout.ribbon + gap };
  const title = `${sheet.name}   ${sheet.images.length === 1 ? sheet.images[0]! : `${sheet.images.length} images`}`;
  const sizes = [...new Set(cells.map((cell) => `${cell.frameWidth}x${cell.frameHeight}`))];
  const size = sizes.length === 1 ? sizes[0]! : `${sizes.length} sizes`;
  const facts = `${cells.length} cells of ${size}, drawn ${Math.round(scale * 100) / 100}x`;
  const words = textWidth(title, { size: 18, bold: true }) + textWidth(facts, { size: 13 }) + 40;
  const content = Math.max(columns * pitch.x - gap, words);
  const rows = Math.ceil(cells.length / columns);
  const canvas = new Canvas(Math.ceil(content + margin * 2), heading + rows * pitch.y + margin - gap);
  canvas.fill(0, 0, canvas.width, canvas.height, theme.ground);
  canvas.draw(
    svgText(title, margin, 36, { size: 18, bold: true, colour: theme.text }),
    svgText(facts, canvas.width - margin, 36, { colour: theme.dim, align: 'right' }),
  );
  const users = clipsByCell(sheet, clips);
  const faulty = faultyCells(sheet, clips, options.findings);
  for (const cell of cells) {
    const x = margin + (cell.index % columns) * pitch.x;
    const y = heading + numberLine + Math.floor(cell.index / columns) * pitch.y;
    canvas.check(
      x,
      y,
      box.width,
      box.height,
      Math.max(2, Math.round(scale * 4)),
      theme.checkDark,
      theme.checkLight,
    );
    const pivotX = x + Math.floor((box.width - cell.frameWidth * scale) / 2) + cell.pivotX * scale;
    const pivotY = y + cell.pivotY * scale;
    const pose = poseOf(cell, false);
    canvas.pose(images, pose, pivotX, pivotY, scale);
    if (options.marks) drawMarks(canvas, pose, pivotX, pivotY, scale);
    if (faulty.has(cell.index))
      canvas.draw(
        svgBox(x + 1, y + 1, box.width - 2, box.height - 2, 'none', `stroke="${theme.bad}" stroke-width="2"`),
      );
    const colour = faulty.has(cell.index) ? theme.bad : theme.lamp;
    canvas.draw(svgText(String(cell.index), x + 1, y - 5, { bold: true, colour }));
    const pixels = faulty.get(cell.index) ?? 0;
    if (pixels > 0)
      canvas.draw(
        svgText(`${Math.round(pixels)} px`, x + 6, y + box.height - 7, { bold: true, colour: theme.bad }),
      );
    drawRibbon(canvas, cell.index, users, layout, x, y + box.height, clips);
  }
  return canvas.png();
}

/** The cells that findings are about, with the pixels of the largest. */
function faultyCells(
  sheet: Sheet,
  clips: readonly Clip[],
  findings: readonly MeasureFinding[],
): Map<number, number> {
  const own = new Set(clips.filter(({ frames }) => frames[0]!.sheet === sheet.name).map(({ name }) => name));
  const faulty = new Map<number, number>();
  for (const { subject, cells, pixels } of findings)
    if (subject === sheet.name || own.has(subject))
      for (const cell of cells) faulty.set(cell, Math.max(faulty.get(cell) ?? 0, pixels));
  return faulty;
}

/** The bar of a cell's clip, joined to its right neighbour's when that shows the same clip; named where it begins. */
function drawRibbon(
  canvas: Canvas,
  index: number,
  users: readonly (readonly Clip[])[],
  { columns, box, gap }: Layout,
  x: number,
  y: number,
  clips: readonly Clip[],
): void {
  const [clip, ...others] = users[index]!;
  if (clip === undefined) return;
  const sameRow = (other: number): boolean => Math.floor(other / columns) === Math.floor(index / columns);
  const joins = (other: number): boolean => other >= 0 && sameRow(other) && users[other]?.[0] === clip;
  const colour = markColour(clips.indexOf(clip));
  canvas.draw(svgBox(x, y, box.width + (joins(index + 1) ? gap : 0), 3, colour));
  if (joins(index - 1)) return;
  let cells = 1;
  while (joins(index + cells)) cells++;
  const name =
    others.length > 0 ? `${clip.name}, ${others.map((other) => other.name).join(', ')}` : clip.name;
  const style = { size: 12, colour };
  canvas.draw(svgText(fitText(name, cells * (box.width + gap) - gap, style), x, y + 16, style));
}
