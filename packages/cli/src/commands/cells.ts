import path from 'node:path';
import { compileController } from 'dot-hop';
import type { Cell, Clip, Sheet } from 'dot-hop';
import type { TableColumns } from 'dot-hop/gather';
import { measureClips } from 'dot-hop/pixels';
import type { CellMeasure, MeasureFinding } from 'dot-hop/pixels';
import sharp from 'sharp';
import { loadCharacter } from '../character.js';
import { endingOf, needPng } from '../files/kinds.js';
import { writeFiles, writeWhole } from '../files/writing.js';
import type { NewFile } from '../files/writing.js';
import type { Image } from '../images.js';
import { Misuse } from '../misuse.js';
import { clipsByCell, contactSheet } from '../picture/contact-sheet.js';
import { gather, isPictures } from '../sources.js';
import type { CutOptions, Gathered } from '../sources.js';
import { bringUpToDate } from '../write-document.js';
import type { Pivot } from '../write-document.js';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';
import { csv, printTable } from './table.js';

/** The options of `dot-hop cells`. */
export interface CellsOptions {
  readonly out?: string;
  readonly cell?: readonly [number, number];
  readonly margin?: number;
  readonly gap?: number;
  readonly offset?: readonly [number, number];
  readonly islands?: boolean;
  readonly ground?: string;
  readonly join?: number;
  readonly pivot?: Pivot;
  readonly table?: string;
  readonly columns?: TableColumns;
  readonly write?: string;
  readonly sheet?: string;
  readonly marks?: boolean;
  readonly measure?: boolean;
  readonly json?: boolean;
  readonly csv?: boolean;
}

interface Subject {
  readonly sheet: Sheet;
  readonly images: ReadonlyMap<string, Image>;
  readonly clips: readonly Clip[];
}

/** Numbers the cells of a sheet or of a document's sheet: as a table, and as a picture where `-o` says. */
export async function cells(
  sources: readonly string[],
  options: CellsOptions,
  output: Output,
): Promise<number> {
  if (options.out !== undefined) needPng(options.out, 'a picture of cells');
  if (options.write !== undefined)
    endingOf('--write', options.write, ['.yaml', '.yml', '.json'], 'a document is written as .yaml or .json');
  const subject = await subjectOf(sources, options, output);
  const { sheet, images, clips } = subject;
  // What takes long on a large sheet says that it is at work.
  const say = (text: string): void => {
    if (sheet.cells.length > 1000) output.note(text);
  };
  if (options.measure === true) say(`measuring ${sheet.cells.length} cells ...`);
  const { measures, findings } =
    options.measure === true ? measureSheet(subject) : { measures: undefined, findings: [] };
  if (options.out !== undefined) {
    say(`drawing ${sheet.cells.length} cells ...`);
    await writeWhole(
      options.out,
      await contactSheet(sheet, images, clips, { marks: options.marks ?? false, findings }),
    );
    output.note(`${sheet.cells.length} cells numbered in ${options.out}`);
  }
  if (options.json === true) printJson(output, plain(subject, measures, findings));
  else if (options.csv === true) output.line(csv(...rowsOf(subject, measures)));
  else if (measures !== undefined) {
    printTable(output, ...rowsOf(subject, measures));
    printFindings(findings, output);
  } else if (options.out === undefined && options.write === undefined)
    printTable(output, ...rowsOf(subject, undefined));
  return findings.length > 0 ? exit.failed : exit.well;
}

async function subjectOf(
  sources: readonly string[],
  options: CellsOptions,
  output: Output,
): Promise<Subject> {
  const [source] = sources;
  if (sources.length > 1 || (await isPictures(source!))) {
    const base = path.dirname(options.write ?? '.');
    const gathered = await gather(sources, cutOf(options), options.write === undefined ? '.' : base);
    for (const note of gathered.notes) output.note(note);
    if (options.pivot !== undefined && options.write === undefined)
      throw new Misuse('--pivot is written into a document; add --write hero.dothop.yaml');
    if (options.write !== undefined) await write(options.write, gathered, options.pivot, output);
    return compiled(gathered);
  }
  for (const option of ['cell', 'islands', 'table', 'write'] as const)
    if (options[option] !== undefined)
      throw new Misuse(
        `--${option} is for images; ${source!} is read as a document, which says itself how it is cut`,
      );
  const { controller, images } = await loadCharacter(source!);
  const names = [...controller.sheets.keys()];
  const name = options.sheet ?? names[0]!;
  const sheet = controller.sheets.get(name);
  if (sheet === undefined)
    throw new Misuse(`--sheet ${name}: the document has the sheets ${names.join(', ')}`);
  return { sheet, images, clips: [...controller.clips.values()] };
}

