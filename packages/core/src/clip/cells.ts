/** Cells as a document writes them: `5`, `"0-7"`, `"7-0"`, or a list of these. */
export type CellsDefinition = number | string | readonly (number | string)[];

/**
 * The cell numbers a text or list stands for.
 *
 * @returns the numbers in order, or `undefined` where it is not written as cells are
 */
export function readCells(cells: CellsDefinition): number[] | undefined {
  const numbers: number[] = [];
  for (const part of Array.isArray(cells)
    ? (cells as readonly (number | string)[])
    : [cells as number | string]) {
    const range = /^\s*(\d+)\s*(?:-\s*(\d+)\s*)?$/.exec(String(part));
    if (range === null) return undefined;
    const first = Number(range[1]);
    const last = Number(range[2] ?? range[1]);
    if (Math.abs(last - first) >= mostCells) return undefined;
    const step = last >= first ? 1 : -1;
    for (let cell = first; cell !== last + step; cell += step) numbers.push(cell);
  }
  return numbers;
}

/** The most cells one range may name, so that a slip of the hand cannot fill the memory. */
const mostCells = 100_000;

/** A range of frames, both ends included. */
export interface FrameRange {
  readonly first: number;
  readonly last: number;
}

/** Reads `2-3` or `4` as a range of frames; `undefined` when it is not one. */
export function readFrameRange(text: string | number): FrameRange | undefined {
  const range = /^\s*(\d+)\s*(?:-\s*(\d+)\s*)?$/.exec(String(text));
  if (range === null) return undefined;
  const first = Number(range[1]);
  const last = Number(range[2] ?? range[1]);
  return last < first ? undefined : { first, last };
}
