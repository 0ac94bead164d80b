import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { readText } from '../src/read-text.js';

const folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-read-'));
const file = path.join(folder, 'gull.dothop.yaml');
afterAll(() => rmSync(folder, { recursive: true }));

test('a file that an editor has emptied to write it is read when it is written', async () => {
  writeFileSync(file, '');
  const reading = readText(file);
  await wait(70);
  writeFileSync(file, 'dotHop: 1\n');
  expect(await reading).toBe('dotHop: 1\n');
});

test('a file that stays empty is told as empty, and one that is not there as missing', async () => {
  writeFileSync(file, '');
  expect(await readText(file)).toBe('');
  await expect(readText(`${file}.not`)).rejects.toThrow('ENOENT');
});
