import type { GridDefinition } from '../sheet/definition.js';
import type { Box } from '../sheet/sheet.js';
import type { Picture } from './picture.js';

/** Options for finding islands. */
export interface IslandOptions {
  /** Drawings whose boxes are at most so many pixels apart count as one: a spark beside its lantern. Default 2. */
  readonly near?: number;
  /** An island of fewer pixels, with nothing near it, is left out as a speck. Default 4. */
  readonly least?: number;
}

/** The islands of a sheet. */
export interface Islands {
  /** The boxes of the drawings, row by row from the top, and in each row from the left. */
  readonly boxes: readonly Box[];
  /** The number of drawings in each row. */
  readonly rows: readonly number[];
  /**
   * A grid in which no drawing crosses a border. If several fit, it is the finest of those with drawings in at least half of their cells.
   * `undefined` if none fits.
   */
  readonly grid: GridDefinition | undefined;
}

interface Area extends Box {
  readonly count: number;
}

/** Finds the drawings of a sheet by the transparent gaps between them. Pixels that touch at a corner belong together. */
export function findIslands(picture: Picture, { near = 2, least = 4 }: IslandOptions = {}): Islands {
  const areas = connectedAreas(picture);
  const rows = inRows(mergeNear(areas, near).filter(({ count }) => count >= least));
  const boxes = rows.flat();
  return {
    rows: rows.map(({ length }) => length),
    boxes: boxes.map(({ x, y, width, height }) => ({ x, y, width, height })),
    grid: findGrid(picture, boxes),
  };
}

/** Boxes of connected pixels: runs of each row joined to those they touch in the row above (union-find). */
function connectedAreas({ width, height, pixels }: Picture): Area[] {
  const parents: number[] = [];
  const runs: { row: number; from: number; to: number }[] = [];
  const find = (run: number): number => {
    let root = run;
    while (parents[root] !== root) root = parents[root]!;
    while (parents[run] !== root) [run, parents[run]] = [parents[run]!, root];
    return root;
  };
  let above = 0;
  let aboveEnd = 0;
  for (let row = 0; row < height; row++) {
    const first = runs.length;
    let candidate = above;
    for (let x = 0; x < width; x++) {
      if (pixels[(row * width + x) * 4 + 3] === 0) continue;
      const from = x;
      while (x < width && pixels[(row * width + x) * 4 + 3] !== 0) x++;
      const run = runs.push({ row, from, to: x - 1 }) - 1;
      parents.push(run);
      while (candidate < aboveEnd && runs[candidate]!.to < from - 1) candidate++;
      for (let other = candidate; other < aboveEnd && runs[other]!.from <= x; other++)
        parents[find(other)] = find(run);
    }
    above = first;
    aboveEnd = runs.length;
  }
  const areas = new Map<
    number,
    { left: number; right: number; top: number; bottom: number; count: number }
  >();
  runs.forEach(({ row, from, to }, run) => {
    const root = find(run);
    const area = areas.get(root) ?? { left: from, right: to, top: row, bottom: row, count: 0 };
    area.left = Math.min(area.left, from);
    area.right = Math.max(area.right, to);
    area.bottom = row;
    area.count += to - from + 1;
    areas.set(root, area);
  });
  return [...areas.values()].map(({ left, right, top, bottom, count }) => {
    return { x: left, y: top, width: right - left + 1, height: bottom - top + 1, count };
  });
}

const apart = (a: Box, b: Box): number =>
  Math.max(a.x - b.x - b.width, b.x - a.x - a.width, a.y - b.y - b.height, b.y - a.y - a.height);

const around = (a: Area, b: Area): Area => {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  const width = Math.max(a.x + a.width, b.x + b.width) - x;
  const height = Math.max(a.y + a.height, b.y + b.height) - y;
  return { x, y, width, height, count: a.count + b.count };
};

/** Joins boxes that overlap or are near, until none are. */
function mergeNear(areas: readonly Area[], near: number): Area[] {
  const done: Area[] = [];
  const open = [...areas].sort((a, b) => b.count - a.count);
  while (open.length > 0) {
    let area = open.shift()!;
    for (let grown = true; grown;) {
      grown = false;
      for (let i = open.length - 1; i >= 0; i--) {
        if (apart(area, open[i]!) > near) continue;
        area = around(area, open.splice(i, 1)[0]!);
        grown = true;
      }
      for (let i = done.length - 1; i >= 0; i--) {
        if (apart(area, done[i]!) > near) continue;
        area = around(area, done.splice(i, 1)[0]!);
        grown = true;
      }
    }
    done.push(area);
  }
  return done;
}

/** A row is what overlaps, in height, the first drawing that is not yet in one. */
function inRows(areas: readonly Area[]): Area[][] {
  const open = [...areas].sort((a, b) => a.y - b.y);
  const rows: Area[][] = [];
  while (open.length > 0) {
    const first = open[0]!;
    let bottom = first.y + first.height;
    const row: Area[] = [];
    for (let i = 0; i < open.length;) {
      const area = open[i]!;
      if (area.y + area.height / 2 >= bottom) i++;
      else {
        row.push(...open.splice(i, 1));
        bottom = Math.max(bottom, area.y + area.height);
      }
    }
    rows.push(row.sort((a, b) => a.x - b.x));
  }
  return rows;
}

function findGrid({ width, height }: Picture, boxes: readonly Box[]): GridDefinition | undefined {
  if (boxes.length === 0) return undefined;
  const parts = (length: number): number[] => {
    const counts = Array.from({ length: Math.min(128, Math.floor(length / 4)) }, (_, i) => i + 1);
    return counts.filter((count) => length % count === 0).map((count) => length / count);
  };
  const crosses = (from: number, size: number, cell: number): boolean =>
    Math.floor(from / cell) !== Math.floor((from + size - 1) / cell);
  const across = parts(width).filter((cell) => !boxes.some(({ x, width: w }) => crosses(x, w, cell)));
  const down = parts(height).filter((cell) => !boxes.some(({ y, height: h }) => crosses(y, h, cell)));
  const options = across.flatMap((w) => down.map((h) => ({ w, h, cells: (width / w) * (height / h) })));
  const finest = options
    .sort((a, b) => b.cells - a.cells)
    .find(({ w, h, cells }) => {
      const full = new Set(boxes.map(({ x, y }) => `${Math.floor(x / w)} ${Math.floor(y / h)}`));
      // One that has several drawings in most of its cells, or is the whole image, cuts nothing.
      return cells > 1 && full.size * 2 >= cells && full.size * 3 >= boxes.length * 2;
    });
  return finest && { cell: [finest.w, finest.h] };
}
