import { TestBrowser } from '../../common/browser.js';
import { holdTime, takeOver } from './pilot.js';
import type { Flown } from './pilot.js';

const browser = new TestBrowser(() => process.env.JETTY_ADDRESS!);

async function begin(): Promise<void> {
  await holdTime(browser.page);
  await browser.open('[data-testid=state-stand].showing');
  await takeOver(browser.page);
  await browser.page.evaluate(() => window.pilot.until(({ body }) => body.grounded));
}
/** Runs to a place and stands there. */
const runTo = (x: number): Promise<Flown> =>
  browser.page.evaluate((to) => {
    const { pilot } = window;
    const ahead = to > window.jetty.game.body.x;
    pilot.hold(ahead ? 'ArrowRight' : 'ArrowLeft', 'ShiftLeft');
    pilot.until(({ body }) => (ahead ? body.x >= to - 2 : body.x <= to + 2), 2000);
    pilot.hold();
    pilot.until(({ body, performer }) => body.grounded && performer.state === 'stand');
    return pilot.flown();
  }, x);
/** Runs to a place and hops there, steering on until another place. */
const hopAt = (from: number, until: number): Promise<Flown> =>
  browser.page.evaluate(
    ([at, to]) => {
      const { pilot } = window;
      pilot.hold('ArrowRight');
      pilot.until(({ body }) => body.x >= at!);
      pilot.hold('ArrowRight', 'Space');
      pilot.untilAloft();
      pilot.until(({ body }) => body.x >= to! || body.grounded);
      // The hop's button stays down: let go early, it would be a short hop.
      pilot.hold('Space');
      pilot.until(({ body }) => body.grounded);
      pilot.hold();
      pilot.until(({ body, performer }) => body.grounded && performer.state === 'stand');
      return pilot.flown();
    },
    [from, until],
  );
const swing = (): Promise<Flown> =>
  browser.page.evaluate(() => {
    const { pilot } = window;
    pilot.tap('KeyJ');
    pilot.until(({ performer }) => performer.state === 'stand');
    return pilot.flown();
  });
/** Lights the lamp at a post, from the side from which he comes. Gives how many are lit then. */
async function light(post: number): Promise<number> {
  const at = await browser.page.evaluate(() => window.jetty.game.body.x);
  if (at > post - 8 && at < post + 24) await runTo(post + 32);
  await runTo(at > post - 8 ? post + 20 : post - 8);
  return (await swing()).lit;
}

test('he swings while he runs: his legs run on, and the lamp that he passes is lit', async () => {
  await begin();
  const swung = await browser.page.evaluate(() => {
    const { pilot, jetty } = window;
    const { body, performer } = jetty.game;
    body.place(384, 158);
    pilot.until(() => body.grounded && performer.state === 'stand');
    pilot.flown();
    pilot.hold('ArrowRight');
    pilot.until(() => body.x > 404);
    const [lit, x] = [jetty.game.lit.filter(Boolean).length, body.x];
    pilot.tap('KeyJ');
    const layers = performer.pose.layers.map(({ layer, cell }) => `${layer} ${cell.index}`);
    const legs = performer.clip;
    const arms: string[] = [];
    pilot.until(() => {
      const { state } = performer.showing('arms');
      if (arms.at(-1) !== state) arms.push(state);
      return state === 'with-body';
    });
    return { ...pilot.flown(), before: lit, from: x, layers, legs, arms };
  });
  expect(swung.states).toEqual(['stand', 'go']);
  expect(swung.arms).toEqual(['swing1', 'with-body']);
  expect(swung.legs).toBe('run');
  expect(swung.layers.map((layer) => layer.replace(/ \d+$/, ''))).toEqual(['behind', 'legs', 'upper']);
  expect(swung.layers[2]).toBe('upper 38');
  expect(swung.lit).toBe(swung.before + 1);
  // In 420 ms at a run he has come some 59 pixels on: nothing has held his feet.
  expect(swung.x - swung.from).toBeGreaterThan(50);
});

