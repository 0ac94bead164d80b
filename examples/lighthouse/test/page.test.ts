import { TestBrowser } from '../../common/browser.js';

const browser = new TestBrowser(() => process.env.LIGHTHOUSE_ADDRESS!);
const round = ['south', 'southeast', 'east', 'northeast', 'north', 'northwest', 'west', 'southwest'];

/** The sides that show one after the other while a key is held, until there are so many. */
async function sidesWhile(key: string, count: number): Promise<string[]> {
  const { page } = browser;
  await page.keyboard.down(key);
  const sides = await page.evaluate(
    (most) =>
      new Promise<string[]>((done) => {
        const text = (id: string) => document.querySelector(`[data-testid=${id}]`)!.textContent;
        const seen: string[] = [];
        const timer = setInterval(() => {
          const side = text('facing');
          if (seen[seen.length - 1] !== side) seen.push(side);
          if (seen.length < most) return;
          clearInterval(timer);
          done(seen);
        }, 10);
      }),
    count,
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
    const sides = (await sidesWhile(key, 11)).slice(1);
    const begin = round.indexOf(sides[0]!);
    expect(sides).toEqual(sides.map((_, i) => round[(begin + step * i + 80) % 8]));
  }
}, 240_000);

test('Wick, drawn from the side, shows his two sides in turn as the camera goes round him', async () => {
  await browser.open('.scene canvas');
  await browser.page.getByTestId('select-wick').click();
  await browser.page.getByTestId('stands').click();
  await browser.says('state', 'stand');
  const sides = await sidesWhile('ArrowRight', 3);
  const other = sides[0] === 'east' ? 'west' : 'east';
  expect(sides).toEqual([sides[0], other, sides[0]]);
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
