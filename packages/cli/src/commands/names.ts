import path from 'node:path';
import { loadCharacter } from '../character.js';
import { writeFiles } from '../files/writing.js';
import type { NewFile } from '../files/writing.js';
import { Misuse } from '../misuse.js';
import { namesFile, namesFileOf } from 'dot-hop/pack';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';

/** Writes the names of documents beside them for TypeScript, as the plugin for Vite does: `tsc` needs them before the first run. */
export async function names(
  files: readonly string[],
  { json }: { readonly json?: boolean },
  output: Output,
): Promise<number> {
  const written: NewFile[] = [];
  for (const file of files) {
    if (file === '-') throw new Misuse('names are written beside a file, and standard input is none');
    const { controller } = await loadCharacter(file);
    written.push({ file: namesFileOf(file), content: namesFile(path.basename(file), controller) });
  }
  await writeFiles(written);
  if (json === true) printJson(output, { written: written.map(({ file }) => file) });
  else for (const { file } of written) output.line(`written: ${file}`);
  return exit.well;
}