test('through the whole level: every lamp is lit, and every state comes when it should', async () => {
  await begin();
  const onCrate = await hopAt(120, 168);
  expect(onCrate.states).toEqual(['stand', 'go', 'takeoff', 'rise', 'fall', 'land', 'stand']);
  expect(onCrate.y).toBeCloseTo(116, 0);
  // The drawings are those of the clips, in their order: run, take-off, rise, fall, land.
  const [takeoff, land] = [onCrate.cells.indexOf(24), onCrate.cells.indexOf(35)];
  expect(onCrate.cells.slice(takeoff, takeoff + 4)).toEqual([24, 25, 26, 27]);
  expect(onCrate.cells.slice(takeoff + 4, land).every((cell) => cell >= 28 && cell <= 34)).toBe(true);

  // Off the crate he falls: no hop was pressed.
  expect((await runTo(252)).states).toEqual(['stand', 'go', 'fall', 'land', 'go', 'stand']);
  const swung = await swing();
  expect(swung.states).toEqual(['stand', 'swing1', 'stand']);
  expect(swung.lit).toBe(2);

  await hopAt(288, 384);
  expect(await light(430)).toBe(3);
  expect(await light(622)).toBe(4);

  // Onto the first boat, and it carries him.
  await runTo(636);
  const aboard = await hopAt(638, 686);
  const carried = await browser.page.evaluate(() => {
    const { pilot, jetty } = window;
    const { body, physics, performer } = jetty.game;
    const from = { x: body.x, deck: physics.decks[0]!.x };
    const seen = new Set<string>();
    const end = performer.time + 3500;
    let [deck, apart] = [0, 0];
    pilot.until(() => {
      seen.add(performer.state);
      const moved = physics.decks[0]!.x - from.deck;
      deck = Math.max(deck, Math.abs(moved));
      apart = Math.max(apart, Math.abs(body.x - from.x - moved));
      return performer.time >= end;
    });
    return { deck, apart, seen: [...seen] };
  });
  expect(aboard.y).toBeGreaterThan(158);
  expect(carried.deck).toBeGreaterThan(10);
  expect(carried.apart).toBeLessThan(2);
  // A deck that bobs and swims is ground like any other.
  expect(carried.seen).toEqual(['stand', 'doze']);

  // Over the post and the second boat: a hop, and a dash at its height.
  const dashed = await browser.page.evaluate(() => {
    const { pilot, jetty } = window;
    const { physics } = jetty.game;
    pilot.until(() => physics.decks[0]!.x > 716 && physics.decks[1]!.x > 830, 4000);
    pilot.hold('ArrowRight');
    pilot.until(({ body }) => body.x >= 728);
    pilot.hold('ArrowRight', 'Space');
    pilot.untilAloft();
    pilot.until(({ body }) => body.vy > -40);
    pilot.tap('KeyK');
    pilot.until(({ performer }) => performer.state === 'dash');
    pilot.until(({ body }) => body.grounded);
    pilot.hold();
    pilot.until(({ performer }) => performer.state === 'stand');
    return pilot.flown();
  });
  expect(dashed.states.join(' ')).toMatch(/takeoff rise (fall )?dash (rise )?fall land/);
  expect(dashed.cells).toEqual(expect.arrayContaining([80, 81, 82, 83]));
  expect(dashed.x).toBeGreaterThan(790);

  // Up the slope at full run: one state all the way, its feet on the stones.
  await hopAt(dashed.x + 10, 900);
  expect(await light(896)).toBe(5);
  const climbed = await runTo(1038);
  expect(climbed.states).toEqual(['stand', 'go', 'stand']);
  expect((await swing()).lit).toBe(6);

  // Through two boards from below, onto the terrace.
  const jumps = [
    [1044, 1050, 78],
    [1060, 1086, 50],
    [1100, 1140, 46],
  ] as const;
  for (const [from, until, top] of jumps) expect((await hopAt(from, until)).y).toBeCloseTo(top, 0);
  expect(await light(1188)).toBe(7);
  expect((await runTo(1380)).states).toEqual(['stand', 'go', 'stand']);
  expect(await light(1396)).toBe(8);
  await browser.page.getByText('8 of 8 lamps lit').waitFor();
}, 180_000);

