import path from 'node:path';
import { isNode, parseDocument } from 'yaml';
import { loadCharacter } from '../character.js';
import { readClipTable, writeClipTable } from '../clip-table.js';
import { readText, writeWhole } from '../files.js';
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

/** Writes a document as YAML, JSON or a state chart, or its clips as a table; and takes a table of clips over into a document. */
export async function convert(file: string, options: ConvertOptions, output: Output): Promise<number> {
  const to = options.to ?? formatOf(options.out) ?? 'yaml';
  let text = await readText(file);
  if (options.clips !== undefined)
    text = takeOver(text, readClipTable(await readText(options.clips), options.clips));
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
        : to === 'json'
          ? `${JSON.stringify(definition, null, 2)}\n`
          : parseDocument(text).toString({ lineWidth: 0 });
  if (options.out === undefined) output.line(written.trimEnd());
  else {
    await writeWhole(options.out, written);
    output.note(`written: ${options.out}`);
  }
  return exit.well;
}

function formatOf(out: string | undefined): string | undefined {
  if (out === undefined) return undefined;
  const format = { '.json': 'json', '.csv': 'csv', '.yaml': 'yaml', '.yml': 'yaml', '.scxml': 'scxml' }[
    path.extname(out).toLowerCase()
  ];
  if (format === undefined)
    throw new Misuse(
      `-o ${out}: a document is written as .yaml or .json, its clips as .csv, its states as .scxml`,
    );
  return format;
}

/** A document with the clips of a table: fields that the table says are changed, all others and comments are kept. */
function takeOver(text: string, table: ReturnType<typeof readClipTable>): string {
  const tree = parseDocument(text);
  for (const [name, clip] of table) {
    // A table that says one of the three ways of timing does not mean another that stood there before.
    if (timing.some((field) => clip[field] !== undefined))
      for (const field of timing)
        if (tree.hasIn(['clips', name, field])) tree.deleteIn(['clips', name, field]);
    if (!tree.hasIn(['clips', name])) tree.setIn(['clips', name], tree.createNode(clip, { flow: true }));
    else
      for (const [field, value] of Object.entries(clip))
        if (!same(tree.getIn(['clips', name, field]), value))
          tree.setIn(['clips', name, field], tree.createNode(value, { flow: true }));
  }
  return tree.toString({ lineWidth: 0 });
}

/** Whether a node of the document already says a value, so that its way of writing can stay. */
function same(node: unknown, value: unknown): boolean {
  return JSON.stringify(isNode(node) ? node.toJSON() : node) === JSON.stringify(value);
}
