import { readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import { clips, keeper } from './keeper.js';
import { wick } from './wick.js';
import { WorkbenchPage, fileOf } from './workbench-page.js';

const bench = new WorkbenchPage();

test('another key leads it, is kept beside the document, follows a new name, and is undone', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Try');
  await bench.shows('stand');
  await page.getByText('keys and pad').click();
  const swing = page.getByRole('group', { name: 'keys for swing' });
  await swing.getByRole('button', { name: 'another key' }).click();
  // Who gives up changes nothing.
  await page.keyboard.press('Escape');
  await swing.getByRole('button', { name: 'another key' }).click();
  // The one that was usual for a dash: that is led by nothing then.
  await page.keyboard.press('k');
  await bench.told('swing has the keys K, pad 2');
  await page
    .getByRole('group', { name: 'keys for dash' })
    .locator('kbd')
    .filter({ hasText: /^pad 1$/ })
    .waitFor();
  // He would doze by now.
  await page.getByRole('button', { name: 'start over' }).click();
  await bench.shows('stand');
  await page.getByTestId('try-stage').focus();
  await page.keyboard.press('j');
  await page.waitForTimeout(200);
  await bench.shows('stand');
  await page.keyboard.press('k');
  await bench.shows('swing1');
  await bench.shows('stand');
  // Beside the name of the signal, too.
  await bench.room('Signals');
  await page.getByRole('row', { name: 'swing', exact: true }).click();
  await swing.locator('kbd').filter({ hasText: 'K, pad 2' }).waitFor();
  await bench.put('name', 'whack');
  await bench.told(/^signal swing is whack now, in .*wick\.controls\.json too$/);
  await page
    .getByRole('group', { name: 'keys for whack' })
    .locator('kbd')
    .filter({ hasText: 'K, pad 2' })
    .waitFor();
  await page.keyboard.press('Control+z');
  await bench.told(/^undone/);
  await page.keyboard.press('Control+z');
  await bench.told('undone: swing has the keys K, pad 2');
  await page.getByRole('row', { name: 'swing', exact: true }).click();
  await swing.locator('kbd').filter({ hasText: 'J, pad 2' }).waitFor();
}, 240_000);

test('controls that cannot be read are not written over', async () => {
  const { page } = bench;
  await bench.beginNew();
  await bench.bring([
    ...keeper(`${clips}signals: { go: { flag: false }, hop: { pulse: true } }
states:
  stand: { shows: stand }
  walk: { shows: walk, while: go }
  hop: { shows: crouch, when: hop }
`),
    fileOf('keeper.controls.json', '{ "keys": '),
  ]);
  await bench.told(/keeper/);
  await bench.room('Try');
  await bench.shows('stand');
  // A flag is changed as long as its key is held.
  await page.getByTestId('try-stage').focus();
  await page.keyboard.down('n');
  await bench.shows('walk');
  await page.keyboard.up('n');
  await bench.shows('stand');
  await page.getByText('keys and pad').click();
  await page.getByRole('button', { name: 'another key for hop' }).click();
  await page.keyboard.press('x');
  await bench.told('keeper.controls.json cannot be read as controls.');
  expect(await page.getByRole('group', { name: 'keys for hop' }).locator('kbd').innerText()).toBe('J, pad 2');
}, 240_000);

test('ground is drawn on the stage and walked on; what is wrong there is kept with its ground, and undone', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Try');
  await bench.shows('stand');
  await page.getByText('the ground', { exact: true }).click();
  const stage = (await page.getByTestId('try-canvas').boundingBox())!;
  const unit = stage.width / 300;
  const drawn = async (
    tool: string,
    [x1, y1]: readonly [number, number],
    [x2, y2]: readonly [number, number],
  ): Promise<void> => {
    const button = page.getByRole('radio', { name: tool });
    if ((await button.getAttribute('aria-checked')) !== 'true') await button.click();
    await page.mouse.move(stage.x + x1 * unit, stage.y + y1 * unit);
    await page.mouse.down();
    await page.mouse.move(stage.x + x2 * unit, stage.y + y2 * unit, { steps: 4 });
    await page.mouse.up();
  };
  // He stands in the middle of the picture, at its line of 120.
  await drawn('slope', [170, 120], [210, 100]);
  await drawn('ground, wall or pit', [210, 110], [230, 100]);
  await drawn('ground, wall or pit', [230, 60], [260, 40]);
  await drawn('water', [40, 116], [100, 112]);
  await drawn('plank', [110, 90], [140, 84]);
  const piece = (name: string) => page.getByRole('group', { name });
  expect(await piece('slope 1').getByLabel('height at its end').inputValue()).toBe('20');
  expect(await page.locator('.piece b').allInnerTexts()).toEqual([
    'slope',
    'ground',
    'ground',
    'plank',
    'water',
  ]);
  await page.getByRole('radio', { name: 'rub out' }).click();
  await page.mouse.click(stage.x + 120 * unit, stage.y + 90 * unit);
  await piece('plank 4').waitFor({ state: 'detached' });
  await page.getByTestId('try-stage').focus();
  await page.keyboard.down('ArrowRight');
  await bench.shows('go');
  // Up the slope without a fall, until the wall stops him.
  await page.waitForTimeout(1500);
  await page.keyboard.up('ArrowRight');
  await bench.shows('stand');
  await bench.choose('it should have shown', 'go');
  await page.getByRole('button', { name: 'keep as a rehearsal' }).click();
  await bench.told(/kept as wick-tried-1/);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'wick-tried-1' })
    .filter({ hasText: 'not met' })
    .waitFor();
  const kept = await page.evaluate(async () => {
    const open = indexedDB.open('dot-hop-workbench');
    await new Promise((done) => (open.onsuccess = done));
    for (;;) {
      const all = open.result.transaction('characters').objectStore('characters').getAll();
      await new Promise((done) => (all.onsuccess = done));
      const found = (all.result as { files: Map<string, Blob> }[]).flatMap(
        ({ files }) => files.get('wick-tried-1.rehearsal.yaml') ?? [],
      );
      if (found[0] !== undefined) return found[0].text();
      await new Promise((done) => setTimeout(done, 100));
    }
  });
  expect(kept).toMatch(/ground:.*\[20, 60, 0, 20\]/s);
  expect(kept).toContain('water');
  // The command would see the same: up the slope without a fall, and no further than the wall.
  const { definition } = readRehearsal(kept, 'kept');
  const { trace, path } = runRehearsal(wick, definition);
  const shown = trace.flatMap(({ kind, name }) => (kind === 'switch' ? [name] : []));
  expect(shown).toContain('go');
  expect(shown).not.toContain('fall');
  const [farthest] = path.toSorted((a, b) => b.x - a.x);
  expect([Math.round(farthest!.x), Math.round(farthest!.y)]).toEqual([80, -20]);
  await page.keyboard.press('Control+z');
  await bench.told(/^undone: kept as wick-tried-1/);
  await page.getByRole('listitem').filter({ hasText: 'wick-tried-1' }).waitFor({ state: 'detached' });
}, 240_000);
