import { clips, keeper } from './keeper.js';
import { WorkbenchPage, fileOf } from './workbench-page.js';

const bench = new WorkbenchPage();

test('a wrong threshold is found by trying, kept as a rehearsal, and mended', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Signals');
  await page.getByRole('row', { name: 'moving', exact: true }).click();
  const readers = page.getByRole('region', { name: 'who reads it' });
  expect(await readers.getByRole('button').allInnerTexts()).toEqual([
    'going',
    'turning',
    'standing',
    'drowsy',
    'land',
  ]);
  await page.getByRole('row', { name: 'going', exact: true }).click();
  await readers.getByRole('button', { name: 'go', exact: true }).click();
  await page.getByTestId('room-rank').waitFor();
  await bench.room('Signals');
  // He goes by his speed alone here, so that a wrong threshold shows.
  await page.getByRole('row', { name: 'going', exact: true }).click();
  const of = page.getByTestId('condition-of').getByRole('textbox');
  await of.fill('moving');
  await of.press('Enter');
  await bench.told(/going/);
  await page.getByRole('row', { name: 'moving', exact: true }).click();
  await bench.put('on above', '500');
  // Its curve runs: something green is drawn.
  await page.waitForFunction(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('.curve canvas');
    const { data } = canvas?.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height) ?? {};
    return data?.some((_, i) => i % 4 === 0 && data[i + 1]! > 180 && data[i]! < 150) === true;
  });
  await bench.room('Try');
  const stage = page.getByTestId('try-stage');
  await bench.shows('stand');
  // On a slow machine he would doze by now.
  await page.getByRole('button', { name: 'start over' }).click();
  await stage.focus();
  await page.keyboard.down('ArrowRight');
  // At full speed, however slow the machine is.
  await page.locator('[data-overlay] [data-signal=vx]').filter({ hasText: /^120/ }).waitFor();
  await page.waitForTimeout(300);
  await page.locator('[data-overlay] [title="stop time"]').click();
  expect(await page.locator('[data-overlay] [data-shows]').innerText()).not.toBe('go');
  await page.locator('[data-overlay] [title="why go?"]').click();
  await page
    .locator('[data-overlay] .why')
    .filter({ hasText: /going .*vx 1/ })
    .waitFor();
  await bench.choose('it should have shown', 'go');
  await page.getByRole('button', { name: 'keep as a rehearsal' }).click();
  await bench.told(/kept as wick-tried-1.rehearsal.yaml: go is expected at \d+ ms/);
  const light = page.getByRole('listitem').filter({ hasText: 'wick-tried-1' });
  await light.filter({ hasText: /1 of 1 not met: at \d+ ms: state go, instead state/ }).waitFor();
  await bench.room('Signals');
  await page.getByRole('row', { name: 'moving', exact: true }).click();
  await bench.put('on above', '12');
  await bench.room('Try');
  await light.filter({ hasText: '1 met' }).waitFor();
}, 240_000);

test('what a hand holds, and whom it asks about, stays over an edit; what is begun again lets go; a held key stays held', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Time');
  await bench.clip('walk');
  await bench.put('frames a second', '9');
  await bench.room('Try');
  const overlay = page.locator('[data-overlay]');
  const field = overlay.getByLabel('breath, as a number');
  await field.fill('2.5');
  await field.press('Enter');
  await overlay.locator('[title="why go?"]').click();
  await overlay.locator('.why').filter({ hasText: 'go:' }).waitFor();
  // The edit is undone here: another controller comes.
  await page.keyboard.press('Control+z');
  await bench.told(/^undone/);
  await overlay.locator('.why').filter({ hasText: 'go:' }).waitFor();
  await overlay.locator('.free.held').waitFor();
  await page.waitForTimeout(300);
  expect(await field.inputValue()).toBe('2.5');
  await page.getByRole('button', { name: 'start over' }).click();
  await overlay.locator('.free.held').waitFor({ state: 'detached' });
  // A key that is held stays so while the other hand presses a button elsewhere, however slowly, and a letter goes into a field.
  const runs = overlay.locator('[data-signal=vx]').filter({ hasText: /^120/ });
  const stands = overlay.locator('[data-signal=vx]').filter({ hasText: /^0/ });
  await page.getByTestId('try-stage').focus();
  await page.keyboard.down('ArrowRight');
  await runs.waitFor();
  await overlay.locator('[title="stop time"]').hover();
  await page.mouse.down();
  await page.waitForTimeout(200);
  await page.mouse.up();
  await runs.waitFor();
  await overlay.locator('[title="let time run"]').click();
  await field.focus();
  await runs.waitFor();
  await page.keyboard.up('ArrowRight');
  await stands.waitFor();
  // Nobody tells the page of keys when its window has lost the focus.
  await page.getByTestId('try-stage').focus();
  await page.keyboard.down('ArrowRight');
  await runs.waitFor();
  await page.evaluate(() => window.dispatchEvent(new FocusEvent('blur')));
  await stands.waitFor();
  await page.keyboard.up('ArrowRight');
}, 240_000);

