import { once } from 'node:events';
import { stat } from 'node:fs/promises';
import path from 'node:path';
import { DotHopError } from 'dot-hop';
import { isRehearsalFile } from 'dot-hop/rehearsal';
import { exit } from '../commands/command.js';
import type { Output } from '../commands/command.js';
import { forgetReads } from '../files/reading.js';
import { namedFileTrouble } from '../files/trouble.js';
import { Misuse } from '../misuse.js';
import { filesBehind, rehearsalsAmong } from './runs.js';

/** Changes that come together, such as of a document and its picture, are answered by one run. */
const settling = 120;

/**
 * Runs rehearsals now and whenever a file that they depend on changes (they themselves, the documents they name, the images
 * of these), until it is interrupted. Nothing else that lies beside them counts, such as what is written there.
 *
 * @param rehearse runs them once
 */
export async function watchRehearsals(
  files: readonly string[],
  rehearse: (files: readonly string[]) => Promise<unknown>,
  output: Output,
): Promise<number> {
  for (const file of files)
    await stat(file).catch(async (error: unknown) => {
      throw new Misuse(`${file}: ${await namedFileTrouble(error, file)}`);
    });
  const followed = new Set<string>();
  const isFolder = new Set<string>();
  for (const file of files) if ((await stat(file)).isDirectory()) isFolder.add(path.resolve(file));
  const isFollowed = (name: string): boolean => {
    const full = path.resolve(name);
    if (followed.has(full)) return true;
    return isRehearsalFile(full) && [...isFolder].some((folder) => full.startsWith(folder + path.sep));
  };
  const run = async (): Promise<void> => {
    forgetReads();
    try {
      await rehearse(await rehearsalsAmong(files));
    } catch (error) {
      // What is half written now is whole at the next change.
      if (!(error instanceof Misuse || error instanceof DotHopError)) throw error;
      output.note(error.message);
    }
    await follow();
    output.note('watching for changes; end with Ctrl+C');
  };
  const { watch: watchFiles } = await import('chokidar');
  const watcher = watchFiles([...isFolder], {
    ignoreInitial: true,
    ignored: (name, found) =>
      /[\\/]node_modules$/.test(name) || (found?.isFile() === true && !isFollowed(name)),
  });
  const ready = once(watcher, 'ready');
  const follow = async (): Promise<void> => {
    for (const file of await rehearsalsAmong(files).catch(() => []))
      for (const name of [file, ...(await filesBehind(file))]) followed.add(path.resolve(name));
    watcher.add([...followed]);
  };
  let timer: NodeJS.Timeout | undefined;
  let running = Promise.resolve();
  watcher.on('all', () => {
    clearTimeout(timer);
    timer = setTimeout(() => {
      running = running.then(run);
    }, settling);
  });
  // Before the first run, so that no change during it is missed.
  await follow();
  await ready;
  running = running.then(run);
  await once(process, 'SIGINT');
  clearTimeout(timer);
  await watcher.close();
  await running;
  return exit.well;
}
