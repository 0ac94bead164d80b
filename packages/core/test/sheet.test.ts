import fc from 'fast-check';
import { compileController, poseOf, stampsOf } from 'dot-hop';
import type { SheetDefinition } from 'dot-hop';
import { findIslands, measureClips } from 'dot-hop/pixels';
import type { Picture } from 'dot-hop/pixels';

const cut = (
  sheet: SheetDefinition,
  images: Record<string, { width: number; height: number }> = { 'a.png': { width: 64, height: 32 } },
) =>
  compileController({ dotHop: 1, sheets: { a: sheet }, clips: { c: { cells: 0 } } }, { images }).sheets.get(
    'a',
  )!;
const rects = (sheet: SheetDefinition): number[][] =>
  cut(sheet).cells.map(({ x, y, width, height }) => [x, y, width, height]);

describe('cutting', () => {
  test('a grid has a margin, gaps, an offset and a count', () => {
    const grid = {
      cell: [10, 10] as const,
      margin: 1,
      gap: [2, 3] as const,
      offset: [3, 0] as const,
      count: 7,
    };
    expect(rects({ image: 'a.png', grid })).toEqual([
      [4, 1, 10, 10],
      [16, 1, 10, 10],
      [28, 1, 10, 10],
      [40, 1, 10, 10],
      [52, 1, 10, 10],
      [4, 14, 10, 10],
      [16, 14, 10, 10],
    ]);
  });

  test('rows and columns of a grid can be named', () => {
    const { clips } = compileController(
      {
        dotHop: 1,
        sheets: { a: { image: 'a.png', size: [64, 32], grid: { cell: [8, 8] } } },
        clips: { r: { cells: { row: 1, columns: '2-0' }, fps: 5 }, c: { cells: [{ column: 7 }, 0], fps: 5 } },
      },
      {},
    );
    expect(clips.get('r')!.cells.map(({ index }) => index)).toEqual([10, 9, 8]);
    expect(clips.get('c')!.cells.map(({ index }) => index)).toEqual([7, 15, 23, 31, 0]);
  });

  test('a trimmed cell is drawn where its untrimmed frame has it, mirrored too', () => {
    const [cell] = cut({ image: 'a.png', cells: [{ rect: [5, 5, 10, 6], trim: [3, 2, 20, 16] }] }).cells;
    expect(cell).toMatchObject({ frameWidth: 20, frameHeight: 16, pivotX: 10, pivotY: 16 });
    expect(stampsOf(poseOf(cell!, false))).toEqual([
      { cell, image: 'a.png', x: -7, y: -14, flipX: false, flipY: false },
    ]);
    expect(stampsOf(poseOf(cell!, true))).toEqual([
      { cell, image: 'a.png', x: -3, y: -14, flipX: true, flipY: false },
    ]);
  });

  test('a sequence of images is a cell each; a cell is named by its sheet, not by its file', () => {
    const { cells } = cut(
      { images: ['x/one.png', 'two.png'] },
      { 'x/one.png': { width: 4, height: 5 }, 'two.png': { width: 6, height: 7 } },
    );
    expect(cells.map(({ name, image, width }) => [name, image, width])).toEqual([
      ['a-0', 'x/one.png', 4],
      ['a-1', 'two.png', 6],
    ]);
  });

  test('composed cells are drawn piece by piece, flipped either way', () => {
    const compose = [[{ cell: 0 }, { cell: 1, at: [8, 2] as const, flip: 'xy' as const }]];
    const [cell] = cut({ image: 'a.png', grid: { cell: [8, 8] }, compose, pivot: [8, 10] }).cells;
    expect([cell!.frameWidth, cell!.frameHeight]).toEqual([16, 10]);
    const drawn = stampsOf(poseOf(cell!, true)).map(({ cell: { index }, x, y, flipX, flipY }) => [
      index,
      x,
      y,
      flipX,
      flipY,
    ]);
    expect(drawn).toEqual([
      [0, 0, -10, true, false],
      [1, -8, -8, false, true],
    ]);
  });

  test('marks of a frame win over those of its clip, its cell and its sheet', () => {
    const { clips } = compileController({
      dotHop: 1,
      sheets: {
        a: {
          image: 'a.png',
          size: [64, 8],
          grid: { cell: [8, 8] },
          pivot: [4, 7],
          boxes: { body: [1, 1, 6, 6] },
          perCell: { 1: { pivot: [3, 7], points: { hand: [6, 2] } } },
        },
      },
      clips: {
        c: {
          cells: '0-2',
          fps: 5,
          boxes: { strike: [6, 2, 2, 2] },
          perFrame: { 2: { pivot: [0, 0], boxes: { body: [2, 2, 4, 4] } } },
        },
      },
    });
    const [first, second, third] = clips.get('c')!.frames;
    expect(first).toMatchObject({ pivotX: 4, boxes: { body: { x: 1 }, strike: { x: 6 } } });
    expect(second).toMatchObject({ pivotX: 3, points: { hand: { x: 6, y: 2 } } });
    expect(third).toMatchObject({ pivotX: 0, pivotY: 0, boxes: { body: { x: 2, width: 4 } } });
    expect(poseOf(second!, true).points.hand).toEqual({ x: -3, y: -5 });
  });

  test('the boxes of a mirrored pose are those of the mirrored picture', () => {
    fc.assert(
      fc.property(fc.nat(8), fc.nat(8), fc.nat(8), fc.nat(8), (x, width, pivot, y) => {
        const [cell] = cut({
          image: 'a.png',
          grid: { cell: [8, 8] },
          pivot: [pivot, 8],
          boxes: { b: [x, y, width, 2] },
        }).cells;
        const { x: left } = poseOf(cell!, true).boxes.b!;
        // In the flipped cell the box begins at 8 - x - width, and the pivot lies at 8 - pivot.
        expect(left).toBe(8 - x - width - (8 - pivot));
      }),
    );
  });

  test.each<[SheetDefinition, string]>([
    [{ image: 'a.png' }, 'a sheet is one "image" with a "grid" or with "cells", or a sequence of "images"'],
    [{ image: 'a.png', grid: { cell: [8, 8] }, cells: [] }, 'a sheet is one "image"'],
    [
      { image: 'a.png', cells: [[60, 0, 8, 8]] },
      'the rectangle [60,0,8,8] does not lie within the image of 64x32',
    ],
    [
      { image: 'a.png', cells: [{ rect: [0, 0, 8, 8], trim: [4, 0, 10, 10] }] },
      'does not fit into its untrimmed frame [4,0,10,10]',
    ],
    [{ image: 'a.png', grid: { cell: [8, 8], columns: 9 } }, 'where 8 columns and 4 rows fit'],
    [{ image: 'a.png', grid: { cell: [8.5, 8] } }, 'lengths are whole pixels'],
    [{ image: 'a.png', grid: { cell: [8, 8], gap: -1 } }, 'lengths are whole pixels'],
    [
      { image: 'a.png', grid: { cell: [8, 8] }, compose: [[{ cell: 99 }]] },
      'sheets.a.compose[0][0].cell: there is no cell 99',
    ],
    [{ image: 'a.png', grid: { cell: [8, 8] }, perCell: { 40: {} } }, 'there is no cell 40'],
    [{ image: 'b.png', grid: { cell: [8, 8] } }, 'the size of "b.png" is not known'],
  ])('%j is refused in words', (sheet, words) => {
    expect(() => cut(sheet)).toThrow(words);
  });
});

