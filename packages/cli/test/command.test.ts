import { cpSync, existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { ControllerDefinition } from 'dot-hop';
import type { MeasureFinding } from 'dot-hop/pixels';
import sharp from 'sharp';
import { parse } from 'yaml';
import { copyWick, root, runIn, wickImages } from './command-line.js';

let folder: string;

beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  copyWick(folder, 'evening.rehearsal.yaml');
});
afterEach(() => rmSync(folder, { recursive: true }));

/** Runs the command in the folder of the demo data. */
const dotHop = (args: string[], input = '') => runIn(folder, args, input);

/** A document of the folder, as plain data. */
const read = (file: string): ControllerDefinition =>
  parse(readFileSync(path.join(folder, file), 'utf8')) as ControllerDefinition;

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
    expect(lines).toHaveLength(105);
    expect(lines[17]!.trim().split(/\s+/)).toEqual(['16', 'wick-16', '0', '112', '64', '56', 'run']);
  });

  test('draws them, numbered, and prints JSON or CSV beside it', async () => {
    const { code, out, err } = dotHop(['cells', 'wick.dothop.yaml', '-o', 'cells.png', '--json']);
    expect([code, err]).toEqual([0, '104 cells numbered in cells.png\n']);
    const told = JSON.parse(out) as { sheet: string; cells: unknown[] };
    expect(told.sheet).toBe('wick');
    expect(told.cells[3]).toMatchObject({ index: 3, x: 192, clips: ['stand'] });
    const { width, height } = await sharp(path.join(folder, 'cells.png')).metadata();
    expect([width, height]).toEqual([1128, 2152]);
    expect(dotHop(['cells', 'wick.png', '--cell', '64x56', '--csv']).out.split('\n')[2]).toBe(
      '1,wick-1,64,0,64,56,row0',
    );
  });

  test('reads a document from standard input', () => {
    const text = readFileSync(path.join(folder, 'wick.dothop.yaml'), 'utf8');
    expect(dotHop(['cells', '-', '--csv'], text).out.split('\n')).toHaveLength(106);
  });
});

