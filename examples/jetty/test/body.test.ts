import { Body } from '../src/scene/body.js';
import type { Wish } from '../src/scene/body.js';
import { Physics, physicsReady } from '../src/scene/physics.js';

const ms = 1000 / 120;
const wish = (along: number, slow = false): Wish => ({ along, slow, holdsHop: false, down: false });

beforeAll(async () => physicsReady(await import('@dimforge/rapier2d-compat')));

interface Walked {
  /** How far it came, without what a deck carried it, and how far it says it came. */
  readonly came: number;
  readonly told: number;
  /** The slowest that it was once it had come up to its speed. */
  readonly slowest: number;
  readonly airborne: number;
}

/** Stands at a place, goes along until it has come to another, and stops. */
function walk(from: readonly [number, number], to: number, slow = false): Walked {
  const physics = new Physics();
  const body = new Body(physics);
  body.place(...from);
  const step = (along: number): void => {
    physics.step(ms);
    body.step(ms, wish(along, slow));
  };
  for (let i = 0; i < 60; i++) step(0);
  const way = Math.sign(to - body.x);
  const start = body.x;
  const deck = physics.decks.findIndex(({ x }) => Math.abs(x - start) < 26);
  const swum = physics.decks[deck]?.x ?? 0;
  let [told, slowest, airborne] = [0, Infinity, 0];
  for (let i = 0; i < 600; i++) {
    const isThere = (to - body.x) * way <= 0;
    step(isThere ? 0 : way);
    told += (body.wentAlong * ms) / 1000;
    airborne += Number(!body.grounded);
    if (isThere && body.vx === 0) break;
    // It gathers speed for a third of a second.
    if (i > 45 && !isThere) slowest = Math.min(slowest, Math.abs(body.wentAlong));
  }
  // The mean of three steps comes to rest two steps later.
  for (let i = 0; i < 3; i++) {
    step(0);
    told += (body.wentAlong * ms) / 1000;
  }
  const carried = deck < 0 ? 0 : physics.decks[deck]!.x - swum;
  return { came: body.x - start - carried, told, slowest, airborne };
}

test.each([
  ['the deck to the right', [376, 158], 450, 139],
  ['the deck, walking', [376, 158], 450, 55],
  ['the deck to the left', [140, 158], 40, 139],
  ['a plank', [472, 114], 540, 139],
  ['a slope upwards', [890, 158], 1000, 100],
  ['a slope downwards', [1130, 46], 1340, 110],
  ['the other slope upwards', [1370, 128], 1140, 85],
  ['a boat that swims', [684, 161], 704, 55],
  ['the deck behind a barrel', [500, 158], 625, 60],
] as const)('on %s it keeps its speed, and comes as far as it says', (_, from, to, speed) => {
  const { came, told, slowest, airborne } = walk(from, to, speed === 55);
  expect(Math.abs(came)).toBeGreaterThan(Math.abs(to - from[0]) * 0.6);
  expect(Math.abs(came / told - 1)).toBeLessThan(0.01);
  expect(slowest).toBeGreaterThan(speed);
  expect(airborne).toBe(0);
});

test('before a wall it stands, says so, and keeps its ground', () => {
  const physics = new Physics();
  const body = new Body(physics);
  body.place(110, 158);
  for (let i = 0; i < 240; i++) {
    physics.step(ms);
    body.step(ms, wish(1));
  }
  expect(body.x).toBeCloseTo(144, 0);
  expect([body.wentAlong, body.grounded, body.bumped]).toEqual([expect.closeTo(0, 0), true, false]);
  expect(body.blocked).toBeGreaterThan(1000);
});

test.each([
  ['from the deck onto the boat is a step down', [620, 158], true],
  ['from the roof is a fall', [520, 114], false],
] as const)('over an edge: %s', (_, [x, y], isStep) => {
  const physics = new Physics();
  const body = new Body(physics);
  body.place(x, y);
  // The boat is near the deck then, and 3 pixels lower.
  for (let i = 0; i < 420; i++) physics.step(ms);
  const told: boolean[] = [];
  for (let i = 0; i < 90 && (told.length === 0 || !body.grounded); i++) {
    physics.step(ms);
    body.step(ms, wish(1));
    if (!body.grounded) told.push(body.stepsDown);
  }
  expect(told.length).toBeGreaterThan(4);
  expect([...new Set(told)]).toEqual([isStep]);
});

test('a wall that is met in the air at speed is a bump, and it is told facing the wall', () => {
  const physics = new Physics();
  const body = new Body(physics);
  body.place(1080, 70);
  body.grounded = false;
  body.vx = 140;
  for (let i = 0; i < 60 && !body.bumped; i++) {
    physics.step(ms);
    body.step(ms, wish(1));
  }
  expect(body.bumped).toBe(true);
  expect(body.wentAlong).toBeGreaterThan(6);
  expect(body.vx).toBeLessThan(0);
});

test('out of the water it holds on to the shore from which it came, where its hands are, and stands up on it', () => {
  const physics = new Physics();
  const body = new Body(physics);
  const settle = (): void => {
    physics.step(ms);
    body.step(ms, wish(0));
  };
  body.place(270, 158);
  for (let i = 0; i < 20; i++) settle();
  body.place(312, 150);
  body.grounded = false;
  for (let i = 0; i < 120 && body.holdsOn === undefined; i++) settle();
  expect(body.holdsOn).toMatchObject({ x: 300, land: -1 });
  body.hang({ x: -4, y: -28 });
  settle();
  expect([body.x, body.y, Math.sign(body.wentAlong)]).toEqual([304, 186, -1]);
  body.standUp();
  for (let i = 0; i < 5; i++) settle();
  expect(body.grounded).toBe(true);
  expect(body.x).toBeCloseTo(295, 0);
});
