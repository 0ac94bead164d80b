import fc from 'fast-check';
import { Performer } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { compile, stepTold } from './characters.js';
import { character, face } from './compasses.js';

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

  test('directions in any order have their borders in the middle; what is equally level is preferred by no diagonal', () => {
    const unsorted = new Performer(character({ directions: { mole: 110, harbour: 20, hill: 200 } }));
    const at = (performer: Performer, degrees: number): string =>
      face(performer, 100 * Math.cos((degrees * Math.PI) / 180), 100 * Math.sin((degrees * Math.PI) / 180));
    expect([20, 64, 66, 110, 154, 156, 200, 289, 291, 0].map((degrees) => at(unsorted, degrees))).toEqual(
      'harbour harbour mole mole mole hill hill hill harbour harbour'.split(' '),
    );
    for (const diagonal of ['horizontal', 'vertical'] as const) {
      const sides = new Performer(character({ directions: 'sides', diagonal }));
      expect([80, 100, 80, 260, 280].map((degrees) => at(sides, degrees))).toEqual(
        'east west east west east'.split(' '),
      );
    }
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

  test('a turn is reported once, with what it turned from', () => {
    const performer = new Performer(character({ directions: 'four' }));
    performer.set('y', 9);
    expect(stepTold(performer, 5)).toEqual(['0 turns south']);
    performer.set('y', 12);
    expect(stepTold(performer, 5)).toEqual([]);
  });

  test('the parts of its vector are read in whatever order the signals are named', () => {
    const turns = (signals: ControllerDefinition['signals']): string[] => {
      const performer = new Performer(
        compile({
          clips: { c: { cells: 0 } },
          compass: { directions: 'four', by: ['x', 'y'] },
          signals,
          states: { s: { shows: 'c' } },
        }),
      );
      return ([[9, 0], [9, 20], [-9, 2], [-1, -4]] as const).map(([x, y]) => face(performer, x, y)); // prettier-ignore
    };
    const zero = { number: 0 };
    const turned = ['east', 'south', 'west', 'north'];
    expect([turns({ x: zero, y: zero }), turns({ y: zero, x: zero })]).toEqual([turned, turned]);
  });

  test('what sticks keeps a walk along a border from flickering', () => {
    const performer = new Performer(character({ directions: 'eight', stick: 8 }));
    const degrees = [0, 20, 24, 21, 26, 23, 30, 31, 24, 16, 14];
    const faced = degrees.map((angle) =>
      face(performer, Math.cos((angle * Math.PI) / 180) * 9, Math.sin((angle * Math.PI) / 180) * 9),
    );
    expect(faced.map((name) => name === 'southeast')).toEqual([
      ...[false, false, false, false, false, false, false],
      ...[true, true, true, false],
    ]);
  });

  test.each([
    ['nearest', ['east', 'east', 'south', 'south']],
    // Between the two it stays as it was.
    ['keep', ['east', 'east', 'east', 'south']],
    ['horizontal', ['east', 'east', 'east', 'south']],
    ['vertical', ['east', 'south', 'south', 'south']],
  ] as const)('on four directions a diagonal means: %s', (diagonal, faced) => {
    const performer = new Performer(character({ directions: 'four', diagonal }));
    const turned = [
      [10, 0],
      [10, 8],
      [8, 10],
      [1, 10],
    ].map(([x, y]) => face(performer, x!, y!));
    expect(turned).toEqual(faced);
  });

  test.each([
    ['horizontal', ['east', 'west', 'west', 'east']],
    ['vertical', ['south', 'south', 'north', 'north']],
  ] as const)('%s means the same in all four corners', (diagonal, faced) => {
    const controller = character({ directions: 'four', diagonal });
    const corners = [
      [9, 8],
      [-8, 9],
      [-9, -8],
      [8, -9],
    ] as const;
    expect(corners.map(([x, y]) => new Performer(controller, { x, y }).facing)).toEqual(faced);
  });

  test('exactly on a border it stays as it faces; facing neither, it takes the first named', () => {
    const performer = new Performer(character({ directions: 'four' }));
    expect(face(performer, 0, 9)).toBe('south');
    expect(face(performer, 5, 5)).toBe('south');
    expect(face(performer, -5, 5)).toBe('south');
    expect(face(performer, -9, 0)).toBe('west');
    expect(face(performer, 5, 5)).toBe('east');
  });

  test('a far turn passes through those in between, each for its time, by the side that faces the viewer', () => {
    const performer = new Performer(character({ directions: 'eight', through: 50 }));
    performer.set('x', -9);
    expect(stepTold(performer, 400)).toEqual([
      '0 turns southeast',
      '50 turns south',
      '100 turns southwest',
      '150 turns west',
    ]);
    expect([performer.facing, performer.pointsTo]).toEqual(['west', 'west']);
    // Turned back on the way, it goes back the way it came.
    performer.set('x', 9);
    expect(stepTold(performer, 60)).toEqual(['400 turns southwest', '450 turns south']);
    expect([performer.facing, performer.pointsTo]).toEqual(['south', 'east']);
    performer.set('x', -9);
    expect(stepTold(performer, 200)).toEqual(['500 turns southwest', '550 turns west']);
  });

  test.each([
    [9, -9, ['northeast']],
    [0, -9, ['northeast', 'north']],
    [-9, -9, ['northeast', 'north', 'northwest']],
    [-9, 9, ['southeast', 'south', 'southwest']],
  ])('of two ways it takes the shorter one: from east to (%d, %d) by %j', (x, y, by) => {
    const performer = new Performer(character({ directions: 'eight', through: 50 }));
    performer.set('x', x);
    performer.set('y', y);
    expect(stepTold(performer, 400)).toEqual(by.map((direction, i) => `${50 * i} turns ${direction}`));
  });

  test('of two equal ways by no nearer side, it turns clockwise', () => {
    const performer = new Performer(character({ directions: 'eight', through: 50, start: 'north' }));
    performer.set('y', 9);
    expect(stepTold(performer, 120)).toEqual(['0 turns northeast', '50 turns east', '100 turns southeast']);
  });

  test('without a dead zone and sticking borders, the least vector turns it, and so does the least past a border', () => {
    const performer = new Performer(character({ directions: 'eight' }));
    expect(face(performer, -1e-6, 0)).toBe('west');
    expect(face(performer, 1e-6, 0)).toBe('east');
    expect(face(performer, Math.cos(0.3926), Math.sin(0.3926))).toBe('east');
    expect(face(performer, Math.cos(0.3928), Math.sin(0.3928))).toBe('southeast');
  });

  test.each(['east', 'south', 'west', 'north'])(
    'after a step nearer to the middle, less is needed to turn it: %s',
    (direction) => {
      const degrees = { east: 0, south: 90, west: 180, north: 270 }[direction]!;
      // Along the direction and across it, turned to where that is.
      const turned = (along: number, across: number): [number, number] => {
        const [cos, sin] = [
          Math.round(Math.cos((degrees * Math.PI) / 180)),
          Math.round(Math.sin((degrees * Math.PI) / 180)),
        ];
        return [along * cos - across * sin, along * sin + across * cos];
      };
      const performer = new Performer(character({ directions: 'eight' }));
      const names = performer.controller.compass.names;
      const next = (by: number): string => names[(names.indexOf(direction) + by + 8) % 8]!;
      // Far out it may change much, near the middle little.
      expect(face(performer, ...turned(100, 0))).toBe(direction);
      expect(face(performer, ...turned(100, 30))).toBe(direction);
      expect(face(performer, ...turned(10, 0))).toBe(direction);
      expect(face(performer, ...turned(10, 8))).toBe(next(1));
      expect(face(performer, ...turned(100, 0))).toBe(direction);
      expect(face(performer, ...turned(10, 0))).toBe(direction);
      expect(face(performer, ...turned(10, -8))).toBe(next(-1));
    },
  );

  test('upwards may be up: +y', () => {
    const performer = new Performer(character({ directions: 'four', up: '+y' }));
    expect(face(performer, 0, 9)).toBe('north');
    expect(performer.vector).toEqual([0, -9]);
  });

  test('sixteen directions are those of a mariner', () => {
    const { names, degrees } = character({ directions: 'sixteen' }).compass;
    expect(names.slice(0, 5)).toEqual(['east', 'east-southeast', 'southeast', 'south-southeast', 'south']);
    expect(names[15]).toBe('east-northeast');
    expect(degrees.slice(0, 3)).toEqual([0, 22.5, 45]);
  });

  test('a state may face by another vector: aiming one way while walking another', () => {
    const controller = compile({
      clips: { c: { cells: 0 } },
      compass: { directions: 'four', by: ['x', 'y'], deadZone: 8 },
      signals: { x: { number: 0 }, y: { number: 0 }, aim: { vector: [0, 0] }, aiming: { flag: false } },
      states: {
        walk: { shows: 'c' },
        aims: { shows: 'c', while: 'aiming', priority: 1, facing: { by: 'aim', deadZone: 0.1 } },
      },
    });
    const performer = new Performer(controller);
    expect(face(performer, 20, 0)).toBe('east');
    performer.set('aim', [-0.5, 0]);
    performer.set('aiming', true);
    expect(stepTold(performer, 10)).toEqual(['1 walk > aims', '1 turns west']);
    performer.set('aim', [0, 1]);
    expect(stepTold(performer, 10)).toEqual(['11 turns south']);
    performer.set('aiming', false);
    expect(stepTold(performer, 10)).toEqual(['21 aims > walk', '21 turns east']);
    // Standing still it keeps facing where it aimed.
    performer.set('x', 0);
    performer.set('aiming', true);
    performer.step(10);
    performer.set('aiming', false);
    performer.step(10);
    expect([performer.state, performer.facing]).toEqual(['walk', 'south']);
  });

  test('a wide turn shows its clip first, in the new direction; a narrow one does not', () => {
    const controller = compile({
      clips: {
        run: { cells: '0-3', ms: 100 },
        skid: { cells: '8-9', ms: 60, loop: 'once', cues: { screech: 0 } },
      },
      compass: { directions: 'eight', mirror: 'west', by: ['x', 'y'] },
      signals: { x: { number: 9 }, y: { number: 0 } },
      states: { run: { shows: 'run', turns: { shows: 'skid', least: 90 } } },
    });
    const performer = new Performer(controller);
    performer.step(250);
    performer.set('y', 9);
    expect(stepTold(performer, 10)).toEqual(['250 turns southeast']);
    expect([performer.clip, performer.frameIndex]).toEqual(['run', 2]);
    performer.set('x', -9);
    expect(stepTold(performer, 10)).toEqual(['260 turns southwest', '260 screech']);
    expect([performer.clip, performer.isBridging, performer.pose.mirrored]).toEqual(['skid', true, true]);
    performer.step(115);
    expect([performer.state, performer.clip, performer.frameIndex]).toEqual(['run', 'run', 0]);
  });
});
