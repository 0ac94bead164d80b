import type { BrowserContextOptions, Page } from 'playwright-core';
import { violations } from '../../../packages/workbench/test/violations.js';
import { TestBrowser } from '../browser.js';

const pages = ['jetty', 'market', 'lighthouse', 'lanterns'] as const;
type Name = (typeof pages)[number];
const addressOf = (name: Name): string => process.env[`${name.toUpperCase()}_ADDRESS`]!;
const browser = new TestBrowser(() => addressOf('jetty'));

const runs = async (page: Page, name: Name): Promise<void> => {
  await page.goto(addressOf(name));
  await page.waitForSelector('aside section');
};

/** Does something on a page as another device shows it. */
async function on<T>(options: BrowserContextOptions, look: (page: Page) => Promise<T>): Promise<T> {
  const context = await browser.page.context().browser()!.newContext(options);
  try {
    const page = await context.newPage();
    page.setDefaultTimeout(60_000);
    return await look(page);
  } finally {
    await context.close();
  }
}

/** Where the scene lies, and how far the page goes beyond its window. */
const laidOut = (page: Page): Promise<{ scene: DOMRect; beyond: number; square: number }> =>
  page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('.scene canvas')!;
    const scene = canvas.getBoundingClientRect();
    return {
      scene,
      beyond: document.documentElement.scrollWidth - window.innerWidth,
      square: (scene.width / canvas.width) * window.devicePixelRatio,
    };
  });

const phone = { deviceScaleFactor: 3, isMobile: true, hasTouch: true };
const devices: readonly (readonly [string, BrowserContextOptions, number])[] = [
  ['a phone upright', { viewport: { width: 390, height: 844 }, ...phone }, 0.17],
  ['a phone on its side', { viewport: { width: 844, height: 390 }, ...phone }, 0.29],
  ['a window at 200%', { viewport: { width: 640, height: 400 }, deviceScaleFactor: 2 }, 0.12],
  ['a window at 134%', { viewport: { width: 955, height: 700 }, deviceScaleFactor: 1.34 }, 0.1],
  ['a large window', { viewport: { width: 1920, height: 1080 } }, 0.42],
];

test.each(pages)(
  '%s fits its window everywhere, in whole pixels',
  async (name) => {
    for (const [device, options, least] of devices) {
      const { scene, beyond, square } = await on(options, async (page) => {
        await runs(page, name);
        return laidOut(page);
      });
      const { width, height } = options.viewport!;
      expect([device, beyond]).toEqual([device, 0]);
      expect([device, scene.left >= 0 && scene.right <= width + 1 && scene.bottom <= height]).toEqual([
        device,
        true,
      ]);
      expect((scene.width * scene.height) / (width * height)).toBeGreaterThan(least);
      expect([device, Math.abs(square - Math.round(square)) < 0.01]).toEqual([device, true]);
    }
  },
  120_000,
);

test.each(pages)('axe finds nothing on %s, and it can be paused by keyboard', async (name) => {
  const { page } = browser;
  await runs(page, name);
  expect(await violations(page)).toEqual([]);
  const pause = page.getByRole('button', { name: 'pause' });
  await pause.focus();
  const outline = await pause.evaluate((button) => getComputedStyle(button).outlineStyle);
  expect(outline).toBe('solid');
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'go on' }).waitFor();
});

test('who asks for little motion gets a picture that waits', async () => {
  const times = await on({ reducedMotion: 'reduce' }, async (page) => {
    await runs(page, 'jetty');
    await page.waitForFunction(() => 'jetty' in window);
    const time = (): Promise<number> => page.evaluate(() => window.jetty.game.performer.time);
    const before = await time();
    await page.waitForTimeout(300);
    const paused = await time();
    await page.getByRole('button', { name: 'go on' }).click();
    await page.waitForFunction((since) => window.jetty.game.performer.time > since, paused);
    return { before, paused };
  });
  expect(times.paused).toBe(times.before);
});

test.each(['lighthouse', 'lanterns'] as const)(
  '%s says what it lacks without WebGL, and waits for a graphics card that was taken away',
  async (name) => {
    browser.forgive(/WebGL|Error creating/);
    const { page } = browser;
    await page.addInitScript(() => {
      type Get = (this: HTMLCanvasElement, kind: string, ...rest: unknown[]) => RenderingContext | null;
      // eslint-disable-next-line @typescript-eslint/unbound-method -- it is called with a canvas below
      const get = HTMLCanvasElement.prototype.getContext as Get;
      const cards: RenderingContext[] = [];
      const without = location.hash === '#without';
      const watched: Get = function (kind, ...rest) {
        const card = kind === 'webgl2' && without ? null : get.call(this, kind, ...rest);
        if (kind === 'webgl2' && card !== null) cards.push(card);
        return card;
      };
      Object.assign(HTMLCanvasElement.prototype, { getContext: watched });
      Object.assign(window, { cards });
    });
    await page.goto(`${addressOf(name)}#without`);
    const told = page.getByRole('alert');
    await told.getByText('WebGL 2').waitFor();
    await told.getByRole('button', { name: 'try again' }).waitFor();
    await page.goto('about:blank');
    await runs(page, name);
    await page.evaluate(() => {
      const { cards } = window as unknown as { cards: WebGL2RenderingContext[] };
      const losing = [...new Set(cards)].map((card) => card.getExtension('WEBGL_lose_context')!);
      Object.assign(window, { losing });
      for (const one of losing) one.loseContext();
    });
    const away = page.getByText('The graphics card has been taken away.');
    await away.waitFor();
    await page.evaluate(() => {
      const { losing } = window as unknown as { losing: WEBGL_lose_context[] };
      for (const one of losing) one.restoreContext();
    });
    await away.waitFor({ state: 'hidden' });
  },
);
