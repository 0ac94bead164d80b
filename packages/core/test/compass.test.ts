import fc from 'fast-check';
import { Performer } from 'dot-hop';
import type { CompassDefinition } from 'dot-hop';
import { compile, stepTold } from './characters.js';

const character = (compass: CompassDefinition) =>
  compile({
    clips: { c: { cells: '0-3', ms: 100 } },
    compass: { by: ['x', 'y'], ...compass },
    signals: { x: { number: 0 }, y: { number: 0 } },
    states: { s: { shows: 'c' } },
    rest: 's',
  });

/** Turns a performer to a vector and tells where it faces. */
function face(performer: Performer, x: number, y: number): string {
  performer.set('x', x);
  performer.set('y', y);
  performer.step(1);
  return performer.facing;
}

const degreesOf = (x: number, y: number): number => ((Math.atan2(y, x) * 180) / Math.PI + 360) % 360;
const apart = (one: number, other: number): number =>
  Math.min(Math.abs(one - other), 360 - Math.abs(one - other));

describe('compasses', () => {
  test.each([
    ['sides', { east: 0, west: 180 }],
    ['four', { east: 0, south: 90, west: 180, north: 270 }],
    [
      'eight',
      {
        east: 0,
        southeast: 45,
        south: 90,
        southwest: 135,
        west: 180,
        northwest: 225,
        north: 270,
        northeast: 315,
      },
    ],
  ] as const)('%s picks the direction nearest in angle', (directions, angles) => {
    const performer = new Performer(character({ directions }));
    const coordinate = fc.integer({ min: -1000, max: 1000 });
    fc.assert(
      fc.property(coordinate, coordinate, (x, y) => {
        fc.pre(x !== 0 || y !== 0);
        const facing = face(performer, x, y);
        const nearest = Math.min(...Object.values(angles).map((angle) => apart(angle, degreesOf(x, y))));
        const own = (angles as Record<string, number>)[facing]!;
        expect(apart(own, degreesOf(x, y))).toBeCloseTo(nearest, 6);
      }),
    );
  });

  test('directions may have names and degrees of their own', () => {
    const performer = new Performer(
      character({ directions: { harbour: 20, hill: 200, sea: 300 }, start: 'sea' }),
    );
    expect(performer.facing).toBe('sea');
    expect(face(performer, 10, 4)).toBe('harbour');
    expect(face(performer, -10, 0)).toBe('hill');
    expect(face(performer, 5, -9)).toBe('sea');
  });

  test('no vector, however small or large, gives anything undefined', () => {
    const performer = new Performer(character({ directions: 'eight', deadZone: 2 }));
    const names = performer.controller.compass.names;
    const extreme = fc.oneof(
      fc.double({ noNaN: true, noDefaultInfinity: true }),
      fc.constantFrom(0, -0, 5e-324, 1.7e308, -1.7e308),
    );
    fc.assert(
      fc.property(extreme, extreme, (x, y) => {
        expect(names).toContain(face(performer, x, y));
        expect(performer.pose.cell).toBeDefined();
      }),
    );
  });

  test('below the dead zone it keeps facing, whichever way the vector points', () => {
    const performer = new Performer(character({ directions: 'four', deadZone: 8 }));
    expect(face(performer, 0, 20)).toBe('south');
    for (const [x, y] of [
      [7.9, 0],
      [-5, -6],
      [0, 0],
    ] as const)
      expect(face(performer, x, y)).toBe('south');
    expect(face(performer, 8, 0)).toBe('east');
  });

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

  test('a turn is reported once, with what it turned from', () => {
    const performer = new Performer(character({ directions: 'four' }));
    performer.set('y', 9);
    expect(stepTold(performer, 5)).toEqual(['0 turns south']);
    performer.set('y', 12);
    expect(stepTold(performer, 5)).toEqual([]);
  });

  test.each([
    [{ directions: 'four', start: 'up' }, 'compass.start: there is no direction "up"'],
    [{ directions: 'four', deadZone: -1 }, 'compass.deadZone: expected 0 or more, not -1'],
    [{ directions: { a: NaN, b: 3 } }, 'compass.directions.a: expected degrees, not NaN'],
    [{ directions: 'four', by: ['x'] }, 'compass.by: "by" is the vector'],
    [{ directions: 'four', by: ['x', 'z'] }, 'compass.by[1]: there is no signal "z"'],
  ])('%j is refused in words', (compass, words) => {
    expect(() => character(compass as never)).toThrow(words);
  });

  test('a flipbook with a gap, a wrong direction or a wrong clip is refused', () => {
    const book = (pages: Record<string, string>) => () =>
      compile({
        clips: { c: { cells: 0 } },
        flipbooks: { walk: pages },
        compass: { directions: 'four', by: ['x', 0] },
        signals: { x: { number: 0 } },
        states: { s: { shows: 'walk' } },
      });
    expect(book({})).toThrow('the flipbook has no clip for any direction of the compass; add one');
    expect(book({ east: 'c', west: 'c', south: 'c', nort: 'c' })).toThrow(
      'there is no direction "nort"; did you mean "north"?',
    );
    expect(book({ east: 'c', west: 'c', south: 'c', north: 'k' })).toThrow(
      'flipbooks.walk.north: there is no clip or flipbook "k"',
    );
  });
});
