import { compile } from './characters.js';
import { character } from './compasses.js';

describe('what is wrong with directions is told', () => {
  test.each([
    [{ directions: 'four', start: 'up' }, 'compass.start: there is no direction "up"'],
    [
      { directions: 'eight', stick: 23 },
      'compass.stick: "stick" must be from 0 to under 22.5 degrees, not 23',
    ],
    [{ directions: 'eight', stick: 22.5 }, 'from 0 to under 22.5 degrees, not 22.5'],
    [{ directions: 'four', through: -1 }, 'compass.through: expected milliseconds from 0 to 10000, not -1'],
    [{ directions: { a: 0 } }, 'compass.directions: a compass needs at least two directions, not 1'],
    [{ directions: { a: 0, b: 360 } }, 'directions.b: "a" and "b" are both at 0 degrees'],
    [{ directions: 'four', mirror: { west: 'east', east: 'west' } }, 'which is itself mirrored'],
    [
      { directions: 'four', mirror: { north: 'east' } },
      'the mirror image of "east" looks towards 180 degrees',
    ],
    [
      { directions: 'four', mirror: { east: 'south' } },
      'the mirror image of "south" looks towards 90 degrees',
    ],
    [
      { directions: { a: 0, b: 100 }, mirror: 'west' },
      '"b" has no opposite to be mirrored from: no direction lies at 80',
    ],
    [{ directions: 'four', deadZone: -1 }, 'compass.deadZone: expected 0 or more, not -1'],
    [{ directions: { a: NaN, b: 3 } }, 'compass.directions.a: expected degrees, not NaN'],
    [
      { directions: 'four', by: ['x'] },
      'compass.by: expected two expressions, such as [vx, 0], or the name of a vector',
    ],
    [{ directions: 'four', by: ['x', 'z'] }, 'compass.by[1]: there is no signal "z"'],
  ])('%j is refused in words', (compass, words) => {
    expect(() => character(compass as never)).toThrow(words);
  });

  test.each([
    [
      { shows: 'c', when: 'x > 3', turns: { shows: 'c' } },
      'states.s.turns: "turns" restarts the clip of its state',
    ],
    [{ shows: 'c', turns: { shows: 'k' } }, 'states.s.turns.shows: there is no clip or flipbook "k"'],
    [{ shows: 'c', turns: { shows: 'c', least: 200 } }, '"least" must be from 0 to 180 degrees, not 200'],
    [{ shows: 'c', facing: { by: 'y' } }, 'states.s.facing.by: there is no signal "y.x"'],
    [{ shows: 'c', facing: { by: ['x', 0] as const, deadZone: -2 } }, 'expected 0 or more, not -2'],
  ])('a state %j is refused in words', (s, words) => {
    const make = () =>
      compile({
        clips: { c: { cells: 0, loop: 'once', ms: 100 } },
        compass: { directions: 'four', by: ['x', 0] },
        signals: { x: { number: 0 } },
        states: { s },
      });
    expect(make).toThrow(words);
  });

  test.each([
    [{ walk: { cells: 0, rows: [] } }, 'clips.walk.rows: "rows" names the directions drawn'],
    [{ walk: { cells: 0, rows: ['north'], every: 0.5 } }, '"every" is how many cells lie from one'],
    [{ walk: { cells: 0, rows: ['up'] } }, 'flipbooks.walk.up: there is no direction "up"'],
    [{ walk: { cells: 60, rows: ['north', 'south'] } }, 'there is no cell 68'],
    [
      { 'walk-north': { cells: 0 }, walk: { cells: 0, rows: ['north'] } },
      'the rows make a clip "walk-north"',
    ],
  ])('rows %j are refused in words', (clips, words) => {
    const make = () =>
      compile({
        clips,
        compass: { directions: 'four', by: ['x', 0] },
        signals: { x: { number: 0 } },
        states: { s: { shows: 'walk' } },
      });
    expect(make).toThrow(words);
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
