import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { copyWick, root, runIn } from './command-line.js';

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-dress-'));
  cpSync(path.join(root, 'demo/townsfolk'), folder, { recursive: true });
  copyWick(folder, 'running.rehearsal.yaml');
});
afterAll(() => rmSync(folder, { recursive: true }));
const dress = (...args: string[]) => runIn(folder, ['dress', 'folk.dothop.yaml', ...args]);
const coloursOf = async (file: string): Promise<Set<string>> => {
  const { data } = await sharp(path.join(folder, file))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const seen = new Set<string>();
  for (let i = 0; i < data.length; i += 3) seen.add(data.subarray(i, i + 3).toString('hex'));
  return seen;
};

interface Worn {
  readonly pieces: Record<string, string>;
  readonly colours: Record<string, string>;
}

test('a hundred people, the same for the same seed, no two alike', async () => {
  const { code, out, err } = dress('--count', '100', '--seed', 'quay', '--json', '-o', 'town.png');
  expect([code, err]).toEqual([0, '100 people in town.png\n']);
  const people = JSON.parse(out) as Worn[];
  expect(new Set(people.map((one) => JSON.stringify(one))).size).toBe(100);
  expect(dress('--count', '100', '--seed', 'quay', '--json').out).toBe(out);
  expect(dress('--count', '100', '--seed', 'other', '--json').out).not.toBe(out);
  // Whoever wears a peaked cap has the coat that goes with it; nobody has a hat over a bun.
  for (const { pieces } of people) {
    if (pieces.hat === 'peaked') expect(pieces.coat).toBe('pilot');
    if (pieces.hair === 'bun') expect(pieces.hat).toBe('none');
  }
  const { width, height } = await sharp(path.join(folder, 'town.png')).metadata();
  expect(width).toBeGreaterThan(900);
  expect(height).toBeGreaterThan(600);
  const seen = await coloursOf('town.png');
  // A green coat and a brown hand, in exactly the colours of their palettes.
  for (const colour of ['3a5c46', '9c6044', 'dcb264']) expect([...seen]).toContain(colour);
});

test('one person as told, in every direction and frame', async () => {
  const { code, err } = dress(
    '--wear',
    'coat=pilot,coat.cloth=moss,body.cloth=moss,hat=none,held=none',
    '-o',
    'one.png',
  );
  expect([code, err]).toEqual([0, 'one person, in every direction and frame, in one.png\n']);
  const seen = await coloursOf('one.png');
  expect(seen.has('3a5c46')).toBe(true);
  // No navy is left: that is how it is drawn.
  for (const navy of ['1b2444', '2b3d68', '456294']) expect(seen.has(navy)).toBe(false);
  const table = dress('--csv', '--wear', 'hat=straw').out.split('\n');
  expect(table[0]).toBe(
    'coat,face,hair,hat,held,body.cloth,coat.cloth,coat.trim,skin,locks,hair.trim,hat.cloth,hat.trim,held.trim',
  );
  expect(table[1]!.split(',')[3]).toBe('straw');
  // Chance picks what goes with it: no bun under a hat.
  const hats = JSON.parse(dress('--count', '40', '--wear', 'hat=straw', '--json').out) as Worn[];
  expect(new Set(hats.map(({ pieces }) => pieces.hat))).toEqual(new Set(['straw']));
  expect(hats.map(({ pieces }) => pieces.hair)).not.toContain('bun');
  expect(new Set(hats.map((one) => JSON.stringify(one))).size).toBe(40);
});

