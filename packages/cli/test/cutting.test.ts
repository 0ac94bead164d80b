import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { ControllerDefinition } from 'dot-hop';
import sharp from 'sharp';
import { parse } from 'yaml';
import { copyWick, runIn, runProgram } from './command-line.js';

let folder: string;

beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  copyWick(folder);
});
afterEach(() => rmSync(folder, { recursive: true }));

/** Runs the command in the folder of the demo data. */
const dotHop = (args: string[], input = '') => runIn(folder, args, input);

/** A document of the folder, as plain data. */
const read = (file: string): ControllerDefinition =>
  parse(readFileSync(path.join(folder, file), 'utf8')) as ControllerDefinition;

const frames = async (names: string[], row = 56): Promise<void> => {
  for (const [i, name] of names.entries())
    await sharp(path.join(folder, 'wick.png'))
      .extract({ left: i * 64, top: row, width: 64, height: 56 })
      .toFile(path.join(folder, name));
};
test('a folder of images becomes a moving preview by two commands, in natural order', async () => {
  mkdirSync(path.join(folder, 'hero'));
  await frames(['hero/walk10.png', 'hero/walk2.png', 'hero/walk1.png', 'hero/stand.png']);
  expect(dotHop(['cells', 'hero', '--write', 'hero.yaml'])).toMatchObject({ code: 0 });
  const { sheets, clips } = read('hero.yaml');
  expect(sheets.hero!.images).toEqual([
    'hero/stand.png',
    'hero/walk1.png',
    'hero/walk2.png',
    'hero/walk10.png',
  ]);
  expect(clips).toEqual({ stand: { cells: 0 }, walk: { cells: '1-3', fps: 10 } });
  expect(dotHop(['preview', 'hero.yaml', 'walk', '-o', 'walk.webp']).code).toBe(0);
});

