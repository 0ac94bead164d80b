import { crc32 } from 'node:zlib';
import sharp from 'sharp';
import type { Sharp } from 'sharp';
import UPNG from 'upng-js';
import type { Film } from './motion.js';

/** A moving picture in a file's format, with what that format could not hold. */
export interface WrittenFilm {
  readonly bytes: Buffer;
  /** The milliseconds of each picture as the file says them. */
  readonly written: readonly number[];
}

/** Neighbours that look the same become one that lasts as long as both: formats merge them anyway, and lose time. */
function merged({ frames, durations }: Film): { pixels: Uint8Array; duration: number }[] {
  const list: { pixels: Uint8Array; duration: number }[] = [];
  frames.forEach((pixels, i) => {
    const last = list[list.length - 1];
    if (last !== undefined && Buffer.compare(last.pixels, pixels) === 0) last.duration += durations[i]!;
    else list.push({ pixels, duration: durations[i]! });
  });
  return list;
}

/** Whole numbers of a unit that add up right: what one is rounded by is carried to the next. */
function inUnits(durations: readonly number[], unit: number, least: number): number[] {
  let sum = 0;
  let written = 0;
  return durations.map((duration) => {
    sum += duration;
    const units = Math.max(least, Math.round((sum - written) / unit));
    written += units * unit;
    return units * unit;
  });
}

/** Formats a moving picture can be written in, by file ending. */
export const filmFormats: Readonly<Record<string, (film: Film) => Promise<WrittenFilm>>> = {
  /** Whole milliseconds; 11 or more, since shorter ones are shown as 100 by most programs. */
  '.webp': async (film) => {
    const list = merged(film);
    const delay = inUnits(
      list.map(({ duration }) => duration),
      1,
      11,
    );
    const bytes = await stack(film, list)
      .webp({ lossless: true, loop: film.loops ? 0 : 1, delay })
      .toBuffer();
    return { bytes, written: delay };
  },
  /** Hundredths of a second; 2 or more, since shorter ones are shown as 10 by most programs. */
  '.gif': async (film) => {
    const list = merged(film);
    const delay = inUnits(
      list.map(({ duration }) => duration),
      10,
      2,
    );
    const loop = film.loops ? 0 : 1;
    const bytes = await stack(film, list)
      .gif({ delay, loop, keepDuplicateFrames: true, dither: 0, effort: 4 })
      .toBuffer();
    return { bytes, written: delay };
  },
  /** Whole milliseconds. */
  '.apng': (film) => {
    const list = merged(film);
    const written = inUnits(
      list.map(({ duration }) => duration),
      1,
      1,
    );
    const frames = list.map(({ pixels }) => new Uint8Array(pixels).buffer);
    const bytes = Buffer.from(UPNG.encode(frames, film.width, film.height, 0, written));
    if (!film.loops) setPasses(bytes, 1);
    return Promise.resolve({ bytes, written });
  },
};

/** Says in an animated PNG how often it is played, which the encoder cannot. (PNG third edition, 5.3 and 11.3.6.1) */
function setPasses(bytes: Buffer, passes: number): void {
  const kind = bytes.indexOf('acTL');
  if (kind < 0) return;
  bytes.writeUInt32BE(passes, kind + 8);
  bytes.writeUInt32BE(crc32(bytes.subarray(kind, kind + 12)), kind + 12);
}

function stack({ width, height }: Film, list: readonly { pixels: Uint8Array }[]): Sharp {
  const pixels = Buffer.concat(list.map((one) => one.pixels));
  return sharp(pixels, { raw: { width, height: height * list.length, channels: 4, pageHeight: height } });
}
