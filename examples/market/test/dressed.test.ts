import type { OutfitDefinition, Performer } from 'dot-hop';
import { TestBrowser } from '../../common/browser.js';

const browser = new TestBrowser(() => process.env.MARKET_ADDRESS!);
const open = async (): Promise<void> => {
  await browser.open('.scene canvas');
  await browser.page.waitForFunction(() => 'market' in window);
};

/** What the tests see of the page's game. */
interface Market {
  readonly game: {
    readonly walkers: readonly { readonly name: string; performer: Performer }[];
    readonly own: OutfitDefinition;
    readonly isDressed: boolean;
    readonly mannequins: { readonly performers: readonly Performer[] };
    readonly folk: { readonly images: Record<string, unknown> };
    step(ms: number): void;
  };
  readonly loop: { pace: number };
}
declare global {
  interface Window {
    market: Market;
  }
}

/** Until everybody has come, in what they wear: some come with each picture. */
const dressed = async (): Promise<void> => {
  await browser.page.waitForFunction(() => window.market.game.isDressed);
};

/** What each of the hundred wears, as a text. */
const worn = (): Promise<string[]> =>
  browser.page.evaluate(() =>
    window.market.game.walkers.flatMap(({ name, performer: { outfit } }) =>
      name === '' ? [JSON.stringify([outfit!.pieces, outfit!.colours])] : [],
    ),
  );

test('a hundred people, no two alike; another hundred while they walk, and nobody misses a frame', async () => {
  await open();
  await dressed();
  const first = await worn();
  expect(first).toHaveLength(100);
  expect(new Set(first).size).toBe(100);
  const before = await browser.page.evaluate(() => {
    window.market.loop.pace = 0;
    return window.market.game.walkers.map(({ performer: { state, phase, time } }) => [state, phase, time]);
  });
  await browser.page.getByTestId('another').click();
  const after = await browser.page.evaluate(() =>
    window.market.game.walkers.map(({ performer: { state, phase, time } }) => [state, phase, time]),
  );
  expect(after).toEqual(before);
  await dressed();
  const second = await worn();
  expect(new Set([...first, ...second]).size).toBeGreaterThan(190);
});

test('of the copies in other colours those stay that somebody wears, however often all change their clothes', async () => {
  await open();
  for (let i = 0; i < 3; i++) {
    await dressed();
    await browser.page.getByTestId('another').click();
  }
  await dressed();
  const [kept, needed] = await browser.page.evaluate(() => {
    const { walkers, mannequins, folk } = window.market.game;
    const worn = [...walkers.map(({ performer }) => performer), ...mannequins.performers];
    const names = worn.flatMap(({ outfit }) => outfit?.dyed.map(({ name }) => name) ?? []);
    return [Object.keys(folk.images).filter((name) => name.includes('?')), names];
  });
  expect(kept.length).toBeGreaterThan(40);
  expect(new Set(kept)).toEqual(new Set(needed));
});

test('at every instant all that is worn shows the cell that the body shows, mirrored alike', async () => {
  await open();
  await dressed();
  const { looked, wrong } = await browser.page.evaluate(() => {
    const { game, loop } = window.market;
    loop.pace = 0;
    const wrong: string[] = [];
    let looked = 0;
    for (let step = 0; step < 150; step++) {
      game.step(step % 2 === 0 ? 7 : 31);
      for (const { performer } of game.walkers) {
        const { cell, layers, points } = performer.pose;
        for (const layer of layers) {
          if (layer.layer === 'body' || layer.layer === 'held') continue;
          looked++;
          if (layer.cell.index !== cell.index || layer.x !== 0 || layer.y !== 0) wrong.push(layer.cell.name);
        }
        const held = layers.find((one) => one.layer === 'held');
        // What is held hangs on the hand, frame by frame.
        if (held !== undefined && (held.x !== points.hand!.x || held.y !== points.hand!.y))
          wrong.push('held');
      }
    }
    return { looked, wrong };
  });
  expect(looked).toBeGreaterThan(10_000);
  expect(wrong).toEqual([]);
});

test('in the dressing corner a piece and a colour are picked, and the one that is led wears them', async () => {
  await open();
  const { page } = browser;
  await page.getByTestId('lead-you').click();
  await page.getByTestId('dressing').click();
  await page.getByTestId('wear-hat').selectOption('straw');
  await page.getByTestId('wear-coat').selectOption('pilot');
  await page.getByTestId('wear-coat.cloth').selectOption('moss');
  const [own, layers] = await page.evaluate(() => {
    const { game } = window.market;
    const { performer } = game.walkers.find(({ name }) => name === 'you')!;
    return [performer.outfit!.pieces, performer.pose.layers.map(({ piece, dye }) => `${piece}${dye}`)];
  });
  expect(own).toMatchObject({ hat: 'straw', coat: 'pilot' });
  expect(layers.find((one) => one.startsWith('pilot'))).toContain('cloth=moss');
  // Its exact green is in the corner's picture, once that is drawn.
  await page.waitForFunction(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('.corner canvas')!;
    const copy = document.createElement('canvas');
    [copy.width, copy.height] = [canvas.width, canvas.height];
    // It is read many times.
    const context = copy.getContext('2d', { willReadFrequently: true })!;
    context.drawImage(canvas, 0, 0);
    const { data } = context.getImageData(0, 0, copy.width, copy.height);
    for (let i = 0; i < data.length; i += 4)
      if (data[i] === 58 && data[i + 1] === 92 && data[i + 2] === 70) return true;
    return false;
  });
  const before = await page.evaluate(() => JSON.stringify(window.market.game.own));
  await page.getByTestId('any').click();
  expect(await page.evaluate(() => JSON.stringify(window.market.game.own))).not.toBe(before);
});
