import { changedText } from 'dot-hop/edit';
import type { Change, TextStyle } from 'dot-hop/edit';
import { parseDocument, stringify } from 'yaml';
import { loadCharacter } from '../character.js';
import { readClipTable, writeClipTable } from '../clip-table.js';
import { endingOf } from '../files/kinds.js';
import { readText } from '../files/reading.js';
import { writeWhole } from '../files/writing.js';
import { Misuse } from '../misuse.js';
import { exit } from './command.js';
import type { Output } from './command.js';

/** The options of `dot-hop convert`. */
export interface ConvertOptions {
  readonly out?: string;
  readonly to?: string;
  /** A table of clips to be taken over into the document. */
  readonly clips?: string;
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
      : takeOver(before, readClipTable(await readText(options.clips), options.clips), own);
  const character = await loadCharacter(file, text);
  const { definition } = character.document;
  const chart =
    to === 'scxml' ? (await import('../scxml/chart.js')).chartOf(character.controller) : undefined;
  for (const one of chart?.leftOut ?? []) output.note(`not in the chart: ${one}`);
  const written =
    chart !== undefined
      ? chart.text
      : to === 'csv'
        ? `${writeClipTable(definition, character.controller)}\n`
        : to === own
          ? text
          : to === 'json'
            ? `${JSON.stringify(definition, null, 2)}\n`
            : stringify(definition, { lineWidth: 0 });
  if (options.out === undefined) output.line(written.trimEnd());
  else {
    // A document may take a table over in its own place.
    await writeWhole(options.out, written, options.out === file && to === own ? 'edited' : 'new');
    output.note(`written: ${options.out}`);
  }
  return exit.well;
}

function formatOf(out: string | undefined): string | undefined {
  if (out === undefined) return undefined;
  const told = 'a document is written as .yaml or .json, its clips as .csv, its states as .scxml';
  return formats[endingOf('-o', out, Object.keys(formats), told)];
}

/**
 * A document with the clips of a table: fields that the table says otherwise are changed; all else stays byte for byte.
 */
function takeOver(text: string, table: ReturnType<typeof readClipTable>, style: TextStyle): string {
  const clips = (parseDocument(text).toJS() as { clips?: Record<string, object> } | null)?.clips ?? {};
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
  return changedText(text, changes, style);
}
