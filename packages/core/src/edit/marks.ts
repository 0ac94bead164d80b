import type { ControllerDefinition } from '../controller/definition.js';
import type { BoxDefinition, MarksDefinition } from '../sheet/definition.js';
import type { Change } from './change.js';
import type { Edit } from './history.js';

/* Pivots, boxes and points of cells. What all cells of a sheet have in common stands once, at the sheet. */

type Point = readonly [number, number];

const cellsText = (cells: readonly number[], sheet: string): string =>
  cells.length === 1 ? `cell ${cells[0]!} of ${sheet}` : `${cells.length} cells of ${sheet}`;

/**
 * Pivots of single cells, in pixels from the upper left of their frames. A pivot that is the sheet's own is not written again.
 *
 * @param count how many cells the sheet has: one that all of them share stands at the sheet
 */
export function placePivots(
  { sheets }: ControllerDefinition,
  sheet: string,
  pivots: Readonly<Record<number, Point>>,
  count: number,
): Edit {
  const cells = Object.keys(pivots).map(Number);
  const { pivot, perCell = {} } = sheets[sheet]!;
  const says = `place the feet of ${cellsText(cells, sheet)}`;
  const shared =
    new Set(Object.values(pivots).map((at) => at.join())).size === 1 ? pivots[cells[0]!] : undefined;
  if (cells.length === count && shared !== undefined) {
    const own = Object.keys(perCell).filter((cell) => perCell[cell]!.pivot !== undefined);
    return {
      says,
      changes: [
        ...own.flatMap((cell) => dropMark(perCell, sheet, cell, ['pivot'])),
        { op: 'set', path: ['sheets', sheet, 'pivot'], value: shared },
      ],
    };
  }
  return {
    says,
    changes: cells.flatMap((cell): Change[] => {
      const at = pivots[cell]!;
      if (perCell[cell]?.pivot?.join() === at.join()) return [];
      if (pivot?.join() === at.join()) return dropMark(perCell, sheet, String(cell), ['pivot']);
      return [{ op: 'set', path: ['sheets', sheet, 'perCell', cell, 'pivot'], value: at }];
    }),
  };
}

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

/** Puts a box or a point on cells of a sheet. */
export function placeMark(
  sheet: string,
  kind: 'boxes' | 'points',
  name: string,
  places: Readonly<Record<number, BoxDefinition | Point>>,
): Edit {
  const cells = Object.keys(places).map(Number);
  return {
    says: `place ${name} on ${cellsText(cells, sheet)}`,
    changes: cells.map((cell) => ({
      op: 'set',
      path: ['sheets', sheet, 'perCell', cell, kind, name],
      value: places[cell],
    })),
  };
}

/** Takes a box or a point off cells of a sheet. What the sheet says for all of its cells stays. */
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

/** Gives cells the marks of another one. */
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
 * Places between a first and a last one, in whole pixels, for the cells that lie between them in order.
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
