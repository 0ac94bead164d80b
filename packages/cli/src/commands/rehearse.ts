import path from 'node:path';
import { readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import type { Outcome, RehearsalResult, TraceEntry } from 'dot-hop/rehearsal';
import { loadCharacter } from '../character.js';
import type { Character } from '../character.js';
import { readText, writeWhole } from '../files.js';
import { junitOf } from '../junit.js';
import { Misuse } from '../misuse.js';
import { tracePicture } from '../picture/trace-picture.js';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';

/** The options of `dot-hop rehearse`. */
export interface RehearseOptions {
  readonly out?: string;
  readonly json?: boolean;
  readonly junit?: boolean;
  readonly quiet?: boolean;
}

/** A rehearsal that was run. */
export interface Run {
  readonly file: string;
  readonly character: Character;
  readonly result: RehearsalResult;
}

/** Runs rehearsals, prints what happened and what was not as expected. Exit code 1 when anything was not. */
export async function rehearse(
  files: readonly string[],
  options: RehearseOptions,
  output: Output,
): Promise<number> {
  if (options.out !== undefined && files.length > 1)
    throw new Misuse(`-o ${options.out} is for one rehearsal; ${files.length} were given`);
  const runs: Run[] = [];
  for (const file of files) runs.push(await runFile(file));
  const unmet = runs.flatMap(({ result }) => result.outcomes.filter(({ met }) => !met)).length;
  if (options.junit === true) output.line(junitOf(runs));
  else if (options.json === true) printJson(output, runs.map(plainRun));
  else for (const one of runs) print(one, options.quiet ?? false, output);
  if (options.out !== undefined) {
    const { file, character, result } = runs[0]!;
    const picture = await tracePicture(path.basename(file), result, character.controller, character.images);
    await writeWhole(options.out, picture);
    output.note(`picture of what happened in ${options.out}`);
  }
  return unmet > 0 ? exit.failed : exit.well;
}

/** Runs one rehearsal's file with the character it names. */
export async function runFile(file: string): Promise<Run> {
  const { source, definition } = readRehearsal(
    await readText(file),
    file === '-' ? '(standard input)' : file,
  );
  const folder = file === '-' ? '.' : path.dirname(file);
  const document = path.join(folder, definition.document);
  const character = await loadCharacter(document).catch((error: unknown) => {
    // A fault inside the character's document is told where it is; one in finding it, where it is named.
    if (!(error instanceof Misuse)) throw error;
    const { line, column } = source.place(['document']);
    throw new Misuse(`${source.file}:${line}:${column} document: ${error.message}`);
  });
  return { file, character, result: source.placing(() => runRehearsal(character.controller, definition)) };
}

function plainRun({ file, character, result }: Run): unknown {
  return {
    rehearsal: file,
    document: character.file,
    lasts: result.lasts,
    trace: result.trace,
    expectations: result.outcomes.map(({ index, met, expected, instead }) => ({
      index,
      met,
      expected,
      instead,
    })),
  };
}

function print({ file, character, result }: Run, quiet: boolean, output: Output): void {
  const { paint } = output;
  output.line(`${paint.bold(file)}  ${paint.dim(`${character.controller.name}, ${result.lasts} ms`)}`);
  if (!quiet) printTimeline(result, output);
  for (const outcome of result.outcomes) printOutcome(outcome, quiet, output);
  const met = result.outcomes.filter((outcome) => outcome.met).length;
  const count = result.outcomes.length;
  if (count > 0)
    output.line(
      met === count
        ? paint.green(`all ${count} expectations met`)
        : paint.red(`${count - met} of ${count} expectations not met`),
    );
}

/** Lines of one instant stand together: what the game set, and what came of it. */
function printTimeline(result: RehearsalResult, output: Output): void {
  const { paint } = output;
  const line = (text: string): void => output.line(text);
  line(
    `${time(0)}  ${paint.bold(result.samples[0]!.state)}  ${paint.dim(`facing ${result.samples[0]!.direction}`)}`,
  );
  let last = 0;
  for (const entry of result.trace) {
    const at = entry.at === last ? ' '.repeat(time(0).length) : time(entry.at);
    last = entry.at;
    line(`${at}  ${describe(entry, paint)}`);
  }
  line(`${time(result.lasts)}  ${paint.dim('end')}`);
}

const time = (ms: number): string => `${ms.toFixed(1).padStart(9)} ms`;

const ruleWords = {
  start: 'first',
  rank: 'ranks higher',
  hop: 'hop',
  then: 'follows its end',
  way: 'gave way',
  rest: 'nothing else wants in',
  again: 'pressed again',
  ask: 'asked for',
  cut: 'put there',
  route: 'on its route',
} as const;

function describe(entry: TraceEntry, paint: Output['paint']): string {
  switch (entry.kind) {
    case 'set':
      return paint.cyan(`  set ${entry.name} = ${String(entry.value)}`);
    case 'pulse':
      return paint.cyan(`  pulse ${entry.name}`);
    case 'cue':
      return paint.yellow(`  cue ${entry.name}`);
    case 'turn':
      return paint.dim(`  faces ${entry.name}`);
    case 'gait':
      return paint.dim(`  gait ${entry.name}`);
    case 'ask':
    case 'cut':
    case 'route':
      return paint.cyan(`  ${entry.kind} ${entry.name}${entry.granted ? '' : ': not granted'}`);
    case 'switch':
      return `${paint.bold(entry.name.padEnd(12))} ${paint.dim(`from ${entry.from}: ${ruleWords[entry.rule]}`)}`;
  }
}

function printOutcome({ index, met, expected, instead, why }: Outcome, quiet: boolean, output: Output): void {
  const { paint } = output;
  if (met && quiet) return;
  output.line(`${met ? paint.green('  met    ') : paint.red('  NOT MET')} ${index + 1}. ${expected}`);
  if (met) return;
  output.line(`           instead: ${instead}`);
  if (why !== undefined) for (const text of why.split('\n')) output.line(paint.dim(`           ${text}`));
}
