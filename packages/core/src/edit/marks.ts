import type { ControllerDefinition } from '../controller/definition.js';
import type { BoxDefinition, MarksDefinition } from '../sheet/definition.js';
import type { Change } from './change.js';
import type { Edit } from './history.js';

/* Pivots, boxes and points of cells. What all cells of a sheet have in common stands once, at the sheet. */

type Point = readonly [number, number];

const cellsText = (cells: readonly number[], sheet: string): string =>
  cells.length === 1 ? `cell ${cells[0]!} of ${sheet}` : `${cells.length} cells of ${sheet}`;

type Sheets = Pick<ControllerDefinition, 'sheets'>;

/** Puts one mark on cells. One that all cells share stands at the sheet; one that is the sheet's own is not written again. */
function placeOn(
  { sheets }: Sheets,
  sheet: string,
  field: readonly ['pivot'] | readonly ['boxes' | 'points', string],
  places: Readonly<Record<number, BoxDefinition | Point>>,
  count: number,
): Change[] {
  const cells = Object.keys(places).map(Number);
  const { perCell = {}, ...own } = sheets[sheet]!;
  const [kind, name = ''] = field;
  const said = (marks: MarksDefinition | undefined): string | undefined =>
    (kind === 'pivot' ? marks?.pivot : marks?.[kind]?.[name])?.join();
  const [first] = cells;
  const isShared = cells.every((cell) => places[cell]!.join() === places[first!]!.join());
  if (cells.length === count && isShared)
    return [
      ...Object.keys(perCell).flatMap((cell) => dropMark(perCell, sheet, cell, field)),
      { op: 'set', path: ['sheets', sheet, ...field], value: places[first!] },
    ];
  return cells.flatMap((cell): Change[] => {
    const at = places[cell]!;
    if (said(perCell[cell]) === at.join()) return [];
    if (said(own) === at.join()) return dropMark(perCell, sheet, String(cell), field);
    return [{ op: 'set', path: ['sheets', sheet, 'perCell', cell, ...field], value: at }];
  });
}

/**
 * Sets pivots of single cells, in pixels from the upper left of their frames. A pivot that equals the sheet's is not written.
 *
 * @param count the number of cells of the sheet. A pivot that all of them share is written at the sheet
 */
export const placePivots = (
  definition: Sheets,
  sheet: string,
  pivots: Readonly<Record<number, Point>>,
  count: number,
): Edit => ({
  says: `place the feet of ${cellsText(Object.keys(pivots).map(Number), sheet)}`,
  changes: placeOn(definition, sheet, ['pivot'], pivots, count),
});

/** Takes one mark of a cell away, and the cell's entry when nothing else stands in it. */
function dropMark(
  perCell: NonNullable<ControllerDefinition['sheets'][string]['perCell']>,
  sheet: string,
  cell: string,
  field: readonly string[],
): Change[] {
  const sizes: number[] = [];
  let inner: unknown = perCell[cell];
  for (const name of field) {
    if (typeof inner !== 'object' || inner === null || !Object.hasOwn(inner, name)) return [];
    sizes.push(Object.keys(inner).length);
    inner = (inner as Record<string, unknown>)[name];
  }
  // As far out as there is nothing beside what goes.
  let keep = field.length;
  while (keep > 0 && sizes[keep - 1] === 1) keep--;
  return [{ op: 'remove', path: ['sheets', sheet, 'perCell', cell, ...field.slice(0, keep)] }];
}

/**
 * Puts a box or a point on cells of a sheet.
 *
 * @param count the number of cells of the sheet. What all of them share is written at the sheet
 */
export const placeMark = (
  definition: Sheets,
  sheet: string,
  kind: 'boxes' | 'points',
  name: string,
  places: Readonly<Record<number, BoxDefinition | Point>>,
  count: number,
): Edit => ({
  says: `place ${name} on ${cellsText(Object.keys(places).map(Number), sheet)}`,
  changes: placeOn(definition, sheet, [kind, name], places, count),
});

/** Removes a box or a point from cells of a sheet. What the sheet says for all its cells stays. */
export function removeMark(
  { sheets }: ControllerDefinition,
  sheet: string,
  kind: 'boxes' | 'points',
  name: string,
  cells: readonly number[],
): Edit {
  const { perCell = {} } = sheets[sheet]!;
  return {
    says: `take ${name} off ${cellsText(cells, sheet)}`,
    changes: cells.flatMap((cell) => dropMark(perCell, sheet, String(cell), [kind, name])),
  };
}

/** Copies the marks of one cell to others. */
export function copyMarks(
  { sheets }: ControllerDefinition,
  sheet: string,
  from: number,
  to: readonly number[],
): Edit {
  const marks: MarksDefinition = sheets[sheet]!.perCell?.[from] ?? {};
  return {
    says: `copy the marks of cell ${from} to ${cellsText(to, sheet)}`,
    changes: to
      .filter((cell) => cell !== from)
      .map((cell) =>
        Object.keys(marks).length === 0
          ? { op: 'remove', path: ['sheets', sheet, 'perCell', cell] }
          : { op: 'set', path: ['sheets', sheet, 'perCell', cell], value: marks },
      ),
  };
}

/**
 * Interpolates places between a first and a last one, in whole pixels, for the cells between them.
 *
 * @returns a place for each cell; the ends are as given
 */
export function between<T extends readonly number[]>(
  cells: readonly number[],
  first: T,
  last: T,
): Record<number, T> {
  return Object.fromEntries(
    cells.map((cell, i) => {
      const share = cells.length < 2 ? 0 : i / (cells.length - 1);
      return [cell, first.map((from, n) => Math.round(from + (last[n]! - from) * share)) as unknown as T];
    }),
  );
}
