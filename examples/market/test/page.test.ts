import { TestBrowser } from '../../common/browser.js';

const browser = new TestBrowser(() => process.env.MARKET_ADDRESS!);
const open = async () => {
  await browser.open('.scene canvas');
  await browser.says('facing', 'south');
};

test('keys lead her in eight directions, through those in between, and she keeps facing where she went', async () => {
  await open();
  const { page } = browser;
  await page.keyboard.down('ArrowRight');
  await browser.says('facing', 'east');
  expect(await browser.text('clip')).toBe('walk-east');
  await page.keyboard.down('ArrowDown');
  await browser.says('facing', 'southeast');
  await page.keyboard.up('ArrowRight');
  await browser.says('facing', 'south');
  await page.keyboard.down('ArrowLeft');
  await browser.says('facing', 'southwest');
  // Drawn for the other side.
  expect(await browser.text('clip')).toBe('walk-southeast');
  expect(await browser.text('mirrored')).toMatch(/mirrored$/);
  await page.keyboard.up('ArrowDown');
  await browser.says('facing', 'west');
  await page.keyboard.up('ArrowLeft');
  await browser.says('clip', 'stand-east');
  expect(await browser.text('facing')).toBe('west');
});

test('on four directions a diagonal keeps what she faces, and everybody goes on where they were', async () => {
  await open();
  const { page } = browser;
  await page.getByTestId('directions-four').click();
  await page.locator('select').selectOption('keep');
  await page.keyboard.down('ArrowRight');
  await browser.says('facing', 'east');
  await page.keyboard.down('ArrowDown');
  await page.waitForTimeout(500);
  expect(await browser.text('facing')).toBe('east');
  await page.keyboard.up('ArrowRight');
  await browser.says('facing', 'south');
  await page.keyboard.up('ArrowDown');
});

test('a held pointer leads her there, and another can be led instead', async () => {
  await open();
  const { page } = browser;
  const scene = (await page.locator('.scene canvas').boundingBox())!;
  await page.mouse.move(scene.x + scene.width * 0.1, scene.y + scene.height * 0.52);
  await page.mouse.down();
  await browser.says('facing', 'west');
  await page.mouse.up();
  await browser.says('clip', 'stand-east');
  await page.getByTestId('lead-odde').click();
  await page.keyboard.down('ArrowUp');
  await browser.says('facing', 'north');
  expect(await browser.text('clip')).toBe('walk-north');
});

test('a gamepad leads her by its stick', async () => {
  await browser.page.addInitScript(() => {
    const axes = [0, 0, 0, 0];
    const pad = { connected: true, mapping: 'standard', axes, buttons: [] };
    Object.assign(window, { padAxes: axes });
    navigator.getGamepads = () => [pad as unknown as Gamepad];
  });
  await open();
  const push = (x: number, y: number) =>
    browser.page.evaluate(
      ([a, b]) => {
        Object.assign((window as unknown as { padAxes: number[] }).padAxes, [a, b]);
      },
      [x, y] as const,
    );
  await push(-0.7, -0.7);
  await browser.says('facing', 'northwest');
  await push(0.08, 0.1);
  await browser.says('clip', 'stand-northeast');
});

test('a slider stays where a key has put it', async () => {
  await open();
  const { page } = browser;
  await page.getByTestId('stick').press('End');
  await browser.says('stick-says', '20°');
  // The panel is drawn many times meanwhile.
  await page.waitForTimeout(400);
  expect(await browser.text('stick-says')).toBe('20°');
});
