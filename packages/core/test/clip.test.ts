import fc from 'fast-check';
import { DotHopError, compileController } from 'dot-hop';
import { writeCells } from 'dot-hop/edit';
import { showingAt } from 'dot-hop/explain';
import { compile, perform, stepTold } from './characters.js';

const oneClip = (clip: object) =>
  compile({ clips: { c: clip as never }, states: { s: { shows: 'c' } }, rest: 's' }).clips.get('c')!;

describe('clips', () => {
  test('frame borders are rounded from the exact sum, so that 12 frames a second never drift', () => {
    expect(oneClip({ cells: '0-11', fps: 12 }).ends).toEqual([
      83333, 166667, 250000, 333333, 416667, 500000, 583333, 666667, 750000, 833333, 916667, 1000000,
    ]);
  });

  test('a list of milliseconds gives each frame its own time', () => {
    expect(oneClip({ cells: [3, '5-4'], ms: [50, 40.5, 1] }).ends).toEqual([50_000, 90_500, 91_500]);
  });

  test('cells may be a number, a range either way or a list, and one may come many times', () => {
    const indices = (cells: unknown): number[] => oneClip({ cells, ms: 10 }).cells.map(({ index }) => index);
    expect(indices(5)).toEqual([5]);
    expect(indices('2-4')).toEqual([2, 3, 4]);
    expect(indices('4-2')).toEqual([4, 3, 2]);
    expect(indices([1, '3-2', 1, 1])).toEqual([1, 3, 2, 1, 1]);
  });

  test('a frame that is held takes so many times its own milliseconds', () => {
    expect(oneClip({ cells: '0-2', ms: [50, 40, 10], hold: { 1: 3 } }).ends).toEqual([
      50_000, 170_000, 180_000,
    ]);
  });

  test('what is no row and no column of a sheet is no cell', () => {
    for (const cells of [{ row: -1 }, { row: 0.5 }, [0, { column: -1 }]])
      expect(() => oneClip({ cells, ms: 10 })).toThrow(/clips\.c\.cells: /);
    expect(() => oneClip({ cells: { row: -1 }, ms: 10 })).toThrow(DotHopError);
  });

  test('cells that are written briefly are read as the same', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(12), { minLength: 1, maxLength: 12 }), (numbers) => {
        const read = oneClip({ cells: writeCells(numbers), ms: 10 }).cells;
        expect(read.map(({ index }) => index)).toEqual(numbers);
      }),
    );
    expect(writeCells([0, 2, 4, 5, 6, 3, 2])).toEqual([0, 2, '4-6', '3-2']);
  });

  test('marks of a frame win over those of its clip, and of its cell', () => {
    const { frames } = oneClip({
      cells: '0-1',
      ms: 10,
      pivot: [1, 2],
      points: { hand: [3, 3] },
      perFrame: { 1: { pivot: [5, 6] } },
    });
    expect(frames).toMatchObject([
      { pivotX: 1, pivotY: 2, points: { hand: { x: 3, y: 3 } } },
      { pivotX: 5, pivotY: 6, points: { hand: { x: 3, y: 3 } }, hasOwnPivot: true },
    ]);
  });

  test('a clip with an intro that nobody listens to never shows it again, however many passes go by at once', () => {
    const performer = perform({
      clips: { c: { cells: '0-4', ms: 100, loop: { from: 2 } } },
      states: { s: { shows: 'c' } },
      rest: 's',
    });
    for (let passed = 0; passed < 40; passed++) {
      expect(performer.frameIndex).toBe(passed < 5 ? passed : 2 + ((passed - 5) % 3));
      performer.step(100);
    }
    for (const many of [17, 30, 299, 1000]) {
      const before = performer.frameIndex;
      performer.step(many * 100);
      expect(performer.frameIndex).toBe(2 + ((before - 2 + many) % 3));
    }
  });

  test('cells know their rectangle, and mirrored boxes are those of the mirrored drawing', () => {
    const performer = perform({
      clips: { c: { cells: 10 } },
      compass: { directions: 'sides', mirror: { west: 'east' }, by: ['vx', 0] },
      signals: { vx: { number: 1 } },
      states: { s: { shows: 'c' } },
      rest: 's',
    });
    expect(performer.pose.cell).toMatchObject({
      x: 16,
      y: 8,
      width: 8,
      height: 8,
      pivotX: 4,
      pivotY: 8,
      name: 's-10',
    });
  });

  test('the frame at any time is the one whose borders it lies between, for any durations', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 400 }), { minLength: 1, maxLength: 8 }),
        fc.nat(5000),
        (ms, time) => {
          const performer = perform({
            clips: { c: { cells: `0-${ms.length - 1}`, ms } },
            states: { s: { shows: 'c' } },
            rest: 's',
          });
          performer.step(time);
          const total = ms.reduce((sum, one) => sum + one, 0);
          let left = time % total;
          let frame = 0;
          while (left >= ms[frame]!) left -= ms[frame++]!;
          expect(performer.frameIndex).toBe(frame);
          expect(performer.phase).toBeCloseTo((time % total) / total, 9);
        },
      ),
    );
  });

  test('an hour in one step is as exact as any', () => {
    const performer = perform({
      clips: { c: { cells: '0-2', ms: [70, 20, 10] } },
      states: { s: { shows: 'c' } },
      rest: 's',
    });
    performer.step(3_600_000 - 25);
    expect(performer.frameIndex).toBe(1);
    performer.step(15);
    expect(performer.frameIndex).toBe(2);
    performer.step(10);
    expect(performer.frameIndex).toBe(0);
  });

  test('a whole length is shared out, and frames may be held', () => {
    expect(oneClip({ cells: '0-3', lasts: 800 }).ends).toEqual([200_000, 400_000, 600_000, 800_000]);
    expect(oneClip({ cells: '0-2', lasts: 800, hold: { 1: 2 } }).ends).toEqual([200_000, 600_000, 800_000]);
    expect(oneClip({ cells: '0-2', fps: 10, hold: { 2: 2.5 } }).ends).toEqual([100_000, 200_000, 450_000]);
  });

  const shown = (loop: unknown, ms: number): number => {
    const clip = oneClip({ cells: '0-2', ms: 100, loop });
    return clip.order[showingAt(clip, ms)]!;
  };

  test('loops: back and forth, a number of times, an intro and then a loop', () => {
    const at = [0, 100, 200, 300, 400, 500, 600, 700, 800];
    expect(at.map((ms) => shown('forever', ms))).toEqual([0, 1, 2, 0, 1, 2, 0, 1, 2]);
    expect(at.map((ms) => shown('once', ms))).toEqual([0, 1, 2, 2, 2, 2, 2, 2, 2]);
    expect(at.map((ms) => shown('back-and-forth', ms))).toEqual([0, 1, 2, 1, 0, 1, 2, 1, 0]);
    expect(at.map((ms) => shown(2, ms))).toEqual([0, 1, 2, 0, 1, 2, 2, 2, 2]);
    expect(at.map((ms) => shown({ from: 1 }, ms))).toEqual([0, 1, 2, 1, 2, 1, 2, 1, 2]);
  });

  const loops = fc.oneof(
    fc.constantFrom('forever', 'once', 'back-and-forth'),
    fc.integer({ min: 1, max: 4 }),
    fc.record({ from: fc.nat(5) }),
  );
  const durations = fc.array(fc.integer({ min: 1, max: 90 }), { minLength: 1, maxLength: 6 });

  test('what is shown at a time is what a performer shows that played until then, in steps of any length', () => {
    fc.assert(
      fc.property(durations, loops, fc.array(fc.nat(700), { maxLength: 6 }), (ms, loop, steps) => {
        const rule = typeof loop === 'object' ? { from: loop.from % ms.length } : loop;
        const performer = perform({
          clips: { c: { cells: `0-${ms.length - 1}`, ms, loop: rule } },
          states: { s: { shows: 'c' } },
          rest: 's',
        });
        const clip = performer.controller.clips.get('c')!;
        for (const step of steps) {
          performer.step(step);
          expect(performer.frameIndex).toBe(clip.order[showingAt(clip, performer.time)]);
          expect(performer.pose.cell).toBe(clip.cells[showingAt(clip, performer.time)]);
        }
      }),
    );
  });

  test('a loop shows the same after any number of passes, years later and exactly at its borders', () => {
    fc.assert(
      fc.property(
        durations,
        fc.boolean(),
        fc.nat(1000),
        fc.integer({ min: 1, max: 1e8 }),
        (ms, back, time, passes) => {
          const clip = oneClip({
            cells: `0-${ms.length - 1}`,
            ms,
            loop: back ? 'back-and-forth' : 'forever',
          });
          const length = clip.ends[clip.ends.length - 1]! / 1000;
          expect(showingAt(clip, time + passes * length)).toBe(showingAt(clip, time));
          clip.ends.forEach((end, i) =>
            expect(showingAt(clip, end / 1000 + passes * length)).toBe((i + 1) % clip.ends.length),
          );
        },
      ),
    );
  });

  test('cues are reported on the way back too, and on each pass of a number of times', () => {
    const told = (loop: unknown): string[] =>
      stepTold(
        perform({
          clips: { c: { cells: '0-2', ms: 100, loop: loop as never, cues: { tap: 1 } } },
          states: { s: { shows: 'c' } },
          rest: 's',
        }),
        600,
      );
    expect(told('back-and-forth')).toEqual(['100 tap', '300 tap', '500 tap']);
    expect(told(2)).toEqual(['100 tap', '400 tap']);
    expect(told({ from: 2 })).toEqual(['100 tap']);
  });

  test('rows of a sheet are clips of their own, as many cells apart as is said', () => {
    const cellsOf = (every?: number): readonly number[] => {
      const { clips } = compile({
        clips: { walk: { cells: '1-2', rows: ['south', 'east', 'north'], every, fps: 8 } },
        compass: { directions: 'four', by: [0, 0], mirror: 'west' },
        states: { s: { shows: 'walk' } },
        rest: 's',
      });
      return [...clips.values()].flatMap(({ cells }) => cells.map(({ index }) => index));
    };
    expect(cellsOf()).toEqual([1, 2, 9, 10, 17, 18]);
    expect(cellsOf(8)).toEqual([1, 2, 9, 10, 17, 18]);
    expect(cellsOf(1)).toEqual([1, 2, 2, 3, 3, 4]);
  });

  test('a row is asked for only of a sheet that has rows', () => {
    const asked = (cells: { row: number }): unknown =>
      compileController({
        dotHop: 1,
        sheets: {
          r: {
            image: 'r.png',
            size: [64, 64],
            cells: [
              [0, 0, 8, 8],
              [8, 0, 9, 8],
            ],
          },
        },
        clips: { c: { cells, fps: 5 } },
      });
    expect(() => asked({ row: 1 })).toThrow(
      'and sheet "r" has no grid of several rows; write the numbers of the cells',
    );
    expect(() => asked({ row: 0 })).not.toThrow();
  });

  test('a clip played once stays on its last frame', () => {
    const performer = perform({
      clips: { c: { cells: '0-1', ms: 10, loop: 'once' } },
      states: { s: { shows: 'c' } },
      rest: 's',
    });
    performer.step(5000);
    expect([performer.frameIndex, performer.phase]).toEqual([1, 1]);
  });

  test.each([
    [{ cells: '0-3', fps: 0 }, '"fps" must be more than 0 and at most 1000 frames a second, not 0'],
    [{ cells: '0-1', ms: [10, 0] }, 'clips.c.ms[1]: a duration must be from 1 to 3600000 ms, not 0'],
    [{ cells: '0-1', ms: [10, NaN] }, 'not NaN'],
    [{ cells: '0-1', ms: [10] }, '"ms" has 1 durations for 2 frames'],
    [{ cells: '0-1' }, 'say how fast the clip plays'],
    [{ cells: '0-1', ms: 5, fps: 5 }, 'give one of "fps", "ms" and "lasts"'],
    [{ cells: '60-64', fps: 5 }, 'there is no cell 64: sheet "s" has the cells 0 to 63'],
    [{ cells: 'all', fps: 5 }, 'cells are written 0-7, 7-0, 3, [0-3, 5] or { row: 2 }, not "all"'],
    [{ cells: '0-999999999', fps: 5 }, 'cells are written'],
    [{ cells: [], fps: 5 }, 'at least one cell'],
    [{ cells: 0, cues: { x: 1 } }, 'there is no frame 1: the clip has the frames 0 to 0'],
    [{ cells: '0-3', fps: 5, spans: { x: '2-4' } }, 'clips.c.spans.x: a span is written first-last'],
    [{ cells: 0, sheet: 't' }, 'there is no sheet "t"'],
    [{ cells: '0-1', lasts: 0 }, 'clips.c.lasts: a duration must be from 1 to 3600000 ms, not 0'],
    [{ cells: '0-1', lasts: 9, hold: { 5: 2 } }, 'clips.c.hold.5: there is no frame "5"'],
    [
      { cells: '0-1', lasts: 9, hold: { 1: 0 } },
      '"hold" says how many times as long a frame shows; it must be over 0, not 0',
    ],
    [{ cells: '0-1', fps: 5, loop: 0 }, 'a whole number of times from 1 to 50000, not 0'],
    [
      { cells: '0-2', fps: 5, loop: 33334 },
      'clips.c.loop: a clip is played a whole number of times from 1 to 33333, not 33334',
    ],
    [{ cells: '0-1', fps: 5, loop: { from: 2 } }, 'clips.c.loop.from: there is no frame 2'],
    [{ cells: '0-1', fps: 5, perFrame: { 2: {} } }, 'clips.c.perFrame.2: there is no frame "2"'],
    [{ cells: { row: 9 }, fps: 5 }, 'there is no cell 72 (nor 7 more that are named here)'],
    [{ cells: 0, every: 0, rows: ['east', 'west'], fps: 5 }, '"every" is how many cells lie from one of'],
    [{ cells: 0, every: 1.5, rows: ['east', 'west'], fps: 5 }, 'a whole number from 1, not 1.5'],
    [{ cells: 0, every: 8, fps: 5 }, '"every" is how many cells lie from one of'],
  ])('%j is refused in words', (clip, words) => {
    expect(() => oneClip(clip)).toThrow(DotHopError);
    expect(() => oneClip(clip)).toThrow(words);
  });
});
