/**
 * Names for the files of a pack, made of names that a document chose: a name can hold anything, and must lead to no other
 * folder and to no file of another name.
 *
 * @param first the file that is there already; all others begin as it does
 */
export class FileNames {
  private readonly taken: Set<string>;
  private readonly base: string;

  constructor(first: string) {
    this.base = first.replace(/\.png$/, '');
    // Some disks take WICK.PNG and wick.png for one.
    this.taken = new Set([first.toLowerCase()]);
  }

  /** A new one for what these names stand for. */
  next(...names: readonly string[]): string {
    const words = names.map((name) => name.replace(/[^\p{L}\p{N}_-]+/gu, '-').slice(0, 60) || '-');
    const wanted = [this.base, ...words].join('-');
    for (let i = 1; ; i++) {
      const file = `${wanted}${i === 1 ? '' : `-${i}`}.png`;
      if (this.taken.has(file.toLowerCase())) continue;
      this.taken.add(file.toLowerCase());
      return file;
    }
  }
}
