import fc from 'fast-check';
import {
  clipNameOf,
  commonFeet,
  cutByTable,
  feetOf,
  gridFit,
  guessedColumns,
  quietLine,
  sequenceOf,
  strideOf,
} from 'dot-hop/gather';
import { groundOf, withoutGround } from 'dot-hop/pixels';
import type { Picture } from 'dot-hop/pixels';

/** A picture of letters: a point is transparent, others are colours. */
function picture(...rows: readonly string[]): Picture {
  const colours: Record<string, readonly number[]> = {
    '.': [0, 0, 0, 0],
    g: [10, 20, 30, 255],
    x: [200, 0, 0, 255],
  };
  return {
    width: rows[0]!.length,
    height: rows.length,
    pixels: Uint8Array.from(Array.from(rows.join('')).flatMap((one) => colours[one]!)),
  };
}

test('the feet are in the middle of what touches the lowest line', () => {
  const drawing = picture('..xx....', '..xxx...', '..x.xx..', '........');
  expect(feetOf(drawing, { x: 0, y: 0, width: 8, height: 4 })).toEqual([4, 3]);
  // Of a part of it, counted from that part.
  expect(feetOf(drawing, { x: 2, y: 0, width: 3, height: 2 })).toEqual([1, 2]);
  expect(feetOf(drawing, { x: 6, y: 0, width: 2, height: 4 })).toBeUndefined();
  expect(commonFeet({ 0: [4, 9], 3: [6, 9], 4: [5, 7] })).toEqual([5, 9]);
  expect(commonFeet({})).toBeUndefined();
});

test('a drawing is split where the least of it is, near its middle', () => {
  const two = picture('xx...x..x', 'xxx.xx..x', 'xx...xx.x');
  expect(quietLine(two, { x: 0, y: 0, width: 9, height: 3 }, 'x')).toBe(3);
  // Of a part of it, in pixels of the picture; of equal lines the nearest to the middle.
  expect(quietLine(two, { x: 5, y: 0, width: 4, height: 3 }, 'x')).toBe(7);
  expect(quietLine(picture('xxxx', 'xxxx', '.x..', 'xxxx'), { x: 0, y: 0, width: 4, height: 4 }, 'y')).toBe(
    2,
  );
  expect(quietLine(picture('xxxx'), { x: 0, y: 0, width: 4, height: 1 }, 'x')).toBe(2);
});

test('the ground is the colour of the corners, and is taken away wherever it is', () => {
  const drawing = picture('gggx', 'gxgg', 'gggg');
  expect(groundOf(drawing)).toBe('#0a141e');
  expect([...withoutGround(drawing, '#0a141e').pixels].filter((_, i) => i % 4 === 3)).toEqual([
    0, 0, 0, 255, 0, 255, 0, 0, 0, 0, 0, 0,
  ]);
  expect(groundOf(picture('gx', 'xg'))).toBeUndefined();
  expect(groundOf(picture('..', '..'))).toBeUndefined();
});

test('law: the stride is what the standing foot slides back, in all frames of a pass', () => {
  const steps = fc.record({ slide: fc.integer({ min: 1, max: 9 }), frames: fc.integer({ min: 3, max: 8 }) });
  fc.assert(
    fc.property(steps, fc.integer({ min: -20, max: 20 }), ({ slide, frames }, from) => {
      // Two steps: each foot comes down in front and slides back as the body passes.
      const foot = Array.from({ length: frames }, (_, i) => from - i * slide);
      expect(strideOf([...foot, ...foot])).toBe(slide * frames * 2);
    }),
  );
  expect(strideOf([3, 3, 3])).toBeUndefined();
});

test('a grid says what it leaves over', () => {
  expect(gridFit({ width: 70, height: 56 }, { cell: [16, 16], margin: 1, gap: [2, 0] })).toEqual({
    columns: 3,
    rows: 3,
    right: 16,
    below: 6,
  });
  expect(gridFit({ width: 70, height: 56 }, { cell: [16, 16], columns: 2, rows: 1 })).toMatchObject({
    columns: 2,
    rows: 1,
    right: 0,
    below: 0,
  });
});

test('images are in the order in which people count, with a clip for each name or folder', () => {
  expect(sequenceOf(['w/walk10.png', 'w/walk2.png', 'w/sit.png'], 'w')).toEqual({
    images: ['w/sit.png', 'w/walk2.png', 'w/walk10.png'],
    clips: { sit: { cells: 0 }, walk: { cells: '1-2', fps: 10 } },
  });
  expect(clipNameOf('w/get up/a 1.png', 'w')).toBe('get-up');
  expect(clipNameOf('w/a/b/1.png', 'w')).toBe('a-b');
});

test('a table cuts by its rectangles, its names, and its untrimmed frames', () => {
  const row = { id: 'hop_2', left: '8', y: '0', width: '4', height: '5' };
  expect(guessedColumns([row])).toEqual({ x: 'left', y: 'y', width: 'width', height: 'height', name: 'id' });
  expect(cutByTable([row, { ...row, id: 'hop_1' }], { x: 'left', name: 'id' })).toEqual({
    cells: [
      [8, 0, 4, 5],
      [8, 0, 4, 5],
    ],
    clips: { hop: { cells: '1-0', fps: 10 } },
  });
  const whole = {
    x: '8',
    y: '0',
    width: '4',
    height: '5',
    left: '1',
    top: '2',
    frameWidth: '9',
    frameHeight: '9',
  };
  expect(cutByTable([whole], {})).toEqual({
    cells: [{ rect: [8, 0, 4, 5], trim: [1, 2, 9, 9] }],
    clips: { all: { cells: 0 } },
  });
  expect(cutByTable([whole], { name: 'id' })).toMatchObject({
    kind: 'no-column',
    field: 'name',
    column: 'id',
  });
  expect(cutByTable([whole, { ...whole, y: '' }], {})).toEqual({
    kind: 'no-pixels',
    line: 3,
    column: 'y',
    received: '',
  });
  expect(cutByTable([{ ...whole, width: '4.5' }], {})).toMatchObject({
    kind: 'no-pixels',
    line: 2,
    received: '4.5',
  });
});
