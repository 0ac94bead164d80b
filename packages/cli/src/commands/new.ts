import { existsSync } from 'node:fs';
import { mkdir, readFile, readdir } from 'node:fs/promises';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { writeWhole } from '../files.js';
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
  const taken = files.filter((file) => existsSync(path.join(folder, file)));
  if (taken.length > 0)
    throw new Misuse(
      `${folder} has ${taken.join(', ')} already; nothing is written over. Name another folder`,
    );
  await mkdir(folder, { recursive: true });
  for (const file of files)
    await writeWhole(path.join(folder, file), await readFile(path.join(starter, file)));
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
