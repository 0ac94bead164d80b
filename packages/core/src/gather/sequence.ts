import { writeCells } from '../clip/cells.js';
import type { ClipDefinition } from '../clip/definition.js';
import { naturalOrder, plainName, stemOf } from './natural.js';

/** Frames a second of a clip whose source says nothing of time. */
const usualRate = 10;

/** Makes a clip of some cells, at ten frames a second. A single drawing gets no rate. */
export const plainClip = (cells: readonly number[]): ClipDefinition => ({
  cells: writeCells(cells),
  ...(cells.length > 1 ? { fps: usualRate } : {}),
});

/** Separate images as one sheet. */
export interface Sequence {
  /** The images in the order of the cells. */
  readonly images: readonly string[];
  readonly clips: Readonly<Record<string, ClipDefinition>>;
}

/** The clip of an image: its folder inside the given one; else the part of its name that it shares with others. */
export function clipNameOf(file: string, root = ''): string {
  const inside = file.startsWith(root) ? file.slice(root.length).replace(/^\//, '') : file;
  const folder = inside.includes('/') ? inside.replace(/\/[^/]*$/, '') : '';
  return folder === '' ? stemOf(file) : folder.split('/').map(plainName).join('-');
}

/**
 * Puts images in order as people count. Images whose names differ only by their number become a clip, and so do those in a folder of their
 * own.
 *
 * @param root the folder in which all of them lie; each folder inside it becomes a clip
 */
export function sequenceOf(files: readonly string[], root = ''): Sequence {
  const groups = new Map<string, string[]>();
  for (const file of naturalOrder(files)) {
    const name = clipNameOf(file, root);
    groups.set(name, [...(groups.get(name) ?? []), file]);
  }
  const images: string[] = [];
  const clips: Record<string, ClipDefinition> = {};
  for (const [name, own] of groups) {
    clips[name] = plainClip(own.map((_, i) => images.length + i));
    images.push(...own);
  }
  return { images, clips };
}

/**
 * Makes clips of cells that have names, such as the rows of a table: `walk_01`, `walk_02` and so on are one clip.
 *
 * @param names the name of each cell
 */
export function clipsOfNames(names: readonly string[]): Record<string, ClipDefinition> {
  const groups = new Map<string, number[]>();
  for (const name of naturalOrder([...new Set(names)])) {
    const stem = stemOf(name);
    const cells = names.flatMap((other, i) => (other === name ? [i] : []));
    groups.set(stem, [...(groups.get(stem) ?? []), ...cells]);
  }
  return Object.fromEntries([...groups].map(([name, cells]) => [name, plainClip(cells)]));
}