test('what keeps a character from being tried is told there, and leads to its place', async () => {
  const { page } = bench;
  await bench.beginNew();
  const faulty = `${clips}states: { stand: { shows: stnad } }\n`;
  await bench.bring(keeper(faulty));
  await bench.room('Try');
  await page
    .getByRole('button', { name: 'there is no clip or flipbook "stnad"; did you mean "stand"?' })
    .click();
  await page.getByTestId('room-rank').waitFor();
  await bench.choose('which one', 'stand');
  await bench.room('Try');
  await page
    .locator('[data-overlay] [data-shows]')
    .filter({ hasText: /^stand$/ })
    .waitFor();
  await bench.bring([fileOf('empty.dothop.yaml', '')]);
  await bench.told('empty.dothop.yaml is not a character');
}, 240_000);

test('the dial is moved by hand and by keys, its dead zone dragged; each direction says what shows in it', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Turn');
  const says = (words: string | RegExp): Promise<void> =>
    page.getByTestId('dial-says').filter({ hasText: words }).waitFor();
  await says(/^east$/);
  const box = (await page.getByTestId('dial').boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x + 60, y);
  await page.mouse.down();
  await page.mouse.move(x - 80, y + 10, { steps: 6 });
  await says(/^west$/);
  // Within the dead zone it keeps facing where it faced.
  await page.mouse.move(x + 10, y, { steps: 6 });
  await page.waitForTimeout(200);
  await says(/^west$/);
  await page.mouse.up();
  // The ring is the dead zone: 6 of 24, a quarter of the way to the edge.
  const ring = ((box.width / 2 - 8) * 6) / 24;
  await page.mouse.move(x, y + ring);
  await page.mouse.down();
  await page.mouse.move(x, y + 2 * ring, { steps: 5 });
  await page.mouse.up();
  await bench.told('dead zone 12');
  await page.keyboard.press('Control+z');
  expect(await bench.document()).toContain('  deadZone: 6\n');
  const stand = (direction: string) => page.getByRole('button', { name: `stand, ${direction}: stand` });
  await stand('west').filter({ hasText: 'mirrored' }).waitFor();
  await bench.choose('directions', 'four');
  await stand('south').filter({ hasText: 'drawn' }).waitFor();
  await stand('south').click();
  await says(/^south$/);
  await page.getByTestId('dial').focus();
  for (let i = 0; i < 14; i++) await page.keyboard.press('ArrowRight');
  await says(/^west$/);
  await page.keyboard.press('Control+z');
  await says(/^west$/);
  expect(await bench.document()).toContain('  directions: sides\n');
}, 240_000);

test('a gamepad leads it: the stick, jump, and a pulse', async () => {
  const { page } = bench;
  await page.addInitScript(() => {
    const pad = {
      connected: true,
      mapping: 'standard',
      axes: [0, 0, 0, 0],
      buttons: Array.from({ length: 17 }, () => ({ pressed: false })),
    };
    Object.assign(window, { pad });
    navigator.getGamepads = () => [pad as unknown as Gamepad];
  });
  await bench.begin();
  await bench.room('Try');
  await bench.shows('stand');
  await page.evaluate('pad.axes[0] = -0.9');
  await bench.shows('go');
  await page.locator('[data-overlay] small').filter({ hasText: 'facing west' }).waitFor();
  await page.evaluate('pad.axes[0] = 0');
  await bench.shows('stand');
  await page.evaluate('pad.buttons[2].pressed = true');
  await bench.shows('swing1');
  await bench.shows('stand');
  await page.evaluate('pad.buttons[0].pressed = true');
  await bench.shows('(takeoff|rise|fall)');
}, 240_000);

test('on a small page it is led by a finger, and nothing lies beside the page', async () => {
  const { page } = bench;
  await page.setViewportSize({ width: 390, height: 844 });
  await bench.begin();
  for (const name of ['Turn', 'Signals', 'Rank', 'Try'] as const) {
    await bench.room(name);
    if (name === 'Rank') await page.getByRole('row', { name: 'go', exact: true }).click();
    await page.waitForTimeout(300);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect([name, wide]).toEqual([name, 390]);
  }
  const right = (await page.getByRole('button', { name: 'hold right' }).boundingBox())!;
  await page.mouse.move(right.x + 10, right.y + 10);
  await page.mouse.down();
  const shows = page.locator('[data-overlay] [data-shows]');
  await shows.filter({ hasText: /^go$/ }).waitFor();
  await page.mouse.up();
  await shows.filter({ hasText: /^stand$/ }).waitFor();
}, 240_000);
