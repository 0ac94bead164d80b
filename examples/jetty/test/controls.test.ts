import { JettyPage } from './jetty-page.js';

const browser = new JettyPage();
const shows = (state: string) => browser.shows(state);
const along = (value: string) =>
  browser.page.waitForFunction(
    (wanted) => document.querySelector('[data-testid=signal-along] output')?.textContent === wanted,
    value,
  );

test('of two opposite keys the one pressed last counts, and the other again when it is let go', async () => {
  await browser.begin();
  const { keyboard } = browser.page;
  await keyboard.down('ArrowRight');
  await along('1');
  await keyboard.down('KeyA');
  await along('-1');
  // A second key for the same way changes nothing when it goes.
  await keyboard.down('ArrowLeft');
  await keyboard.up('KeyA');
  await along('-1');
  await keyboard.up('ArrowLeft');
  await along('1');
  await keyboard.up('ArrowRight');
  await along('0');
});

test('a gamepad runs by its stick and its cross, and hops once a press', async () => {
  await browser.page.addInitScript(() => {
    const pad = {
      connected: true,
      mapping: 'standard',
      axes: [0, 0, 0, 0],
      buttons: Array.from({ length: 17 }, () => ({ pressed: false, touched: false, value: 0 })),
    };
    Object.assign(window, { pad });
    navigator.getGamepads = () => [null, pad as unknown as Gamepad];
  });
  await browser.begin();
  const pad = (axis: number, ...buttons: number[]) =>
    browser.page.evaluate(
      ([x, down]) => {
        const held = (window as unknown as { pad: { axes: number[]; buttons: { pressed: boolean }[] } }).pad;
        held.axes[0] = x;
        held.buttons.forEach((button, i) => (button.pressed = down.includes(i)));
      },
      [axis, buttons] as const,
    );
  await pad(0.8);
  await shows('go');
  // At rest a stick is seldom quite in the middle.
  await pad(0.1);
  await shows('stand');
  await pad(0, 14);
  await along('-1');
  await shows('go');
  await pad(0, 0);
  await shows('stand');
  await browser.page.waitForTimeout(600);
  const trail = await browser.trail();
  // Held all the while, it hopped once.
  expect(trail.filter((state) => state === 'takeoff')).toHaveLength(1);
});

test('fingers run and hop on the picture, two at once, and slide from one region into another', async () => {
  await browser.begin();
  const canvas = browser.page.locator('.scene canvas');
  const box = (await canvas.boundingBox())!;
  const finger = (kind: string, pointerId: number, x: number) =>
    canvas.dispatchEvent(kind, {
      pointerId,
      pointerType: 'touch',
      isPrimary: pointerId === 1,
      clientX: box.x + box.width * x,
      clientY: box.y + box.height * 0.8,
    });
  // Pointers that no finger makes cannot be captured.
  await canvas.evaluate((element) => {
    element.setPointerCapture = () => undefined;
  });
  await finger('pointerdown', 1, 0.3);
  await along('1');
  await finger('pointermove', 1, 0.1);
  await along('-1');
  await finger('pointerdown', 2, 0.9);
  await browser.hasShown('rise');
  await along('-1');
  await finger('pointerup', 2, 0.9);
  await finger('pointerup', 1, 0.1);
  await along('0');
  await shows('stand');
});

test("while a text is written its keys are not the game's", async () => {
  await browser.begin();
  await browser.page.evaluate(() => {
    const field = document.createElement('input');
    document.body.append(field);
    field.focus();
  });
  await browser.page.keyboard.type('jjj dd');
  expect(await browser.page.locator('input').inputValue()).toBe('jjj dd');
  expect(await browser.trail()).toEqual(['stand']);
});

test('a key that presses a button reaches nobody else; all others still lead him', async () => {
  await browser.begin();
  const { page } = browser;
  await page.getByRole('button', { name: 'oilskin' }).focus();
  await page.keyboard.press('Space');
  await page.waitForSelector('button[aria-pressed=true]:text("oilskin")');
  expect(await browser.trail()).toEqual(['stand']);
  await page.keyboard.down('ArrowRight');
  await along('1');
  await page.keyboard.up('ArrowRight');
  // A click leaves no focus behind that would take the next hop.
  await page.getByRole('button', { name: 'satchel' }).click();
  await page.keyboard.press('Space');
  await browser.hasShown('takeoff');
});
