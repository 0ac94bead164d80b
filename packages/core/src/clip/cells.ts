/** A row or column of a grid, whole or in part. */
export type LineDefinition =
  | { row: number; columns?: string | number | undefined }
  | { column: number; rows?: string | number | undefined };

type CellsPart = number | string | LineDefinition;

/** Cells as a document writes them: `5`, `"0-7"`, `"7-0"`, `{ row: 2 }`, or a list of these. */
export type CellsDefinition = CellsPart | readonly CellsPart[];

/** The most cells one range may name, so that a slip of the hand cannot fill the memory. */
const mostCells = 100_000;

/** The numbers of `5`, `0-7` or `7-0`; `undefined` where it is not written so. */
function readRange(text: string | number): number[] | undefined {
  const range = /^\s*(\d+)\s*(?:-\s*(\d+)\s*)?$/.exec(String(text));
  if (range === null) return undefined;
  const first = Number(range[1]);
  const last = Number(range[2] ?? range[1]);
  if (Math.abs(last - first) >= mostCells) return undefined;
  const step = last >= first ? 1 : -1;
  return Array.from({ length: Math.abs(last - first) + 1 }, (_, i) => first + i * step);
}

/**
 * The cell numbers that a definition stands for.
 *
 * @param columns how many cells of the sheet are in a row
 * @param count how many cells the sheet has
 * @returns the numbers in order, including numbers that the sheet does not have; `undefined` if the definition is not written as cells are
 */
export function cellNumbers(cells: CellsDefinition, columns: number, count: number): number[] | undefined {
  const numbers: number[] = [];
  for (const part of Array.isArray(cells) ? (cells as readonly CellsPart[]) : [cells as CellsPart]) {
    const found =
      typeof part === 'object' ? readLine(part, columns, Math.ceil(count / columns)) : readRange(part);
    if (found === undefined) return undefined;
    numbers.push(...found);
  }
  return numbers;
}

function readLine(line: LineDefinition, columns: number, rows: number): number[] | undefined {
  const number = 'row' in line ? line.row : line.column;
  if (!Number.isInteger(number) || number < 0) return undefined;
  if ('row' in line)
    return readRange(line.columns ?? `0-${columns - 1}`)?.map((column) => line.row * columns + column);
  return readRange(line.rows ?? `0-${rows - 1}`)?.map((row) => row * columns + line.column);
}

/** Writes cell numbers briefly, with ranges: `["0-3", 7]`. */
export function writeCells(numbers: readonly number[]): number | string | (number | string)[] {
  const parts: (number | string)[] = [];
  for (let i = 0; i < numbers.length;) {
    const first = numbers[i]!;
    const step = (numbers[i + 1] ?? first) - first;
    let end = i;
    while (Math.abs(step) === 1 && numbers[end + 1] === numbers[end]! + step) end++;
    parts.push(end > i ? `${first}-${numbers[end]!}` : first);
    i = end + 1;
  }
  return parts.length === 1 ? parts[0]! : parts;
}

/** A range of frames, both ends included. */
export interface FrameRange {
  readonly first: number;
  readonly last: number;
}

/** Reads `2-3` or `4` as a range of frames; `undefined` when it is not one. */
export function readFrameRange(text: string | number): FrameRange | undefined {
  const range = readRange(text);
  if (range === undefined) return undefined;
  const [first, last] = [range[0]!, range[range.length - 1]!];
  return last < first ? undefined : { first, last };
}
