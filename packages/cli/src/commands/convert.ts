import path from 'node:path';
import { namedFrom, readSoundPart } from 'dot-hop/document';
import type { CharacterDocument } from 'dot-hop/document';
import { changedText, changesBetween, changesOver } from 'dot-hop/edit';
import type { Change, TextStyle } from 'dot-hop/edit';
import { stringify } from 'yaml';
import { loadCharacter } from '../character.js';
import { readClipTable, writeClipTable } from '../clip-table.js';
import { endingOf } from '../files/kinds.js';
import { readText } from '../files/reading.js';
import { writeWhole } from '../files/writing.js';
import { Misuse } from '../misuse.js';
import { basesOf } from '../read-document.js';
import { exit } from './command.js';
import type { Output } from './command.js';

/** The options of `dot-hop convert`. */
export interface ConvertOptions {
  readonly out?: string;
  readonly to?: string;
  /** A table of clips to be taken over into the document. */
  readonly clips?: string;
  /** Writes what the document takes over from others into it. */
  readonly whole?: boolean;
}

const timing = ['fps', 'ms', 'lasts'] as const;

const formats: Readonly<Record<string, string>> = {
  '.json': 'json',
  '.csv': 'csv',
  '.yaml': 'yaml',
  '.yml': 'yaml',
  '.scxml': 'scxml',
};

/** Writes a document as YAML, JSON or a state chart, or its clips as a table; and takes a table of clips over into a document. */
export async function convert(file: string, options: ConvertOptions, output: Output): Promise<number> {
  const own = file.toLowerCase().endsWith('.json') ? 'json' : 'yaml';
  const to = options.to ?? formatOf(options.out) ?? 'yaml';
  if (options.out !== undefined && formatOf(options.out) !== to)
    throw new Misuse(`-o ${options.out}: the name says another format than --to ${to}; leave --to out`);
  const before = await readText(file);
  const text =
    options.clips === undefined
      ? before
      : takeOver(
          readSoundPart(before, file, await basesOf(file, before)),
          before,
          readClipTable(await readText(options.clips), options.clips),
          own,
        );
  const character = await loadCharacter(file, text);
  const { definition, layers } = character.document;
  const whole = options.whole === true && layers !== undefined;
  const here = (layers === undefined || whole ? definition : layers.own) as Readonly<Record<string, unknown>>;
  const said = namedFrom(wayBack(file, options.out), here);
  const chart =
    to === 'scxml' ? (await import('../scxml/chart.js')).chartOf(character.controller) : undefined;
  for (const one of chart?.leftOut ?? []) output.note(`not in the chart: ${one}`);
  const written =
    chart !== undefined
      ? chart.text
      : to === 'csv'
        ? `${writeClipTable(definition, character.controller)}\n`
        : to === own && !whole
          ? changedText(text, changesBetween(here, said), own)
          : to === 'json'
            ? `${JSON.stringify(said, null, 2)}\n`
            : stringify(said, { lineWidth: 0 });
  if (options.out === undefined) output.line(written.trimEnd());
  else {
    // A document may take a table over in its own place.
    await writeWhole(options.out, written, options.out === file && to === own ? 'edited' : 'new');
    output.note(`written: ${options.out}`);
  }
  return exit.well;
}

/** The way from the folder in which a document is written to its own, in which its images lie; empty for the same one. */
function wayBack(file: string, out: string | undefined): string {
  if (out === undefined || file === '-') return '';
  const way = path.relative(path.dirname(out), path.dirname(file)).split(path.sep).join('/');
  return way === '' ? '' : `${way}/`;
}

function formatOf(out: string | undefined): string | undefined {
  if (out === undefined) return undefined;
  const told = 'a document is written as .yaml or .json, its clips as .csv, its states as .scxml';
  return formats[endingOf('-o', out, Object.keys(formats), told)];
}

/**
 * A document with the clips of a table: fields that the table says otherwise are changed; all else stays byte for byte.
 */
function takeOver(
  { source, layers }: CharacterDocument,
  text: string,
  table: ReturnType<typeof readClipTable>,
  style: TextStyle,
): string {
  const clips = (source.value as { clips?: Record<string, object> }).clips ?? {};
  const changes: Change[] = [];
  for (const [name, clip] of table) {
    const known = Object.hasOwn(clips, name) ? (clips[name] as Record<string, unknown>) : undefined;
    if (known === undefined) {
      changes.push({ op: 'set', path: ['clips', name], value: clip });
      continue;
    }
    for (const [field, value] of Object.entries(clip))
      if (JSON.stringify(known[field]) !== JSON.stringify(value))
        changes.push({ op: 'set', path: ['clips', name, field], value });
    // A table that says one of the three ways of timing does not mean another that stood there before.
    if (timing.some((field) => clip[field] !== undefined))
      for (const field of timing)
        if (clip[field] === undefined && known[field] !== undefined)
          changes.push({ op: 'remove', path: ['clips', name, field] });
  }
  return changedText(
    text,
    layers === undefined ? changes : changesOver(layers, source.value, changes),
    style,
  );
}
