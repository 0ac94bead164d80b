import { cellNumbers, writeCells } from '../clip/cells.js';
import type { ControllerDefinition } from '../controller/definition.js';
import type {
  BoxDefinition,
  GridDefinition,
  RectangleDefinition,
  SheetDefinition,
} from '../sheet/definition.js';
import type { Change } from './change.js';
import { freeName, sheetOf } from './clips.js';
import type { SheetSize } from './frames.js';
import type { Edit } from './history.js';

/** Adds a sheet. */
export function addSheet(
  { sheets }: Pick<ControllerDefinition, 'sheets'>,
  name: string,
  sheet: SheetDefinition,
): Edit {
  const free = freeName(name, sheets);
  return { says: `add sheet ${free}`, changes: [{ op: 'set', path: ['sheets', free], value: sheet }] };
}

/** Removes a sheet. */
export const removeSheet = (sheet: string): Edit => ({
  says: `delete sheet ${sheet}`,
  changes: [{ op: 'remove', path: ['sheets', sheet] }],
});

/**
 * Cuts a sheet again, by a grid or by rectangles. Clips keep their cell numbers. The result lists clips that name cells which no longer
 * exist.
 */
export function cutSheet(
  { sheets }: ControllerDefinition,
  sheet: string,
  cut: { readonly grid: GridDefinition } | { readonly cells: readonly RectangleDefinition[] },
): Edit {
  const before = sheets[sheet]!;
  const [field, other] = 'grid' in cut ? (['grid', 'cells'] as const) : (['cells', 'grid'] as const);
  const value = 'grid' in cut ? plainGrid(cut.grid) : cut.cells;
  return {
    says: `cut ${sheet}`,
    changes: [
      ...(before[other] === undefined ? [] : [{ op: 'remove', path: ['sheets', sheet, other] } as const]),
      { op: 'set', path: ['sheets', sheet, field], value },
    ],
  };
}

/** A grid without what is as it would be anyway. */
function plainGrid({ cell, margin, gap, offset, ...rest }: GridDefinition): GridDefinition {
  const gaps = Array.isArray(gap) && gap[0] === gap[1] ? (gap[0] as number) : gap;
  return {
    cell,
    ...(margin === undefined || margin === 0 ? {} : { margin }),
    ...(gaps === undefined || gaps === 0 ? {} : { gap: gaps }),
    ...(offset === undefined || offset.every((one) => one === 0) ? {} : { offset }),
    ...rest,
  };
}

/** Rectangles in another order or number, with where each old one has gone. */
interface Recut {
  readonly cells: readonly RectangleDefinition[];
  /** The new number of each old cell; -1 for one that is gone. */
  readonly now: readonly number[];
}

export const rectOf = (cell: RectangleDefinition): BoxDefinition => ('rect' in cell ? cell.rect : cell);

/** Clips and marks of single cells go with their cells. */
function recut(definition: ControllerDefinition, sheet: string, says: string, { cells, now }: Recut): Edit {
  const { sheets, clips } = definition;
  const { perCell, cells: before = [] } = sheets[sheet]!;
  const size: SheetSize = { columns: before.length, count: before.length };
  const changes: Change[] = [{ op: 'set', path: ['sheets', sheet, 'cells'], value: cells }];
  if (perCell !== undefined) {
    const moved = Object.entries(perCell)
      .map(([cell, marks]) => [now[Number(cell)] ?? -1, marks] as const)
      .filter(([cell]) => cell >= 0)
      .sort((a, b) => a[0] - b[0]);
    const stays = Object.keys(perCell).every((cell) => now[Number(cell)] === Number(cell));
    if (!stays)
      changes.push(
        moved.length === 0
          ? { op: 'remove', path: ['sheets', sheet, 'perCell'] }
          : { op: 'set', path: ['sheets', sheet, 'perCell'], value: Object.fromEntries(moved) },
      );
  }
  for (const [name, clip] of Object.entries(clips)) {
    if (sheetOf(definition, clip) !== sheet) continue;
    const numbers = cellNumbers(clip.cells, size.columns, size.count);
    if (numbers === undefined) continue;
    const moved = numbers.map((number) => now[number] ?? number);
    if (moved.join() === numbers.join()) continue;
    const left = moved.filter((number) => number >= 0);
    // A clip of which nothing is left keeps its numbers, so that it is told and not lost.
    if (left.length > 0) changes.push({ op: 'set', path: ['clips', name, 'cells'], value: writeCells(left) });
  }
  return { says, changes };
}

