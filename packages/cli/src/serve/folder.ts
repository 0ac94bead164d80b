import { createHash } from 'node:crypto';
import { readFile, readdir, realpath, stat, unlink } from 'node:fs/promises';
import path from 'node:path';
import { gatherBases, readDocument } from 'dot-hop/document';
import type { BaseText, Bases } from 'dot-hop/document';
import { isRehearsalFile, readRehearsal } from 'dot-hop/rehearsal';
import { writeWhole } from '../files/writing.js';

/** What the page may read and write: drawings, documents, rehearsals and tables. */
const allowed = /\.(?:png|apng|webp|gif|jpe?g|ya?ml|json|csv)$/i;
const pictures = /\.(?:png|apng|webp|gif|jpe?g)$/i;

const characterFile = /\.dothop\.(?:ya?ml|json)$/i;

/** The controls to try a character with, as the workbench keeps them beside its document. */
const controls = /\.controls\.json$/i;

/** A folder with more drawings than this hands over those that its document names. */
const mostFiles = 2000;

/** A call that is refused; the number is the answer's status. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** A file as the page knows it. */
export interface ListedFile {
  readonly name: string;
  /** The same as long as the file holds the same. */
  readonly version: string;
}

const versionOf = (content: Uint8Array): string =>
  createHash('sha256').update(content).digest('base64url').slice(0, 22);

const isMissing = (error: unknown): boolean => (error as NodeJS.ErrnoException).code === 'ENOENT';

/** The one folder that the page reads and writes, and nothing outside it. */
export class ServedFolder {
  private constructor(
    /** The folder as the system knows it, without links. */
    readonly root: string,
    /** The folder of the document, in it; from here the page names files. */
    readonly home: string,
    /** The document's file, by its name in its folder; it need not be there yet. */
    readonly document: string,
  ) {}

  /** @param root the folder of the document, or one around it, where what the document builds on lies there */
  static async of(root: string, home: string, document: string): Promise<ServedFolder> {
    return new ServedFolder(await realpath(root), await realpath(home), document);
  }

  /** The characters of the whole folder: their documents, by their paths from the root. */
  async characters(): Promise<string[]> {
    return (await this.everyName())
      .map((name) => name.split(path.sep).join('/'))
      .filter((name) => characterFile.test(name))
      .sort();
  }

  /** The same folder, with another of its characters open. @throws {Refused} for what is none of them */
  async withCharacter(name: string): Promise<ServedFolder> {
    if (!(await this.characters()).includes(name))
      throw new Refused(404, `${name}: there is no such character in the folder`);
    const file = path.join(this.root, name);
    return new ServedFolder(this.root, path.dirname(file), path.basename(file));
  }

  /** All files of the folder, by their paths from the root; hidden ones and those of packages are left out. */
  private async everyName(): Promise<string[]> {
    return (await readdir(this.root, { recursive: true })).filter(
      (name) => !name.split(path.sep).some((part) => part.startsWith('.') || part === 'node_modules'),
    );
  }

  /** How the page names a file. */
  nameOf(file: string): string {
    return path.relative(this.home, file).split(path.sep).join('/');
  }

  /**
   * The path of a file that the page names.
   *
   * @throws {Refused} for a name that leads out of the folder, also by a link, and for a kind that is none of the page's
   */
  private async pathOf(name: string): Promise<string> {
    if (!allowed.test(name))
      throw new Refused(403, `${name}: the workbench reads and writes drawings, documents and tables`);
    const file = path.resolve(this.home, name);
    const isInside = (one: string): boolean => one === this.root || one.startsWith(this.root + path.sep);
    const outside = new Refused(403, `${name}: it lies outside the folder that was opened`);
    if (!isInside(file) || name.includes('\0') || path.isAbsolute(name)) throw outside;
    const steps = path.relative(this.root, file).split(/[\\/]/);
    if (steps.some((part) => part.startsWith('.') || part === 'node_modules')) throw outside;
    // The nearest folder that is there tells whether a link leads out.
    for (let known = file; ; known = path.dirname(known)) {
      const real = await realpath(known).catch(() => undefined);
      if (real === undefined) continue;
      if (!isInside(real)) throw outside;
      return file;
    }
  }

