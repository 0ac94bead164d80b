import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { unzipSync } from 'fflate';
import { runIn } from '../../cli/test/command-line.js';
import { WorkbenchPage, fileOf } from './workbench-page.js';

const demo = fileURLToPath(new URL('../../../demo', import.meta.url));
const read = (name: string): Buffer => readFileSync(path.join(demo, name));
const bench = new WorkbenchPage();

/** A line of what is found. */
const row = (title: RegExp) => bench.page.getByRole('row', { name: title });

test('faults of the rules are looked at, mended by their buttons, undone, and accepted with a reason', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.bring([
    fileOf('hurry.dothop.yaml', read('faulty-rules.dothop.yaml').toString()),
    fileOf('wick.png', read('wick.png')),
  ]);
  await bench.told(/hurry/);
  await bench.room('Check');
  const count = (text: string) => page.getByRole('heading', { name: text });
  await count('6 to look at').waitFor();
  // The gap at 0 is drawn, and closed.
  await row(/between two thresholds/).click();
  await page.getByRole('img', { name: 'rise below vy = 0, fall above it' }).waitFor();
  await page.getByRole('button', { name: 'Write >= in “while” of fall' }).click();
  await row(/between two thresholds/).waitFor({ state: 'detached' });
  expect(await bench.document()).toContain('while: not grounded and vy >= 0');
  await page.getByRole('button', { name: /^Undo: write >=/ }).click();
  await row(/between two thresholds/).waitFor();
  // Who keeps a state out stands above it, and it is ranked above them.
  await row(/can never show/).click();
  await page
    .getByRole('region', { name: 'a state that can never show' })
    .getByText('hover')
    .first()
    .waitFor();
  await page.getByRole('button', { name: /^Rank hover/ }).click();
  await row(/can never show/).waitFor({ state: 'detached' });
  // One is meant, for a reason.
  await row(/one side only/).click();
  await page
    .getByRole('textbox', { name: 'It is meant to be so, because' })
    .fill('he runs to the right only');
  await page.keyboard.press('Enter');
  await row(/one side only/).waitFor({ state: 'detached' });
  const text = await bench.document();
  expect(text).toContain(
    'accept:\n  - { finding: one-sided, at: states.run.while, because: he runs to the right only }',
  );
  await page.getByRole('checkbox', { name: 'those accepted too (1)' }).click();
  await row(/one side only/).click();
  await page.getByText('he runs to the right only').waitFor();
  await page.getByRole('button', { name: 'Stop accepting it' }).click();
  await page.getByRole('textbox', { name: 'It is meant to be so, because' }).waitFor();
  expect(await bench.document()).not.toContain('accept:');
  // Its place is a press away.
  await page.getByRole('button', { name: 'Go to states.run.while' }).click();
  await page.getByTestId('room-rank').waitFor();
  // There the remedy stands beside it.
  await page.getByRole('button', { name: 'write abs(vx)' }).click();
  expect(await bench.document()).toContain('while: grounded and abs(vx) > 90');
}, 240_000);

test('measured drawings lie beside one another, and stand on the line again', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.bring([
    fileOf('faulty.dothop.yaml', read('faulty.dothop.yaml').toString()),
    fileOf('faulty.png', read('faulty.png')),
  ]);
  await bench.told(/faulty/);
  await bench.room('Check');
  await row(/stands higher or lower than its neighbours: clips\.walk/).click();
  const found = page.getByRole('region', { name: 'a frame that stands higher or lower than its neighbours' });
  const frames = await found.locator('figure').count();
  expect(frames).toBeGreaterThan(1);
  expect(await found.locator('figure.meant').count()).toBeLessThan(frames);
  await found.getByRole('button', { name: /^Stand (it|them) on the line/ }).click();
  await row(/stands higher or lower than its neighbours: clips\.walk/).waitFor({ state: 'detached' });
}, 240_000);

test('a situation is put together by hand, and who wants to show in it is lit', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Check');
  await page.getByRole('button', { name: 'what if' }).click();
  const body = page.getByRole('region', { name: 'who shows in body' });
  const shows = (name: string): Promise<void> =>
    body
      .locator('.shows')
      .getByRole('button', { name: new RegExp(`${name}$`) })
      .waitFor();
  await shows('stand');
  await bench.put('vx', '80');
  await bench.put('along', '1');
  await shows('go');
  await page.getByRole('checkbox', { name: 'splash is pressed' }).click();
  await shows('splashed');
  // Who ranks higher wins; the other one wants to all the same.
  await page.getByRole('checkbox', { name: 'blow is pressed' }).click();
  await shows('knocked');
  expect((await body.locator('.wants').allInnerTexts()).join()).toMatch(/go/);
}, 240_000);

