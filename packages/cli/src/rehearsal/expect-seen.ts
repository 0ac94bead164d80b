import { DotHopError } from 'dot-hop';
import { changedText, styleOf } from 'dot-hop/edit';
import { expectationsSeen } from 'dot-hop/rehearsal';
import type { Output } from '../commands/command.js';
import { forgetReads, readText } from '../files/reading.js';
import { writeWhole } from '../files/writing.js';
import { Misuse } from '../misuse.js';
import { loadRehearsal } from './runs.js';

/**
 * Writes what is seen in rehearsals into them, as what is expected from now on; all else in their files stays as it is. Nothing is
 * written over what a person expects: such a rehearsal is refused, and so is one that cannot be run. The others are written.
 *
 * @returns the files that were written
 */
export async function expectSeen(files: readonly string[], output: Output): Promise<string[]> {
  const written: string[] = [];
  for (const file of files)
    try {
      const seen = await fill(file);
      written.push(file);
      const what = seen === 1 ? 'expectation' : 'expectations';
      output.note(`${seen} ${what} written into ${file}: what was seen is expected from now on`);
    } catch (error) {
      if (!(error instanceof Misuse || error instanceof DotHopError)) throw error;
      output.note(error instanceof Misuse ? `dot-hop: ${error.message}` : error.message);
    }
  forgetReads();
  return written;
}

/** @returns how many expectations were written */
async function fill(file: string): Promise<number> {
  if (file === '-') throw new Misuse('--expect-seen writes into a file; standard input is none');
  const { source, definition, character } = await loadRehearsal(file);
  const { expect = [] } = definition;
  if (expect.length > 0)
    throw new Misuse(
      `${file} expects ${expect.length} ${expect.length === 1 ? 'thing' : 'things'} already; take "expect" out to have it filled with what is seen`,
    );
  const seen = source.placing(() => expectationsSeen(character.controller, definition));
  const change = { op: 'set', path: ['expect'], value: seen } as const;
  await writeWhole(file, changedText(await readText(file), [change], styleOf(file)), 'edited');
  return seen.length;
}
