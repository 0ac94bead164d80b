import type { LoadedCharacter } from './character.js';
import { Fetching, loadImages } from './images.js';
import type { LoadedImages, Progress } from './images.js';
import type { ImageSize, Names } from 'dot-hop';

/** What modules of characters have, whether they hold the document or what it compiles to. */
export interface CharacterModule<M> {
  /** The addresses of the images by file, as the document names them. */
  readonly images: Readonly<Record<string, string>>;
  /**
   * Calls back with each later version while the page runs. While a game is being made only: a built page has none.
   *
   * @returns what ends it
   */
  readonly listen?: ((listener: (next: M) => void) => () => void) | undefined;
}

/** Fetches the images of a module. @throws {LoadError} when one cannot be fetched or read, and cannot be done without */
export function imagesOfModule(
  { images }: Pick<CharacterModule<unknown>, 'images'>,
  progress: Progress | undefined,
  spare?: Readonly<Record<string, ImageSize>>,
): Promise<LoadedImages> {
  const addresses = Object.entries(images).map(
    ([file, address]) => [file, new URL(address, document.baseURI)] as const,
  );
  return loadImages(Object.fromEntries(addresses), new Fetching(progress), spare);
}

/** Hands over each later version of a module once it is open. @returns what ends it */
export function followModule<M, N extends Names>(
  module: CharacterModule<M>,
  open: (next: M) => Promise<LoadedCharacter<N>>,
  use: (next: LoadedCharacter<N>) => void,
  trouble: (error: unknown) => void = (error) => console.error(error),
): () => void {
  let latest = 0;
  const end = module.listen?.((next) => {
    const edit = ++latest;
    // Of two edits in quick succession the first may come last.
    open(next).then((character) => {
      if (edit === latest) use(character);
    }, trouble);
  });
  return () => {
    latest = -1;
    end?.();
  };
}