test('a preview shows what is worn, always the same, or the body alone', async () => {
  const preview = (file: string, ...args: string[]) =>
    runIn(folder, ['preview', 'folk.dothop.yaml', 'walk', '-o', file, ...args]);
  expect(preview('moss.png', '--wear', 'coat=pilot,coat.cloth=moss').code).toBe(0);
  expect((await coloursOf('moss.png')).has('3a5c46')).toBe(true);
  preview('bare.png', '--bare');
  // Feet and trousers, nobody's skin.
  expect((await coloursOf('bare.png')).has('f0c8a0')).toBe(false);
  expect((await coloursOf('bare.png')).size).toBeLessThan((await coloursOf('moss.png')).size);
  preview('one.png');
  preview('same.png');
  expect(readFileSync(path.join(folder, 'same.png'))).toEqual(readFileSync(path.join(folder, 'one.png')));
  expect(preview('dial.png', '--dial', '--wear', 'hat=straw').code).toBe(0);
  expect((await coloursOf('dial.png')).has('dcb264')).toBe(true);
  expect(preview('no.png', '--wear', 'hat=crown')).toMatchObject({ code: 2 });
  expect(preview('no.png', '--wear', 'hat=straw', '--bare')).toMatchObject({ code: 2 });
  expect(existsSync(path.join(folder, 'no.png'))).toBe(false);
});

test('ladders and rehearsals are drawn in what is worn, or of the body alone', async () => {
  const oiled = ['--wear', 'coat=oilskin,coat.oil=signal'];
  const ladder = (...args: string[]) => runIn(folder, ['ladder', 'wick.dothop.yaml', ...args]).code;
  expect(ladder('-o', 'ladder.png', ...oiled)).toBe(0);
  expect((await coloursOf('ladder.png')).has('c43b30')).toBe(true);
  expect(ladder('-o', 'ladder.png')).toBe(0);
  expect((await coloursOf('ladder.png')).has('c43b30')).toBe(false);
  expect(ladder(...oiled)).toBe(2);
  const rehearse = (...args: string[]) => runIn(folder, ['rehearse', 'running.rehearsal.yaml', ...args]);
  const plain = rehearse('--json').out;
  const worn = rehearse('--json', '-o', 'running.png', ...oiled);
  expect([worn.code, worn.out]).toEqual([0, plain]);
  expect((await coloursOf('running.png')).has('c43b30')).toBe(true);
  // What chance is to leave alone is not worn.
  rehearse('-o', 'running.png');
  for (const colour of ['c43b30', 'd9a531']) expect((await coloursOf('running.png')).has(colour)).toBe(false);
  expect(rehearse('--bare')).toMatchObject({
    code: 2,
    err: 'dot-hop: --bare is for the picture; it needs -o\n',
  });
});

test('one person of many frames is drawn in lines that fit', async () => {
  const { err } = runIn(folder, [
    'dress',
    'wick.dothop.yaml',
    '--wear',
    'hat=rain-hat',
    '-o',
    'wick-dressed.png',
  ]);
  expect(err).toBe('one person, in every direction and frame, in wick-dressed.png\n');
  const { width, height } = await sharp(path.join(folder, 'wick-dressed.png')).metadata();
  expect(width).toBeLessThanOrEqual(2600);
  expect(height).toBeGreaterThan(900);
});

test('misuse says what there is', () => {
  expect(dress('--wear', 'hat=strw')).toMatchObject({
    code: 2,
    err: expect.stringContaining('did you mean "straw"?') as string,
  });
  expect(dress('--wear', 'straw').code).toBe(2);
  expect(dress('--count', '2000', '--differ', '14').err).toMatch(
    /only \d+ of 2000 people were found that differ in 14 choices/,
  );
  expect(dress('-o', 'town.gif')).toMatchObject({ code: 2 });
  const none = runIn(folder, ['dress', 'marlis.dothop.yaml']);
  expect([none.code, none.err]).toEqual([
    2,
    'dot-hop: "marlis" has no wardrobe; add one under "wardrobe" with layers and pieces\n',
  ]);
});

test('a wardrobe goes through YAML and JSON without loss', () => {
  runIn(folder, ['convert', 'folk.dothop.yaml', '-o', 'folk.json']);
  runIn(folder, ['convert', 'folk.json', '-o', 'again.yaml']);
  runIn(folder, ['convert', 'again.yaml', '-o', 'again.json']);
  expect(readFileSync(path.join(folder, 'again.json'), 'utf8')).toBe(
    readFileSync(path.join(folder, 'folk.json'), 'utf8'),
  );
});
