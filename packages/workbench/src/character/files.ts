import { gatherBases } from 'dot-hop/document';
import { isRehearsalFile } from 'dot-hop/rehearsal';
import type { Bases } from 'dot-hop/document';
import { PictureError, drawnOf } from './pictures.js';
import type { Drawn } from './pictures.js';
import type { Opened } from './store.js';

/** The controls to try a character with, beside its document. */
const isControlsFile = (name: string): boolean => /\.controls\.json$/i.test(name);

export const isDocument = (name: string): boolean =>
  /\.(ya?ml|json)$/i.test(name) && !/rehearsal/i.test(name) && !isControlsFile(name);
/** What the workbench writes beside a document, and takes away when that is undone: rehearsals, and the controls to try it with. */
export const isBeside = (name: string): boolean => isRehearsalFile(name) || isControlsFile(name);
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

/** The file that a path names, seen from the folder of another file. */
export const resolved = (from: string, path: string): string =>
  decodeURIComponent(new URL(path, new URL(from, 'file:///')).pathname.slice(1));

/** Everything of the character in one zip. What lies above the document's folder lies beside that folder there. */
export async function zipOf(file: string, text: string, files: NamedFiles): Promise<Blob> {
  const { zipSync, strToU8 } = await import('fflate');
  const up = Math.max(0, ...[...files.keys()].map((name) => /^(?:\.\.\/)*/.exec(name)![0].length / 3));
  const home = 'character/'.repeat(up);
  const parts: Record<string, Uint8Array> = { [home + file]: strToU8(text) };
  for (const [name, blob] of files)
    parts[resolved(home, encodeURI(name))] = new Uint8Array(await blob.arrayBuffer());
  return new Blob([zipSync(parts)], { type: 'application/zip' });
}

/** A character among files: its document, and the files beside it by the names that the document gives them. */
export interface Found {
  readonly file: string;
  readonly text: string;
  readonly files: ReadonlyMap<string, Blob>;
}

/**
 * The document among files, and what lies beside it; `undefined` where there is none. Of several it is the first that no other one
 * builds on.
 */
export async function characterIn(files: NamedFiles): Promise<Found | undefined> {
  const documents: { path: string; text: string; builtOn: string[] }[] = [];
  for (const path of [...files.keys()].filter(isDocument)) {
    const text = await files.get(path)!.text();
    if (!/dotHop["']?\s*:/.test(text)) continue;
    const found = await gatherBases(text, path, () => Promise.reject(new Error('not asked for')));
    documents.push({ path, text, builtOn: [...found.keys()].map((base) => resolved(path, encodeURI(base))) });
  }
  const others = new Set(documents.flatMap(({ builtOn }) => builtOn));
  const document = documents.find(({ path }) => !others.has(path)) ?? documents[0];
  if (document === undefined) return undefined;
  const { path, text, builtOn } = document;
  const folder = path.includes('/') ? path.replace(/[^/]*$/, '') : '';
  const beside = [...files].flatMap(([name, blob]): [string, Blob][] => {
    if (name === path) return [];
    if (name.startsWith(folder)) return [[name.slice(folder.length), blob]];
    return builtOn.length === 0 ? [] : [[seenFrom(folder, name), blob]];
  });
  return { file: path.slice(folder.length), text, files: new Map(beside) };
}

/** A file's name as a document in a folder writes it. */
function seenFrom(folder: string, name: string): string {
  const [steps, wanted] = [folder.split('/').slice(0, -1), name.split('/')];
  let common = 0;
  while (common < steps.length && steps[common] === wanted[common]) common++;
  return [...steps.slice(common).map(() => '..'), ...wanted.slice(common)].join('/');
}

/** The documents that a text builds on, among files. */
export const basesAmong = (file: string, text: string, files: NamedFiles): Promise<Bases> =>
  gatherBases(text, file, (address) => {
    const found = files.get(address);
    if (found === undefined) throw new Error('it is not among the files');
    return found.text();
  });

/** Decodes those of files that are pictures; what is none is told, and the others are there all the same. */
export async function decoded(
  files: NamedFiles,
  names: Iterable<string> = files.keys(),
): Promise<{ drawn: Map<string, Drawn>; refused: string[] }> {
  const refused: string[] = [];
  // In the order of the files, whichever of them is decoded first.
  const all = await Promise.all(
    [...names].filter(isPicture).map(async (name): Promise<[string, Drawn][]> => {
      const file = files.get(name);
      if (file === undefined) return [];
      try {
        return [[name, await drawnOf(file, name)]];
      } catch (error) {
        if (!(error instanceof PictureError)) throw error;
        refused.push(error.message);
        return [];
      }
    }),
  );
  const drawn = new Map(all.flat());
  return { drawn, refused };
}

/** A character with its images decoded, ready to be opened. */
export async function toOpen({ file, text, files }: Found): Promise<{ opened: Opened; refused: string[] }> {
  const { drawn, refused } = await decoded(files);
  const bases = await basesAmong(file, text, files);
  return { opened: { file, text, files, drawn, bases }, refused };
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
