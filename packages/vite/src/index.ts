import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { DotHopError } from 'dot-hop';
import type { Controller } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import { compiledOf } from 'dot-hop/compiled';
import { DocumentError, compileDocument, gatherBases, isForOthers, readDocument } from 'dot-hop/document';
import type { CharacterDocument } from 'dot-hop/document';
import { namesFile, namesFileOf } from 'dot-hop/pack';
import type { Plugin } from 'vite';
import writeFileAtomic from 'write-file-atomic';
import { readImageFiles, troubleWith } from './image-files.js';
import type { ImageFile } from './image-files.js';
import { readText } from './read-text.js';

/** Options of the plugin. */
export interface DotHopPluginOptions {
  /**
   * Writes the names of each document beside it (`wick.dothop.d.yaml.ts`), so that TypeScript knows them. This needs
   * `allowArbitraryExtensions` in the `tsconfig.json`. Default false.
   */
  readonly names?: boolean;
  /**
   * Gives pages compiled documents, so that they carry no compiler: see `openCompiled` of `@dot-hop/browser`. The wardrobe is left out.
   * Default false.
   */
  readonly compiled?: boolean;
}

const isDocument = /\.dothop\.(ya?ml|json)$/;
/** A file of any name is a document too where it is imported so: `./game.json?dothop`. */
const asked = /\?dothop$/;
/** A bundler takes whatever ends in `.json` for JSON, so that documents go by another name inside. */
const ownEnd = '.dot-hop.js';

/** The file of a document by the name that its module goes by; `undefined` for another module. */
function fileOf(id: string): string | undefined {
  if (id.endsWith(ownEnd)) return id.slice(0, -ownEnd.length);
  return isDocument.test(id) && !id.endsWith('.json') ? id : undefined;
}

/**
 * A plugin for Vite. With it you import a document as a module: `import wick from './wick.dothop.yaml'`. The document is read, compiled and
 * checked while the page is built, and a faulty document stops the build with its place in the file. While the page runs in development, an
 * edit is handed to it (see `followEdits` of `@dot-hop/browser`); a faulty edit is shown on the page, and the old version plays on. What
 * `dot-hop check` finds is written as warnings.
 */
export function dotHop({ names = false, compiled = false }: DotHopPluginOptions = {}): Plugin {
  let isAllowed: (file: string) => boolean = () => true;
  return {
    name: 'dot-hop',
    enforce: 'pre',
    async configResolved(config) {
      if (config.command !== 'serve') return;
      const { isFileLoadingAllowed } = await import('vite');
      isAllowed = (file) => isFileLoadingAllowed(config, file);
    },
    async resolveId(source, importer) {
      const file = source.endsWith(ownEnd) ? source.slice(0, -ownEnd.length) : source.replace(asked, '');
      if (file === source && !(file.endsWith('.json') && isDocument.test(file))) return undefined;
      const resolved = await this.resolve(file, importer, { skipSelf: true });
      return resolved && resolved.id + ownEnd;
    },
    hotUpdate({ file }) {
      const modules = this.environment.moduleGraph.getModulesByFile(file + ownEnd);
      return modules && [...modules];
    },
    async load(id) {
      const file = fileOf(id);
      if (file === undefined) return undefined;
      // A server gives away only what its settings name, and a document is no exception.
      const outside = (one: string): string =>
        `${one} lies outside of what this server may give away; add its folder to server.fs.allow`;
      if (!isAllowed(file)) return this.error({ id: file, message: outside(file) });
      const readBase = async (address: string): Promise<string> => {
        const base = path.join(path.dirname(file), address);
        if (!isAllowed(base)) throw new Error(outside(base));
        this.addWatchFile(base);
        return readText(base).catch(async (error: unknown) => {
          throw new Error(await troubleWith(base, error as Error), { cause: error });
        });
      };
      const character = await loadCharacter(file, readBase).catch((error: unknown) => {
        if (!(error instanceof DotHopError)) throw error;
        const [first] = error instanceof DocumentError ? error.problems : [];
        const at =
          first === undefined
            ? {}
            : { loc: { file: first.file, line: first.line, column: first.column - 1 } };
        return this.error({ message: error.message, id: file, ...at });
      });
      for (const watched of [path.basename(file), ...character.images.keys()])
        this.addWatchFile(path.join(path.dirname(file), watched));
      const { source } = character.document;
      for (const finding of checkController(character.controller).findings) {
        const { code, path: at, message, accepted } = finding;
        const place = source.place(at, 0, 'key');
        // Drawings are not measured here, so what is accepted of them is not found.
        if (accepted === undefined && code !== 'accept-unused' && !isForOthers(finding, place, source))
          this.warn(`${path.basename(place.file)}: ${at.join('.')}: ${message} (${code})`);
      }
      if (compiled && character.controller.hasWardrobe)
        this.warn(`${path.basename(file)}: its wardrobe is left out, because a compiled document has none`);
      if (names) await writeNames(file, character, compiled);
      return { code: moduleOf(character, compiled), moduleType: 'js' };
    },
  };
}

/** A document with the sizes of its images, compiled. */
interface Character {
  readonly document: CharacterDocument;
  readonly controller: Controller;
  readonly images: ReadonlyMap<string, ImageFile>;
}

async function loadCharacter(
  file: string,
  readBase: (address: string) => Promise<string>,
): Promise<Character> {
  const text = await readText(file);
  const document = readDocument(text, file, await gatherBases(text, file, readBase));
  const images = await readImageFiles(file, document);
  return {
    document,
    images,
    controller: compileDocument(document, { images: Object.fromEntries(images) }),
  };
}

async function writeNames(file: string, { controller }: Character, compiled: boolean): Promise<void> {
  const beside = namesFileOf(file);
  const text = namesFile(path.basename(file), controller, compiled);
  const before = await readFile(beside, 'utf8').catch(() => '');
  if (before !== text) await writeFileAtomic(beside, text);
}

/** The module of a document. Its listeners outlive it: each version hands them on to the next. */
function moduleOf({ document, controller, images }: Character, compiled: boolean): string {
  const shown = new Set([...controller.sheets.values()].flatMap((sheet) => sheet.images));
  // Those of clothes are not drawn where there is no wardrobe.
  const files = [...images.keys()].filter((name) => !compiled || shown.has(name));
  const sizes = Object.fromEntries([...images].map(([name, { width, height }]) => [name, { width, height }]));
  // A browser would show the picture that it has kept under the same address.
  const addresses = files.map(
    (image, i) =>
      `${JSON.stringify(image)}: image${i} + (import.meta.hot ? "?v=${images.get(image)!.mark}" : "")`,
  );
  return [
    ...files.map((image, i) => `import image${i} from ${JSON.stringify(`./${image}?url&no-inline`)};`),
    `const listeners = import.meta.hot?.data.listeners ?? new Set();`,
    `export default {`,
    compiled
      ? `  compiled: ${JSON.stringify(compiledOf(controller))},`
      : `  definition: ${JSON.stringify(document.definition)},`,
    `  images: { ${addresses.join(', ')} },`,
    // What it takes to compile it where no picture can be loaded: in a worker, on a server, in a test.
    ...(compiled ? [] : [`  sizes: ${JSON.stringify(sizes)},`]),
    `  listen: import.meta.hot && ((listener) => (listeners.add(listener), () => listeners.delete(listener))),`,
    `};`,
    `if (import.meta.hot) {`,
    `  import.meta.hot.data.listeners = listeners;`,
    `  import.meta.hot.accept((next) => next && listeners.forEach((listener) => listener(next.default)));`,
    `}`,
    ``,
  ].join('\n');
}
