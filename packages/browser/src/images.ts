/** Thrown when a file cannot be fetched or an image cannot be read; the message names the address and the answer. */
export class LoadError extends Error {}

/** Is told while files come: how many are there, of how many that are known to be needed. */
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

/** Fetches images, all at once. */
export async function loadImages(
  addresses: Readonly<Record<string, URL>>,
  fetching: Fetching,
): Promise<Record<string, HTMLImageElement>> {
  const loaded = Object.entries(addresses).map(async ([file, address]) => {
    const image = new Image();
    image.src = address.href;
    const decoded = image.decode().catch(() => {
      throw new Error('the image is not there, or is no picture');
    });
    await fetching.of(address, () => decoded);
    return [file, image] as const;
  });
  return Object.fromEntries(await Promise.all(loaded));
}
