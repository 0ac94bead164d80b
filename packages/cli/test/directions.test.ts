import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { root, runIn } from './command-line.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  cpSync(path.join(root, 'demo/townsfolk'), folder, { recursive: true });
});
afterEach(() => rmSync(folder, { recursive: true }));

const dotHop = (...args: string[]) => runIn(folder, args);
const file = (name: string): string => path.join(folder, name);

/** How many pixels of a picture are of a colour. */
async function count(picture: string, colour: readonly [number, number, number], near = 3): Promise<number> {
  const { data } = await sharp(file(picture)).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  let found = 0;
  for (let i = 0; i < data.length; i += 3)
    if (colour.every((part, c) => Math.abs(data[i + c]! - part) < near)) found++;
  return found;
}

const lamp = [255, 201, 92] as const;

test('the dial tells for every direction which clip it shows, drawn or mirrored', () => {
  const { code, out } = dotHop('preview', 'marlis.dothop.yaml', 'walk', '--dial', '--json');
  expect(code).toBe(0);
  const { directions } = JSON.parse(out) as {
    directions: { direction: string; drawn: string; from: string }[];
  };
  expect(directions).toHaveLength(8);
  expect(directions.filter(({ drawn }) => drawn === 'drawn')).toHaveLength(5);
  expect(directions.find(({ direction }) => direction === 'northwest')).toMatchObject({
    clip: 'walk-northeast',
    drawn: 'mirrored',
    from: 'northeast',
  });
});

test('a direction without a drawing is told, and marked in the picture', async () => {
  const text = readFileSync(file('marlis.dothop.yaml'), 'utf8');
  const less = text.replaceAll(
    'rows: [south, southeast, east, northeast, north]',
    'rows: { south: 0, east: 2 }',
  );
  expect(less).not.toBe(text);
  writeFileSync(file('less.yaml'), less);
  const { out } = dotHop('preview', 'less.yaml', 'stand', '--dial', '-o', 'less.png');
  // Northeast is as near to north, which has no drawing, as to east.
  expect(out).toMatch(/north +270 +stand-east +stands in +east/);
  expect(out).toMatch(/southeast +45 +stand-east +stands in +east/);
  expect(out).toMatch(/southwest +135 +stand-east +stands in +east/);
  dotHop('preview', 'marlis.dothop.yaml', 'stand', '--dial', '-o', 'all.png');
  // "stands in" is written in the colour of lamps.
  expect(await count('less.png', lamp, 45)).toBeGreaterThan((await count('all.png', lamp, 45)) + 100);
});

test('the vectors of a rehearsal are drawn into the dial, in the colours of what was faced', async () => {
  const dial = ['preview', 'marlis.dothop.yaml', 'walk', '--dial'];
  dotHop(...dial, '-o', 'plain.png');
  const { code, out } = dotHop(...dial, '--trail', 'round.rehearsal.yaml', '-o', 'trail.png', '--json');
  expect(code).toBe(0);
  const { trail } = JSON.parse(out) as { trail: { at: number; x: number; y: number; direction: string }[] };
  expect(trail[0]).toEqual({ at: 0, x: 0, y: 0, direction: 'south' });
  // Past the border, but within what sticks.
  expect(trail.find(({ x, y }) => x === 25 && y === 11.5)).toMatchObject({ direction: 'east' });
  expect(trail.at(-1)).toMatchObject({ x: 0, y: 0, direction: 'west' });
  const [orange, plain] = [[232, 163, 61] as const, 'plain.png'];
  expect(await count('trail.png', orange)).toBeGreaterThan((await count(plain, orange)) + 50);
});

test.each([
  [
    ['walk', '--trail', 'round.rehearsal.yaml'],
    '--trail draws the vectors of a rehearsal into a compass; it needs --dial',
  ],
  [['wlak', '--dial'], 'there is no flipbook or state "wlak" to be shown in every direction'],
  [['walk', '--dial', '-o', 'dial.gif'], '-o dial.gif: a dial is written as .png'],
  [['walk', '--dial', '--trail', 'gone.yaml'], 'gone.yaml'],
])('preview %j is misuse, and writes nothing', (args, words) => {
  const { code, err } = dotHop('preview', 'marlis.dothop.yaml', ...args);
  expect(code).toBe(2);
  expect(err).toContain(words);
  expect(existsSync(file('dial.gif'))).toBe(false);
});

test('a rehearsal of somebody else is no trail', () => {
  const { code, err } = dotHop(
    'preview',
    'odde.dothop.yaml',
    'walk',
    '--dial',
    '--trail',
    'round.rehearsal.yaml',
  );
  expect(code).toBe(2);
  expect(err).toContain('--trail round.rehearsal.yaml rehearses marlis.dothop.yaml, not odde.dothop.yaml');
});

test('clips in rows go out as a table and come back', () => {
  expect(dotHop('convert', 'pim.dothop.yaml', '-o', 'clips.csv').code).toBe(0);
  const table = readFileSync(file('clips.csv'), 'utf8');
  expect(table).toContain('stand,,0-3,south southeast east northeast north,');
  expect(dotHop('convert', 'pim.dothop.yaml', '--clips', 'clips.csv', '-o', 'same.yaml').code).toBe(0);
  const plain = (name: string): unknown => JSON.parse(dotHop('convert', name, '--to', 'json', '--whole').out);
  expect(plain('same.yaml')).toEqual(plain('pim.dothop.yaml'));
  // What it takes over is still taken over.
  expect(readFileSync(file('same.yaml'), 'utf8')).toBe(readFileSync(file('pim.dothop.yaml'), 'utf8'));
  writeFileSync(file('other.csv'), 'clip,rows\nwalk,south=0 north=4\n');
  expect(dotHop('convert', 'pim.dothop.yaml', '--clips', 'other.csv', '-o', 'other.yaml').code).toBe(0);
  expect(plain('other.yaml')).toMatchObject({ clips: { walk: { rows: { south: 0, north: 4 } } } });
});

test.each(['marlis', 'odde', 'pim', 'sefa'])('the drawings of %s stand where they should', (name) => {
  const { code, out } = dotHop('cells', `${name}.dothop.yaml`, '--measure');
  expect(out).toContain('nothing found');
  expect(code).toBe(0);
});
