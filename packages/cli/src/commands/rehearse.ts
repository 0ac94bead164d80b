import type { Output } from './command.js';
import { exit, printJson } from './command.js';
import { junitOf } from '../junit.js';
import { Misuse } from '../misuse.js';
import { checkDrawn, draw } from '../rehearsal/drawing.js';
import { expectSeen } from '../rehearsal/expect-seen.js';
import { isBroken, rehearsalsAmong, tryFile } from '../rehearsal/runs.js';
import type { BrokenRun, Run } from '../rehearsal/runs.js';
import { plainRun, print } from '../rehearsal/telling.js';
import { watchRehearsals } from '../rehearsal/watching.js';
import { checkWorn } from '../worn.js';
import type { WornOptions } from '../worn.js';

/** The options of `dot-hop rehearse`. */
export interface RehearseOptions extends WornOptions {
  readonly out?: string;
  readonly json?: boolean;
  readonly junit?: boolean;
  readonly quiet?: boolean;
  /** Run again whenever a file that the rehearsals depend on changes. */
  readonly watch?: boolean;
  /** Write what was seen into the rehearsals, as what is expected from now on. */
  readonly expectSeen?: boolean;
}

/**
 * Runs rehearsals, prints what happened and what was not as expected. Exit code 2 when one cannot be run (the others are all
 * the same); 1 when anything was not as expected.
 */
export async function rehearse(
  files: readonly string[],
  options: RehearseOptions,
  output: Output,
): Promise<number> {
  checkWorn(options);
  if (options.out !== undefined) checkDrawn(options.out);
  const all = await rehearsalsAmong(files);
  // What is refused is told once: it is not run too.
  const some = options.expectSeen === true ? await expectSeen(all, output) : all;
  const run = (now: readonly string[]): Promise<number> => rehearseAll(now, options, output);
  if (options.watch === true) return watchRehearsals(files, run, output);
  const code = await run(some);
  return some.length < all.length ? exit.misuse : code;
}

async function rehearseAll(
  files: readonly string[],
  options: RehearseOptions,
  output: Output,
): Promise<number> {
  if (options.out !== undefined && files.length > 1)
    throw new Misuse(`-o ${options.out} is for one rehearsal; ${files.length} were given`);
  const all: (Run | BrokenRun)[] = [];
  for (const file of files) all.push(await tryFile(file, options.out === undefined ? undefined : options));
  if (options.junit === true) output.line(junitOf(all));
  else if (options.json === true) printJson(output, all.map(plainRun));
  else for (const one of all) if (!isBroken(one)) print(one, options.quiet ?? false, output);
  for (const { error } of all.filter(isBroken))
    output.note(error instanceof Misuse ? `dot-hop: ${error.message}` : error.message);
  const runs = all.filter((one): one is Run => !isBroken(one));
  if (options.out !== undefined && runs.length > 0) await draw(runs[0]!, options.out, output);
  if (runs.length < all.length) return exit.misuse;
  return runs.some(({ result }) => result.outcomes.some(({ met }) => !met)) ? exit.failed : exit.well;
}
