import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { copyWick, root } from '../../cli/test/command-line.js';
import { openFolder } from '../../cli/test/opened.js';
import type { OpenedFolder } from '../../cli/test/opened.js';
import { WorkbenchPage } from './workbench-page.js';

let folder: string;
let opened: OpenedFolder;
const bench = new WorkbenchPage(() => opened.address);
const file = (): string => path.join(folder, 'wick.dothop.yaml');
const onDisk = (): string => readFileSync(file(), 'utf8');

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  copyWick(folder);
  opened = await openFolder(folder);
});
afterEach(async () => {
  await opened.close();
  rmSync(folder, { recursive: true });
});

/** Waits until the disk has something. */
async function untilDisk(has: (text: string) => boolean): Promise<void> {
  const latest = Date.now() + 100_000;
  while (!has(onDisk())) {
    if (Date.now() > latest)
      throw new Error(`the page says "${await bench.text('notice')}", and the disk has still:\n${onDisk()}`);
    await new Promise((done) => setTimeout(done, 50));
  }
}

test('what is done on the page is in the file, and only there; what is done to the file is on the page', async () => {
  const before = onDisk();
  const { mtimeMs } = statSync(file());
  await bench.begin();
  await bench.room('Time');
  await bench.clip('doze');
  // What is only looked at is not written.
  await bench.page.waitForTimeout(800);
  expect(statSync(file()).mtimeMs).toBe(mtimeMs);
  await bench.put('frames a second', '3');
  await untilDisk((text) => text.includes('fps: 3'));
  expect(onDisk()).toBe(
    before.replace('doze:       { cells: 54-59, fps: 4 }', 'doze:       { cells: 54-59, fps: 3 }'),
  );
  await bench.kept();
  writeFileSync(file(), onDisk().replace('cells: 54-59, fps: 3', 'cells: 54-58, fps: 5'));
  await bench.told('Another program has changed the files; they are shown as they are now.');
  await bench.page.getByTestId('room-time').waitFor();
  await bench.clip('doze');
  expect(await bench.page.getByRole('option', { name: /^frame \d+,/ }).count()).toBe(5);
});

test('changed here and there at once: both are shown, and none is lost', async () => {
  await bench.begin();
  await bench.room('Time');
  await bench.clip('doze');
  // Writing takes a while, as on a slow disk.
  await bench.page.evaluate(() => {
    const real = window.fetch.bind(window);
    const held = new Promise<void>((done) => Object.assign(window, { letGo: done }));
    window.fetch = async (address, options) => {
      if (options?.method === 'PUT') await held;
      return real(address, options);
    };
  });
  await bench.put('frames a second', '3');
  await bench.page
    .getByTestId('saved')
    .filter({ hasText: /keeping|changed/ })
    .waitFor();
  bench.forgive(/412/);
  writeFileSync(file(), onDisk().replace('name: wick', 'name: lamplighter'));
  const question = bench.page.getByRole('alertdialog');
  await question.waitFor();
  expect(await question.locator('pre').first().innerText()).toContain('cells: 54-59, fps: 3');
  expect(await question.locator('pre').last().innerText()).toContain('name: lamplighter');
  await question.getByRole('button', { name: 'Take the one on the disk' }).click();
  await bench.told(/^another program has changed the document$/);
  await bench.page.evaluate(() => (window as unknown as { letGo: () => void }).letGo());
  // One's own is an undo away.
  await bench.page.keyboard.press('Control+z');
  await untilDisk((text) => text.includes('fps: 3'));
  expect(onDisk()).not.toContain('name: lamplighter');
});

test("a change of one's own that is told before it is answered is taken for nobody else's", async () => {
  const { page } = bench;
  await page.route('**/api/file/**', async (route) => {
    const response = await route.fetch();
    if (route.request().method() === 'PUT') await new Promise((done) => setTimeout(done, 700));
    await route.fulfill({ response });
  });
  await bench.begin();
  await bench.room('Time');
  await bench.clip('doze');
  for (const fps of ['3', '6', '5']) {
    await bench.put('frames a second', fps);
    await untilDisk((text) => text.includes(`fps: ${fps}`));
    await page.waitForTimeout(250);
  }
  await bench.kept();
  expect(await page.getByText('Another program has changed').count()).toBe(0);
});

test('a document that another program deletes is kept here, and written again with the next change', async () => {
  await bench.begin();
  const before = onDisk();
  rmSync(file());
  await bench.told('wick.dothop.yaml was deleted by another program. It is all here still');
  expect(await bench.document()).toBe(before);
  await bench.room('Time');
  await bench.clip('doze');
  await bench.put('frames a second', '3');
  await bench.kept();
  expect(onDisk()).toBe(before.replace('cells: 54-59, fps: 4', 'cells: 54-59, fps: 3'));
});

