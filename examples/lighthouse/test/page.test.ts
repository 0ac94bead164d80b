import { TestBrowser } from '../../common/browser.js';

const browser = new TestBrowser(() => process.env.LIGHTHOUSE_ADDRESS!);
const round = ['south', 'southeast', 'east', 'northeast', 'north', 'northwest', 'west', 'southwest'];

/** The sides that show one after the other while a key is held for a full round and some more. */
async function sidesWhile(key: string): Promise<string[]> {
  const { page } = browser;
  await page.keyboard.down(key);
  const sides = await page.evaluate(
    () =>
      new Promise<string[]>((done) => {
        const text = (id: string) => document.querySelector(`[data-testid=${id}]`)!.textContent;
        const seen: string[] = [];
        const timer = setInterval(() => {
          const side = text('facing');
          if (seen[seen.length - 1] !== side) seen.push(side);
          if (seen.length < 11) return;
          clearInterval(timer);
          done(seen);
        }, 10);
      }),
  );
  await page.keyboard.up(key);
  return sides;
}

test('somebody who stands still is seen from all eight sides in turn, either way round', async () => {
  await browser.open('.scene canvas');
  await browser.page.getByTestId('stands').click();
  await browser.says('state', 'stand');
  for (const [key, step] of [
    ['ArrowRight', -1],
    ['ArrowLeft', 1],
  ] as const) {
    // The first may have been turning already.
    const sides = (await sidesWhile(key)).slice(1);
    const begin = round.indexOf(sides[0]!);
    expect(sides).toEqual(sides.map((_, i) => round[(begin + step * i + 80) % 8]));
  }
}, 240_000);

test('Wick, drawn from the side, shows one of his two sides, and the other from behind', async () => {
  await browser.open('.scene canvas');
  const { page } = browser;
  await page.getByTestId('select-wick').click();
  await page.getByTestId('stands').click();
  await browser.says('state', 'stand');
  const before = await browser.text('facing');
  const yaw = Number.parseInt(await browser.text('yaw'), 10);
  await page.keyboard.down('ArrowRight');
  await page.waitForFunction((from) => {
    const now = Number.parseInt(document.querySelector('[data-testid=yaw]')!.textContent, 10);
    return Math.abs(((now - from + 540) % 360) - 180) > 172;
  }, yaw);
  await page.keyboard.up('ArrowRight');
  expect(await browser.text('facing')).toBe(before === 'east' ? 'west' : 'east');
});

test('the picture is drawn, by dragging from elsewhere', async () => {
  await browser.open('.scene canvas');
  const { page } = browser;
  const scene = (await page.locator('.scene canvas').boundingBox())!;
  const yaw = await browser.text('yaw');
  await page.mouse.move(scene.x + 300, scene.y + 300);
  await page.mouse.down();
  await page.mouse.move(scene.x + 420, scene.y + 310, { steps: 4 });
  await page.mouse.up();
  await page.waitForFunction(
    (from) => document.querySelector('[data-testid=yaw]')!.textContent !== from,
    yaw,
  );
  const colours = await page.screenshot({ clip: scene });
  // Not one plain colour: a picture of so many shapes does not pack into a few kilobytes.
  expect(colours.length).toBeGreaterThan(50_000);
});
