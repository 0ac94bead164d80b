import { readFile, readdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { writeFiles } from '../files/writing.js';
import type { NewFile } from '../files/writing.js';
import { Misuse } from '../misuse.js';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';

const starter = fileURLToPath(new URL('../../starter', import.meta.url));

/** Puts a starter character into a folder: drawings, document, rehearsal. Nothing that is there is written over. */
export async function newCharacter(
  folder: string,
  { json }: { readonly json?: boolean },
  output: Output,
): Promise<number> {
  const files = (await readdir(starter)).sort();
  const found = await stat(folder).catch(() => undefined);
  if (found !== undefined && !found.isDirectory())
    throw new Misuse(`${folder} is a file; name a folder, which is made where it is not there`);
  const taken: string[] = [];
  const missing: NewFile[] = [];
  for (const file of files) {
    const content = await readFile(path.join(starter, file));
    const there = await readFile(path.join(folder, file)).catch(() => undefined);
    // What an interrupted call has left is what it would write.
    if (there === undefined) missing.push({ file: path.join(folder, file), content });
    else if (!there.equals(content)) taken.push(file);
  }
  if (taken.length > 0 || missing.length === 0)
    throw new Misuse(
      `${folder} has ${(taken.length > 0 ? taken : files).join(', ')} already; nothing is written over. Name another folder`,
    );
  await writeFiles(missing);
  if (json === true) printJson(output, { folder, files });
  else {
    output.line(`A character to begin with is in ${folder}:`);
    for (const file of files) output.line(`  ${file}`);
    output.line('Go on there with, for instance:');
    output.line('  dot-hop preview keeper.dothop.yaml walk -o walk.webp');
    output.line('  dot-hop rehearse first.rehearsal.yaml');
    output.line('  dot-hop check keeper.dothop.yaml');
  }
  return exit.well;
}
