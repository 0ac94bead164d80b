import { PictureError, drawnOf } from './pictures.js';
import type { Drawn } from './pictures.js';
import type { Opened } from './store.js';

const isDocument = (name: string): boolean => /\.(ya?ml|json)$/i.test(name) && !/rehearsal/i.test(name);
export const isPicture = (name: string): boolean => /\.(png|apng|webp|gif|jpe?g)$/i.test(name);

/** Files by their names, in folders parted by `/`. */
export type NamedFiles = ReadonlyMap<string, Blob>;

/** Reads what was dropped on the page, folders with all that is in them. */
export async function droppedFiles(items: DataTransferItemList): Promise<Map<string, File>> {
  const found = new Map<string, File>();
  const read = async (entry: FileSystemEntry): Promise<void> => {
    if (entry.isFile) {
      const file = await new Promise<File>((done, fail) => (entry as FileSystemFileEntry).file(done, fail));
      found.set(entry.fullPath.replace(/^\//, ''), file);
      return;
    }
    const reader = (entry as FileSystemDirectoryEntry).createReader();
    for (;;) {
      const some = await new Promise<FileSystemEntry[]>((done, fail) => reader.readEntries(done, fail));
      if (some.length === 0) return;
      for (const one of some) await read(one);
    }
  };
  // All entries are asked for at once: after the first wait the list is empty.
  const entries = [...items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  for (const entry of entries) await read(entry);
  return found;
}

/** Files that were chosen, by their path inside the folder that was chosen. */
export const chosenFiles = (files: Iterable<File>): Map<string, File> =>
  new Map([...files].map((file) => [file.webkitRelativePath || file.name, file]));

/** The files of a zip; others as they are. */
export async function unpacked(files: NamedFiles): Promise<Map<string, Blob>> {
  const found = new Map<string, Blob>();
  for (const [name, file] of files) {
    if (!/\.zip$/i.test(name)) {
      found.set(name, file);
      continue;
    }
    const { unzipSync } = await import('fflate');
    for (const [inside, bytes] of Object.entries(unzipSync(new Uint8Array(await file.arrayBuffer()))))
      if (!inside.endsWith('/')) found.set(inside, new Blob([bytes]));
  }
  return found;
}

/** Everything of the character in one zip. */
export async function zipOf(file: string, text: string, files: NamedFiles): Promise<Blob> {
  const { zipSync, strToU8 } = await import('fflate');
  const parts: Record<string, Uint8Array> = { [file]: strToU8(text) };
  for (const [name, blob] of files) parts[name] = new Uint8Array(await blob.arrayBuffer());
  return new Blob([zipSync(parts)], { type: 'application/zip' });
}

/** A character among files: its document, and the files beside it by the names that the document gives them. */
export interface Found {
  readonly file: string;
  readonly text: string;
  readonly files: ReadonlyMap<string, Blob>;
}

/** The document among files, and what lies beside it; `undefined` where there is none. */
export async function characterIn(files: NamedFiles): Promise<Found | undefined> {
  const documents = [...files.keys()].filter(isDocument);
  for (const path of documents) {
    const text = await files.get(path)!.text();
    if (!/dotHop["']?\s*:/.test(text)) continue;
    const folder = path.includes('/') ? path.replace(/[^/]*$/, '') : '';
    const beside = [...files].flatMap(([name, blob]): [string, Blob][] =>
      name !== path && name.startsWith(folder) ? [[name.slice(folder.length), blob]] : [],
    );
    return { file: path.slice(folder.length), text, files: new Map(beside) };
  }
  return undefined;
}

/** Decodes those of files that are pictures; what is none is told, and the others are there all the same. */
export async function decoded(
  files: NamedFiles,
  names: Iterable<string> = files.keys(),
): Promise<{ drawn: Map<string, Drawn>; refused: string[] }> {
  const drawn = new Map<string, Drawn>();
  const refused: string[] = [];
  await Promise.all(
    [...names].filter(isPicture).map(async (name) => {
      const file = files.get(name);
      if (file === undefined) return;
      try {
        drawn.set(name, await drawnOf(file, name));
      } catch (error) {
        if (!(error instanceof PictureError)) throw error;
        refused.push(error.message);
      }
    }),
  );
  return { drawn, refused };
}

/** A character with its images decoded, ready to be opened. */
export async function toOpen({ file, text, files }: Found): Promise<{ opened: Opened; refused: string[] }> {
  const { drawn, refused } = await decoded(files);
  return { opened: { file, text, files, drawn }, refused };
}

/** Hands a file to the person who asked for it. */
export function download(name: string, content: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  // The browser reads it after the click; it is not needed any longer a little later.
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
