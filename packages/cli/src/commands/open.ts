import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { readdir, stat } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { nearestFile, readDocument } from 'dot-hop/document';
import { readText } from '../files/reading.js';
import { fileTrouble } from '../files/trouble.js';
import { isWithin } from '../files/within.js';
import { Misuse } from '../misuse.js';
import { basesOf } from '../read-document.js';
import { ServedFolder } from '../serve/folder.js';
import { serveWorkbench } from '../serve/server.js';
import { exit } from './command.js';
import type { Output } from './command.js';

/** The options of `dot-hop open`. */
export interface OpenOptions {
  readonly port?: number;
  /** `false` for `--no-browser`. */
  readonly browser?: boolean;
}

const documentName = /\.dothop\.(?:ya?ml|json)$/i;

/** What a folder without a document gets. */
const newDocument = 'character.dothop.yaml';

/** Serves the workbench with a character's folder until it is ended. */
export async function open(place: string, options: OpenOptions, output: Output): Promise<number> {
  const { root: home, document, characters } = await placeOf(place);
  const root = await rootOf(home, document);
  const serving = await serveWorkbench(
    pageFolder(),
    await ServedFolder.of(root, home, document),
    options.port ?? 0,
  ).catch((error: unknown) => {
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'EADDRINUSE')
      throw new Misuse(
        `--port ${options.port}: another program listens there; leave it out for any that is free`,
      );
    if (code === 'EACCES') throw new Misuse(`--port ${options.port}: it is not allowed; take one over 1023`);
    throw error;
  });
  const isMade = existsSync(path.join(home, document));
  const address = characters > 1 ? `${serving.address}&shelf` : serving.address;
  const what = !isMade
    ? `a new character, ${document},`
    : characters > 1
      ? `a shelf of ${characters} characters`
      : document;
  output.line(`${what} is open at ${address}`);
  output.note(`It reads and writes ${path.resolve(root)} and nothing else. Ctrl+C ends it.`);
  if (options.browser !== false) showInBrowser(address);
  await new Promise<void>((done) => {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => done());
  });
  await serving.close();
  return exit.well;
}

/** The folder and the document that are meant; of a folder of several characters the first, and how many there are. */
async function placeOf(place: string): Promise<{ root: string; document: string; characters: number }> {
  const found = await stat(place).catch((error: unknown) => error as NodeJS.ErrnoException);
  if (found instanceof Error) {
    if (found.code === 'ENOENT' && (await isNew(place)))
      return { root: path.dirname(place), document: path.basename(place), characters: 1 };
    throw new Misuse(`${place}: ${fileTrouble(found)}`);
  }
  if (!found.isDirectory()) {
    if (!/\.(?:ya?ml|json)$/i.test(place))
      throw new Misuse(
        `${place}: a document (.yaml, .yml or .json) or a folder is opened; for drawings open their folder`,
      );
    return { root: path.dirname(place), document: path.basename(place), characters: 1 };
  }
  const documents = await documentsIn(place);
  return { root: place, document: documents[0] ?? newDocument, characters: documents.length };
}

/** The documents of a folder. */
const documentsIn = async (folder: string): Promise<string[]> =>
  (await readdir(folder)).filter((name) => documentName.test(name)).sort();

/**
 * Whether a path is that of a document that is yet to be made, in a folder that is there.
 *
 * @throws {Misuse} where another one is called nearly so: then that was meant
 */
async function isNew(place: string): Promise<boolean> {
  if (!documentName.test(place)) return false;
  const others = await documentsIn(path.dirname(place)).catch(() => undefined);
  if (others === undefined) return false;
  const near = nearestFile(path.basename(place), others);
  if (near !== undefined) throw new Misuse(`${place}: there is no such file; did you mean "${near}"?`);
  return true;
}

/**
 * The folder that is served: the folder of the document. If the document builds on documents elsewhere, it is the nearest
 * folder that contains all of them and their images, as long as that lies in the folder where the command runs.
 */
async function rootOf(home: string, document: string): Promise<string> {
  const file = path.join(home, document);
  const text = await readText(file).catch(() => undefined);
  const bases = text === undefined ? undefined : await basesOf(file, text);
  if (text === undefined || bases === undefined || bases.size === 0) return home;
  let images: string[] = [];
  try {
    images = [...readDocument(text, document, bases).images.keys()];
  } catch {
    // A faulty document is opened as well.
  }
  let root = path.resolve(home);
  for (const name of [...bases.keys(), ...images]) {
    const needed = path.resolve(home, name);
    let around = root;
    while (!(await isWithin(needed, [around])) && around !== path.dirname(around))
      around = path.dirname(around);
    if (await isWithin(around, ['.'])) root = around;
  }
  return root;
}

/** Where the built page is. */
function pageFolder(): string {
  const { resolve } = createRequire(import.meta.url);
  const page = path.join(path.dirname(resolve('@dot-hop/workbench/package.json')), 'dist');
  if (!existsSync(path.join(page, 'index.html')))
    throw new Misuse('the workbench is not built: run "npm run workbench" in this repository first');
  return page;
}

/** Opens the system's browser; where there is none the printed address is all. */
function showInBrowser(address: string): void {
  const [command, ...args] =
    process.platform === 'darwin'
      ? ['open', address]
      : process.platform === 'win32'
        ? ['cmd', '/c', 'start', '', address]
        : ['xdg-open', address];
  const child = spawn(command, args, { stdio: 'ignore', detached: true });
  child.on('error', () => undefined);
  child.unref();
}
