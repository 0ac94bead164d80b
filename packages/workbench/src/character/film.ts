import { PictureError } from './pictures.js';

/** Pictures that move, as one sheet. */
export interface Film {
  readonly sheet: Blob;
  /** The size of one picture. */
  readonly width: number;
  readonly height: number;
  /** How long each shows, in milliseconds. */
  readonly times: readonly number[];
  /** How often it is played; 0 for without end. */
  readonly passes: number;
}

/** The most pixels of all pictures together. */
const mostPixels = 8192 * 8192;

/** A sheet is at most so wide. */
const widest = 4096;

/**
 * Reads a GIF, WebP or PNG that moves; `undefined` for one that does not, or where the browser cannot take films apart.
 *
 * @throws {PictureError} for one that is damaged or too large
 */
export async function filmOf(file: Blob, name: string): Promise<Film | undefined> {
  const kind = /\.gif$/i.test(name)
    ? 'image/gif'
    : /\.webp$/i.test(name)
      ? 'image/webp'
      : /\.a?png$/i.test(name)
        ? 'image/png'
        : '';
  if (kind === '' || !('ImageDecoder' in globalThis) || !(await ImageDecoder.isTypeSupported(kind)))
    return undefined;
  const decoder = new ImageDecoder({ data: await file.arrayBuffer(), type: kind });
  try {
    await decoder.tracks.ready;
    await decoder.completed;
    const track = decoder.tracks.selectedTrack;
    if (track === null || track.frameCount < 2) return undefined;
    const { frameCount, repetitionCount } = track;
    const first = (await decoder.decode({ frameIndex: 0 })).image;
    const [width, height] = [first.displayWidth, first.displayHeight];
    if (width * height * frameCount > mostPixels)
      throw new PictureError(
        `${name}: its ${frameCount} pictures of ${width} x ${height} are too large together.`,
      );
    const columns = Math.min(frameCount, Math.max(1, Math.floor(widest / width)));
    const canvas = new OffscreenCanvas(columns * width, Math.ceil(frameCount / columns) * height);
    const context = canvas.getContext('2d')!;
    const times: number[] = [];
    for (let i = 0; i < frameCount; i++) {
      const { image } = i === 0 ? { image: first } : await decoder.decode({ frameIndex: i });
      context.drawImage(image, (i % columns) * width, Math.floor(i / columns) * height);
      // A picture without a time is shown for a tenth of a second by most programs. The browser says microseconds.
      times.push(Math.round((image.duration ?? 0) / 1000) || 100);
      image.close();
    }
    // The browser counts repeats, not passes.
    const passes = Number.isFinite(repetitionCount) ? repetitionCount + 1 : 0;
    return { sheet: await canvas.convertToBlob({ type: 'image/png' }), width, height, times, passes };
  } catch (error) {
    if (error instanceof PictureError) throw error;
    // A still picture that this reader does not take is read as one.
    if (kind === 'image/png') return undefined;
    throw new PictureError(`${name} cannot be taken apart: it is damaged or cut short.`);
  } finally {
    decoder.close();
  }
}
