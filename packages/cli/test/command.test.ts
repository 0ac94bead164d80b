import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const program = path.join(root, 'packages/cli/bin/dot-hop.js');
let folder: string;

beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  for (const file of ['wick.png', 'wick.dothop.yaml', 'evening.rehearsal.yaml'])
    cpSync(path.join(root, 'demo', file), path.join(folder, file));
});
afterEach(() => rmSync(folder, { recursive: true }));

/** Runs the command in the folder of the demo data. */
function dotHop(args: string[], input = ''): { code: number | null; out: string; err: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, [program, ...args], {
    cwd: folder,
    input,
    encoding: 'utf8',
  });
  return { code: status, out: stdout, err: stderr };
}

/** Changes a file of the folder. */
function change(file: string, from: string, to: string): void {
  const text = readFileSync(path.join(folder, file), 'utf8');
  expect(text).toContain(from);
  writeFileSync(path.join(folder, file), text.replace(from, to));
}

describe('dot-hop cells', () => {
  test('lists the cells with the clips that show them', () => {
    const { code, out } = dotHop(['cells', 'wick.dothop.yaml']);
    expect(code).toBe(0);
    const lines = out.trimEnd().split('\n');
    expect(lines).toHaveLength(65);
    expect(lines[17]!.trim().split(/\s+/)).toEqual(['16', 'wick-16', '0', '112', '64', '56', 'run']);
  });

  test('draws them, numbered, and prints JSON or CSV beside it', async () => {
    const { code, out, err } = dotHop(['cells', 'wick.dothop.yaml', '-o', 'cells.png', '--json']);
    expect([code, err]).toEqual([0, '64 cells numbered in cells.png\n']);
    const told = JSON.parse(out) as { sheet: string; cells: unknown[] };
    expect(told.sheet).toBe('wick');
    expect(told.cells[3]).toMatchObject({ index: 3, x: 192, clips: ['stand'] });
    const { width, height } = await sharp(path.join(folder, 'cells.png')).metadata();
    expect([width, height]).toEqual([1128, 1208]);
    expect(dotHop(['cells', 'wick.png', '--cell', '64x56', '--csv']).out.split('\n')[2]).toBe(
      '1,wick-1,64,0,64,56,',
    );
  });

  test('reads a document from standard input', () => {
    const text = readFileSync(path.join(folder, 'wick.dothop.yaml'), 'utf8');
    expect(dotHop(['cells', '-', '--csv'], text).out.split('\n')).toHaveLength(66);
  });
});

describe('dot-hop preview', () => {
  test('writes a moving WebP with the durations of the frames', async () => {
    const { code, out } = dotHop([
      'preview',
      'wick.dothop.yaml',
      'takeoff',
      '-o',
      'takeoff.webp',
      '--scale',
      '2',
    ]);
    expect(code).toBe(0);
    expect(out).toContain('takeoff: 4 frames, 170 ms, loop once');
    const { pages, delay, width, pageHeight, loop } = await sharp(path.join(folder, 'takeoff.webp'), {
      pages: -1,
    }).metadata();
    expect({ pages, delay, width, pageHeight, loop }).toEqual({
      pages: 4,
      delay: [40, 40, 40, 50],
      width: 128,
      pageHeight: 112,
      loop: 1,
    });
  });

  test('tells where WebP cannot hold the true time', () => {
    const { err } = dotHop(['preview', 'wick.dothop.yaml', 'run', '-o', 'run.webp']);
    expect(err).toContain('frame 0 lasts 71.43 ms and is written as 71');
  });

  test('draws a strip, and the mirrored direction as the mirror image', async () => {
    for (const direction of ['east', 'west']) {
      const args = [
        'preview',
        'wick.dothop.yaml',
        'run',
        '--direction',
        direction,
        '--background',
        'none',
        '--scale',
        '1',
      ];
      expect(dotHop([...args, '-o', `${direction}.webp`]).code).toBe(0);
      expect(dotHop([...args, '-o', `${direction}.png`]).code).toBe(0);
    }
    const raw = (file: string) => sharp(path.join(folder, file)).ensureAlpha();
    const east = await raw('east.webp').flop().raw().toBuffer();
    expect(Buffer.compare(await raw('west.webp').raw().toBuffer(), east)).toBe(0);
    expect((await raw('east.png').metadata()).height).toBeGreaterThan(100);
  });
});

