import { cellNumbers } from 'dot-hop';
import { writeCells } from 'dot-hop/edit';
import type { ClipDefinition, Controller, ControllerDefinition } from 'dot-hop';
import { csv, readCsv } from './commands/table.js';
import { Misuse } from './misuse.js';

const fields = ['clip', 'sheet', 'cells', 'rows', 'every', 'fps', 'ms', 'lasts', 'loop', 'stride'] as const;

/** The clips of a document as a CSV table: one a row, ranges and lists parted by spaces. */
export function writeClipTable(definition: ControllerDefinition, controller: Controller): string {
  const rows = Object.entries(definition.clips).map(([name, clip]) => {
    const cells = writeNumbers(firstRow(name, clip, controller));
    const times = [clip.fps ?? '', [clip.ms ?? ''].flat().join(' '), clip.lasts ?? ''];
    const rows = writeRows(clip.rows);
    return [
      name,
      clip.sheet ?? '',
      cells,
      rows,
      clip.every ?? '',
      ...times,
      writeLoop(clip.loop),
      clip.stride ?? '',
    ];
  });
  return csv(fields, rows);
}

/** The cells of a clip, or of the first of its rows. */
function firstRow(name: string, { sheet, cells, rows }: ClipDefinition, controller: Controller): number[] {
  if (rows === undefined) return controller.clips.get(name)!.frames.map(({ index }) => index);
  const on = controller.sheets.get(sheet ?? [...controller.sheets.keys()][0]!)!;
  return cellNumbers(cells, on.columns, on.cells.length)!;
}

function writeNumbers(cells: readonly number[]): string {
  return [writeCells(cells)].flat().join(' ');
}

/** Directions from the first row down, or each with how many rows below it lies: `south=0 north=4`. */
function writeRows(rows: ClipDefinition['rows']): string {
  if (rows === undefined || Array.isArray(rows)) return (rows ?? []).join(' ');
  return Object.entries(rows)
    .map(([direction, row]) => `${direction}=${row}`)
    .join(' ');
}

function writeLoop(loop: ClipDefinition['loop']): string {
  if (loop === undefined) return '';
  return typeof loop === 'object' ? `from ${loop.from}` : String(loop);
}

/**
 * Reads a CSV table of clips.
 *
 * @returns for each clip the fields that its row says; an empty field says nothing
 * @throws {Misuse} naming the file, the line and the field
 */
export function readClipTable(text: string, file: string): Map<string, Partial<ClipDefinition>> {
  const clips = new Map<string, Partial<ClipDefinition>>();
  readCsv(text, file).forEach((row, i) => {
    const odd = Object.keys(row).find((column) => !(fields as readonly string[]).includes(column));
    if (odd !== undefined)
      throw new Misuse(
        `${file}:1 there is no field "${odd}" in a table of clips; it has ${fields.join(', ')}`,
      );
    const name = row.clip;
    if (!name) throw new Misuse(`${file}:${i + 2} clip: a row needs the name of a clip`);
    clips.set(name, readRow(row, `${file}:${i + 2}`));
  });
  return clips;
}

function readRow(row: Record<string, string>, at: string): Partial<ClipDefinition> {
  const clip: Partial<ClipDefinition> = {};
  const number = (field: string, text: string): number => {
    if (!Number.isFinite(Number(text)))
      throw new Misuse(`${at} ${field}: expected a number, not ${JSON.stringify(text)}`);
    return Number(text);
  };
  const cell = (text: string): number | string => (/^\d+$/.test(text) ? Number(text) : text);
  for (const field of fields) {
    const text = row[field] ?? '';
    if (text === '' || field === 'clip') continue;
    const parts = text.split(/\s+/);
    if (field === 'sheet') clip.sheet = text;
    else if (field === 'cells') clip.cells = parts.length === 1 ? cell(text) : parts.map(cell);
    else if (field === 'ms')
      clip.ms = parts.length === 1 ? number(field, text) : parts.map((part) => number(field, part));
    else if (field === 'rows')
      clip.rows = text.includes('=')
        ? Object.fromEntries(
            parts.map((part) => {
              const [direction, row = ''] = part.split('=');
              return [direction!, number(field, row)];
            }),
          )
        : parts;
    else if (field === 'loop') clip.loop = readLoop(text, at);
    else clip[field] = number(field, text);
  }
  return clip;
}

function readLoop(text: string, at: string): NonNullable<ClipDefinition['loop']> {
  const from = /^from (\d+)$/.exec(text);
  if (from !== null) return { from: Number(from[1]) };
  if (text === 'forever' || text === 'once' || text === 'back-and-forth') return text;
  if (/^\d+$/.test(text)) return Number(text);
  throw new Misuse(
    `${at} loop: expected forever, once, back-and-forth, a number of times or "from 2", not ${JSON.stringify(text)}`,
  );
}