test('a folder of drawings without a document is taken in, and gets one', async () => {
  await opened.close();
  const drawings = path.join(folder, 'keeper');
  mkdirSync(drawings);
  cpSync(path.join(root, 'demo/wick.png'), path.join(drawings, 'keeper.png'));
  opened = await openFolder(drawings);
  await bench.begin();
  const made = path.join(drawings, 'character.dothop.yaml');
  await bench.kept();
  await bench.page.waitForFunction(() =>
    document.querySelector('[data-testid=grid-fit]')?.textContent.includes('8 × 13'),
  );
  await new Promise((done) => setTimeout(done, 900));
  expect(readFileSync(made, 'utf8')).toMatch(
    /^dotHop: 1\nname: character\nsheets:\n {2}keeper:\n {4}image: keeper.png\n {4}grid: \{ cell: \[64, 56\] \}\nclips:\n {2}row0: \{ cells: 0-7, fps: 10 \}\n/,
  );
});

test('a cue is renamed in the rehearsals beside it too, and undone there as well', async () => {
  const own = path.join(folder, 'lamp.rehearsal.yaml');
  const text = `# A landing is heard once.
dotHopRehearsal: 1
document: wick.dothop.yaml
lasts: 300
script:
  - { at: 0, cut: land }   # from nowhere
expect:
  - { from: 0, to: 250, cues: { thud: 1 } }
`;
  writeFileSync(own, text);
  const other = path.join(folder, 'other.rehearsal.yaml');
  writeFileSync(other, text.replace('wick.dothop', 'somebody'));
  await opened.close();
  opened = await openFolder(folder);
  await bench.begin();
  await bench.room('Time');
  await bench.clip('land');
  await bench.page.getByTestId('cue-thud-0').focus();
  await bench.page.keyboard.press('F2');
  await bench.page.keyboard.type('soles');
  await bench.page.keyboard.press('Enter');
  await bench.told('cue thud is soles now, in lamp.rehearsal.yaml too');
  await untilDisk((now) => now.includes('cues: { soles: 0 }'));
  await bench.kept();
  expect(readFileSync(own, 'utf8')).toBe(text.replace('thud: 1', 'soles: 1'));
  // It is heard by other clips, too.
  expect(onDisk()).not.toContain('thud');
  await bench.page.keyboard.press('Control+z');
  await untilDisk((now) => now.includes('cues: { thud: 0 }'));
  await bench.kept();
  expect(readFileSync(own, 'utf8')).toBe(text);
  // What is no rehearsal of this character is left alone.
  expect(readFileSync(other, 'utf8')).toContain('thud: 1');
});

test('what is kept beside the document is a file there, and is taken away by undo', async () => {
  const { page } = bench;
  const beside = (name: string): string => path.join(folder, name);
  const until = async (isThere: boolean, name: string): Promise<void> => {
    while (existsSync(beside(name)) !== isThere) await new Promise((done) => setTimeout(done, 50));
  };
  await bench.begin();
  await bench.room('Try');
  await page.getByText('keys and pad').click();
  await page.getByRole('button', { name: 'another key for jump' }).click();
  await page.keyboard.press('w');
  await until(true, 'wick.controls.json');
  await bench.kept();
  expect(JSON.parse(readFileSync(beside('wick.controls.json'), 'utf8'))).toEqual({
    dotHopControls: 1,
    controls: { jump: { keys: ['KeyW'], buttons: [0] } },
  });
  await page.getByRole('button', { name: 'keep as a rehearsal' }).click();
  await until(true, 'wick-tried-1.rehearsal.yaml');
  await bench.kept();
  await page.keyboard.press('Control+z');
  await until(false, 'wick-tried-1.rehearsal.yaml');
  await bench.kept();
  // Done again it is there again, and read when the folder is opened again.
  await page.keyboard.press('Control+y');
  await until(true, 'wick-tried-1.rehearsal.yaml');
  await bench.kept();
  await page.reload();
  await bench.room('Try');
  await page.getByRole('listitem').filter({ hasText: 'wick-tried-1' }).waitFor();
  await page.locator('.hint.keys').filter({ hasText: 'W jump' }).waitFor();
  await page.getByText('keys and pad').click();
  await page.getByRole('button', { name: 'use the default' }).click();
  await until(false, 'wick.controls.json');
});

