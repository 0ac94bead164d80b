import { readdir, stat } from 'node:fs/promises';
import path from 'node:path';
import type { IslandCut, TableColumns, TableCut } from 'dot-hop/gather';
import type { ClipDefinition, GridDefinition, SheetDefinition } from 'dot-hop';
import {
  clipsOfRows,
  cutByTable,
  cutIslands,
  gridFit,
  naturalOrder,
  plainName,
  sequenceOf,
} from 'dot-hop/gather';
import type { Picture } from 'dot-hop/pixels';
import sharp from 'sharp';
import UPNG from 'upng-js';
import { readCsv } from './commands/table.js';
import { readBytes, readText } from './files/reading.js';
import { fileTrouble, namedFileTrouble } from './files/trouble.js';
import { ImageTrouble, readImage } from './images.js';
import type { Image } from './images.js';
import { Misuse } from './misuse.js';

/** What images, folders and animations amount to: a sheet, the clips in it, and its pictures. */
export interface Gathered {
  readonly name: string;
  /** Of separate images: the folder in which all lie, as the sheet names it. */
  readonly root?: string;
  readonly sheet: SheetDefinition;
  readonly clips: Readonly<Record<string, ClipDefinition>>;
  /** The pictures by the file that the sheet names. */
  readonly images: ReadonlyMap<string, Image>;
  /** The sheet's picture without the colour that was taken for transparent. */
  readonly picture?: Picture;
  /** A sheet made of an animation, to be written beside the document. */
  readonly made: { readonly file: string; readonly image: Image } | undefined;
  /** What was noticed on the way, in words. */
  readonly notes: readonly string[];
}

/** How one image is cut. */
export interface CutOptions {
  readonly grid?: GridDefinition;
  readonly islands?: boolean;
  /** With islands: the colour taken for transparent, as `#rrggbb`. */
  readonly ground?: string;
  /** With islands: boxes at most so many pixels apart are one drawing. */
  readonly join?: number;
  /** A CSV file of rectangles. */
  readonly table?: string;
  /** The table's columns. */
  readonly columns?: TableColumns;
}

const pictures = /\.(png|apng|webp|gif|jpe?g)$/i;
/** Whether a source is a picture or a folder of them rather than a document. */
export async function isPictures(source: string): Promise<boolean> {
  if (pictures.test(source)) return true;
  const found = await stat(source).catch(() => undefined);
  return found?.isDirectory() ?? false;
}

/**
 * Reads images, a folder of images, or an animation.
 *
 * @param base the folder that the sheet's files are named from
 * @throws {Misuse} when there is nothing to read or a file is no picture
 */
export async function gather(sources: readonly string[], cut: CutOptions, base: string): Promise<Gathered> {
  const files: string[] = [];
  let root: string | undefined;
  for (const source of sources) {
    const found = await stat(source).catch(async (error: unknown) => {
      throw new Misuse(`${source}: ${await namedFileTrouble(error, source)}`);
    });
    if (!found.isDirectory()) files.push(source);
    else {
      // A folder inside the folder is a clip.
      const inside = (await readdir(source, { recursive: true })).filter((file) => pictures.test(file));
      if (inside.length === 0) throw new Misuse(`${source}: the folder has no images`);
      files.push(...naturalOrder(inside).map((file) => path.join(source, file)));
      if (sources.length === 1) root = source;
    }
  }
  const cutting = cut.grid !== undefined || cut.islands === true || cut.table !== undefined;
  if (files.length === 1) {
    const film = await readAnimation(files[0]!, base);
    if (film !== undefined) return film;
    if (cutting) return cutOne(files[0]!, cut, base);
    throw new Misuse(`${files[0]!}: say how it is cut: --cell 48x48, --islands, or --table rectangles.csv`);
  }
  if (cutting)
    throw new Misuse(`--cell, --islands and --table are for one image; ${files.length} were given`);
  return sequence(files, base, root);
}

async function picture(file: string): Promise<Image> {
  return readImage(file).catch((error: unknown) => {
    throw error instanceof ImageTrouble ? new Misuse(`${file}: ${error.message}`) : error;
  });
}

const from = (base: string, file: string): string => path.relative(base, file).split(path.sep).join('/');

/** Separate images: one cell each, and a clip for those whose names differ by their number only, or for each folder. */
async function sequence(files: readonly string[], base: string, root: string | undefined): Promise<Gathered> {
  const named = new Map(files.map((file) => [from(base, file), file]));
  const folder = root ?? path.dirname(files[0]!);
  const inside = root === undefined ? undefined : from(base, root);
  const { images: names, clips } = sequenceOf([...named.keys()], inside ?? from(base, folder));
  const images = new Map<string, Image>();
  for (const name of names) images.set(name, await picture(named.get(name)!));
  const only = Object.keys(clips);
  const name = only.length === 1 ? only[0]! : plainName(path.basename(path.resolve(folder)));
  return {
    name,
    root: inside ?? from(base, folder),
    sheet: { images: names },
    clips,
    images,
    made: undefined,
    notes: [],
  };
}

