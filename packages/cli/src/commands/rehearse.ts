import { once } from 'node:events';
import { readdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { DotHopError } from 'dot-hop';
import type { Controller, Outfit } from 'dot-hop';
import { readDocument } from 'dot-hop/document';
import type { Source } from 'dot-hop/document';
import { changedText, styleOf } from 'dot-hop/edit';
import { expectationsSeen, isRehearsalFile, readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import type {
  Outcome,
  RehearsalDefinition,
  RehearsalOptions,
  RehearsalResult,
  TraceEntry,
} from 'dot-hop/rehearsal';
import { loadCharacter } from '../character.js';
import type { Character } from '../character.js';
import { dyedImages } from '../dyed.js';
import { endingOf } from '../files/kinds.js';
import { forgetReads, readText } from '../files/reading.js';
import { fileTrouble } from '../files/trouble.js';
import { writeWhole } from '../files/writing.js';
import { filmFormats } from '../picture/film-files.js';
import { junitOf } from '../junit.js';
import { Misuse } from '../misuse.js';
import { basesOf } from '../read-document.js';
import { checkWorn, wornIn } from '../worn.js';
import type { WornOptions } from '../worn.js';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';

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

/** A rehearsal that was run. */
export interface Run {
  readonly file: string;
  readonly source: Source;
  readonly definition: RehearsalDefinition;
  readonly character: Character;
  /** What it wears in a picture of it. */
  readonly outfit: Outfit | undefined;
  readonly result: RehearsalResult;
}

/** A rehearsal that could not be run. */
export interface BrokenRun {
  readonly file: string;
  readonly error: Misuse | DotHopError;
}

const isBroken = (one: Run | BrokenRun): one is BrokenRun => 'error' in one;

/**
 * Runs rehearsals, prints what happened and what was not as expected. Exit code 2 when one cannot be run (the others are all
 * the same); 1 when anything was not as expected.
 */
export async function rehearse(
  files: readonly string[],
  options: RehearseOptions,
  output: Output,
): Promise<number> {
  if (options.expectSeen === true)
    for (const file of await rehearsalsAmong(files)) await fillExpectations(file, output);
  if (options.watch === true) return watch(files, options, output);
  return rehearseAll(await rehearsalsAmong(files), options, output);
}

async function rehearseAll(
  files: readonly string[],
  options: RehearseOptions,
  output: Output,
): Promise<number> {
  checkWorn(options);
  if (options.out !== undefined)
    endingOf(
      '-o',
      options.out,
      ['.png', ...Object.keys(filmFormats)],
      'a rehearsal is drawn as .png (along its time) or .webp, .gif or .apng (moving)',
    );
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
  if (options.out !== undefined && runs.length > 0) {
    await draw(runs[0]!, options.out, output);
  }
  if (runs.length < all.length) return exit.misuse;
  return runs.some(({ result }) => result.outcomes.some(({ met }) => !met)) ? exit.failed : exit.well;
}

/**
 * Writes what is seen in a rehearsal into it, as what is expected of it from now on; all else in its file stays as it is.
 *
 * @throws {Misuse} for one that expects something already: what a person expected is not written over
 */
async function fillExpectations(file: string, output: Output): Promise<void> {
  if (file === '-') throw new Misuse('--expect-seen writes into a file; standard input is none');
  const { definition, character } = await runFile(file);
  const { expect = [] } = definition;
  if (expect.length > 0)
    throw new Misuse(
      `${file} expects ${expect.length} ${expect.length === 1 ? 'thing' : 'things'} already; take "expect" out to have it filled with what is seen`,
    );
  const seen = expectationsSeen(character.controller, definition);
  const text = changedText(
    await readText(file),
    [{ op: 'set', path: ['expect'], value: seen }],
    styleOf(file),
  );
  await writeWhole(file, text, 'edited');
  forgetReads();
  output.note(`${seen.length} expectations written into ${file}: what was seen is expected from now on`);
}

/** Draws what happened, along its time or moving, by the ending of the file. */
async function draw(
  { file, definition, character, outfit, result }: Run,
  out: string,
  output: Output,
): Promise<void> {
  const { controller } = character;
  const images = dyedImages(character.images, outfit === undefined ? [] : [outfit]);
  const name = path.basename(file);
  const format = filmFormats[path.extname(out).toLowerCase()];
  if (format === undefined) {
    const { tracePicture } = await import('../picture/trace-picture.js');
    await writeWhole(out, await tracePicture(name, result, controller, images));
    output.note(`picture of what happened in ${out}`);
    return;
  }
  const { pictureEvery, rehearsalFilm } = await import('../picture/rehearsal-film.js');
  const film = await rehearsalFilm({ name, definition, result, controller, images });
  output.note(`${film.frames.length} pictures, one each ${pictureEvery(result.lasts)} ms; writing them ...`);
  await writeWhole(out, (await format(film)).bytes);
  output.note(`moving picture of what happened in ${out}`);
}

/** Rehearsals as they were named; of a folder all that lie in it and below, in the order of their names. */
async function rehearsalsAmong(files: readonly string[]): Promise<string[]> {
  const found: string[] = [];
  for (const file of files) {
    const isFolder = await stat(file).then(
      (one) => one.isDirectory(),
      () => false,
    );
    if (!isFolder) found.push(file);
    else {
      const inside = (await readdir(file, { recursive: true }))
        .filter((name) => isRehearsalFile(name) && !name.includes('node_modules'))
        .sort()
        .map((name) => path.join(file, name));
      if (inside.length === 0)
        throw new Misuse(`${file}: no rehearsal lies in this folder; one is named NAME.rehearsal.yaml`);
      found.push(...inside);
    }
  }
  return found;
}

/** Changes that come together, such as of a document and its picture, are answered by one run. */
const settling = 120;

/**
 * Runs rehearsals now and whenever a file that they depend on changes (they themselves, the documents they name, the images
 * of these), until it is interrupted. Nothing else that lies beside them counts, such as what is written there.
 */
async function watch(files: readonly string[], options: RehearseOptions, output: Output): Promise<number> {
  for (const file of files)
    await stat(file).catch((error: unknown) => {
      throw new Misuse(`${file}: ${fileTrouble(error)}`);
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
      await rehearseAll(await rehearsalsAmong(files), options, output);
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

/** The document that a rehearsal names, those that it builds on, and its images, as far as they can be told. */
async function filesBehind(file: string): Promise<string[]> {
  try {
    const { definition } = readRehearsal(await readText(file), file);
    const document = path.join(path.dirname(file), definition.document);
    const behind = [document];
    try {
      const text = await readText(document);
      const folder = path.dirname(document);
      // Also those that cannot be read yet: they are waited for.
      const bases = [...(await basesOf(document, text))];
      behind.push(...bases.map(([address]) => path.join(folder, address)));
      const read = readDocument(text, document, new Map(bases));
      behind.push(...[...read.images.keys()].map((image) => path.join(folder, image)));
    } catch {
      // What could be told so far.
    }
    return behind;
  } catch {
    return [];
  }
}

/** What keeps one rehearsal from being run keeps no other. */
async function tryFile(file: string, worn: WornOptions | undefined): Promise<Run | BrokenRun> {
  try {
    return await runFile(file, worn);
  } catch (error) {
    if (!(error instanceof Misuse || error instanceof DotHopError)) throw error;
    return { file, error };
  }
}

/** Runs one rehearsal's file with the character it names. @param worn what it wears, for a picture of it */
export async function runFile(file: string, worn?: WornOptions): Promise<Run> {
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
  const outfit = worn && wornIn(character.controller, worn);
  const result = source.placing(() =>
    runRehearsal(character.controller, definition, { outfit, placeOf: placesIn(character) }),
  );
  return { file, source, definition, character, outfit, result };
}

/** Where the states of a character stand, if that can be in more than one document. */
function placesIn({ document, baseFiles }: Character): RehearsalOptions['placeOf'] {
  if (baseFiles.length === 0) return undefined;
  return (state, track) => {
    const path = track === 'body' ? ['states', state] : ['tracks', track, 'states', state];
    const { file, line } = document.source.place(path, 0, 'key');
    return `${file}:${line}`;
  };
}

function plainRun(one: Run | BrokenRun): unknown {
  if (isBroken(one)) return { rehearsal: one.file, error: one.error.message };
  const { file, source, character, result } = one;
  return {
    rehearsal: file,
    document: character.file,
    lasts: result.lasts,
    trace: result.trace,
    expectations: result.outcomes.map((outcome) => ({ ...outcome, line: source.place(outcome.path).line })),
  };
}

function print({ file, source, character, result }: Run, quiet: boolean, output: Output): void {
  const { paint } = output;
  output.line(`${paint.bold(file)}  ${paint.dim(`${character.controller.name}, ${result.lasts} ms`)}`);
  if (!quiet) printTimeline(result, character.controller, output);
  for (const outcome of result.outcomes)
    printOutcome(outcome, source.place(outcome.path).line, quiet, output);
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
function printTimeline(result: RehearsalResult, controller: Controller, output: Output): void {
  const { paint } = output;
  const line = (text: string): void => output.line(text);
  const first = result.samples[0]!;
  const states = first.tracks.map(({ state }, i) => {
    return paint.dim(trackText(controller.tracks[i]!.name)) + paint.bold(state);
  });
  line(`${time(0)}  ${states.join('  ')}  ${paint.dim(`facing ${first.direction}`)}`);
  let last = 0;
  for (const entry of result.trace) {
    if (entry.kind === 'set' && entry.by !== undefined && typeof entry.value !== 'boolean') continue;
    const at = entry.at === last ? ' '.repeat(time(0).length) : time(entry.at);
    last = entry.at;
    line(`${at}  ${describe(entry, controller, paint)}`);
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

/** The document's own states need no word. */
const trackText = (track: string): string => (track === 'body' ? '' : `${track}: `);

function describe(entry: TraceEntry, controller: Controller, paint: Output['paint']): string {
  const { tracks, stateNamed } = controller;
  const track = 'track' in entry ? trackText(entry.track) : '';
  switch (entry.kind) {
    case 'set':
      return (
        (entry.by === undefined
          ? paint.cyan(`  set ${entry.name} = ${String(entry.value)}`)
          : paint.dim(`  ${entry.by}: ${entry.name} = ${String(entry.value)}`)) +
        (entry.outside === undefined ? '' : paint.yellow(`  outside of ${entry.outside}`))
      );
    case 'pulse':
    case 'press':
    case 'release':
      return paint.cyan(`  ${entry.kind} ${entry.name}`);
    case 'ramp':
      return paint.cyan(`  ramp ${entry.name} to ${entry.to} over ${entry.over} ms`);
    case 'pace':
      return paint.cyan(`  pace ${entry.value}`);
    case 'reset':
      return paint.cyan('  reset: it begins anew');
    case 'cue':
      return paint.yellow(`  ${track}cue ${entry.name}`);
    case 'turn':
      return paint.dim(`  ${track}faces ${entry.name}`);
    case 'flipbook':
      return paint.dim(`  ${track}shows ${entry.name}`);
    case 'ask':
    case 'cut':
    case 'route':
      return paint.cyan(`  ${entry.kind} ${entry.name}${entry.granted ? '' : ': not granted'}`);
    case 'switch': {
      const owner = tracks[stateNamed.get(entry.name)!.track]!.name;
      const how = owner === entry.track ? ruleWords[entry.rule] : `taken by ${owner}`;
      return `${paint.dim(track)}${paint.bold(entry.name.padEnd(12))} ${paint.dim(`from ${entry.from}: ${how}`)}`;
    }
  }
}

function printOutcome(
  { index, met, expected, instead, why }: Outcome,
  line: number,
  quiet: boolean,
  output: Output,
): void {
  const { paint } = output;
  if (met && quiet) return;
  output.line(
    `${met ? paint.green('  met    ') : paint.red('  NOT MET')} ${index + 1}. ${expected}${met ? '' : paint.dim(` (line ${line})`)}`,
  );
  if (met) return;
  output.line(`           instead: ${instead}`);
  if (why !== undefined) for (const text of why.split('\n')) output.line(paint.dim(`           ${text}`));
}
