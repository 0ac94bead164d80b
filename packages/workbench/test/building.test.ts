import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { copyWick } from '../../cli/test/command-line.js';
import { openFrom } from '../../cli/test/opened.js';
import type { OpenedFolder } from '../../cli/test/opened.js';
import { WorkbenchPage } from './workbench-page.js';

let folder: string;
let opened: OpenedFolder;
const bench = new WorkbenchPage(() => opened.address);
const file = (name: string): string => path.join(folder, name);
const text = (name: string): string => readFileSync(file(name), 'utf8');
const kit =
  'dotHop: 1\nfrom: ../common/wick.dothop.yaml\nname: kit\nclips: { run: { fps: 10 } }  # heavier\n';

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  mkdirSync(file('common'));
  mkdirSync(file('player'));
  copyWick(file('common'));
  writeFileSync(file('player/kit.dothop.yaml'), kit);
  opened = await openFrom(folder, 'player/kit.dothop.yaml');
});
afterEach(async () => {
  await opened.close();
  rmSync(folder, { recursive: true });
});

const until = async (name: string, has: string): Promise<void> => {
  while (!text(name).includes(has)) await new Promise((done) => setTimeout(done, 50));
};

test('a document that builds on another is worked on: what is changed goes into its own text, and the other stays', async () => {
  const before = text('common/wick.dothop.yaml');
  await bench.begin();
  await bench.room('Time');
  await bench.clip('doze');
  await bench.put('frames a second', '3');
  await until('player/kit.dothop.yaml', 'fps: 3');
  await bench.clip('run');
  await bench.put('frames a second', '9');
  await until('player/kit.dothop.yaml', 'fps: 9');
  expect(text('player/kit.dothop.yaml')).toBe(
    kit.replace('{ run: { fps: 10 } }', '{ run: { fps: 9 }, doze: { fps: 3 } }'),
  );
  // Undone, the text is the very one it was.
  await bench.page.getByRole('button', { name: /^Undo/ }).click();
  await until('player/kit.dothop.yaml', 'run: { fps: 10 }, doze');
  await bench.page.getByRole('button', { name: /^Undo/ }).click();
  await until('player/kit.dothop.yaml', 'run: { fps: 10 } }');
  expect(text('player/kit.dothop.yaml')).toBe(kit);
  expect(text('common/wick.dothop.yaml')).toBe(before);
});

test('what changes in the document below shows; a fault in it is told with its file', async () => {
  await bench.begin();
  await bench.room('Time');
  await bench.clip('doze');
  const below = text('common/wick.dothop.yaml');
  writeFileSync(
    file('common/wick.dothop.yaml'),
    below.replace('cells: 54-59, fps: 4', 'cells: 54-57, fps: 4'),
  );
  await bench.told('Another program has changed the files; they are shown as they are now.');
  await bench.frame(4).waitFor();
  await bench.frame(5).waitFor({ state: 'detached' });
  writeFileSync(file('common/wick.dothop.yaml'), below.replace('while: drowsy', 'while: drowzy'));
  await bench.page
    .locator('.found li.trouble', { hasText: '../common/wick.dothop.yaml: states.doze.while' })
    .waitFor();
  expect(text('player/kit.dothop.yaml')).toBe(kit);
});

test('saved as a zip and opened from it, it is the same character', async () => {
  await bench.begin();
  const download = bench.page.waitForEvent('download');
  await bench.menu(/^Save everything as a zip/);
  const zip = await (await download).path();
  await bench.menu('New, with nothing');
  await bench.page.getByText('Bring the drawings').waitFor();
  await bench.bring([{ name: 'kit.zip', mimeType: 'application/zip', buffer: readFileSync(zip) }]);
  await bench.told('kit.dothop.yaml is open.');
  await bench.page.locator('.found h2', { hasText: 'Nothing wrong' }).waitFor();
  await bench.room('Time');
  await bench.clip('doze');
  expect(await bench.document()).toBe(kit);
});