async function cutOne(file: string, cut: CutOptions, base: string): Promise<Gathered> {
  const image = await picture(file);
  const name = plainName(file);
  const named = from(base, file);
  const notes: string[] = [];
  let sheet: SheetDefinition;
  let clips: Record<string, ClipDefinition>;
  let seen: Picture | undefined;
  if (cut.grid !== undefined) {
    sheet = { image: named, grid: cut.grid };
    clips = clipsOfRows(image, cut.grid);
    notes.push(...leftOver(image, cut.grid));
  } else if (cut.table !== undefined) {
    const table = await tableOf(cut.table, cut.columns ?? {});
    sheet = { image: named, cells: table.cells };
    clips = { ...table.clips };
  } else {
    const found = islandsOf(image, file, cut, notes);
    sheet = { image: named, cells: found.cells };
    clips = { ...found.clips };
    seen = found.picture;
  }
  return {
    ...(seen && { picture: seen }),
    name,
    sheet,
    clips,
    images: new Map([[named, image]]),
    made: undefined,
    notes,
  };
}

function islandsOf(image: Image, file: string, { ground, join }: CutOptions, notes: string[]): IslandCut {
  const found = cutIslands(image, { ground, near: join });
  if (found === undefined)
    throw new Misuse(
      `${file}: the image has no transparent pixel and its corners have no colour in common, so its drawings cannot be told apart; say which colour they lie on with --ground '#rrggbb', or cut it with --cell`,
    );
  if (found.cells.length === 0) throw new Misuse(`${file}: nothing is drawn on it`);
  if (found.ground !== undefined)
    notes.push(
      `${found.ground} is taken for transparent to find the drawings${ground === undefined ? ', since the corners have it' : ''}; the image stays as it is, so make that colour transparent in it before it is shown`,
    );
  if (found.grid !== undefined) notes.push(`a grid fits: --cell ${found.grid.cell.join('x')}`);
  return found;
}

/** What of an image lies beyond the last whole cell of a grid, where there is anything. */
function leftOver(image: Image, grid: GridDefinition): string[] {
  const { right, below } = gridFit(image, grid);
  if (right === 0 && below === 0) return [];
  const pixels = (count: number): string => `${count} ${count === 1 ? 'pixel' : 'pixels'}`;
  const told = [
    ...(right > 0 ? [`${pixels(right)} at the right`] : []),
    ...(below > 0 ? [`${pixels(below)} at the bottom`] : []),
  ];
  return [
    `cells of ${grid.cell.join('x')} do not come out even in ${image.width}x${image.height}: ${told.join(' and ')} ${right + below === 1 ? 'is' : 'are'} left over; look whether the size, --margin, --gap or --offset is right`,
  ];
}

/** Rectangles from a CSV table whose columns the user names; with a column of names these make the clips. */
async function tableOf(file: string, columns: TableColumns): Promise<TableCut> {
  const cut = cutByTable(readCsv(await readText(file), file), columns);
  if (!('kind' in cut)) return cut;
  if (cut.kind === 'no-pixels')
    throw new Misuse(
      `${file}:${cut.line} ${cut.column}: expected whole pixels, not ${JSON.stringify(cut.received)}`,
    );
  const { field, column, known } = cut;
  throw new Misuse(
    `${file}: there is no column "${column}" for ${field}; it has ${known.join(', ')}. Name it with --columns ${field}=NAME`,
  );
}

