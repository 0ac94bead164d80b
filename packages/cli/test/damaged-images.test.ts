import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chance } from '../../core/test/damage.js';
import { ImageTrouble, readImage } from '../src/images.js';
import { Misuse } from '../src/misuse.js';
import { gather } from '../src/sources.js';
import { copyWick, runIn } from './command-line.js';

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-damaged-'));
  copyWick(folder);
  for (const kind of ['gif', 'webp', 'apng'])
    expect(
      runIn(folder, ['preview', 'wick.dothop.yaml', 'takeoff', '-o', `t.${kind}`, '--scale', '1']).code,
    ).toBe(0);
});
afterAll(() => rmSync(folder, { recursive: true }));

test('damaged images are read, or refused in words, and none takes long', async () => {
  let read = 0;
  for (let i = 0; i < 240; i++) {
    const pick = chance(i);
    const name = ['t.gif', 't.webp', 't.apng', 'wick.png'][pick(4)]!;
    let bytes = Buffer.from(readFileSync(path.join(folder, name)));
    for (let faults = 1 + pick(4); faults > 0; faults--)
      switch (pick(4)) {
        case 0:
          bytes = bytes.subarray(0, pick(bytes.length));
          break;
        case 1:
          // Headers say how much is to come, and most of what goes wrong is in them.
          if (bytes.length > 0) bytes[pick(Math.min(bytes.length, 80))] = pick(256);
          break;
        case 2:
          if (bytes.length > 0) bytes[pick(bytes.length)] = pick(256);
          break;
        default:
          bytes = Buffer.concat([bytes.subarray(0, pick(bytes.length)), bytes.subarray(pick(bytes.length))]);
      }
    const file = path.join(folder, `damaged${path.extname(name)}`);
    writeFileSync(file, bytes);
    const begin = performance.now();
    for (const open of [
      () => readImage(file),
      () => gather([file], name === 'wick.png' ? { grid: { cell: [64, 56] } } : {}, folder),
    ])
      try {
        await open();
        read++;
      } catch (error) {
        const isOurs = error instanceof Misuse || error instanceof ImageTrouble;
        if (!isOurs) throw new Error(`seed ${i}, ${name}: ${(error as Error).stack}`);
        expect(error.message).not.toBe('');
      }
    expect({ seed: i, name, long: performance.now() - begin > 8000 }).toMatchObject({ long: false });
  }
  expect(read).toBeGreaterThan(20);
});
