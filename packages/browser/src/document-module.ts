import { Performer, compileController } from 'dot-hop';
import type { Player } from 'dot-hop/play';
import type { Controller, ControllerDefinition, ImageSize, Names } from 'dot-hop';
import type { LoadedCharacter } from './character.js';
import type { Progress } from './images.js';
import { followModule, imagesOfModule } from './character-module.js';
import type { CharacterModule } from './character-module.js';
import { sizesWorn } from './worn.js';

/**
 * A document that was imported as a module. It was read and checked when the page was built, so the page needs neither a reader nor a
 * schema. The plugin of `@dot-hop/vite` makes it from `*.dothop.yaml` and `*.dothop.json`.
 *
 * @typeParam N the document's names, if the plugin writes them
 */
export interface DocumentModule<N extends Names = Names> extends CharacterModule<DocumentModule> {
  readonly definition: ControllerDefinition;
  /** The sizes of the images. With them, `compileController(module.definition, { images: module.sizes })` needs no picture. */
  readonly sizes: Readonly<Record<string, ImageSize>>;
  /** For the compiler only. */
  readonly names?: N;
}

/**
 * Fetches the images of an imported document and compiles it.
 *
 * @param progress is called for each file that has arrived
 * @throws {LoadError} when an image cannot be fetched or read, except images of clothes
 */
export async function openCharacter<N extends Names>(
  module: DocumentModule<N>,
  progress?: Progress,
): Promise<LoadedCharacter<N>> {
  const { definition, sizes } = module;
  const { images, missing } = await imagesOfModule(module, progress, sizesWorn(definition, sizes));
  const controller = compileController(definition, { images }) as Controller as Controller<N>;
  return { controller, images, missing };
}

/**
 * Calls back with each edit of an imported document while the page runs, ready to be played. After a faulty edit, the page shows the
 * error and the game goes on with the version before.
 *
 * @param trouble is called when an edit's images cannot be fetched; by default the error is written to the console
 * @returns a function that ends it. In a built page there are no edits
 */
export function followEdits<N extends Names>(
  module: DocumentModule<N>,
  use: (next: LoadedCharacter<N>) => void,
  trouble?: (error: unknown) => void,
): () => void {
  return followModule(module, (next) => openCharacter(next as DocumentModule<N>), use, trouble);
}

/**
 * Makes a performer for an edited document that goes on where the old one stands. It keeps what the new document has too, by name: the
 * state and its phase, signals, pulses and outfit. Call {@link dyeImages} for the new images.
 */
export function continueAfterEdit<N extends Names>(player: Player, controller: Controller<N>): Performer<N> {
  const next = new Performer(controller);
  next.adopt(Performer.of(player).snapshot());
  next.wear(player.outfit?.fittedTo(controller));
  return next;
}