/** A picture from rows of text: any mark is ink of its own colour. */
function picture(...rows: string[]): Picture {
  const width = rows[0]!.length;
  const pixels = new Uint8Array(width * rows.length * 4);
  rows.forEach((row, y) => {
    Array.from(row).forEach((mark, x) => {
      if (mark !== '.') pixels.set([mark.charCodeAt(0), 0, 0, 255], (y * width + x) * 4);
    });
  });
  return { width, height: rows.length, pixels };
}

describe('islands', () => {
  test('are found by rows, diagonals and near parts joined, specks left out', () => {
    const found = findIslands(
      picture(
        '..aa..............bb',
        '.a..a.............bb',
        '..aa..x.............',
        '....................',
        '....................',
        'cc..........dd......',
        'cc.c.......d..d.....',
        'cc..........dd.....s',
      ),
      { near: 1 },
    );
    expect(found.boxes).toEqual([
      { x: 1, y: 0, width: 6, height: 3 },
      { x: 18, y: 0, width: 2, height: 2 },
      { x: 0, y: 5, width: 4, height: 3 },
      { x: 11, y: 5, width: 4, height: 3 },
    ]);
  });

  test('a grid is proposed where no drawing crosses its borders', () => {
    const row = '.aa..bb..cc..dd.';
    expect(findIslands(picture(row, row, row, row), { near: 0 }).grid).toEqual({ cell: [4, 4] });
  });

  test('every pixel of ink lies in a box, and no two boxes are near', () => {
    const marks = fc.array(fc.constantFrom('.', '.', '.', 'x'), { minLength: 12, maxLength: 12 });
    fc.assert(
      fc.property(fc.array(marks, { minLength: 9, maxLength: 9 }), (rows) => {
        const { boxes } = findIslands(picture(...rows.map((row) => row.join(''))), { near: 1, least: 1 });
        const inside = (x: number, y: number): number =>
          boxes.filter((b) => x >= b.x && x < b.x + b.width && y >= b.y && y < b.y + b.height).length;
        rows.forEach((row, y) =>
          row.forEach((mark, x) => expect(inside(x, y)).toBe(mark === 'x' ? 1 : inside(x, y))),
        );
        for (const [i, a] of boxes.entries())
          for (const b of boxes.slice(i + 1)) {
            const apart = Math.max(
              a.x - b.x - b.width,
              b.x - a.x - a.width,
              a.y - b.y - b.height,
              b.y - a.y - a.height,
            );
            expect(apart).toBeGreaterThan(1);
          }
      }),
    );
  });
});

