import fc from 'fast-check';
import { compileController } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import { measureParts } from 'dot-hop/pixels';
import type { PartFinding, Picture } from 'dot-hop/pixels';

/** Cells of 8 x 8, four in a row. The body rests in cell 0 or walks in cell 1; the arms swing in cell 2, hung by the waist. */
const define = (pivot: [number, number], waist: [number, number]): ControllerDefinition => ({
  dotHop: 1,
  sheets: {
    w: {
      image: 'w.png',
      size: [32, 8],
      grid: { cell: [8, 8] },
      pivot,
      points: { waist: [4, 4] },
      perCell: { 1: { points: { waist } } },
      parts: { legs: 'legs.png', arms: { image: 'arms.png', joint: 'waist' } },
    },
  },
  clips: { stand: { cells: 0 }, walk: { cells: 1 }, swing: { cells: 2, loop: 'once' } },
  signals: { moving: { flag: false }, swing: { pulse: true } },
  states: { stand: { shows: 'stand' }, walk: { shows: 'walk', while: 'moving', priority: 1 } },
  rest: 'stand',
  tracks: {
    arms: {
      draws: ['arms'],
      states: { along: { inStep: 'body' }, swing: { shows: 'swing', when: 'swing', priority: 1 } },
    },
  },
});

/** A picture of the size of the sheet in which some pixels are drawn, each with a colour. */
function drawn(...pixels: readonly (readonly [x: number, y: number, colour: number])[]): Picture {
  const picture = { width: 32, height: 8, pixels: new Uint8Array(32 * 8 * 4) };
  for (const [x, y, colour] of pixels)
    picture.pixels.set([colour >> 16, (colour >> 8) & 255, colour & 255, 255], (y * 32 + x) * 4);
  return picture;
}

const legs = 0x223344;
const arms = 0xaa8866;
/** Legs at 4,5 of each cell, arms at 4,4 above them. */
const cells = [0, 8, 16, 24];
const sound = {
  'w.png': drawn(...cells.flatMap((x) => [[x + 4, 5, legs] as const, [x + 4, 4, arms] as const])),
  'legs.png': drawn(...cells.map((x) => [x + 4, 5, legs] as const)),
  'arms.png': drawn(...cells.map((x) => [x + 4, 4, arms] as const)),
};

function found(
  images: Readonly<Record<string, Picture>>,
  waist: [number, number] = [4, 4],
  pivot: [number, number] = [4, 8],
): PartFinding[] {
  return measureParts(compileController(define(pivot, waist)), (image) => images[image]!);
}

test('a drawing without the point by which a part hangs is told, of the body and of the track that draws the part', () => {
  const told = (...cells: readonly number[]): unknown[] => {
    const { sheets, ...rest } = define([4, 8], [4, 4]);
    const points = { waist: [4, 4] as const };
    const perCell = Object.fromEntries(cells.map((cell) => [cell, { points }]));
    const w = { ...sheets.w!, points: {}, perCell };
    return checkController(compileController({ ...rest, sheets: { w } }))
      .findings.filter(({ code }) => code === 'joint-missing')
      .map(({ path, values }) => [path.join('.'), values.clips]);
  };
  expect(told(0, 1, 2)).toEqual([]);
  expect(told(0, 1)).toEqual([['sheets.w.parts.arms', ['swing']]]);
  expect(told(0, 2)).toEqual([['sheets.w.parts.arms', ['walk']]]);
  expect(told()).toEqual([['sheets.w.parts.arms', ['stand', 'walk', 'swing']]]);
});

test('parts that make up the drawing and touch are not found, wherever the pivot is', () => {
  expect(found(sound)).toEqual([]);
  expect(found(sound, [4, 4], [4.5, 7.25])).toEqual([]);
});

test('parts that are not the drawing are found, with the cells and how many pixels differ', () => {
  const bent = drawn([4, 4, arms], [12, 4, arms], [21, 4, arms], [28, 4, arms]);
  const [differ, ...others] = found({ ...sound, 'arms.png': bent });
  expect(others).toEqual([]);
  expect(differ).toMatchObject({ code: 'parts-differ', path: ['sheets', 'w', 'parts'] });
  expect(differ!.text).toContain('in cell 2 (up to 2 pixels differ)');
  // The front part is what is seen, and another colour is another look.
  const hidden = {
    ...sound,
    'legs.png': drawn(...cells.flatMap((x) => [[x + 4, 5, legs] as const, [x + 4, 4, 1] as const])),
  };
  expect(found(hidden)).toEqual([]);
  const pale = { ...sound, 'legs.png': drawn(...cells.map((x) => [x + 4, 5, legs + 1] as const)) };
  expect(found(pale).map(({ text }) => /up to \d+/.exec(text)?.[0])).toEqual(['up to 1']);
});

test('parts of two tracks that leave a gap are found, with its width, where the joint is off', () => {
  // Cornerwise is near enough.
  for (const waist of [
    [3, 4],
    [5, 4],
    [4, 5],
  ] as const)
    expect(found(sound, [...waist])).toEqual([]);
  fc.assert(
    fc.property(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 }), (right, up) => {
      const gap = Math.max(Math.abs(right), Math.abs(-1 - up)) - 1;
      const apart = found(sound, [4 + right, 4 - up]);
      if (gap <= 0) expect(apart).toEqual([]);
      else {
        expect(apart.map(({ code, path }) => [code, path.join('.')])).toEqual([
          ['part-apart', 'tracks.arms.draws'],
        ]);
        expect(apart[0]!.text).toContain(`${gap} px in swing (cell 2) over walk (cell 1)`);
      }
    }),
  );
});
