import type { Loop } from '@dot-hop/browser';
import type { DrawnMembers, Troupe } from 'dot-hop/troupe';
import { TestBrowser } from '../../common/browser.js';

/** What the tests touch of the page's game. */
interface Game {
  readonly seen: number;
  readonly crowd: {
    readonly count: number;
    readonly led: number;
    readonly x: Float32Array;
    readonly y: Float32Array;
    readonly look: Uint8Array;
    readonly drawn: DrawnMembers;
    readonly troupe: Troupe;
    lead(one: number): void;
  };
  draw(): void;
  lookAt(x: number, y: number): void;
}

declare global {
  interface Window {
    lanterns: { readonly game: Game; readonly loop: Loop };
  }
}

// Fewer people than the page begins with: the tests' browser paints without a graphics card.
const browser = new TestBrowser(() => `${process.env.LANTERNS_ADDRESS!}?people=2000`);
const open = async () => {
  await browser.open('.scene canvas');
  await browser.page.waitForFunction(() => 'lanterns' in window);
  await browser.says('people-says', '2,000');
};

test('everybody is drawn as the performer of that member is, in a look of its own', async () => {
  await open();
  const { shown, differing, looks, seen } = await browser.page.evaluate(() => {
    const { game, loop } = window.lanterns;
    loop.pace = 0;
    for (let i = 0; i < 200; i++) loop.stepOnce();
    game.draw();
    const { crowd } = game;
    let differing = 0;
    for (let i = 0; i < crowd.count; i++) {
      const { cell, mirrored } = crowd.troupe.pose(i);
      if (crowd.drawn.cell[i] !== cell.index || (crowd.drawn.mirrored[i] === 1) !== mirrored) differing++;
    }
    const shown = new Set(Array.from(crowd.drawn.cell.subarray(0, crowd.count))).size;
    return { shown, differing, looks: new Set(crowd.look.subarray(0, crowd.count)).size, seen: game.seen };
  });
  expect(differing).toBe(0);
  expect(shown).toBeGreaterThan(50);
  expect(looks).toBe(64);
  expect(seen).toBeGreaterThan(3);
});

test('lanterns light the picture: it is bright where people are, and dark in between', async () => {
  await open();
  const [bright, dark] = await browser.page.evaluate(() => {
    const { game, loop } = window.lanterns;
    loop.pace = 0;
    game.draw();
    const light = document.querySelector<HTMLCanvasElement>('.light')!;
    const copy = document.createElement('canvas');
    [copy.width, copy.height] = [light.width, light.height];
    const context = copy.getContext('2d')!;
    context.drawImage(light, 0, 0);
    const { data } = context.getImageData(0, 0, copy.width, copy.height);
    let [bright, dark] = [0, 0];
    for (let i = 3; i < data.length; i += 4) {
      if (data[i]! > 120) bright++;
      if (data[i]! < 12) dark++;
    }
    return [bright / (data.length / 4), dark / (data.length / 4)];
  });
  expect(bright).toBeGreaterThan(0.01);
  expect(dark).toBeGreaterThan(0.1);
});

test('somebody is taken by the hand, walks by keys, waves, and says why', async () => {
  await open();
  const { page } = browser;
  await page.getByTestId('lead-any').click();
  await browser.page.waitForSelector('[data-testid=state]');
  await page.keyboard.down('ArrowRight');
  await browser.says('state', 'walk');
  await browser.says('facing', 'east');
  await page.keyboard.up('ArrowRight');
  await browser.says('state', 'stand');
  await page.getByTestId('wave').click();
  await browser.says('state', 'wave');
  expect(await page.locator('.led li.shows').innerText()).toContain('wave');
  await browser.says('state', 'stand');
  await page.getByTestId('let-go').click();
  await page.waitForSelector('[data-testid=lead-any]');
});

