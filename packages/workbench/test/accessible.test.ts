import { violations } from './violations.js';
import { WorkbenchPage } from './workbench-page.js';

const bench = new WorkbenchPage();

test('nothing that axe knows is wrong on the shelf, in a situation, and in what can be unfolded', async () => {
  const { page } = bench;
  await bench.begin();
  await page.keyboard.press('Alt+0');
  await page.getByText('4 of 4 rehearsals as expected').waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await bench.room('Check');
  await page.getByRole('button', { name: 'what if' }).click();
  await page.getByRole('region', { name: 'who shows in body' }).waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await bench.room('Turn');
  await page.getByRole('button', { name: 'clothes' }).click();
  await page.getByRole('button', { name: 'by chance' }).waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByText('as a 3D camera sees it').click();
  await page.getByTestId('orbit').waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await bench.room('Try');
  await page.getByText('keys and pad').click();
  await page.getByText('the ground', { exact: true }).click();
  await page.getByRole('button', { name: 'add one' }).click();
  await page.getByRole('group', { name: 'plank 1' }).waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await page.getByTitle('give it another name').click();
  expect(await violations(bench.page)).toEqual([]);
}, 240_000);

test('nothing that axe knows is wrong, in any room, with the text and with a menu open', async () => {
  await bench.begin();
  expect(await violations(bench.page)).toEqual([]);
  await bench.room('Time');
  await bench.clip('swing1');
  expect(await violations(bench.page)).toEqual([]);
  await bench.page.keyboard.press('Alt+t');
  await bench.page.locator('.cm-content').waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await bench.page.keyboard.press('Alt+t');
  await bench.room('Turn');
  await bench.page.getByTestId('dial').waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await bench.room('Signals');
  for (const signal of ['vx', 'jump', 'moving', 'footing', 'speed']) {
    await bench.page.getByRole('row', { name: signal, exact: true }).click();
    expect(await violations(bench.page)).toEqual([]);
  }
  // What the parts of the expression are follows the stage.
  await bench.page.getByRole('application').focus();
  await bench.page.keyboard.down('ArrowRight');
  await bench.page.waitForFunction(() => Number(document.querySelector('[data-part=vx]')?.textContent) > 10);
  await bench.page.keyboard.up('ArrowRight');
  await bench.room('Rank');
  await bench.page.getByRole('row', { name: 'swing1', exact: true }).click();
  await bench.page.getByText('can be cut off by').waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await bench.page.getByRole('button', { name: 'add a term to starts when' }).click();
  expect(await violations(bench.page)).toEqual([]);
  await bench.page.keyboard.press('Escape');
  await bench.room('Try');
  await bench.page.getByTestId('try-stage').waitFor();
  await bench.page.getByText('errand.rehearsal.yaml').waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await bench.page.getByRole('button', { name: 'words of this room' }).click();
  await bench.page.getByText('A script of what happens').waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await bench.page.keyboard.press('Escape');
  await bench.room('Check');
  await bench.page.getByRole('button', { name: 'who wins' }).click();
  await bench.page.locator('.winners tbody tr').first().waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await bench.page.getByRole('button', { name: 'what is found' }).click();
  await bench.page.getByRole('checkbox', { name: /those accepted too/ }).click();
  await bench.page.getByRole('row', { name: /only the rest shows/ }).click();
  expect(await violations(bench.page)).toEqual([]);
  await bench.room('Ship');
  await bench.page.getByRole('button', { name: /^Save wick-game/ }).waitFor();
  expect(await violations(bench.page)).toEqual([]);
  await bench.page.getByRole('button', { name: 'in your game' }).click();
  expect(await violations(bench.page)).toEqual([]);
  await bench.menu('New, with nothing');
  await bench.page.keyboard.press('Alt+1');
  await bench.page.getByText('Bring the drawings').waitFor();
  expect(await violations(bench.page)).toEqual([]);
});