test('writing again keeps what a person has changed, and lists clips that no longer fit', async () => {
  await frames(['walk1.png', 'walk2.png', 'walk3.png']);
  const all = ['walk1.png', 'walk2.png', 'walk3.png'];
  dotHop(['cells', ...all, '--write', 'w.yaml']);
  const file = path.join(folder, 'w.yaml');
  writeFileSync(file, `# mine\n${readFileSync(file, 'utf8').replace('fps: 10', 'fps: 7')}`);
  await frames(['walk4.png'], 112);
  const told = dotHop(['cells', ...all, 'walk4.png', '--write', 'w.yaml']);
  expect([told.code, told.err]).toEqual([
    0,
    'joined walk, because of their names: walk4.png\nbrought up to date: w.yaml\n',
  ]);
  expect(readFileSync(file, 'utf8')).toMatch(/^# mine\n/);
  expect(read('w.yaml').clips.walk).toEqual({ cells: '0-3', fps: 7 });
  const kept = readFileSync(file, 'utf8');
  const { code, err } = dotHop(['cells', 'walk1.png', 'walk2.png', '--write', 'w.yaml']);
  expect(err).toContain(
    'w.yaml: nothing is written, since images that clips show are gone:\n  clip "walk" shows walk3.png',
  );
  expect(code).toBe(2);
  expect(readFileSync(file, 'utf8')).toBe(kept);
});

test('an image put in between moves no clip to other images', async () => {
  await frames(['a1.png', 'a3.png', 'b1.png', 'b2.png']);
  const sheet = (...files: string[]) => dotHop(['cells', ...files, '--write', 'x/y.yaml']);
  mkdirSync(path.join(folder, 'x'));
  expect(sheet('a1.png', 'a3.png', 'b1.png', 'b2.png').code).toBe(0);
  const file = path.join(folder, 'x/y.yaml');
  writeFileSync(file, readFileSync(file, 'utf8').replace('a: { cells', 'a: { cues: { tap: 1 }, cells'));
  await frames(['a2.png'], 112);
  expect(sheet('a1.png', 'a2.png', 'a3.png', 'b1.png', 'b2.png').err).toBe(
    'renumbered, so that they show the same images: a, b\njoined a, because of their names: ../a2.png\nbrought up to date: x/y.yaml\n',
  );
  // The cue stays with the drawing on which it was.
  expect(read('x/y.yaml').clips).toMatchObject({
    a: { cells: '0-2', cues: { tap: 2 } },
    b: { cells: '3-4' },
  });
});

test.each(['webp', 'gif', 'apng'])('a moving %s becomes a sheet and a clip with its own times', (kind) => {
  dotHop([
    'preview',
    'wick.dothop.yaml',
    'takeoff',
    '-o',
    `t.${kind}`,
    '--scale',
    '1',
    '--background',
    'none',
  ]);
  expect(dotHop(['cells', `t.${kind}`, '--write', 't.yaml']).code).toBe(0);
  // It was played once, and is so again.
  expect(read('t.yaml').clips).toEqual({ t: { cells: '0-3', ms: [40, 40, 40, 50], loop: 'once' } });
  expect(
    dotHop(['preview', 't.yaml', 't', '-o', `again.${kind}`, '--scale', '1', '--background', 'none']).code,
  ).toBe(0);
});

test('what does not come out even, has no gaps, or is cut short is told', async () => {
  expect(dotHop(['cells', 'wick.png', '--cell', '60x56', '--csv']).err).toMatch(
    /cells of 60x56 do not come out even in \d+x\d+: \d+ pixels at the right are left over/,
  );
  await sharp(path.join(folder, 'wick.png'))
    .extract({ left: 20, top: 60, width: 20, height: 40 })
    .flatten({ background: '#204060' })
    .extract({ left: 2, top: 8, width: 8, height: 24 })
    .png()
    .toFile(path.join(folder, 'close.png'));
  expect(dotHop(['cells', 'close.png', '--islands'])).toMatchObject({
    code: 2,
    err: expect.stringContaining("say which colour they lie on with --ground '#rrggbb'") as string,
  });
  const blank = { create: { width: 64, height: 32, channels: 3 as const, background: '#204060' } };
  await sharp(blank).png().toFile(path.join(folder, 'blank.png'));
  expect(dotHop(['cells', 'blank.png', '--islands'])).toMatchObject({
    code: 2,
    err: expect.stringContaining('nothing is drawn on it') as string,
  });
  expect(dotHop(['cells', 'wick.png', '--cell', '1x1'])).toMatchObject({
    code: 2,
    err: expect.stringContaining('a sheet has at most 100000') as string,
  });
  dotHop(['preview', 'wick.dothop.yaml', 'takeoff', '-o', 't.apng']);
  const whole = readFileSync(path.join(folder, 't.apng'));
  const more = Buffer.from(whole);
  more.writeUInt32BE(120, more.indexOf('acTL') + 4);
  for (const [bytes, words] of [
    [more, 'it announces 120 frames and holds 4'],
    [whole.subarray(0, whole.length / 2), 'it announces 4 frames and holds'],
  ] as const) {
    writeFileSync(path.join(folder, 'bad.apng'), bytes);
    const { code, err } = dotHop(['cells', 'bad.apng', '--write', 'bad.yaml']);
    expect(code).toBe(2);
    expect(err).toContain(words);
    expect(err).not.toMatch(/\bat .*\.js:\d+/);
  }
  expect(runProgram(folder, 'mkfifo', ['pipe.png']).code).toBe(0);
  expect(dotHop(['cells', 'pipe.png', '--cell', '8x8']).err).toContain('a pipe or a device');
  expect(existsSync(path.join(folder, 'bad.yaml'))).toBe(false);
});

test('a name commands no terminal', () => {
  writeFileSync(
    path.join(folder, 'odd.yaml'),
    'dotHop: 1\nsheets: { w: { image: wick.png, grid: { cell: [64, 56] } } }\nclips: { "\\e]0;mine\\a\\e[2J": { cells: 0 } }\n',
  );
  const { out, err } = dotHop(['ladder', 'odd.yaml']);
  expect(out + err).toContain('\\u001b');

  expect(out + err).not.toMatch(/[\x00-\x08\x0b-\x1f\x7f]/);
});

test('rectangles are read from a table whose columns are named', () => {
  writeFileSync(path.join(folder, 'r.csv'), 'id,left,top,w,h\na,0,0,64,56\nb,64,0,30,20\n');
  const columns = ['--columns', 'x=left,y=top,width=w,height=h'];
  expect(
    dotHop(['cells', 'wick.png', '--table', 'r.csv', ...columns, '--csv'])
      .out.trimEnd()
      .split('\n')[2],
  ).toBe('1,wick-1,64,0,30,20,all');
  expect(dotHop(['cells', 'wick.png', '--table', 'r.csv']).err).toContain(
    'there is no column "x" for x; it has id, left, top, w, h',
  );
});

test('islands are found, and a grid is proposed where one fits', () => {
  const { out, err } = dotHop(['cells', 'wick.png', '--islands', '--csv']);
  expect(err).toContain('a grid fits: --cell 64x56');
  expect(out.trimEnd().split('\n')).toHaveLength(100);
});

test('an image that claims more pixels than it may is refused', async () => {
  await sharp({ create: { width: 9000, height: 9000, channels: 3, background: '#000000' } })
    .png()
    .toFile(path.join(folder, 'bomb.png'));
  const { code, err } = dotHop(['cells', 'bomb.png', '--cell', '8x8']);
  expect(err).toContain('it has more than 67108864 pixels');
  expect(code).toBe(2);
});

test('the last of the columns, names, makes the clips', () => {
  const rows = ['run_02,64,0', 'run_10,192,0', 'sit,0,56', 'run_01,0,0'];
  writeFileSync(
    path.join(folder, 'n.csv'),
    `id,x,y,width,height\n${rows.map((row) => `${row},64,56\n`).join('')}`,
  );
  const args = ['cells', 'wick.png', '--table', 'n.csv', '--write', 'n.yaml'];
  expect(dotHop([...args, '--columns', 'name=who']).err).toContain('there is no column "who" for name');
  expect(dotHop([...args, '--columns', 'name=id']).code).toBe(0);
  expect(read('n.yaml').clips).toEqual({ run: { cells: [3, '0-1'], fps: 10 }, sit: { cells: 2 } });
});

test('a folder of folders is a clip each, and stands on one pivot as its frames are alike', async () => {
  mkdirSync(path.join(folder, 'gull/glide'), { recursive: true });
  mkdirSync(path.join(folder, 'gull/sit down'));
  await frames(['gull/glide/b.png', 'gull/glide/a.png', 'gull/sit down/1.png']);
  const { code, err } = dotHop(['cells', 'gull', '--write', 'gull.yaml', '--pivot', 'feet']);
  expect([code, err]).toEqual([0, expect.stringContaining('all cells stand on one pivot')]);
  expect(readFileSync(path.join(folder, 'gull.yaml'), 'utf8')).toBe(`dotHop: 1
name: gull
sheets:
  gull:
    images:
      - gull/glide/a.png
      - gull/glide/b.png
      - gull/sit down/1.png
    pivot: [33, 54]
clips:
  glide: { cells: 0-1, fps: 10 }
  sit-down: { cells: 2 }
`);
});

test('drawings on a colour are found, one clip a row, each on its own feet', async () => {
  await sharp(path.join(folder, 'wick.png'))
    .extract({ left: 0, top: 0, width: 128, height: 112 })
    .flatten({ background: '#204060' })
    .png()
    .toFile(path.join(folder, 'flat.png'));
  const { code, err } = dotHop(['cells', 'flat.png', '--islands', '--write', 'flat.yaml', '--pivot', 'feet']);
  expect(code).toBe(0);
  expect(err).toContain('#204060 is taken for transparent to find the drawings, since the corners have it');
  expect(err).toContain('4 drawings stand on their own feet');
  const { sheets, clips } = read('flat.yaml');
  expect(clips).toEqual({ row0: { cells: '0-1', fps: 10 }, row1: { cells: '2-3', fps: 10 } });
  for (const [cell, [, , width, height]] of (
    sheets.flat!.cells as [number, number, number, number][]
  ).entries()) {
    const [x, y] = sheets.flat!.perCell![cell]!.pivot!;
    expect([x > 0 && x < width, y]).toEqual([true, height]);
  }
  // So near that all are one drawing.
  expect(
    dotHop(['cells', 'flat.png', '--islands', '--join', '60', '--csv']).out.trimEnd().split('\n'),
  ).toHaveLength(2);
});

test.each([
  [['--ground', 'red', '--islands'], 'It must be a colour such as #ff00ff.'],
  [
    ['--ground', '#ff00ff', '--cell', '64x56'],
    '--ground is for finding drawings by their gaps; add --islands',
  ],
  [
    ['--pivot', 'feet', '--cell', '64x56'],
    '--pivot is written into a document; add --write hero.dothop.yaml',
  ],
])('%j is misuse', (options, words) => {
  const { code, err } = dotHop(['cells', 'wick.png', ...options]);
  expect([code, err]).toEqual([2, expect.stringContaining(words)]);
});