/** Finds the clips that show any of some cells. */
export function clipsUsing(
  definition: ControllerDefinition,
  sheet: string,
  cells: readonly number[],
  { columns, count }: SheetSize,
): string[] {
  return Object.entries(definition.clips).flatMap(([name, clip]) => {
    if (sheetOf(definition, clip) !== sheet) return [];
    const numbers = cellNumbers(clip.cells, columns, count) ?? [];
    return numbers.some((number) => cells.includes(number)) ? [name] : [];
  });
}

/** Removes rectangles of a sheet. Clips lose the frames that show them. */
export function dropCells(definition: ControllerDefinition, sheet: string, gone: readonly number[]): Edit {
  const before = definition.sheets[sheet]!.cells ?? [];
  let next = 0;
  const now = before.map((_, i) => (gone.includes(i) ? -1 : next++));
  const says =
    gone.length === 1 ? `delete cell ${gone[0]!} of ${sheet}` : `delete ${gone.length} cells of ${sheet}`;
  return recut(definition, sheet, says, { cells: before.filter((_, i) => !gone.includes(i)), now });
}

/** Joins rectangles into the smallest one around them, in place of the first. */
export function joinCells(definition: ControllerDefinition, sheet: string, cells: readonly number[]): Edit {
  const before = definition.sheets[sheet]!.cells ?? [];
  const first = Math.min(...cells);
  const boxes = cells.map((cell) => rectOf(before[cell]!));
  const [x, y] = [Math.min(...boxes.map((box) => box[0])), Math.min(...boxes.map((box) => box[1]))];
  const right = Math.max(...boxes.map((box) => box[0] + box[2]));
  const below = Math.max(...boxes.map((box) => box[1] + box[3]));
  const joined: RectangleDefinition = [x, y, right - x, below - y];
  let next = 0;
  const places = before.map((_, i) => (cells.includes(i) && i !== first ? -1 : next++));
  return recut(definition, sheet, `join ${cells.length} cells of ${sheet}`, {
    cells: before.flatMap((cell, i) => (i === first ? [joined] : places[i]! < 0 ? [] : [cell])),
    now: places,
  });
}

/** Splits a rectangle in two at a line of the sheet's image. The second comes right behind the first. */
export function splitCell(
  definition: ControllerDefinition,
  sheet: string,
  cell: number,
  along: 'x' | 'y',
  at: number,
): Edit {
  const before = definition.sheets[sheet]!.cells ?? [];
  const [x, y, width, height] = rectOf(before[cell]!);
  const halves: RectangleDefinition[] =
    along === 'x'
      ? [
          [x, y, at - x, height],
          [at, y, x + width - at, height],
        ]
      : [
          [x, y, width, at - y],
          [x, at, width, y + height - at],
        ];
  return recut(definition, sheet, `split cell ${cell} of ${sheet}`, {
    cells: before.flatMap((one, i) => (i === cell ? halves : [one])),
    now: before.map((_, i) => (i > cell ? i + 1 : i)),
  });
}

/** Gives a rectangle another number. Those in between move up or down. */
export function moveCell(definition: ControllerDefinition, sheet: string, cell: number, to: number): Edit {
  const before = definition.sheets[sheet]!.cells ?? [];
  const order = before.map((_, i) => i);
  order.splice(to, 0, order.splice(cell, 1)[0]!);
  return recut(definition, sheet, `move cell ${cell} of ${sheet}`, {
    cells: order.map((i) => before[i]!),
    now: before.map((_, i) => order.indexOf(i)),
  });
}

/** Gives a rectangle another place or size. */
export function resizeCell(
  { sheets }: ControllerDefinition,
  sheet: string,
  cell: number,
  rect: BoxDefinition,
): Edit {
  const before = sheets[sheet]!.cells?.[cell];
  const isTrimmed = before !== undefined && 'rect' in before;
  const path = ['sheets', sheet, 'cells', cell, ...(isTrimmed ? ['rect'] : [])];
  return { says: `resize cell ${cell} of ${sheet}`, changes: [{ op: 'set', path, value: rect }] };
}