/** A GIF, WebP or PNG that moves becomes one sheet and a clip with the frames' own times; others are `undefined`. */
async function readAnimation(file: string, base: string): Promise<Gathered | undefined> {
  const film = /\.(gif|webp)$/i.test(file)
    ? await readPages(file)
    : /\.a?png$/i.test(file)
      ? await readApng(file)
      : undefined;
  if (film === undefined) return undefined;
  const { width, height, frames, delays } = film;
  const columns = Math.min(frames.length, Math.max(1, Math.floor(4096 / width)));
  const rows = Math.ceil(frames.length / columns);
  const pixels = new Uint8Array(width * columns * height * rows * 4);
  frames.forEach((frame, i) => {
    const [left, top] = [(i % columns) * width, Math.floor(i / columns) * height];
    for (let y = 0; y < height; y++)
      pixels.set(
        frame.subarray(y * width * 4, (y + 1) * width * 4),
        ((top + y) * width * columns + left) * 4,
      );
  });
  const image = { width: width * columns, height: height * rows, pixels };
  const name = plainName(file);
  const made = path.join(base, `${name}-sheet.png`);
  const named = from(base, made);
  const clip: ClipDefinition = {
    cells: frames.length > 1 ? `0-${frames.length - 1}` : 0,
    ms: delays,
    ...(film.passes === 1 ? { loop: 'once' } : film.passes > 1 ? { loop: film.passes } : {}),
  };
  return {
    name,
    sheet: { image: named, grid: { cell: [width, height], count: frames.length } },
    clips: { [name]: clip },
    images: new Map([[named, image]]),
    made: { file: made, image },
    notes: [],
  };
}

interface Decoded {
  readonly width: number;
  readonly height: number;
  readonly frames: readonly Uint8Array[];
  readonly delays: number[];
  /** How often it is played; 0 for without end. */
  readonly passes: number;
}

/** The most pixels of all frames of an animation together. */
const mostPixels = 8192 * 8192;

async function readPages(file: string): Promise<Decoded | undefined> {
  try {
    const bytes = await readBytes(file);
    const {
      pages = 1,
      delay = [],
      loop = 0,
    } = await sharp(bytes, {
      pages: -1,
      limitInputPixels: mostPixels,
    }).metadata();
    if (pages < 2) return undefined;
    const { data, info } = await sharp(bytes, { pages: -1, limitInputPixels: mostPixels })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const height = info.height / pages;
    const size = info.width * height * 4;
    const frames = Array.from({ length: pages }, (_, i) => data.subarray(i * size, (i + 1) * size));
    // A frame without a time is shown for a tenth of a second by most programs.
    return {
      width: info.width,
      height,
      frames,
      delays: frames.map((_, i) => ((delay[i] ?? 0) > 0 ? delay[i]! : 100)),
      passes: loop,
    };
  } catch (error) {
    throw new Misuse(
      `${file}: ${error instanceof Error ? error.message.split('\n')[0]! : fileTrouble(error)}`,
    );
  }
}

async function readApng(file: string): Promise<Decoded | undefined> {
  const bytes = await readBytes(file).catch(async (error: unknown) => {
    throw new Misuse(`${file}: ${await namedFileTrouble(error, file)}`);
  });
  const control = apngControl(bytes);
  if (control === undefined) return undefined;
  const { width, height } = await sharp(bytes, { limitInputPixels: mostPixels })
    .metadata()
    .catch((error: unknown) => {
      const detail = error instanceof Error ? error.message.split('\n')[0]! : String(error);
      throw new Misuse(`${file}: it is not a PNG that can be read (${detail})`);
    });
  if (width * height * control.frames > mostPixels)
    throw new Misuse(`${file}: its frames have more than ${mostPixels} pixels together`);
  // Decoding trusts the frames themselves, which may be more or others than were announced.
  if (control.found !== control.frames)
    throw new Misuse(
      `${file}: it announces ${control.frames} frames and holds ${control.found}; it is damaged or cut short`,
    );
  try {
    const decoded = UPNG.decode(new Uint8Array(bytes).buffer);
    const frames = UPNG.toRGBA8(decoded).map((frame) => new Uint8Array(frame));
    const delays = decoded.frames.map(({ delay }) => Math.max(1, delay));
    return { width, height, frames, delays, passes: control.passes };
  } catch (error) {
    throw new Misuse(`${file}: it is not a PNG that can be read (${String(error)})`);
  }
}

/**
 * What the header of an animated PNG says: how many frames it has, how many of them are in the file, and how often it is
 * played. `undefined` for a PNG that does not move, and for anything that is no PNG. (PNG third edition, 5.3 for chunks, 11.3.6
 * for those of animations)
 */
function apngControl(bytes: Buffer): { frames: number; found: number; passes: number } | undefined {
  let control: { frames: number; passes: number } | undefined;
  let found = 0;
  for (let at = 8; at + 12 <= bytes.length;) {
    const length = bytes.readUInt32BE(at);
    const kind = bytes.toString('latin1', at + 4, at + 8);
    // The chunk that makes a PNG move stands before its first picture.
    if (kind === 'IDAT' && control === undefined) return undefined;
    if (kind === 'acTL' && at + 16 <= bytes.length)
      control = { frames: bytes.readUInt32BE(at + 8), passes: bytes.readUInt32BE(at + 12) };
    if (kind === 'fcTL') found++;
    at += 12 + length;
  }
  return control && { ...control, found };
}
