import fc from 'fast-check';
import { Performer } from 'dot-hop';
import { dialOf, directionOf } from 'dot-hop/view';
import { compile } from './characters.js';
import { character } from './compasses.js';
import { often } from './often.js';

/** Directions at whole degrees, at least 20 apart. */
const circles = fc.array(fc.integer({ min: 20, max: 90 }), { minLength: 3, maxLength: 12 }).map((gaps) => {
  const angles = [0];
  for (const gap of gaps) angles.push(angles[angles.length - 1]! + gap);
  return angles.filter((angle, i) => angle <= 340 || i < 2);
});
const named = (angles: readonly number[], turn = 0): Record<string, number> =>
  Object.fromEntries(angles.map((angle, i) => [`d${i}`, angle + turn]));
const at = (degrees: number, long = 10): [number, number] => [
  Math.cos((degrees * Math.PI) / 180) * long,
  Math.sin((degrees * Math.PI) / 180) * long,
];
/** Angles that are on no border of directions at whole degrees, nor a whole number of degrees past one. */
const between = fc.integer({ min: 0, max: 3599 }).map((tenths) => tenths / 10 + 0.03);
const rules = fc.record({ stick: fc.constantFrom(0, 3, 8), through: fc.constant(0) });

describe('laws of the compass', () => {
  test('turning the vector and the compass together changes nothing', () => {
    fc.assert(
      fc.property(
        circles,
        rules,
        fc.integer({ min: 0, max: 359 }),
        fc.array(between, { minLength: 1, maxLength: 8 }),
        (angles, rule, turn, path) => {
          const { compass: one } = character({ directions: named(angles), ...rule });
          const { compass: other } = character({ directions: named(angles, turn), ...rule });
          let [here, there] = ['d0', 'd0'];
          for (const angle of path) {
            here = directionOf(one, ...at(angle), here);
            there = directionOf(other, ...at(angle + turn), there);
            expect(there).toBe(here);
          }
        },
      ),
    );
  });

  test('a mirrored vector gives the mirrored picture', () => {
    const controller = compile({
      clips: { c: { cells: '0-4', rows: ['south', 'southeast', 'east', 'northeast', 'north'], fps: 9 } },
      compass: { directions: 'eight', mirror: 'west', by: ['x', 'y'], deadZone: 2, stick: 8, start: 'south' },
      signals: { x: { number: 0 }, y: { number: 0 } },
      states: { s: { shows: 'c' } },
    });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(between, fc.constantFrom(1, 10)), { minLength: 1, maxLength: 10 }),
        (path) => {
          const [one, other] = [new Performer(controller), new Performer(controller)];
          for (const [angle, long] of path) {
            const [x, y] = at(angle, long);
            one.set('x', x);
            other.set('x', -x);
            for (const each of [one, other]) {
              each.set('y', y);
              each.step(30);
            }
            expect(other.pose.cell).toBe(one.pose.cell);
            // North and south have no other side.
            const isUpright = ['north', 'south'].includes(one.facing);
            expect(other.pose.mirrored).toBe(isUpright ? one.pose.mirrored : !one.pose.mirrored);
          }
        },
      ),
    );
  });

  test.each([1, -1])('a slowly rotating vector passes each border once (sense %i)', (sense) => {
    fc.assert(
      fc.property(circles, rules, between, (angles, rule, begin) => {
        const { compass } = character({ directions: named(angles), ...rule });
        let facing = directionOf(compass, ...at(begin));
        const seen = [facing];
        for (let turn = 0; turn <= 360; turn += 0.5) {
          facing = directionOf(compass, ...at(begin + sense * turn), facing);
          if (seen[seen.length - 1] !== facing) seen.push(facing);
        }
        // Once around: every direction in turn, and the first one again, or nearly.
        const round = [...compass.order].map((i) => compass.names[i]!);
        if (sense < 0) round.reverse();
        const first = round.indexOf(seen[0]!);
        expect(seen).toEqual(seen.map((_, i) => round[(first + i) % round.length]));
        expect(seen.length).toBeGreaterThanOrEqual(round.length);
        expect(seen.length).toBeLessThanOrEqual(round.length + 1);
      }),
    );
  });

  test('the dial says what the compass does: sectors without gaps, and what sticks beyond them', () => {
    fc.assert(
      fc.property(circles, rules, (angles, rule) => {
        const { compass } = character({ directions: named(angles), ...rule });
        const dial = dialOf(compass);
        expect(dial.reduce((sum, { from, to }) => sum + to - from, 0)).toBeCloseTo(360, 6);
        for (const { direction, from, to, keepsFrom, keepsTo } of dial) {
          const elsewhere = dial.find((one) => one.direction !== direction)!.direction;
          for (const inside of [from + 0.01, (from + to) / 2, to - 0.01]) {
            const past = directionOf(compass, ...at(inside), elsewhere);
            // From elsewhere it may stick there; from anywhere it is kept.
            expect([direction, elsewhere]).toContain(past);
            expect(directionOf(compass, ...at(inside), direction)).toBe(direction);
          }
          expect(directionOf(compass, ...at(keepsTo - 0.01), direction)).toBe(direction);
          expect(directionOf(compass, ...at(keepsTo + 0.01), direction)).not.toBe(direction);
          expect(directionOf(compass, ...at(keepsFrom + 0.01), direction)).toBe(direction);
          expect(directionOf(compass, ...at(keepsFrom - 0.01), direction)).not.toBe(direction);
        }
      }),
    );
  });

  test('no vector, however small or large, gives anything undefined, with any rule', () => {
    const extreme = fc.oneof(
      fc.double(),
      fc.constantFrom(0, -0, 5e-324, -5e-324, 1.7e308, -1.7e308, Infinity, NaN),
    );
    fc.assert(
      fc.property(
        fc.constantFrom('sides' as const, 'four' as const, 'eight' as const, 'sixteen' as const),
        fc.constantFrom('nearest' as const, 'keep' as const, 'horizontal' as const, 'vertical' as const),
        fc.array(fc.tuple(extreme, extreme), { minLength: 1, maxLength: 6 }),
        (directions, diagonal, path) => {
          const { compass } = character({ directions, diagonal, stick: 2, deadZone: 1e-3 });
          let facing: string | undefined;
          for (const [x, y] of path) {
            facing = directionOf(compass, x, y, facing);
            expect(compass.names).toContain(facing);
          }
        },
      ),
    );
  });

  test('a vector that moves a little at a time turns a performer exactly where it is read again each time', () => {
    const steps = fc.array(fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 })), {
      minLength: 150,
      maxLength: 150,
    });
    const deadZone = fc.constantFrom(0, 1, 2.5);
    fc.assert(
      fc.property(circles, rules, deadZone, steps, between, (angles, rule, dead, path, begins) => {
        const controller = character({ directions: named(angles), deadZone: dead, ...rule });
        const performer = new Performer(controller);
        let [x, y] = at(begins, 3);
        let direction = performer.facing;
        for (const [dx, dy] of path) {
          x += dx / 20;
          y += dy / 20;
          performer.set('x', x);
          performer.set('y', y);
          performer.step(1);
          direction = directionOf(controller.compass, x, y, direction);
          expect([x, y, performer.facing]).toEqual([x, y, direction]);
        }
      }),
      { numRuns: often(60) },
    );
  });
});