test('what the air holds: a somersault that landing ends, a wall that ends a dash, one dash for each time aloft', async () => {
  await begin();
  const flipped = await browser.page.evaluate(() => {
    const { pilot } = window;
    pilot.hold('Space');
    pilot.untilAloft();
    pilot.until(({ body }) => body.vy > -20);
    pilot.hold();
    pilot.tap('KeyJ');
    pilot.until(({ body }) => body.grounded);
    pilot.until(({ performer }) => performer.state === 'stand');
    return pilot.flown();
  });
  expect(flipped.states).toEqual(['stand', 'takeoff', 'rise', 'fall', 'flip', 'land', 'stand']);
  const bumped = await browser.page.evaluate(() => {
    const { pilot, jetty } = window;
    jetty.game.body.place(1050, 100);
    pilot.until(({ body, performer }) => body.grounded && performer.state === 'stand');
    pilot.flown();
    pilot.hold('ArrowRight');
    pilot.until(({ body }) => body.x > 1064);
    pilot.hold('ArrowRight', 'Space');
    pilot.untilAloft();
    pilot.until(({ body }) => body.vy > -180);
    pilot.tap('KeyK');
    pilot.until(({ performer }) => performer.state === 'bump');
    pilot.hold();
    // A second dash is not to be had in the air; the barrel that he may come down on rolls away below him.
    pilot.tap('KeyK');
    pilot.until(({ performer }) => performer.state === 'stand');
    return pilot.flown();
  });
  expect(bumped.states.join(' ')).toMatch(/takeoff rise dash bump (fall )?land (fall land )?stand$/);
}, 240_000);

test('into the water: a splash, and back where he stood', async () => {
  await begin();
  const wet = await browser.page.evaluate(() => {
    const { pilot } = window;
    pilot.hold('ArrowRight');
    pilot.until(({ body }) => body.x > 120);
    pilot.hold('ArrowRight', 'Space');
    pilot.until(({ body }) => body.x > 200);
    pilot.hold('ArrowRight');
    pilot.until(({ performer }) => performer.state === 'splashed');
    pilot.hold();
    pilot.until(({ performer }) => performer.state === 'stand');
    return pilot.flown();
  });
  expect(wet.states.slice(-3)).toEqual(['climb', 'splashed', 'stand']);
  expect(wet.x).toBeGreaterThan(250);
  expect(wet.x).toBeLessThan(300);
}, 240_000);

test('a stall of three seconds is no leap: the game goes on where it was', async () => {
  await browser.open('[data-testid=state-stand].showing');
  await browser.page.keyboard.down('ArrowRight');
  await browser.page.waitForFunction(() => window.jetty.game.performer.state === 'go');
  const moved = await browser.page.evaluate(() => {
    const { game } = window.jetty;
    const [x, time] = [game.body.x, game.performer.time];
    const end = performance.now() + 3000;
    while (performance.now() < end);
    return new Promise<{ x: number; time: number }>((done) =>
      requestAnimationFrame(() =>
        requestAnimationFrame(() => done({ x: game.body.x - x, time: game.performer.time - time })),
      ),
    );
  });
  expect(moved.time).toBeGreaterThan(0);
  expect(moved.time).toBeLessThan(600);
  expect(moved.x).toBeLessThan(90);
  await browser.page.keyboard.up('ArrowRight');
});

test('play leaves nothing behind in memory, however long it lasts', async () => {
  await begin();
  const session = await browser.page.context().newCDPSession(browser.page);
  const used = async (): Promise<number> => {
    await session.send('HeapProfiler.collectGarbage');
    const { usedSize } = await session.send('Runtime.getHeapUsage');
    return usedSize;
  };
  /**
   * Plays on for six minutes, and gives the least that was in use after any two of them. Compiled code comes and goes, some
   * 300 kB at a time; what is never freed is there each time.
   */
  const leastUsed = async (): Promise<number> => {
    let least = Infinity;
    for (let i = 0; i < 3; i++) {
      await play(2);
      least = Math.min(least, await used());
    }
    return least;
  };
  /** Runs to and fro, hops, swings, dashes and falls into the water, by a fixed pattern. */
  const play = (minutes: number): Promise<number> =>
    browser.page.evaluate((long) => {
      const { pilot, jetty } = window;
      const { performer } = jetty.game;
      const end = performer.time + long * 60_000;
      const passed = new Set<string>();
      for (let i = 0; performer.time < end; i++) {
        pilot.hold(i % 5 < 3 ? 'ArrowRight' : 'ArrowLeft', ...(i % 3 === 0 ? ['Space'] : []));
        if (i % 4 === 1) pilot.tap('KeyJ');
        if (i % 4 === 2) pilot.tap('KeyK');
        const until = performer.time + 180 + ((i * 97) % 400);
        pilot.until(() => performer.time >= until);
        for (const state of pilot.flown().states) passed.add(state);
      }
      return passed.size;
    }, minutes);
  // What is made as it is first met (situations, compiled code) is there after two minutes.
  await play(2);
  const before = await leastUsed();
  expect(await play(8)).toBeGreaterThan(9);
  // 14 minutes lie between, 100,800 steps: ten bytes of each that stayed would be more than this.
  expect((await leastUsed()) - before).toBeLessThan(1_008_000);
}, 240_000);
