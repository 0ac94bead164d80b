import type { OutfitDefinition, Performer } from 'dot-hop';
import { JettyPage } from './jetty-page.js';

const browser = new JettyPage();

/** What the tests see of the page's game. */
interface Jetty {
  readonly game: { readonly performer: Performer; readonly worn: OutfitDefinition };
  readonly loop: { pace: number; stepOnce(): void };
}

/** Holds the page's own time, has him run and swing, and gives what is drawn of him. */
const swingWhileRunning = () =>
  browser.page.evaluate(() => {
    const { game, loop } = (window as unknown as { jetty: Jetty }).jetty;
    loop.pace = 0;
    const press = (code: string): boolean =>
      window.dispatchEvent(new KeyboardEvent('keydown', { code, bubbles: true }));
    const run = (steps: number): void => {
      for (let i = 0; i < steps; i++) loop.stepOnce();
    };
    run(60);
    press('ArrowRight');
    run(60);
    press('KeyJ');
    run(12);
    const { performer } = game;
    const layers = performer.pose.layers.map(({ layer, piece, cell, x, y, dye }) => ({
      layer,
      piece: piece ?? '',
      cell: cell.index,
      at: [x, y].join(),
      image: cell.image + dye,
    }));
    return { states: [performer.state, performer.showing('arms').state], layers };
  });

test('he puts gear on in the middle of what he does, and its sleeves go with his arms', async () => {
  await browser.open('.gear');
  await browser.page.waitForFunction(() => 'jetty' in window);
  const { page } = browser;
  const standing = await page.evaluate(() => {
    const { game, loop } = (window as unknown as { jetty: Jetty }).jetty;
    loop.pace = 0;
    return [game.performer.state, game.performer.phase, game.performer.time];
  });
  for (const piece of ['oilskin', 'satchel', 'rain-hat']) await page.getByTestId(`wear-${piece}`).click();
  await page.getByTestId('dye-coat.oil').selectOption('signal');
  await page.getByTestId('wear-satchel').click();
  expect(
    await page.evaluate(() => {
      const { performer } = (window as unknown as { jetty: Jetty }).jetty.game;
      return [performer.state, performer.phase, performer.time];
    }),
  ).toEqual(standing);
  // The keys are the game's again: nothing that was clicked hears them.
  await page.keyboard.press('Space');
  expect(await page.evaluate(() => (window as unknown as { jetty: Jetty }).jetty.game.worn.pieces)).toEqual({
    coat: 'oilskin',
    bag: 'none',
    hat: 'rain-hat',
  });

  const { states, layers } = await swingWhileRunning();
  expect(states).toEqual(['go', 'swing1']);
  expect(layers.map(({ layer, piece }) => `${layer} ${piece}`.trim())).toEqual([
    'behind',
    'coat oilskin',
    'legs',
    'upper',
    'coat oilskin',
    'hat rain-hat',
  ]);
  const [behind, far, legs, upper, near, hat] = layers;
  for (const [part, worn] of [
    [behind, far],
    [upper, near],
    [upper, hat],
  ])
    expect([worn!.cell, worn!.at]).toEqual([part!.cell, part!.at]);
  expect(legs!.cell).not.toBe(upper!.cell);
  expect([far!.image, near!.image].map((image) => image.split('/').at(-1))).toEqual([
    'oilskin-behind.png?oil=signal',
    'oilskin-upper.png?oil=signal',
  ]);
  // The exact red of the palette is in the picture.
  const colours = await page.evaluate(async () => {
    await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
    const canvas = document.querySelector<HTMLCanvasElement>('.scene canvas')!;
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    const seen = new Set<string>();
    for (let i = 0; i < data.length; i += 4) seen.add([data[i], data[i + 1], data[i + 2]].join());
    return [...seen];
  });
  expect(colours).toContain('196,59,48');
});

test('clothes that do not come are done without, and told; a body that does not come is an error with a way back', async () => {
  browser.forgive(/Failed to load resource|net::/);
  const { page } = browser;
  await page.route(/rain-hat/, (route) => route.abort());
  await browser.begin();
  await page
    .getByRole('status')
    .filter({ hasText: /rain-hat.*cannot be fetched.*Nothing of it is seen/ })
    .waitFor();
  await page.getByTestId('wear-rain-hat').click();
  await page.keyboard.press('Space');
  await browser.hasShown('takeoff');
  await page.route(/wick-legs/, (route) => route.abort());
  await page.reload();
  const told = page.getByRole('alert').filter({ hasText: /wick-legs.*cannot be fetched/ });
  await told.waitFor();
  await page.unroute(/wick-legs/);
  await told.getByRole('button', { name: 'try again' }).click();
  await browser.shows('stand');
});
