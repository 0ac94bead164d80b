import path from 'node:path';
import type { Output } from '../commands/command.js';
import { dyedImages } from '../dyed.js';
import { endingOf } from '../files/kinds.js';
import { writeWhole } from '../files/writing.js';
import { filmFormats } from '../picture/film-files.js';
import type { Run } from './runs.js';

/** @throws {Misuse} for a file that a rehearsal cannot be drawn in */
export const checkDrawn = (out: string): string =>
  endingOf(
    '-o',
    out,
    ['.png', ...Object.keys(filmFormats)],
    'a rehearsal is drawn as .png (along its time) or .webp, .gif or .apng (moving)',
  );

/** Draws what happened, along its time or moving, by the ending of the file. */
export async function draw(
  { file, definition, character, outfit, result }: Run,
  out: string,
  output: Output,
): Promise<void> {
  const { controller } = character;
  const images = dyedImages(character.images, outfit === undefined ? [] : [outfit]);
  const name = path.basename(file);
  const format = filmFormats[path.extname(out).toLowerCase()];
  if (format === undefined) {
    const { tracePicture } = await import('../picture/trace-picture.js');
    await writeWhole(out, await tracePicture(name, result, controller, images));
    output.note(`picture of what happened in ${out}`);
    return;
  }
  const { pictureEvery, rehearsalFilm } = await import('../picture/rehearsal-film.js');
  const film = await rehearsalFilm({ name, definition, result, controller, images });
  output.note(
    `${film.frames.length} ${film.frames.length === 1 ? 'picture' : 'pictures'}, one each ${pictureEvery(result.lasts)} ms; writing them ...`,
  );
  await writeWhole(out, (await format(film)).bytes);
  output.note(`moving picture of what happened in ${out}`);
}
