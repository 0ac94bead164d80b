import { stat } from 'node:fs/promises';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { PackError, compiledPack, pack, withoutWardrobe } from 'dot-hop/pack';
import type { PackedImage } from 'dot-hop/pack';
import sharp from 'sharp';
import UPNG from 'upng-js';
import { stringify } from 'yaml';
import { loadCharacter } from '../character.js';
import type { Character } from '../character.js';
import { endingOf } from '../files/kinds.js';
import { writeFiles } from '../files/writing.js';
import type { Image } from '../images.js';
import { Misuse } from '../misuse.js';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';

/** The options of `dot-hop pack`. */
export interface PackCommandOptions {
  readonly out: string;
  readonly padding?: number;
  readonly powerOfTwo?: boolean;
  readonly most?: number;
  readonly compiled?: boolean;
  readonly json?: boolean;
}

/** What packing gives. @throws {Misuse} for a character that cannot be packed as asked */
function packedAs<T>(make: () => T): T {
  try {
    return make();
  } catch (error) {
    if (error instanceof PackError)
      throw new Misuse(`${error.message}${error.isTooLarge ? ' (--most, --padding)' : ''}`);
    throw error;
  }
}

/** Writes one image and one document with only what the game needs. */
export async function packCharacter(
  file: string,
  { out, padding = 2, powerOfTwo = false, most = 4096, compiled = false, json }: PackCommandOptions,
  output: Output,
): Promise<number> {
  const told = 'the packed document is written as .json or .yaml, its image beside it as .png';
  const format = compiled
    ? endingOf('-o', out, ['.json'], 'a compiled document is written as .json, its image beside it as .png')
    : endingOf('-o', out, ['.json', '.yaml', '.yml'], told);
  const character = await loadCharacter(file);
  const { document } = character;
  const { controller, images } = compiled ? bare(character) : character;
  const atlasFile = path.join(
    path.dirname(out),
    `${path.basename(out).replace(/(\.dothop)?\.\w+$/i, '')}.png`,
  );
  const folder = path.dirname(file === '-' ? '.' : file);
  const sources = [...images.keys()].map((name) => path.resolve(folder, name));
  const packed = packedAs(() =>
    pack(controller, images, path.basename(atlasFile), { padding, powerOfTwo, most }),
  );
  const { definition, cells } = packed;
  const [{ atlas }] = packed.images as [PackedImage];
  const pngs = await Promise.all(
    packed.images.map(async ({ file: name, atlas }) => ({
      file: path.join(path.dirname(atlasFile), name),
      size: atlas.width * atlas.height,
      png: await smallPng(atlas),
    })),
  );
  const plain = JSON.parse(JSON.stringify(definition)) as object;
  const text = compiled
    ? `${JSON.stringify(compiledPack(packed))}\n`
    : format === '.json'
      ? `${JSON.stringify(plain)}\n`
      : stringify(plain, { lineWidth: 0 });
  await writeFiles([
    ...pngs.map(({ file: name, png }) => ({ file: name, content: png })),
    { file: out, content: text },
  ]);
  const before = await Promise.all(sources.map(async (name) => (await stat(name)).size));
  const result = {
    document: out,
    image: atlasFile,
    images: pngs.map((one) => one.file),
    width: atlas.width,
    height: atlas.height,
    padding,
    cells,
    compiled,
    clips: { used: Object.keys(definition.clips).length, all: Object.keys(document.definition.clips).length },
    pixels: {
      before: pixelsOf(images.values()),
      after: pngs.reduce((sum, { size }) => sum + size, 0),
    },
    bytes: {
      before: before.reduce((sum, size) => sum + size, 0),
      after: pngs.reduce((sum, { png }) => sum + png.length, 0),
    },
  };
  if (json === true) printJson(output, result);
  else {
    output.line(
      `${output.paint.bold(atlasFile)}  ${atlas.width}x${atlas.height}, ${cells.drawings} drawings of ${cells.used} cells`,
    );
    for (const { file: name } of pngs.slice(1)) output.line(output.paint.bold(name));
    const share = Math.round((result.pixels.after / result.pixels.before) * 100);
    output.line(
      `  ${result.pixels.before} pixels in ${images.size} image${images.size === 1 ? '' : 's'} before, ${result.pixels.after} now (${share}%); ${result.bytes.before} bytes before, ${result.bytes.after} now`,
    );
    const left = cells.all - cells.used;
    if (left > 0) output.line(`  ${left} of ${cells.all} cells are shown by nothing and left out`);
    output.line(`${output.paint.bold(out)}  ${result.clips.used} clips${compiled ? ', compiled' : ''}`);
    if (compiled) {
      output.line(
        `  ${text.length} bytes, ${gzipSync(text).length} gzipped; a game loads it with loadCompiled of dot-hop/play`,
      );
      if (character.controller.hasWardrobe)
        output.line('  its wardrobe is left out: a compiled document has none');
    }
  }
  return exit.well;
}

/** A character without its wardrobe, with the images that it still has. */
function bare({ controller: whole, images }: Character): Pick<Character, 'controller' | 'images'> {
  const controller = withoutWardrobe(whole, images);
  const shown = new Set([...controller.sheets.values()].flatMap((sheet) => sheet.images));
  return { controller, images: new Map([...images].filter(([name]) => shown.has(name))) };
}

function pixelsOf(images: Iterable<{ width: number; height: number }>): number {
  let sum = 0;
  for (const { width, height } of images) sum += width * height;
  return sum;
}

/** Without loss: with a palette where few colours allow one, whichever way is smaller. */
async function smallPng({ width, height, pixels }: Image): Promise<Buffer> {
  const all = await sharp(pixels, { raw: { width, height, channels: 4 } })
    .png({ compressionLevel: 9 })
    .toBuffer();
  const few = Buffer.from(UPNG.encode([new Uint8Array(pixels).buffer], width, height, 0));
  return few.length < all.length ? few : all;
}