describe('dot-hop preview', () => {
  test('shows what the arms do over what the legs do, with the times of both', async () => {
    const { code, out } = dotHop([
      'preview',
      'wick.dothop.yaml',
      'swing1',
      '--over',
      'run',
      '-o',
      'both.png',
    ]);
    expect(code).toBe(0);
    expect(out).toContain('swing1 over run: 11 frames, 420 ms, plays once');
    // A picture for each border of either: the swing at 50 ms, the run at 71.4, the swing's whoosh at 140.
    expect(out).toMatch(/0 +16 +50 +step/);
    expect(out).toMatch(/3 +17 +2\.86 +whoosh +strike follow-up/);
    const parts = await sharp(path.join(folder, 'both.png')).stats();
    dotHop(['preview', 'wick.dothop.yaml', 'run', '-o', 'run.png']);
    const whole = await sharp(path.join(folder, 'run.png')).stats();
    expect(parts.entropy).not.toBeCloseTo(whole.entropy, 3);
    expect(dotHop(['preview', 'wick.dothop.yaml', 'run', '--over', 'stand']).err).toContain(
      '"run" is drawn by the body itself; what can be shown over it: swing1, swing2, swing3',
    );
  });

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
    expect(out).toContain('takeoff: 4 frames, 170 ms, plays once');
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
    expect(err).toContain(
      'webp cannot hold the true times: picture 0 lasts 71.43 ms and is written as 71; the whole is 571.43 ms, written as 571',
    );
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

describe('dot-hop preview, other formats', () => {
  const film = async (file: string) => {
    const { pages, delay, width } = await sharp(path.join(folder, file), { pages: -1 }).metadata();
    return { pages, delay, width };
  };

  test('rates side by side change together where their borders fall together', async () => {
    expect(
      dotHop(['preview', 'wick.dothop.yaml', 'rise', '-o', 'r.webp', '--scale', '1', '--compare', '20,10'])
        .code,
    ).toBe(0);
    expect(await film('r.webp')).toEqual({ pages: 4, delay: [50, 50, 50, 50], width: 64 * 2 + 2 });
  });

  test('GIF is written in hundredths, and the whole still lasts as long', () => {
    const { err } = dotHop(['preview', 'wick.dothop.yaml', 'land', '-o', 'f.gif', '--rate', '1.5']);
    expect(err).toContain(
      'gif cannot hold the true times: picture 0 lasts 46.67 ms and is written as 50; the whole is 146.67 ms, written as 150',
    );
  });

  test('the ground passes under a clip with a stride', async () => {
    const args = ['preview', 'wick.dothop.yaml', 'run', '--scale', '1', '--background', 'none'];
    dotHop([...args, '-o', 'plain.webp']);
    dotHop([...args, '-o', 'ground.webp', '--ground']);
    expect((await film('ground.webp')).pages).toBeGreaterThan((await film('plain.webp')).pages!);
  });
});

describe('dot-hop convert', () => {
  test('JSON and YAML say the same', () => {
    dotHop(['convert', 'wick.dothop.yaml', '-o', 'w.json']);
    dotHop(['convert', 'w.json', '-o', 'w.yaml']);
    expect(read('w.yaml')).toEqual(read('wick.dothop.yaml'));
    expect(JSON.parse(readFileSync(path.join(folder, 'w.json'), 'utf8'))).toEqual(read('wick.dothop.yaml'));
  });

  test('a table of clips goes out and comes back without loss', () => {
    const { out } = dotHop(['convert', 'wick.dothop.yaml', '--to', 'csv']);
    expect(out.split('\n').slice(0, 3)).toEqual([
      'clip,sheet,cells,rows,every,fps,ms,lasts,loop,stride',
      'stand,,0-7,,,8,,,,',
      'walk,,8-15,,,11,,,,23',
    ]);
    writeFileSync(path.join(folder, 'c.csv'), out);
    dotHop(['convert', 'wick.dothop.yaml', '--clips', 'c.csv', '-o', 'same.yaml']);
    const text = (name: string): string => readFileSync(path.join(folder, name), 'utf8');
    expect(text('same.yaml')).toBe(text('wick.dothop.yaml'));
    // One field that the table says otherwise: one line of the document.
    writeFileSync(path.join(folder, 'c.csv'), out.replace('walk,,8-15,,,11,', 'walk,,8-15,,,10,'));
    dotHop(['convert', 'wick.dothop.yaml', '--clips', 'c.csv', '-o', 'same.yaml']);
    const before = text('wick.dothop.yaml').split('\n');
    const changed = text('same.yaml')
      .split('\n')
      .filter((line, i) => line !== before[i]);
    expect(changed).toEqual([expect.stringMatching(/^ {2}walk: .*fps: 10,/)]);
  });

  test('what a table says is taken over; cues, spans, comments and other clips are kept', () => {
    const rows = 'clip,cells,fps,ms,loop\nwalk,15-8,,100 50 50 50 50 50 50 50,\nnew,0 2 4,9,,from 1\n';
    writeFileSync(path.join(folder, 'c.csv'), rows);
    expect(dotHop(['convert', 'wick.dothop.yaml', '--clips', 'c.csv', '-o', 'wick.dothop.yaml']).code).toBe(
      0,
    );
    const { clips } = read('wick.dothop.yaml');
    expect(clips.walk).toEqual({
      cells: '15-8',
      ms: [100, 50, 50, 50, 50, 50, 50, 50],
      cues: { step: [0, 4] },
      stride: 23,
    });
    expect(clips.new).toEqual({ cells: [0, 2, 4], fps: 9, loop: { from: 1 } });
    expect(readFileSync(path.join(folder, 'wick.dothop.yaml'), 'utf8')).toContain('# right is positive');
  });

  test.each([
    ['clip,cels\nwalk,1\n', 'c.csv:1 there is no field "cels" in a table of clips'],
    ['clip,fps\nwalk,fast\n', 'c.csv:2 fps: expected a number, not "fast"'],
    [
      'clip,loop\nwalk,always\n',
      'c.csv:2 loop: expected forever, once, back-and-forth, a number of times or "from 2"',
    ],
    ['clip,fps\nwalk,0\n', 'clips.walk.fps: "fps" must be more than 0'],
    ['clip,cells\nwalk,990\n', 'clips.walk.cells: there is no cell 990'],
    ['"clip\nwalk', 'c.csv: it is not a CSV table'],
  ])('%j is refused and nothing is written', (table, words) => {
    writeFileSync(path.join(folder, 'c.csv'), table);
    const { code, err } = dotHop(['convert', 'wick.dothop.yaml', '--clips', 'c.csv', '-o', 'x.yaml']);
    expect(err).toContain(words);
    expect([code, existsSync(path.join(folder, 'x.yaml'))]).toEqual([2, false]);
  });
});

describe('dot-hop cells --measure', () => {
  test('finds every fault of the faulty sheet, and draws where it is', async () => {
    for (const file of ['faulty.png', 'faulty.dothop.yaml'])
      cpSync(path.join(root, 'demo', file), path.join(folder, file));
    const { code, out } = dotHop([
      'cells',
      'faulty.dothop.yaml',
      '--measure',
      '--json',
      '-o',
      'faulty-cells.png',
    ]);
    const told = JSON.parse(out) as { findings: MeasureFinding[] };
    const pieces = JSON.parse(
      dotHop(['cells', 'faulty.dothop.yaml', '--sheet', 'pieces', '--measure', '--json']).out,
    ) as typeof told;
    const all = [...told.findings, ...pieces.findings].map(
      ({ code: kind, subject, frames, pixels }) => `${kind} ${subject} ${frames} ${pixels}`,
    );
    expect(all).toEqual(
      expect.arrayContaining([
        'foot-line walk 2 2',
        'centre-jump walk 4 9',
        'box-differs walk 3 0',
        'cell-empty stand 1 0',
        'width-jump stand 3 17',
        'cell-cut stand 5 0',
        'cells-equal faulty  0',
        'clip-foot-line doze 0,1,2,3,4,5 3',
        'cell-size cut 2 0',
      ]),
    );
    expect(code).toBe(1);
    expect((await sharp(path.join(folder, 'faulty-cells.png')).metadata()).width).toBe(1128);
  });

  test('finds nothing on Wick', () => {
    const { code, out } = dotHop(['cells', 'wick.dothop.yaml', '--measure']);
    expect(out).toContain('nothing found');
    expect(code).toBe(0);
  });
});

describe('misuse exits with 2, in one clear message, and writes nothing', () => {
  const before = ['evening.rehearsal.yaml', 'gear', 'wick.dothop.yaml', ...wickImages].sort();

  test.each([
    [
      ['preview', 'wick.dothop.yaml', 'rnu'],
      'dot-hop: there is no clip, flipbook or state "rnu"; did you mean "run"?',
    ],
    [['preview', 'none.yaml', 'run'], 'dot-hop: none.yaml: there is no such file'],
    [
      ['preview', 'wick.dothop.yaml', 'run', '-o', 'run.bmp'],
      'a preview is written as .webp, .gif or .apng (moving) or .png',
    ],
    [
      ['preview', 'wick.dothop.yaml', 'run', '-o', 'wick.png/run.png'],
      'wick.png/run.png: cannot be written: its folder is a file',
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
    [
      ['cells', 'wick.png'],
      'dot-hop: wick.png: say how it is cut: --cell 48x48, --islands, or --table rectangles.csv',
    ],
    [
      ['cells', 'wick.png', '--cell', '9999x2'],
      'a grid of cells of 9999x2 pixels does not fit into an image of 512x728',
    ],
    [['cells', 'wick.png', '--cell', 'big'], 'It must be written as width x height'],
    [['cells', 'wick.dothop.yaml', '--sheet', 'x'], '--sheet x: the document has the sheets wick'],
    [['cells', 'none'], 'dot-hop: none: there is no such file'],
    [
      ['cells', '.', '--cell', '8x8', '--write', 'x.yaml', 'wick.png'],
      '--cell, --islands and --table are for one image; 10 were given',
    ],
    [
      [
        'preview',
        'wick.dothop.yaml',
        'stand',
        '-o',
        'big.webp',
        '--scale',
        '32',
        '--compare',
        '24,12,6,3,2,1',
      ],
      'are too large; choose a smaller --scale',
    ],
    [['cells', 'wick.png', '--table', 'none.csv'], 'none.csv: there is no such file'],
    [['cells', 'wick.png', '--cell', '64x56', '--columns', 'a=b'], 'It must be fields and names'],
    [['cells', 'wick.dothop.yaml', '--write', 'x.yaml'], '--write is for images'],
    [['preview', 'wick.dothop.yaml', 'run', '--compare', '0'], 'It must be one to six numbers'],
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
      'evening.rehearsal.yaml:3:11 document: wack.dothop.yaml: there is no such file; did you mean "wick.dothop.yaml"?',
    );
  });
});

describe('help', () => {
  test.each([['cells'], ['preview'], ['convert'], ['rehearse'], ['ladder'], ['check'], ['names'], ['pack']])(
    'of %s has examples that work with the character that "new" makes',
    (command) => {
      const { code, out } = dotHop([command, '--help']);
      expect(code).toBe(0);
      const examples = [...out.matchAll(/^ {2}dot-hop (.*)$/gm)].map((found) =>
        found[1]!.match(/"[^"]*"|\S+/g)!.map((word) => word.replaceAll('"', '')),
      );
      expect(examples.length).toBeGreaterThan(0);
      expect(dotHop(['new', 'keeper']).code).toBe(0);
      for (const args of examples)
        expect([args, dotHop(args)]).toEqual([args, expect.objectContaining({ code: 0 })]);
    },
  );
});
