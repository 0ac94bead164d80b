import { TestBrowser } from '../../common/browser.js';
import { holdTime, takeOver } from './pilot.js';

const browser = new TestBrowser(() => process.env.JETTY_ADDRESS!);

/** Plays five minutes with random keys. Gives each state that showed under 50 ms although no key was pressed or let go then. */
const playAtRandom = (firstSeed: number) =>
  browser.page.evaluate((from) => {
    const { pilot, jetty } = window;
    const { performer } = jetty.game;
    let seed = from;
    const random = (): number => (seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
    const begun = performer.time;
    const shown = [{ state: performer.state, since: begun }];
    const pressed: number[] = [];
    let next = 0;
    while (performer.time < begun + 300_000) {
      if (performer.time >= next) {
        pressed.push(performer.time);
        next = performer.time + 120 + random() * 700;
        const way = random();
        const along = way < 0.42 ? ['ArrowRight'] : way < 0.72 ? ['ArrowLeft'] : [];
        const also = (code: string, chance: number): string[] => (random() < chance ? [code] : []);
        pilot.hold(...along, ...also('ShiftLeft', 0.2), ...also('Space', 0.3), ...also('ArrowDown', 0.05));
        if (random() < 0.25) pilot.tap('KeyJ');
        if (random() < 0.2) pilot.tap('KeyK');
      }
      const until = performer.time + 1;
      pilot.until(() => performer.time >= until);
      const { state, clip, isBridging, time } = performer;
      const label = isBridging ? `${state}: ${clip}` : state;
      if (shown.at(-1)!.state !== label) shown.push({ state: label, since: time });
    }
    pilot.flown();
    const short = shown.slice(1, -1).flatMap(({ state, since }, i) => {
      const [before, after] = [shown[i]!, shown[i + 2]!];
      const byHand = pressed.some((at) => at >= since - 20 && at <= after.since);
      return after.since - since < 49 && !byHand ? [`${before.state} > ${state} > ${after.state}`] : [];
    });
    return { switches: shown.length - 1, short };
  }, firstSeed);

test('whatever is pressed, hardly a state shows for under three pictures', async () => {
  await holdTime(browser.page);
  await browser.open('[data-testid=state-stand].showing');
  await takeOver(browser.page);
  await browser.page.evaluate(() => window.pilot.until(({ body }) => body.grounded));
  const played = [await playAtRandom(3), await playAtRandom(5)];
  for (const { switches } of played) expect(switches).toBeGreaterThan(800);
  // What is left: an act that ends just before the ground is there, and edges that are met at the end of a brake.
  expect(played.flatMap(({ short }) => short).length).toBeLessThanOrEqual(20);
});