test('whoever is led is looked at closer: the last seconds of one in the crowd, in what it wears', async () => {
  await open();
  const { page } = browser;
  await page.getByTestId('lead-any').click();
  await page.getByTestId('closer').click();
  const overlay = page.locator('[data-overlay]');
  await overlay.locator('canvas[aria-label*="folk"]').waitFor();
  await page.keyboard.down('ArrowRight');
  await overlay.locator('[data-shows]', { hasText: 'walk' }).waitFor();
  await page.keyboard.up('ArrowRight');
  await overlay.locator('[data-shows]', { hasText: 'stand' }).waitFor();
  // Back to where it walked: the game goes on meanwhile.
  const past = overlay.getByRole('slider', { name: 'instant looked at' });
  await past.focus();
  const shows = overlay.locator('[data-shows]');
  for (let i = 0; i < 60 && (await shows.innerText()) !== 'walk'; i++) await past.press('ArrowLeft');
  expect(await shows.innerText()).toBe('walk');
  await page.getByTestId('closer').click();
  await overlay.waitFor({ state: 'detached' });
  // It goes with whom it is of.
  await page.getByTestId('closer').click();
  await overlay.waitFor({ state: 'attached' });
  await page.evaluate(() => window.lanterns.game.crowd.lead(-1));
  await overlay.waitFor({ state: 'detached' });
});

test('a tap leads whom it meets, a drag looks elsewhere', async () => {
  await open();
  const { page } = browser;
  const target = await page.evaluate(() => {
    const { game, loop } = window.lanterns;
    loop.pace = 0;
    game.lookAt(game.crowd.x[7]!, game.crowd.y[7]! - 16);
    game.draw();
    const { left, top, width, height } = document.querySelector('.scene canvas')!.getBoundingClientRect();
    return { x: left + width / 2, y: top + height / 2, at: [game.crowd.x[7]!, game.crowd.y[7]!] };
  });
  const led = () =>
    page.evaluate(() => {
      const { crowd } = window.lanterns.game;
      return [crowd.x[crowd.led] ?? -1, crowd.y[crowd.led] ?? -1];
    });
  await page.mouse.click(target.x, target.y);
  const [x, y] = await led();
  // At an edge of the quay the view cannot have everybody in its middle.
  expect(Math.hypot(x! - target.at[0]!, y! - target.at[1]!)).toBeLessThan(40);
  await page.mouse.move(target.x, target.y);
  await page.mouse.down();
  await page.mouse.move(target.x - 120, target.y - 20, { steps: 4 });
  await page.mouse.up();
  expect(await led()).toEqual([-1, -1]);
});

test('near the water people turn to a boat that passes, and wave', async () => {
  await open();
  const waving = await browser.page.evaluate(() => {
    const { game, loop } = window.lanterns;
    loop.pace = 0;
    const { crowd } = game;
    const seen: { facing: string; far: number }[] = [];
    for (let i = 0; i < 600 && seen.length < 20; i++) {
      loop.stepOnce();
      const { reports } = crowd.troupe;
      for (let k = 0; k < reports.count; k++) {
        if (reports.kind(k) !== 'switch' || reports.name(k) !== 'wave') continue;
        const who = reports.memberAt(k);
        seen.push({ facing: crowd.troupe.member(who).facing, far: 1366 - crowd.y[who]! });
      }
    }
    return seen;
  });
  expect(waving.length).toBeGreaterThanOrEqual(10);
  expect(waving.every(({ far }) => far < 190)).toBe(true);
  expect(waving.filter(({ facing }) => facing === 'south').length).toBeGreaterThan(waving.length * 0.9);
});

test('the slider brings people and sends them home, and the rest go on as they were', async () => {
  await open();
  const { page } = browser;
  const before = await page.evaluate(() => {
    const { game, loop } = window.lanterns;
    loop.pace = 0;
    return [game.crowd.troupe.time, game.crowd.x[5]];
  });
  const slider = page.getByTestId('people');
  await slider.press('Home');
  await browser.says('people-says', '100');
  expect(
    await page.evaluate(() => [window.lanterns.game.crowd.troupe.time, window.lanterns.game.crowd.x[5]]),
  ).toEqual(before);
  const { x, y, width, height } = (await slider.boundingBox())!;
  await page.mouse.click(x + width * 0.6, y + height / 2);
  await page.waitForFunction(() => window.lanterns.game.crowd.count > 3000);
  const faulty = await page.evaluate(() => {
    const { game, loop } = window.lanterns;
    for (let i = 0; i < 30; i++) loop.stepOnce();
    game.draw();
    const { crowd } = game;
    return Array.from({ length: crowd.count }, (_, i) => i).filter((i) => crowd.drawn.cell[i]! < 0).length;
  });
  expect(faulty).toBe(0);
});
