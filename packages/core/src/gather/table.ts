import type { ClipDefinition } from '../clip/definition.js';
import type { RectangleDefinition } from '../sheet/definition.js';
import { clipsOfNames, plainClip } from './sequence.js';

/** The rows of a table. Each is a record of fields by the names of the columns. */
export type TableRows = readonly Readonly<Record<string, string>>[];

/** The fields that a table of rectangles may have. The last four give the untrimmed frame: a table has all four or none. */
export const tableFields = [
  'x',
  'y',
  'width',
  'height',
  'left',
  'top',
  'frameWidth',
  'frameHeight',
  'name',
] as const;
export type TableField = (typeof tableFields)[number];

/** The column of each field. */
export type TableColumns = Readonly<Partial<Record<TableField, string>>>;

/** Why a table cannot be used. */
export type TableFault =
  | {
      readonly kind: 'no-column';
      readonly field: TableField;
      readonly column: string;
      readonly known: readonly string[];
    }
  /** `line` counts from 1, with that of the names. */
  | { readonly kind: 'no-pixels'; readonly line: number; readonly column: string; readonly received: string };

/** A sheet as a table cuts it. */
export interface TableCut {
  readonly cells: readonly RectangleDefinition[];
  readonly clips: Readonly<Record<string, ClipDefinition>>;
}

const rectFields = ['x', 'y', 'width', 'height'] as const;
const trimFields = ['left', 'top', 'frameWidth', 'frameHeight'] as const;

/**
 * Cuts a sheet by the rectangles of a table. A column of names says to which clip each rectangle belongs; without it all become one clip.
 *
 * @param rows at least one
 * @param columns the column of each field. Default: the field's own name, if the table has such a column
 */
export function cutByTable(rows: TableRows, columns: TableColumns): TableCut | TableFault {
  const known = Object.keys(rows[0] ?? {});
  const columnOf = (field: TableField): string => columns[field] ?? field;
  const has = (field: TableField): boolean => known.includes(columnOf(field));
  const isNeeded = (field: TableField): boolean =>
    (rectFields as readonly string[]).includes(field) || (field === 'name' && columns.name !== undefined);
  const missing = tableFields.find((field) => isNeeded(field) && !has(field));
  if (missing !== undefined) return { kind: 'no-column', field: missing, column: columnOf(missing), known };
  const isTrimmed = trimFields.every(has);
  const cells: RectangleDefinition[] = [];
  for (const [i, row] of rows.entries()) {
    const numbers: number[] = [];
    for (const field of isTrimmed ? [...rectFields, ...trimFields] : rectFields) {
      const received = row[columnOf(field)] ?? '';
      if (received === '' || !Number.isInteger(Number(received)))
        return { kind: 'no-pixels', line: i + 2, column: columnOf(field), received };
      numbers.push(Number(received));
    }
    const [rect, trim] = [numbers.slice(0, 4), numbers.slice(4)] as unknown as [Four, Four];
    cells.push(isTrimmed ? { rect, trim } : rect);
  }
  const clips = has('name')
    ? clipsOfNames(rows.map((row, i) => (row[columnOf('name')] ?? '') || `cell-${i}`))
    : { all: plainClip(cells.map((_, i) => i)) };
  return { cells, clips };
}

type Four = readonly [number, number, number, number];

/** What most tables call their columns. */
const usualNames: Readonly<Partial<Record<TableField, RegExp>>> = {
  x: /^(?:x|left|frame\.?x)$/i,
  y: /^(?:y|top|frame\.?y)$/i,
  width: /^(?:w|width)$/i,
  height: /^(?:h|height)$/i,
  name: /^(?:name|id|file|filename|frame|title)$/i,
};

/** Guesses the columns of a table by their names. */
export function guessedColumns(rows: TableRows): TableColumns {
  const known = Object.keys(rows[0] ?? {});
  return Object.fromEntries(
    Object.entries(usualNames).flatMap(([field, pattern]) => {
      const column = known.find((name) => pattern.test(name));
      return column === undefined ? [] : [[field, column]];
    }),
  );
}