function cutOf(options: CellsOptions): CutOptions {
  const { cell, margin, gap, offset, islands, ground, join, table, columns } = options;
  for (const option of ['ground', 'join'] as const)
    if (options[option] !== undefined && islands !== true)
      throw new Misuse(`--${option} is for finding drawings by their gaps; add --islands`);
  const grid = cell && {
    cell,
    ...(margin === undefined ? {} : { margin }),
    ...(gap === undefined ? {} : { gap }),
    ...(offset === undefined ? {} : { offset }),
  };
  return {
    ...(grid && { grid }),
    ...(islands === undefined ? {} : { islands }),
    ...(ground === undefined ? {} : { ground }),
    ...(join === undefined ? {} : { join }),
    ...(table === undefined ? {} : { table }),
    ...(columns === undefined ? {} : { columns }),
  };
}

async function write(
  file: string,
  gathered: Gathered,
  pivot: Pivot | undefined,
  output: Output,
): Promise<void> {
  const { made } = gathered;
  const { text, notes } = await bringUpToDate(file, gathered, pivot);
  const files: NewFile[] = [];
  if (made !== undefined) {
    const { width, height, pixels } = made.image;
    const content = await sharp(pixels, { raw: { width, height, channels: 4 } })
      .png()
      .toBuffer();
    files.push({ file: made.file, content });
    notes.push(`sheet written: ${made.file}`);
  }
  // The image takes its place together with the document that it is for, so that neither is there without the other.
  await writeFiles([...files, { file, content: text }], file);
  for (const note of notes) output.note(note);
}

/** Pictures without a document, as if they had one. */
function compiled({ name, sheet, clips, images }: Gathered): Subject {
  const definition = { dotHop: 1 as const, sheets: { [name]: sheet }, clips };
  const controller = compileController(definition, { images: Object.fromEntries(images) });
  return { sheet: controller.sheets.get(name)!, images, clips: [...controller.clips.values()] };
}

function measureSheet({ sheet, images, clips }: Subject): {
  measures: ReadonlyMap<number, CellMeasure>;
  findings: MeasureFinding[];
} {
  const own = clips.filter(({ frames }) => frames[0]!.sheet === sheet.name);
  const { measures, findings } = measureClips(own, (image) => images.get(image)!);
  return { measures: new Map([...measures].map(([cell, measure]) => [cell.index, measure])), findings };
}

type Rows = [string[], (string | number)[][]];

function rowsOf({ sheet, clips }: Subject, measures: ReadonlyMap<number, CellMeasure> | undefined): Rows {
  const users = clipsByCell(sheet, clips);
  const names = (cell: Cell): string => users[cell.index]!.map((clip) => clip.name).join(' ');
  if (measures === undefined) {
    const rows = sheet.cells.map((cell) => [
      cell.index,
      cell.name,
      cell.x,
      cell.y,
      cell.width,
      cell.height,
      names(cell),
    ]);
    return [['cell', 'name', 'x', 'y', 'width', 'height', 'clips'], rows];
  }
  const rows = sheet.cells.flatMap((cell) => {
    const measure = measures.get(cell.index);
    if (measure === undefined) return [];
    const { ink, foot, centre, touches } = measure;
    if (ink === undefined) return [[cell.index, names(cell), 'empty', '', '', '', '']];
    return [
      [cell.index, names(cell), ink.width, ink.height, foot, Math.round(centre * 10) / 10, touches.join(' ')],
    ];
  });
  return [['cell', 'clips', 'ink width', 'ink height', 'foot', 'centre', 'touches'], rows];
}

function printFindings(findings: readonly MeasureFinding[], output: Output): void {
  const { paint } = output;
  output.line();
  for (const { code, subject, text } of findings)
    output.line(`${paint.yellow(code.padEnd(14))} ${paint.bold(subject)}, ${text}`);
  if (findings.length === 0) output.line(paint.green('nothing found: every drawing stands where it should'));
  else output.line(`${findings.length} found`);
}

function plain(
  { sheet, clips }: Subject,
  measures: ReadonlyMap<number, CellMeasure> | undefined,
  findings: readonly MeasureFinding[],
): unknown {
  const users = clipsByCell(sheet, clips);
  const list = sheet.cells.map((cell) => {
    const {
      index,
      name,
      image,
      x,
      y,
      width,
      height,
      offsetX,
      offsetY,
      frameWidth,
      frameHeight,
      pivotX,
      pivotY,
    } = cell;
    const measure = measures?.get(index);
    const trim = [offsetX, offsetY, frameWidth, frameHeight];
    const { boxes, points } = cell;
    const pivot = [pivotX, pivotY];
    const clipNames = users[index]!.map((clip) => clip.name);
    const measured = measure && {
      ink: measure.ink,
      foot: measure.foot,
      centre: measure.centre,
      touches: measure.touches,
    };
    return {
      index,
      name,
      image,
      x,
      y,
      width,
      height,
      trim,
      pivot,
      boxes,
      points,
      clips: clipNames,
      measured,
    };
  });
  return { sheet: sheet.name, images: sheet.images, cells: list, ...(measures && { findings }) };
}
