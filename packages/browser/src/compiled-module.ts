import type { Names } from 'dot-hop';
import { loadCompiled } from 'dot-hop/play';
import type { CompiledDocument } from 'dot-hop/play';
import type { CharacterFiles, LoadedCharacter } from './character.js';
import { Fetching, loadImages } from './images.js';
import type { Progress } from './images.js';
import { followModule, imagesOfModule } from './character-module.js';
import type { CharacterModule } from './character-module.js';

/**
 * A compiled document that was imported as a module, through the plugin of `@dot-hop/vite` with `compiled: true`. The page then carries no
 * compiler.
 *
 * @typeParam N the document's names, if the plugin writes them
 */
export interface CompiledModule<N extends Names = Names> extends CharacterModule<CompiledModule> {
  readonly compiled: CompiledDocument;
  /** For the compiler only. */
  readonly names?: N;
}

/**
 * Fetches the images of an imported compiled document, and loads it.
 *
 * @param progress is called for each file that has arrived
 * @throws {LoadError} when an image cannot be fetched or read
 * @throws {DotHopError} for a document that was compiled by another version of Dot Hop
 */
export async function openCompiled<N extends Names>(
  module: CompiledModule<N>,
  progress?: Progress,
): Promise<LoadedCharacter<N>> {
  const { images } = await imagesOfModule(module, progress);
  return { controller: loadCompiled(module.compiled as CompiledDocument<N>), images };
}

/** Calls back with each edit of a compiled document while the page runs, as `followEdits` does for other documents. */
export function followCompiled<N extends Names>(
  module: CompiledModule<N>,
  use: (next: LoadedCharacter<N>) => void,
  trouble?: (error: unknown) => void,
): () => void {
  return followModule(module, (next) => openCompiled(next as CompiledModule<N>), use, trouble);
}

/**
 * Fetches a compiled document, such as `dot-hop pack --compiled` writes, and its images.
 *
 * @param files the address of the document; the images are beside it unless you give their addresses
 * @throws {LoadError} when a file cannot be fetched or an image cannot be read
 * @throws {DotHopError} when it is not a compiled document, or one of another version of Dot Hop
 */
export async function loadCompiledCharacter(
  files: CharacterFiles,
  progress?: Progress,
): Promise<LoadedCharacter> {
  const address = new URL(files.document, document.baseURI);
  const fetching = new Fetching(progress);
  const compiled = await fetching.of(address, async () => {
    const answer = await fetch(address);
    if (!answer.ok) throw new Error(`${answer.status} ${answer.statusText}`);
    return (await answer.json()) as CompiledDocument;
  });
  const controller = loadCompiled(compiled);
  const names = new Set([...controller.sheets.values()].flatMap(({ images }) => images));
  const addresses = [...names].map((name) => [name, new URL(files.images?.[name] ?? name, address)] as const);
  const { images } = await loadImages(Object.fromEntries(addresses), fetching);
  return { controller, images };
}
