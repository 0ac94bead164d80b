import { readFile } from 'node:fs/promises';
import { setTimeout as wait } from 'node:timers/promises';

/** How long an empty file may stay empty while it is written, and how often it is looked at, in milliseconds. */
const [longest, pause] = [240, 20];

/**
 * Reads a text file that an editor may be writing just now. Many editors empty a file and then fill it, so an empty file is read again
 * until it has a text, for at most a quarter of a second. Otherwise the page would show an error for an instant at each save.
 */
export async function readText(file: string): Promise<string> {
  for (let waited = 0; ; waited += pause) {
    const text = await readFile(file, 'utf8');
    if (text !== '' || waited >= longest) return text;
    await wait(pause);
  }
}
