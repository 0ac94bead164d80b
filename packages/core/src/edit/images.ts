import type { ControllerDefinition } from '../controller/definition.js';
import { clipNameOf, plainClip, sequenceOf } from '../gather/sequence.js';
import type { Change } from './change.js';
import { newClips, sheetOf } from './clips.js';
import { frameChanges, framesOf } from './frames.js';
import type { Frame } from './frames.js';
import type { Edit } from './history.js';

/** The result of {@link updateImages}. */
export interface ImagesUpdate {
  readonly edit: Edit;
  /** Clips whose cell numbers were changed so that they still show the same images. */
  readonly renumbered: readonly string[];
  /** Clips that got new images because of their names, each with the number of these. */
  readonly joined: readonly { readonly clip: string; readonly images: readonly string[] }[];
  /** Clips that show an image that no longer exists. */
  readonly lost: readonly { readonly clip: string; readonly images: readonly string[] }[];
  /** Clips in rows whose cells would no longer be evenly spaced. */
  readonly uneven: readonly string[];
}

/**
 * Gives a sheet other images. Added or removed images change the numbers of those behind them, so clips are changed to show the same images
 * as before. New images whose names fit a clip join it.
 *
 * @param root the folder in which all images lie, see `sequenceOf`
 */
export function updateImages(
  definition: ControllerDefinition,
  sheet: string,
  images: readonly string[],
  root = '',
): ImagesUpdate {
  const { sheets, clips } = definition;
  const before = sheets[sheet]?.images ?? [];
  const renumbered: string[] = [];
  const joined: { clip: string; images: string[] }[] = [];
  const lost: { clip: string; images: string[] }[] = [];
  const uneven: string[] = [];
  const changes: Change[] = [];
  if (before.join('\n') !== images.join('\n'))
    changes.push({ op: 'set', path: ['sheets', sheet, 'images'], value: images });
  const size = { columns: before.length, count: before.length };
  const come = images.filter((image) => !before.includes(image));
  for (const [name, clip] of Object.entries(clips)) {
    if (sheetOf(definition, clip) !== sheet) continue;
    const frames = framesOf(clip, size);
    if (frames === undefined) continue;
    const shown = rowsBelow(clip.rows, clip.every ?? before.length).flatMap((below) =>
      frames.map(({ cell }) => cell + below),
    );
    const gone = shown.filter((cell) => before[cell] !== undefined && !images.includes(before[cell]));
    if (gone.length > 0) {
      lost.push({ clip: name, images: [...new Set(gone.map((cell) => before[cell]!))] });
      continue;
    }
    const nowOf = (cell: number): number =>
      before[cell] === undefined ? cell : images.indexOf(before[cell]);
    if (clip.rows !== undefined) {
      const each = rowsBelow(clip.rows, clip.every ?? before.length);
      const wanted = each.flatMap((below) => frames.map(({ cell }) => nowOf(cell) + below));
      if (wanted.join() !== shown.map(nowOf).join()) {
        uneven.push(name);
        continue;
      }
    }
    const now = frames.map((frame): Frame => ({ ...frame, cell: nowOf(frame.cell) }));
    if (now.some(({ cell }, i) => cell !== frames[i]!.cell)) renumbered.push(name);
    const fitting = clip.rows === undefined ? come.filter((image) => clipNameOf(image, root) === name) : [];
    for (const image of fitting) join(now, images.indexOf(image));
    if (fitting.length > 0) joined.push({ clip: name, images: fitting });
    changes.push(...frameChanges(definition, name, now, size));
  }
  for (const name of Object.keys(sequenceOf(images, root).clips)) {
    if (Object.hasOwn(clips, name)) continue;
    const own = images.flatMap((image, i) => (clipNameOf(image, root) === name ? [i] : []));
    // What is shown by another clip already was gathered on purpose.
    if (before.length > 0 && own.every((cell) => !come.includes(images[cell]!))) continue;
    changes.push(...newClips(definition, sheet, { [name]: plainClip(own) }));
  }
  return { edit: { says: `images of ${sheet}`, changes }, renumbered, joined, lost, uneven };
}

/** A new frame comes before the first one with a later image, and lasts as long as the one beside it. */
function join(frames: Frame[], cell: number): void {
  const later = frames.findIndex((frame) => frame.cell > cell);
  const at = later < 0 ? frames.length : later;
  const { ms } = frames[Math.max(0, at - 1)]!;
  frames.splice(at, 0, { cell, ms, cues: [], spans: [], marks: undefined });
}

/** How many cells below the first each row of a clip lies; `[0]` for one without rows. */
function rowsBelow(rows: unknown, every: number): number[] {
  if (rows === undefined) return [0];
  const numbers = Array.isArray(rows)
    ? rows.map((_, row) => row)
    : Object.values(rows as Record<string, number>);
  return numbers.map((row) => row * every);
}