describe('dot-hop rehearse', () => {
  test('prints what happened and that all was as expected', () => {
    const { code, out } = dotHop(['rehearse', 'evening.rehearsal.yaml', '-o', 'evening.png']);
    expect(code).toBe(0);
    expect(out).toMatch(/1560\.0 ms {4}pulse jump\n\s+takeoff\s+from stand: ranks higher/);
    expect(out).toContain('all 10 expectations met');
    expect(existsSync(path.join(folder, 'evening.png'))).toBe(true);
  });

  test('exits with 1 and says why when something was not', () => {
    change('evening.rehearsal.yaml', '{ at: 500, state: walk }', '{ at: 500, state: run }');
    const { code, out } = dotHop(['rehearse', 'evening.rehearsal.yaml', '--quiet']);
    expect(code).toBe(1);
    expect(out).toContain('NOT MET 2. at 500 ms: state run\n           instead: state walk');
    expect(out).toContain('- fast (vx 46)');
    expect(out).toContain('1 of 10 expectations not met');
    const json = JSON.parse(dotHop(['rehearse', 'evening.rehearsal.yaml', '--json']).out) as {
      expectations: { met: boolean }[];
    }[];
    expect(json[0]!.expectations.map(({ met }) => met)).toEqual([
      true,
      false,
      ...new Array<boolean>(8).fill(true),
    ]);
  });
});

describe('misuse exits with 2, in one clear message, and writes nothing', () => {
  const before = ['evening.rehearsal.yaml', 'wick.dothop.yaml', 'wick.png'];

  test.each([
    [
      ['preview', 'wick.dothop.yaml', 'rnu'],
      'dot-hop: there is no clip, flipbook or state "rnu"; did you mean "run"?',
    ],
    [['preview', 'none.yaml', 'run'], 'dot-hop: none.yaml: there is no such file'],
    [
      ['preview', 'wick.dothop.yaml', 'run', '-o', 'run.bmp'],
      'a preview is written as .webp (moving) or .png',
    ],
    [
      ['preview', 'wick.dothop.yaml', 'run', '-o', 'no/run.png'],
      'no/run.png: cannot be written: there is no such file',
    ],
    [['preview', 'wick.dothop.yaml', 'run', '--scale', '0'], 'It must be a whole number from 1 to 32.'],
    [
      ['preview', 'wick.dothop.yaml', 'run', '--direction', 'up'],
      '--direction up: the compass has east, west',
    ],
    [
      ['preview', 'wick.dothop.yaml', 'run', '--background', 'pink'],
      'Allowed choices are plain, checker, none.',
    ],
    [['cells', 'wick.png'], 'dot-hop: wick.png: say how large its cells are, such as --cell 48x48'],
    [['cells', 'wick.png', '--cell', '9999x2'], 'does not fit into wick.png, which is 512x448'],
    [['cells', 'wick.png', '--cell', 'big'], 'It must be written as width x height'],
    [['cells', 'wick.dothop.yaml', '--sheet', 'x'], '--sheet x: the document has the sheets wick'],
    [['cells', '.'], 'dot-hop: .: it is a folder'],
    [['cels'], "unknown command 'cels'"],
    [
      ['rehearse', 'wick.dothop.yaml'],
      `wick.dothop.yaml:1:1 this is a character's document, where a rehearsal is wanted`,
    ],
    [[], 'Usage: dot-hop'],
  ])('%j', (args, words) => {
    const { code, err } = dotHop(args);
    expect(err).toContain(words);
    expect(err).not.toMatch(/\bat .*\.js:\d+/);
    expect(code).toBe(2);
    expect(readdirSync(folder).sort()).toEqual(before);
  });

  test('a missing and a broken image are told at their place in the document', () => {
    writeFileSync(path.join(folder, 'wick.png'), 'not a picture');
    expect(dotHop(['cells', 'wick.dothop.yaml']).err).toMatch(
      /^wick\.dothop\.yaml:7:12 sheets\.wick\.image: the image "wick\.png" is not a picture that can be read/,
    );
    const png = readFileSync(path.join(root, 'demo/wick.png'));
    writeFileSync(path.join(folder, 'wick.png'), png.subarray(0, png.length / 2));
    expect(dotHop(['cells', 'wick.dothop.yaml'])).toMatchObject({ code: 2, out: '' });
    rmSync(path.join(folder, 'wick.png'));
    expect(dotHop(['cells', 'wick.dothop.yaml']).err).toMatch(
      /^wick\.dothop\.yaml:7:12 sheets\.wick\.image: .*there is no such file/,
    );
  });

  test('a rehearsal whose document is missing says where it is named', () => {
    change('evening.rehearsal.yaml', 'wick.dothop.yaml', 'wack.dothop.yaml');
    expect(dotHop(['rehearse', 'evening.rehearsal.yaml']).err).toContain(
      'evening.rehearsal.yaml:3:11 document: wack.dothop.yaml: there is no such file',
    );
  });
});

describe('help', () => {
  test.each([['cells'], ['preview'], ['rehearse']])(
    'of %s has an example that works on the demo data',
    (command) => {
      const { code, out } = dotHop([command, '--help']);
      expect(code).toBe(0);
      const examples = [...out.matchAll(/^ {2}dot-hop (.*)$/gm)].map((found) =>
        found[1]!.replaceAll('demo/', '').split(' '),
      );
      expect(examples.length).toBeGreaterThan(0);
      for (const args of examples) expect(dotHop(args)).toMatchObject({ code: 0 });
    },
  );
});
