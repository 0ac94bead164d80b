import { JettyPage } from './jetty-page.js';

const browser = new JettyPage();
const open = () => browser.begin();
const text = (id: string) => browser.text(id);
const shows = (state: string) => browser.shows(state);
const hasShown = (state: string) => browser.hasShown(state);
const trail = () => browser.trail();
/** The pixels of the scene, as a text to compare. */
const picture = () => browser.page.evaluate(() => document.querySelector('canvas')!.toDataURL());

test('keys walk, run and stop Wick: the lit state, the drawn cell and the signals follow', async () => {
  await open();
  const still = Number(await text('cell'));
  expect(still).toBeLessThan(8);
  // All of it at one moment, and waited for from before: while a slow machine asks for one thing after the other, he has run into a crate.
  const runs = browser.page.waitForFunction(() => {
    const said = (id: string): string =>
      document.querySelector(`[data-testid=${id}]`)?.textContent.trim() ?? '';
    const cell = Number(said('cell'));
    return said('clip') === 'run' && cell >= 16 && cell < 24 && said('facing') === 'facing east';
  });
  await browser.page.keyboard.down('ArrowRight');
  await runs;
  await browser.page.keyboard.up('ArrowRight');
  await shows('stand');
  // He brakes before he stands.
  expect(await trail()).toEqual(['stand', 'go', 'go: run', 'stand: skid']);
  await browser.page.keyboard.down('ArrowLeft');
  await shows('go');
  // He turns as soon as he no longer slides the other way.
  await browser.page.waitForFunction(
    () => document.querySelector('[data-testid=facing]')?.textContent === 'facing west',
  );
  await browser.page.keyboard.up('ArrowLeft');
  await shows('stand');
  expect(await text('facing')).toBe('facing west');
  await browser.page.waitForFunction(
    () => document.querySelector('[data-testid=signal-vx] output')?.textContent === '0',
  );
});

test('a hop passes all its stages', async () => {
  await open();
  await browser.page.keyboard.down('Space');
  await hasShown('fall');
  await browser.page.keyboard.up('Space');
  await shows('stand');
  expect(await trail()).toEqual(['stand', 'takeoff', 'rise', 'fall', 'land', 'stand']);
});

test('three presses, each in the follow-up of the swing before, swing three times', async () => {
  await open();
  await browser.page.keyboard.press('KeyJ');
  await hasShown('swing1');
  await browser.page.keyboard.press('KeyJ');
  await hasShown('swing2');
  await browser.page.keyboard.press('KeyJ');
  await hasShown('swing3');
  await shows('stand');
  expect(await trail()).toEqual(['stand', 'swing1', 'swing2', 'swing3', 'stand']);
});

test('the page says why the state shows', async () => {
  await open();
  await browser.page.keyboard.down('ArrowRight');
  await shows('go');
  expect(await text('because-body')).toBe('body go: it ranks above stand and took over.');
  expect(await text('because-arms')).toBe('arms with-body: it was the first to show.');
  const lit = await browser.page.locator('[data-testid=state-go] code.on').allInnerTexts();
  expect(lit).toEqual(expect.arrayContaining(['footing', 'going']));
});

test('the scene is drawn again as time passes, and a pulse can be pressed by hand', async () => {
  await open();
  const before = await picture();
  await browser.page.getByTestId('signal-splash').getByRole('button').click();
  await hasShown('splashed');
  expect(await picture()).not.toBe(before);
});

test('a blow knocks him out whatever is pressed, and he gets up again', async () => {
  await open();
  await browser.page.getByTestId('signal-blow').getByRole('button').click();
  await hasShown('knocked');
  await browser.page.keyboard.press('KeyJ');
  await browser.page.keyboard.down('ArrowRight');
  await hasShown('get-up');
  await shows('go');
  expect((await trail()).slice(0, 4)).toEqual(['stand', 'knocked', 'get-up', 'go']);
});

test('keys held while the window loses its focus are let go', async () => {
  await open();
  await browser.page.keyboard.down('ArrowRight');
  await shows('go');
  await browser.page.evaluate(() => window.dispatchEvent(new Event('blur')));
  await shows('stand');
});
