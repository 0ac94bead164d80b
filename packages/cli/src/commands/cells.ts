import path from 'node:path';
import { compileController } from 'dot-hop';
import type { Clip, Sheet } from 'dot-hop';
import { loadCharacter } from '../character.js';
import { writeWhole } from '../files.js';
import { ImageTrouble, readImage } from '../images.js';
import type { Image } from '../images.js';
import { Misuse } from '../misuse.js';
import { clipsByCell, contactSheet } from '../picture/contact-sheet.js';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';
import { csv, printTable } from './table.js';

/** The options of `dot-hop cells`. */
export interface CellsOptions {
  readonly out?: string;
  readonly cell?: readonly [number, number];
  readonly sheet?: string;
  readonly json?: boolean;
  readonly csv?: boolean;
}

interface Subject {
  readonly sheet: Sheet;
  readonly image: Image;
  readonly clips: readonly Clip[];
}

/** Numbers the cells of a sheet or of a document's sheet: as a table, and as a picture where `-o` says. */
export async function cells(source: string, options: CellsOptions, output: Output): Promise<number> {
  const { sheet, image, clips } = await subjectOf(source, options);
  const users = clipsByCell(sheet, clips);
  if (options.out !== undefined) {
    await writeWhole(options.out, await contactSheet(sheet, image, clips));
    output.note(`${sheet.cells.length} cells numbered in ${options.out}`);
  }
  const head = ['cell', 'name', 'x', 'y', 'width', 'height', 'clips'];
  const rows = sheet.cells.map(({ index, name, x, y, width, height }) => {
    return [index, name, x, y, width, height, users[index]!.map((clip) => clip.name).join(' ')];
  });
  if (options.json === true) {
    const list = sheet.cells.map(({ index, name, x, y, width, height, pivotX, pivotY }) => {
      const clipNames = users[index]!.map((clip) => clip.name);
      return { index, name, x, y, width, height, pivot: [pivotX, pivotY], clips: clipNames };
    });
    printJson(output, { sheet: sheet.name, image: sheet.image, cells: list });
  } else if (options.csv === true) output.line(csv(head, rows));
  else if (options.out === undefined) printTable(output, head, rows);
  return exit.well;
}

async function subjectOf(source: string, options: CellsOptions): Promise<Subject> {
  if (/\.(png|webp|gif|jpe?g)$/i.test(source)) return bareSheet(source, options);
  if (options.cell !== undefined)
    throw new Misuse(`--cell is for an image; ${source} is read as a document, whose grids say their cells`);
  const { controller, images } = await loadCharacter(source);
  const names = [...controller.sheets.keys()];
  const name = options.sheet ?? names[0]!;
  const sheet = controller.sheets.get(name);
  if (sheet === undefined)
    throw new Misuse(`--sheet ${name}: the document has the sheets ${names.join(', ')}`);
  return { sheet, image: images.get(name)!, clips: [...controller.clips.values()] };
}

/** An image without a document: one grid of cells. */
async function bareSheet(file: string, { cell }: CellsOptions): Promise<Subject> {
  if (cell === undefined) throw new Misuse(`${file}: say how large its cells are, such as --cell 48x48`);
  const image = await readImage(file).catch((error: unknown) => {
    if (error instanceof ImageTrouble) throw new Misuse(`${file}: ${error.message}`);
    throw error;
  });
  if (cell[0] > image.width || cell[1] > image.height)
    throw new Misuse(
      `--cell ${cell.join('x')} does not fit into ${file}, which is ${image.width}x${image.height}`,
    );
  const name = path.basename(file).replace(/\.\w+$/, '');
  const { sheets } = compileController(
    {
      dotHop: 1,
      sheets: { [name]: { image: path.basename(file), grid: { cell } } },
      clips: { first: { cells: 0 } },
      states: { first: { shows: 'first' } },
      rest: 'first',
    },
    { images: { [name]: image } },
  );
  return { sheet: sheets.get(name)!, image, clips: [] };
}