test('who opens another character on the page changes nothing in the folder, and no drawings of others are taken', async () => {
  await opened.close();
  copyWick(folder, 'errand.rehearsal.yaml');
  // A second character that is empty as yet: what lies here belongs to the first.
  writeFileSync(path.join(folder, 'new.dothop.yaml'), '');
  const before = new Map(
    readdirSync(folder).flatMap((name) =>
      name.endsWith('.yaml') ? [[name, readFileSync(path.join(folder, name), 'utf8')] as const] : [],
    ),
  );
  expect([...before.keys()]).toContain('errand.rehearsal.yaml');
  opened = await openFolder(folder);
  const { page } = bench;
  // The shelf is there before the command has answered: it waits for it, and shows nobody else.
  await page.route(/api\/folder/, async (route) => {
    await new Promise((done) => setTimeout(done, 1500));
    await route.continue();
  });
  await bench.open('[data-testid=shelf]');
  await page.getByRole('button', { name: /new\.dothop\.yaml/ }).click();
  await page.getByText('Bring the drawings').waitFor();
  await bench.menu('Tallow, her cat');
  await page.getByTestId('sheet').waitFor();
  await bench.room('Time');
  await bench.clip('sit-south');
  await bench.put('frames a second', '9');
  await bench.kept();
  await new Promise((done) => setTimeout(done, 600));
  const after = new Map(
    [...before.keys()].map((name) => [name, readFileSync(path.join(folder, name), 'utf8')]),
  );
  expect(after).toEqual(before);
  expect(existsSync(path.join(folder, 'tallow.dothop.yaml'))).toBe(false);
});

test('a rehearsal that another program adds while there are changes is not taken away', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Time');
  await bench.clip('doze');
  await page.evaluate(() => {
    const real = window.fetch.bind(window);
    const held = new Promise<void>((done) => Object.assign(window, { letGo: done }));
    window.fetch = async (address, options) => {
      if (options?.method === 'PUT') await held;
      return real(address, options);
    };
  });
  await bench.put('frames a second', '3');
  bench.forgive(/412/);
  const added = path.join(folder, 'added.rehearsal.yaml');
  cpSync(path.join(root, 'demo/errand.rehearsal.yaml'), added);
  writeFileSync(file(), onDisk().replace('name: wick', 'name: lamplighter'));
  const question = page.getByRole('alertdialog');
  await question.getByRole('button', { name: 'Keep mine' }).click();
  await page.evaluate(() => (window as unknown as { letGo: () => void }).letGo());
  await untilDisk((text) => text.includes('fps: 3'));
  await bench.kept();
  expect(existsSync(added)).toBe(true);
});

test('a folder of characters is a shelf: each plays and says how it is; a base that is edited shows in all', async () => {
  await opened.close();
  cpSync(path.join(root, 'demo/townsfolk'), path.join(folder, 'quay'), { recursive: true });
  opened = await openFolder(path.join(folder, 'quay'));
  const { page } = bench;
  await bench.open('[data-testid=shelf]');
  const card = (name: string) =>
    page.getByRole('listitem').filter({ has: page.getByText(name, { exact: true }) });
  const count = page.getByRole('heading', { name: /^\d+ characters/ });
  await count.waitFor();
  expect(await count.innerText()).toMatch(/^6 characters/);
  await card('odde').getByText('builds on stroller.dothop.yaml').waitFor();
  await card('stroller.dothop.yaml').getByText('a base: odde, pim, sefa build on it').waitFor();
  await card('marlis').getByText('1 of 1 rehearsal as expected').waitFor();
  // Its picture moves: two of them differ.
  const shot = (): Promise<string> =>
    card('pim')
      .locator('canvas')
      .evaluate((canvas) => (canvas as HTMLCanvasElement).toDataURL());
  const first = await shot();
  await page.waitForFunction(
    ([before, name]) =>
      [...document.querySelectorAll('.shelf li')]
        .find((one) => one.querySelector('b')?.textContent === name)!
        .querySelector('canvas')!
        .toDataURL() !== before,
    [first, 'pim'] as const,
  );
  await card('stroller.dothop.yaml').getByRole('button').click();
  await page.getByTestId('sheet').or(page.getByText('Bring the drawings')).first().waitFor();
  await bench.room('Signals');
  await page.getByRole('row').first().waitFor();
  const base = path.join(folder, 'quay/stroller.dothop.yaml');
  const before = readFileSync(base, 'utf8');
  await bench.newSignal('flag', 'tired');
  await bench.kept();
  expect(readFileSync(base, 'utf8')).not.toBe(before);
  await page.keyboard.press('Alt+0');
  // Nobody reads it, and that is found in all of them.
  for (const name of ['odde', 'pim', 'sefa']) await card(name).getByText('1 to look at').waitFor();
  await card('odde').getByRole('button').click();
  await bench.room('Signals');
  await page.getByRole('row', { name: 'tired', exact: true }).waitFor();
  // What is changed here is written here.
  await bench.room('Time');
  await page.getByRole('row').first().click();
  await bench.put('frames a second', '3');
  await bench.kept();
  expect(readFileSync(path.join(folder, 'quay/odde.dothop.yaml'), 'utf8')).toContain('fps: 3');
}, 240_000);

test('what another program has changed can be undone', async () => {
  await bench.begin();
  await bench.room('Time');
  await bench.clip('doze');
  const before = onDisk();
  writeFileSync(file(), before.replace('cells: 54-59, fps: 4', 'cells: 54-59, fps: 5'));
  await bench.told('Another program has changed the files; they are shown as they are now.');
  await bench.page.keyboard.press('Control+z');
  await bench.told('undone: the change from outside');
  await untilDisk((text) => text === before);
});
