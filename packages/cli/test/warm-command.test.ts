import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { copyWick, runAlone, runIn } from './command-line.js';

let folder: string;

beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  copyWick(folder, 'evening.rehearsal.yaml', 'faulty-rules.dothop.yaml');
});
afterEach(() => rmSync(folder, { recursive: true }));

test.each([
  [['--version'], 0],
  [['--help'], 0],
  [['check', 'wick.dothop.yaml'], 0],
  [['check', 'wick.dothop.yaml', '--json'], 0],
  [['rehearse', 'evening.rehearsal.yaml'], 0],
  [['preview', 'wick.dothop.yaml', 'walk', '-o', 'walk.webp'], 0],
  [['cells', 'wick.dothop.yaml', '--csv'], 0],
  [['convert', 'half.yaml'], 2],
  [['check', 'faulty-rules.dothop.yaml'], 1],
  [['prewiev', 'wick.dothop.yaml'], 2],
  [['preview', 'wick.dothop.yaml', 'wakl', '-o', 'walk.webp'], 2],
])('%j tells the same in a process of its own and in one that has run others', (args, code) => {
  writeFileSync(path.join(folder, 'half.yaml'), 'dotHop: 1\nclips: {');
  const alone = runAlone(folder, args);
  expect(alone).toMatchObject({ code });
  expect(alone.out + alone.err).not.toBe('');
  expect(runIn(folder, args)).toEqual(alone);
});
