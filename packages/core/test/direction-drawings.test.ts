// What is drawn for each direction: clips, rows of a sheet, mirror images.
import fc from 'fast-check';
import { Performer, compileController } from 'dot-hop';
import { compile } from './characters.js';
import { character, face } from './compasses.js';

test('a flipbook shows a clip for each direction, mirrored where it is drawn for the other only', () => {
  const controller = compile({
    clips: {
      side: { cells: '0-3', ms: 100 },
      down: { cells: '8-11', ms: 100 },
      up: { cells: '16-17', ms: 100 },
    },
    flipbooks: { walk: { east: 'side', south: 'down', north: 'up' } },
    compass: { directions: 'four', mirror: { west: 'east' }, by: ['x', 'y'] },
    signals: { x: { number: 0 }, y: { number: 0 } },
    states: { s: { shows: 'walk' } },
  });
  const performer = new Performer(controller);
  performer.step(150);
  expect(face(performer, -5, 0)).toBe('west');
  expect(performer.pose).toMatchObject({ mirrored: true, cell: { index: 1 } });
  face(performer, 0, 5);
  expect(performer.pose).toMatchObject({ mirrored: false, cell: { index: 9 } });
  // Half as many frames: the phase is kept, not the frame.
  face(performer, 0, -5);
  expect([performer.clip, performer.frameIndex]).toEqual(['up', 0]);
});

test('a mirror image may lie up to 45 degrees beside its direction, on whichever side', () => {
  const mirrored = (degrees: Record<string, number>) =>
    character({ directions: degrees, mirror: { b: 'a' } });
  expect(mirrored({ a: 30, b: 150 }).compass.mirrorOf).toEqual([-1, 0]);
  for (const b of [135, 225]) expect(mirrored({ a: 0, b }).compass.mirrorOf).toEqual([-1, 0]);
  for (const b of [134, 226]) expect(() => mirrored({ a: 0, b })).toThrow('looks towards 180 degrees');
});

test('rows of a sheet are directions: five drawn, three mirrored', () => {
  const controller = compile({
    clips: {
      walk: { cells: '4-5', rows: ['south', 'southeast', 'east', 'northeast', 'north'], fps: 8 },
      wave: { cells: [0, 2], rows: { south: 0, north: 4 }, every: 8, fps: 8 },
    },
    compass: { directions: 'eight', mirror: 'west', by: ['x', 'y'] },
    signals: { x: { number: 0 }, y: { number: 0 } },
    states: { walk: { shows: 'walk' }, wave: { shows: 'wave' } },
  });
  const shown = (name: string) =>
    controller.flipbooks
      .get(name)!
      .map(({ clip, mirrored, standsIn }) => [clip.cells[0]!.index, mirrored, standsIn]);
  expect([...controller.clips.keys()].slice(0, 2)).toEqual(['walk-south', 'walk-southeast']);
  expect(shown('walk')).toEqual([
    [20, false, false],
    [12, false, false],
    [4, false, false],
    [12, true, false],
    [20, true, false],
    [28, true, false],
    [36, false, false],
    [28, false, false],
  ]);
  // With two directions drawn the nearest stands in; of two equally near the one named first.
  expect(shown('wave').map(([cell]) => cell)).toEqual([0, 0, 0, 0, 0, 32, 32, 32]);
  expect(shown('wave').filter(([, , standsIn]) => standsIn)).toHaveLength(6);
});

test('boxes and points of a mirrored direction are those of the mirrored picture', () => {
  const edge = fc.integer({ min: -20, max: 60 });
  fc.assert(
    fc.property(edge, edge, edge, edge, fc.integer({ min: 0, max: 48 }), (x, y, width, height, pivot) => {
      const controller = compileController({
        dotHop: 1,
        sheets: {
          s: {
            ...{ image: 's.png', size: [48, 48], grid: { cell: [48, 48] } },
            pivot: [pivot, 40],
            boxes: { b: [x, y, width, height] },
            points: { p: [x, y] },
          },
        },
        clips: { c: { cells: 0 } },
        compass: { directions: 'sides', mirror: { west: 'east' }, by: ['x', 0] },
        signals: { x: { number: 0 } },
        states: { s: { shows: 'c' } },
      });
      const [drawn, mirrored] = [new Performer(controller), new Performer(controller, { x: -1 })].map(
        ({ pose }) => pose,
      );
      expect(mirrored!.mirrored).toBe(true);
      const { b } = drawn!.boxes;
      // What lies from x to x + width about the pivot lies from -(x + width) to -x in the mirror.
      expect(mirrored!.boxes.b).toEqual({ ...b, x: 0 - (b!.x + width) });
      expect(mirrored!.points.p).toEqual({ x: 0 - drawn!.points.p!.x, y: drawn!.points.p!.y });
    }),
  );
});