describe('measuring', () => {
  const man = (over: number, left: number, wide = 4): string[] =>
    Array.from({ length: 13 }, (_, y) => {
      const body = y >= 3 + over && y < 10 + over;
      return body ? '.'.repeat(left) + 'm'.repeat(wide) + '.'.repeat(16 - left - wide) : '.'.repeat(16);
    });
  const sheetOf = (...cells: string[][]): Picture =>
    picture(...cells[0]!.map((_, y) => cells.map((cell) => cell[y]!).join('')));
  const found = (cells: string[][], more: object = {}, clips: object = {}): string[] => {
    const all = sheetOf(...cells);
    const controller = compileController(
      {
        dotHop: 1,
        sheets: { a: { image: 'a.png', grid: { cell: [16, 13] }, pivot: [8, 10], ...more } },
        clips: { walk: { cells: `0-${cells.length - 1}`, fps: 5 }, ...clips },
      },
      { images: { 'a.png': all } },
    );
    return measureClips([...controller.clips.values()], () => all).findings.map(
      ({ code, subject, frames, cells: numbers, pixels }) =>
        `${code} ${subject} [${frames}] [${numbers}] ${pixels}`,
    );
  };
  // Each a little different, so that they are not the same drawing.
  const steps = [0, 1, 2, 3, 4].map((i) =>
    man(0, 5, 4).map((row, y) => (y === 3 + i ? row.replace('m', 'n') : row)),
  );

  test('nothing on a sound clip', () => expect(found(steps)).toEqual([]));
  test('a foot line that moves', () =>
    expect(found([...steps.slice(0, 4), man(2, 5)])).toEqual(['foot-line walk [4] [4] 2']));
  test('a drawing that jumps aside and back', () =>
    expect(found([steps[0]!, man(0, 11), ...steps.slice(1)])).toEqual(['centre-jump walk [1] [1] 6']));
  test('a drawing that is suddenly wide', () =>
    expect(found([steps[0]!, man(0, 2, 10), ...steps.slice(1)])).toEqual(['width-jump walk [1] [1] 6']));
  test('an empty cell', () => expect(found([...steps, man(99, 5)])).toEqual(['cell-empty walk [5] [5] 0']));
  test('two equal cells', () => expect(found([...steps, steps[1]!])).toEqual(['cells-equal a [] [1,5] 0']));
  test('a drawing that its cell cuts off', () =>
    expect(found([...steps, man(0, 12)])).toEqual(['cell-cut walk [5] [5] 0']));
  test('a box of another size', () =>
    expect(
      found(steps, { boxes: { body: [5, 3, 4, 7] }, perCell: { 2: { boxes: { body: [5, 3, 6, 7] } } } }),
    ).toEqual(['box-differs walk [2] [2] 0']));
  test('a clip that stands two pixels off the others', () => {
    const low = steps.slice(0, 2).map((cell) => ['.'.repeat(16), '.'.repeat(16), ...cell.slice(0, 11)]);
    const clips = {
      walk: { cells: '0-2', fps: 5 },
      run: { cells: '3-4', fps: 5 },
      low: { cells: '5-6', fps: 5 },
    };
    expect(found([...steps, ...low], {}, clips)).toEqual(['clip-foot-line low [0,1] [5,6] 2']);
  });
  test('frames of different sizes', () => {
    const more = {
      grid: undefined,
      cells: [
        [0, 0, 16, 13],
        [16, 0, 16, 13],
        [32, 0, 16, 12],
      ],
      pivot: [8, 10],
    };
    expect(found(steps.slice(0, 3), more)).toEqual(['cell-size walk [2] [2] 0']);
  });
});