  /** The document, and the drawings and rehearsals beside it. */
  async list(): Promise<{ document: string; files: ListedFile[] }> {
    const all = (await this.everyName()).map((name) => this.nameOf(path.join(this.root, name)));
    const found = all.filter((name) => pictures.test(name));
    const text = await readFile(path.join(this.home, this.document), 'utf8').catch((error: unknown) => {
      if (isMissing(error)) return undefined;
      throw error;
    });
    const bases = text === undefined ? new Map<string, BaseText>() : await this.basesOf(text);
    const named = namedBy(text, this.document, bases);
    // Of a folder of several characters only what belongs to this one.
    const wanted =
      named === undefined
        ? found.filter((name) => !name.startsWith('../')).slice(0, mostFiles)
        : found.filter((name) => named.has(name));
    const own = all.filter((name) => controls.test(name) && isControlsOf(name, this.document));
    for (const name of all.filter(isRehearsalFile).slice(0, mostFiles))
      if (text !== undefined && (await this.isOwnRehearsal(name))) own.push(name);
    const read = [...bases].flatMap(([name, base]) => ('text' in base ? [name] : []));
    const names = [...(text === undefined ? [] : [this.document]), ...read, ...wanted, ...own];
    const files: ListedFile[] = [];
    for (const name of names) {
      const content = await this.contentOf(name).catch(() => undefined);
      if (content !== undefined) files.push({ name, version: versionOf(content) });
    }
    return { document: this.document, files };
  }

  /** The documents of the folder that the document builds on. */
  private basesOf(text: string): Promise<Bases> {
    return gatherBases(text, this.document, async (name) => (await this.contentOf(name)).toString('utf8'));
  }

  /** Whether a file is a rehearsal of the document. */
  private async isOwnRehearsal(name: string): Promise<boolean> {
    const content = await this.contentOf(name).catch(() => undefined);
    if (content === undefined) return false;
    try {
      const { definition } = readRehearsal(content.toString('utf8'), name);
      return path.posix.join(path.posix.dirname(name), definition.document) === this.document;
    } catch {
      return false;
    }
  }

  private async contentOf(name: string): Promise<Buffer> {
    const file = await this.pathOf(name);
    const found = await stat(file).catch((error: unknown) => {
      throw isMissing(error) ? new Refused(404, `${name}: there is no such file`) : error;
    });
    if (!found.isFile()) throw new Refused(403, `${name}: it is not an ordinary file`);
    return readFile(file);
  }

  async read(name: string): Promise<{ content: Buffer; version: string }> {
    const content = await this.contentOf(name);
    return { content, version: versionOf(content) };
  }

  /** What version a file has now; `undefined` for one that is not there. */
  async versionNow(name: string): Promise<string | undefined> {
    return (await this.read(name).catch(() => undefined))?.version;
  }

  /**
   * Writes a file whole or not at all.
   *
   * @param expected the version that it must have, empty for one that must not be there; `undefined` writes over whatever is there
   * @returns its version now
   * @throws {Refused} when another program has changed it, or the disk refuses
   */
  async write(name: string, content: Uint8Array, expected: string | undefined): Promise<string> {
    const file = await this.pathOf(name);
    const now = await this.versionNow(name);
    if (expected !== undefined && (now ?? '') !== expected)
      throw new Refused(412, `${name}: another program has changed it meanwhile`);
    try {
      await writeWhole(file, content, 'edited');
    } catch (error) {
      throw new Refused(507, error instanceof Error ? error.message : String(error));
    }
    return versionOf(content);
  }

  /**
   * Takes a rehearsal or controls away that the page wrote. Nothing else of the folder can be deleted from there.
   *
   * @param expected the version that it must have; `undefined` takes away whatever is there
   * @throws {Refused} for another file, or when another program has changed it
   */
  async takeAway(name: string, expected: string | undefined): Promise<void> {
    if (!isRehearsalFile(name) && !controls.test(name))
      throw new Refused(403, `${name}: only rehearsals and controls can be taken away`);
    const file = await this.pathOf(name);
    const now = await this.versionNow(name);
    if (now === undefined) return;
    if (expected !== undefined && now !== expected)
      throw new Refused(412, `${name}: another program has changed it meanwhile`);
    await unlink(file);
  }
}

/** Whether controls lie beside a document, and are named as it is. */
const isControlsOf = (name: string, document: string): boolean =>
  name.replace(controls, '') === document.replace(/(?:\.dothop)?\.\w+$/, '');

/** The drawings that a document names; `undefined` where it cannot be read, or names none. */
function namedBy(text: string | undefined, file: string, bases: Bases): ReadonlySet<string> | undefined {
  if (text === undefined) return undefined;
  try {
    const named = new Set(readDocument(text, file, bases).images.keys());
    return named.size === 0 ? undefined : named;
  } catch {
    return undefined;
  }
}
