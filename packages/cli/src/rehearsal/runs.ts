import { readdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { DotHopError } from 'dot-hop';
import type { Outfit } from 'dot-hop';
import { readDocument } from 'dot-hop/document';
import type { Source } from 'dot-hop/document';
import { isRehearsalFile, readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import type { RehearsalDefinition, RehearsalOptions, RehearsalResult } from 'dot-hop/rehearsal';
import { loadCharacter } from '../character.js';
import type { Character } from '../character.js';
import { readText } from '../files/reading.js';
import { Misuse } from '../misuse.js';
import { basesOf } from '../read-document.js';
import { wornIn } from '../worn.js';
import type { WornOptions } from '../worn.js';

/** A rehearsal with the character that it names. */
interface Loaded {
  readonly file: string;
  readonly source: Source;
  readonly definition: RehearsalDefinition;
  readonly character: Character;
}

/** A rehearsal that was run. */
export interface Run extends Loaded {
  /** What it wears in a picture of it. */
  readonly outfit: Outfit | undefined;
  readonly result: RehearsalResult;
}

/** A rehearsal that could not be run. */
export interface BrokenRun {
  readonly file: string;
  readonly error: Misuse | DotHopError;
}

export const isBroken = (one: Run | BrokenRun): one is BrokenRun => 'error' in one;

/** Rehearsals as they were named; of a folder all that lie in it and below, in the order of their names. */
export async function rehearsalsAmong(files: readonly string[]): Promise<string[]> {
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

/** The document that a rehearsal names, those that it builds on, and its images, as far as they can be told. */
export async function filesBehind(file: string): Promise<string[]> {
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
export async function tryFile(file: string, worn: WornOptions | undefined): Promise<Run | BrokenRun> {
  try {
    return await runFile(file, worn);
  } catch (error) {
    if (!(error instanceof Misuse || error instanceof DotHopError)) throw error;
    return { file, error };
  }
}

/** Reads a rehearsal, and the character that it names. */
export async function loadRehearsal(file: string): Promise<Loaded> {
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
  return { file, source, definition, character };
}

/** Runs one rehearsal's file with the character it names. @param worn what it wears, for a picture of it */
export async function runFile(file: string, worn?: WornOptions): Promise<Run> {
  const loaded = await loadRehearsal(file);
  const { source, definition, character } = loaded;
  const outfit = worn && wornIn(character.controller, worn);
  const result = source.placing(() =>
    runRehearsal(character.controller, definition, { outfit, placeOf: placesIn(character) }),
  );
  return { ...loaded, outfit, result };
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
