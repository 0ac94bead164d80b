import type { ImageSize } from 'dot-hop';

/** Thrown when a file cannot be fetched or an image cannot be read; the message names the address and the answer. */
export class LoadError extends Error {}

/** Called as files arrive, with the number that have arrived and the number that are needed, as far as is known. */
export type Progress = (done: number, all: number) => void;

/** Counts files as they come. */
export class Fetching {
  private done = 0;
  private all = 0;

  constructor(private readonly progress?: Progress) {}

  /** @throws {LoadError} when a file does not come */
  async of<T>(address: URL, get: () => Promise<T>): Promise<T> {
    this.all++;
    this.progress?.(this.done, this.all);
    const got = await get().catch((error: unknown) => {
      const reason = error instanceof Error ? error.message : String(error);
      throw new LoadError(`${address.pathname}: cannot be fetched (${reason})`);
    });
    this.done++;
    this.progress?.(this.done, this.all);
    return got;
  }
}

/** Images by file, and what did not come of those that a character can do without. */
export interface LoadedImages {
  readonly images: Record<string, HTMLImageElement | HTMLCanvasElement>;
  readonly missing: readonly LoadError[];
}

/**
 * Fetches images, all at once.
 *
 * @param spare the sizes of images that the character can do without: if one of these cannot be loaded, an empty image of that size takes
 *   its place
 * @throws {LoadError} if any other image cannot be loaded
 */
export async function loadImages(
  addresses: Readonly<Record<string, URL>>,
  fetching: Fetching,
  spare: Readonly<Record<string, ImageSize>> = {},
): Promise<LoadedImages> {
  const missing: LoadError[] = [];
  const loaded = Object.entries(addresses).map(async ([file, address]) => {
    const image = new Image();
    image.src = address.href;
    const decoded = image.decode().catch(() => {
      throw new Error('the image is missing, or is not a picture');
    });
    try {
      await fetching.of(address, () => decoded);
      return [file, image] as const;
    } catch (error) {
      const size = spare[file];
      if (size === undefined || !(error instanceof LoadError)) throw error;
      missing.push(error);
      return [file, Object.assign(document.createElement('canvas'), size)] as const;
    }
  });
  const images = Object.fromEntries<LoadedImages['images'][string]>(await Promise.all(loaded));
  return { images, missing };
}
