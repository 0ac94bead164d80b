import fc from 'fast-check';
import { FeedingBody, readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import type { GroundDefinition } from 'dot-hop/rehearsal';
import { controller } from './ferryman.js';
import { often } from './often.js';

/** A runner on some ground, told at every step of 5 ms. */
function runs(
  ground: GroundDefinition & { readonly start?: readonly [number, number] },
  ms: number,
  hold: readonly ('left' | 'right' | 'jump')[] = ['right'],
): { x: number; y: number; wet: boolean; blocked: boolean }[] {
  const body = new FeedingBody(controller, { platformer: { speed: 100, ...ground } });
  for (const button of hold) body.press(button);
  return Array.from({ length: ms / 5 }, () => {
    body.advance(5);
    const { x, y, wet, blocked } = body;
    return { x, y, wet, blocked };
  });
}

test('a slope is walked up and down without losing the ground; at its end the level goes on', () => {
  const body = new FeedingBody(controller, {
    platformer: {
      ground: [
        [-100, 40, 0],
        [40, 100, 0, 30],
        [100, 120, 30],
        [120, 180, 30, 0],
        [180, 400, 0],
      ],
    },
  });
  body.press('right');
  let highest = 0;
  while (body.x < 200) {
    body.advance(5);
    expect(body.grounded).toBe(true);
    if (body.x > 40 && body.x < 100) expect(body.y).toBeCloseTo((-30 * (body.x - 40)) / 60, 9);
    highest = Math.min(highest, body.y);
  }
  expect([highest, body.y]).toEqual([-30, 0]);
});

test('a slope that is steeper than 56 degrees is a wall, and so is its back', () => {
  const steep: GroundDefinition = {
    ground: [
      [-100, 40, 0],
      [40, 50, 0, 40],
      [50, 400, 40],
    ],
  };
  expect(runs(steep, 2000).at(-1)!.x).toBeCloseTo(40, 0);
  const back: GroundDefinition = {
    ground: [
      [-100, 40, 0],
      [40, 140, 50, 0],
      [140, 400, 0],
    ],
  };
  const stopped = runs(back, 2000).at(-1)!;
  expect([Math.round(stopped.x), stopped.blocked]).toEqual([40, true]);
  // From its foot it is a way up, and at the top one falls off it.
  const over = runs({ ...back, start: [200, 0] }, 3000, ['left']);
  expect(Math.min(...over.map(({ y }) => y))).toBeLessThan(-45);
  expect(over.at(-1)!.x).toBeLessThan(0);
});

test('a plank is passed from below and from the side, and stood on from above', () => {
  const planks: GroundDefinition['planks'] = [[-50, 50, 30]];
  const up = runs({ planks }, 2000, ['jump']);
  expect(Math.min(...up.map(({ y }) => y))).toBeLessThan(-35);
  expect(up.at(-1)!.y).toBe(-30);
  expect(runs({ planks, start: [-100, 0] }, 2000).at(-1)!.x).toBeGreaterThan(60);
  const wall: GroundDefinition & { readonly start: readonly [number, number] } = {
    ground: [
      [-200, -50, 0],
      [-50, 50, 30],
    ],
    start: [-100, 0],
  };
  expect(runs(wall, 2000).at(-1)!.x).toBeLessThan(-50);
});

test('in water it sinks slowly, says that it is wet, and a stroke brings it up', () => {
  const sea: GroundDefinition = {
    ground: [[-400, 400, -200]],
    water: [[-400, 400, -10]],
  };
  const sunk = runs({ ...sea, start: [0, 0] }, 3000, []);
  const speeds = sunk.slice(1).map(({ y }, i) => (y - sunk[i]!.y) / 0.005);
  expect(sunk[0]!.wet).toBe(false);
  const wet = speeds.slice(sunk.findIndex((one) => one.wet) + 1);
  expect(Math.max(...wet)).toBeCloseTo(60, 6);
  const swimmer = new FeedingBody(controller, {
    platformer: { ...sea, start: [0, 50], feeds: { lamp: 'wet' } },
  });
  expect(Object.fromEntries(swimmer.changes())).toMatchObject({ lamp: true, grounded: false });
  swimmer.press('jump');
  swimmer.advance(200);
  expect(swimmer.y).toBeLessThan(30);
});

test('a body never ends up under solid ground', () => {
  const height = fc.integer({ min: -40, max: 40 });
  const line = fc.array(fc.tuple(fc.integer({ min: 20, max: 90 }), height, height), {
    minLength: 2,
    maxLength: 8,
  });
  const presses = fc.array(fc.constantFrom('left', 'right', 'jump', undefined), { maxLength: 30 });
  fc.assert(
    fc.property(line, presses, (parts, buttons) => {
      let from = -200;
      const ground = parts.map(([wide, left, right]): [number, number, number, number] => {
        const piece: [number, number, number, number] = [from, from + wide, left, right];
        from += wide;
        return piece;
      });
      const body = new FeedingBody(controller, { platformer: { ground, start: [-190, -100] } });
      let deepest = 0;
      for (const button of buttons) {
        for (const one of ['left', 'right', 'jump'] as const) body.release(one);
        if (button !== undefined) body.press(button);
        for (let i = 0; i < 20; i++) {
          body.advance(8);
          // Of two pieces that meet here the body may stand on the lower one's edge.
          const tops = ground
            .filter(([left, right]) => body.x > left && body.x < right)
            .map(([left, right, a, b]) => -(a + ((b - a) * (body.x - left)) / (right - left)));
          deepest = Math.max(deepest, ...tops.map((top) => body.y - top));
        }
      }
      expect(deepest).toBeLessThan(1e-6);
    }),
    { numRuns: often(150) },
  );
});

test('ground that is written wrongly is refused with what it must be', () => {
  const text = (ground: string): string =>
    `dotHopRehearsal: 1\ndocument: f.yaml\nlasts: 10\nbody: { platformer: { ${ground} } }\nscript: []\n`;
  const { definition } = readRehearsal(text('ground: [[0, 9, 1, 4]], planks: [[0, 9, 3]], water: []'), 'f');
  expect(() => runRehearsal(controller, definition)).not.toThrow();
  expect(() => readRehearsal(text('ground: [[0, 9]]'), 'f')).toThrow(
    /pieces of ground, each \[from x, to x, height\] or \[from x, to x, height, height at the other end\]/,
  );
  expect(() => readRehearsal(text('planks: [3]'), 'f')).toThrow(/planks, each \[from x, to x, height\]/);
});
