import Table from 'cli-table3';
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { Misuse } from '../misuse.js';
import type { Output } from './command.js';

const none = '';
const chars = {
  top: none,
  'top-mid': none,
  'top-left': none,
  'top-right': none,
  bottom: none,
  'bottom-mid': none,
  'bottom-left': none,
  'bottom-right': none,
  left: none,
  'left-mid': none,
  mid: none,
  'mid-mid': none,
  right: none,
  'right-mid': none,
  middle: '  ',
};

/** Prints rows in columns; columns of numbers are set to the right. */
export function printTable(
  output: Output,
  head: readonly string[],
  rows: readonly (readonly (string | number)[])[],
): void {
  const table = new Table({
    chars,
    head: head.map((text) => output.paint.dim(text)),
    colAligns: head.map((_, i) => (rows.every((row) => typeof row[i] === 'number') ? 'right' : 'left')),
    style: { 'padding-left': 0, 'padding-right': 0, head: [], border: [] },
  });
  table.push(...rows.map((row) => [...row]));
  for (const line of table.toString().split('\n')) output.line(line.trimEnd());
}

/** Rows as CSV (RFC 4180, with line feeds alone). */
export const csv = (head: readonly string[], rows: readonly (readonly (string | number)[])[]): string =>
  stringify([head, ...rows], { eof: false });

/**
 * Reads a CSV table whose first line names its columns.
 *
 * @throws {Misuse} when it is none, or has no rows
 */
export function readCsv(text: string, file: string): Record<string, string>[] {
  let rows: Record<string, string>[];
  try {
    rows = parse(text, { columns: true, skip_empty_lines: true, trim: true, bom: true });
  } catch (error) {
    // The package quotes the text, which may be that of a picture.
    const reason = (error instanceof Error ? error.message : String(error)).split(',')[0]!.slice(0, 120);
    throw new Misuse(`${file}: it is not a CSV table: ${reason}`);
  }
  if (rows.length === 0) throw new Misuse(`${file}: the table has no rows`);
  return rows;
}