test('who takes over is asked for what is known', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Check');
  await page.getByRole('button', { name: 'who wins' }).click();
  const takers = () => page.locator('.winners tbody tr td:nth-child(2)').allInnerTexts();
  await page.locator('.winners tbody tr').nth(8).waitFor();
  expect((await takers()).map((name) => name.trim()).slice(0, 2)).toEqual(['knocked', 'climb']);
  const known = page.getByTestId('condition-when it is known that').getByRole('textbox');
  await known.fill(
    'not footing and not blow and not splash and vy > 0 and not swing and not dash and not bump',
  );
  await known.press('Enter');
  await page.waitForFunction(() => document.querySelectorAll('.winners tbody tr').length < 5);
  expect((await takers()).map((name) => name.trim())).toContain('fall');
  await known.fill('nobody > 3');
  await known.press('Enter');
  await page.getByText('That cannot be asked').waitFor();
}, 240_000);

/** What a press of a button saves. */
async function saved(button: string | RegExp): Promise<Buffer> {
  const download = bench.page.waitForEvent('download');
  await bench.page.getByRole('button', { name: button }).click();
  return readFileSync(await (await download).path());
}

test('what is packed in the page plays as its source does; code and report are handed over with it', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Ship');
  await page.getByRole('cell', { name: '99, as 99 drawings' }).waitFor();
  await page.getByText('cells of wick that no clip shows: 99, 100, 101, 102, 103').waitFor();
  const folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-shipped-'));
  try {
    const files = unzipSync(await saved('Save wick-game.zip'));
    for (const [name, content] of Object.entries(files)) writeFileSync(path.join(folder, name), content);
    expect(Object.keys(files)).toContain('wick-game.json');
    const rehearsal = read('evening.rehearsal.yaml').toString().replace('wick.dothop.yaml', 'wick-game.json');
    writeFileSync(path.join(folder, 'evening.rehearsal.yaml'), rehearsal);
    expect(runIn(folder, ['rehearse', 'evening.rehearsal.yaml', '--quiet']).out).toMatch(
      /all \d+ expectations met/,
    );
    // Compiled it has no wardrobe, and says so.
    await page.getByRole('checkbox', { name: 'compiled: plays without a compiler' }).click();
    await page.getByText('the wardrobe: a compiled document has none').waitFor();
    const compiled = unzipSync(await saved('Save wick-game.zip'));
    const text = Buffer.from(compiled['wick-game.json']!).toString();
    expect(JSON.parse(text)).toMatchObject({ dotHopCompiled: 4 });
  } finally {
    rmSync(folder, { recursive: true });
  }
  await page.getByRole('button', { name: 'in your game' }).click();
  await page.getByRole('region', { name: 'game.ts' }).getByText("performer.set('grounded', true)").waitFor();
  await bench.choose('your game draws on', 'a server, without pictures');
  await page.getByRole('region', { name: 'game.ts' }).getByText('loadCompiled').first().waitFor();
  await bench.choose('your game draws on', 'a plain canvas');
  expect((await saved('Save wick.dothop.d.yaml.ts')).toString()).toContain('"grounded": boolean;');
  await page.getByRole('button', { name: 'for the programmer' }).click();
  await page.getByRole('cell', { name: 'a press, remembered for 250 ms' }).waitFor();
  expect((await saved('Save wick.html')).toString()).toContain('<h1>wick</h1>');
  const markdown = (await saved('Save wick.md')).toString();
  expect(markdown).toMatch(/\| wick\.png \| \d+\.\d kB \|/);
  expect(markdown).not.toContain('rehearsal.yaml');
}, 240_000);

test('what is unsound is not shipped: what stands in the way is told, and leads to its place', async () => {
  const { page } = bench;
  await bench.beginNew();
  const faulty = read('faulty-rules.dothop.yaml').toString().replace('shows: duck', 'shows: dukc');
  await bench.bring([fileOf('tired.dothop.yaml', faulty), fileOf('wick.png', read('wick.png'))]);
  for (const room of ['Ship', 'Check'] as const) {
    await bench.room(room);
    await page.getByText('Mend this first:').waitFor();
  }
  await page.getByRole('button', { name: /no clip or flipbook "dukc"/ }).click();
  await page.getByTestId('room-rank').waitFor();
}, 240_000);

test('an image that is missing is told, although the document says its size, and nothing empty is packed', async () => {
  const { page } = bench;
  await bench.beginNew();
  const text = read('faulty-rules.dothop.yaml').toString();
  const sized = text.replace('image: wick.png,', 'image: wick.png, size: [512, 728],');
  expect(sized).not.toBe(text);
  await bench.bring([fileOf('gone.dothop.yaml', sized)]);
  await page.locator('.found').getByText('wick.png is not among the files').waitFor();
  await bench.room('Check');
  await page.getByRole('list', { name: 'images that are missing' }).waitFor();
  await bench.room('Ship');
  await page.getByRole('alert').filter({ hasText: 'the image "wick.png" is not there' }).waitFor();
  await bench.bring([fileOf('wick.png', read('wick.png'))]);
  await page.getByRole('button', { name: 'Save gone-game.zip' }).waitFor();
  await bench.room('Check');
  await page.getByRole('list', { name: 'images that are missing' }).waitFor({ state: 'detached' });
}, 240_000);
