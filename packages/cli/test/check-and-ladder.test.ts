import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { copyWick, root, runIn } from './command-line.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  copyWick(folder, 'faulty-rules.dothop.yaml');
  cpSync(path.join(root, 'demo/townsfolk'), path.join(folder, 'townsfolk'), { recursive: true });
});
afterEach(() => rmSync(folder, { recursive: true }));

const check = (...args: string[]) => runIn(folder, ['check', ...args]);

interface Plain {
  document: string;
  situations: number;
  findings: { code: string; severity: string; path: string; line: number; accepted?: string }[];
}

test('the demo has nothing that is not accepted with a reason', () => {
  const people = ['marlis', 'odde', 'pim', 'sefa'].map((name) => `townsfolk/${name}.dothop.yaml`);
  const { code, out } = check('wick.dothop.yaml', ...people);
  expect(code).toBe(0);
  expect(out.match(/nothing found/g)).toHaveLength(5);
  expect(out).toContain('nothing found; 5 accepted (--accepted shows them)');
  expect(check('wick.dothop.yaml', '--accepted').out).toContain('accepted: out of a run he brakes');
});

test('what is wrong is told at its line, with the remedy, and ends with 1', () => {
  const { code, out } = check('faulty-rules.dothop.yaml');
  expect(code).toBe(1);
  const text = readFileSync(path.join(folder, 'faulty-rules.dothop.yaml'), 'utf8').split('\n');
  const lines = [...out.matchAll(/^ {2}(\d+):(\d+) {2}(\w+) {2}([\w-]+)/gm)].map(([, line, , , found]) => [
    found,
    text[Number(line) - 1]!.trim().split(':')[0],
  ]);
  expect(lines).toEqual([
    ['clip-unused', 'doze'],
    ['signal-unused', 'tired'],
    ['flicker', 'walk'],
    ['one-sided', 'run'],
    ['threshold-gap', 'fall'],
    ['state-never', 'hover'],
    ['rest-while-moving', 'rest'],
  ]);
  expect(out).toContain('raise its priority above 20');
  expect(out).toContain('1 error, 5 warnings, 1 note');
});

test('following the remedies mends it', () => {
  const file = path.join(folder, 'faulty-rules.dothop.yaml');
  const mended = readFileSync(file, 'utf8')
    .replace(/^ {2}(tired|doze|hover): .*\n/gm, '')
    .replace(/^ {2}doze: {2}.*\n/m, '')
    .replace('vy > 0', 'vy >= 0')
    .replace('vx > 90', 'fast')
    .replace('grounded and low and not moving', 'grounded and low')
    .replace('derived:\n', 'derived:\n  fast: { of: abs(vx), above: 95, below: 80 }\n')
    .replace('priority: 20 }\n', 'priority: 20, atLeast: 40 }\n');
  writeFileSync(file, mended);
  const { code, out } = check('faulty-rules.dothop.yaml');
  expect({ code, out }).toMatchObject({ code: 0 });
  expect(out).toContain('nothing found');
});

test('JSON has the same findings with their places', () => {
  const { code, out } = check('faulty-rules.dothop.yaml', '--json');
  expect(code).toBe(1);
  const [one] = JSON.parse(out) as Plain[];
  expect(one!.situations).toBe(192);
  expect(one!.findings.find(({ code: found }) => found === 'state-never')).toMatchObject({
    severity: 'error',
    path: 'states.hover',
  });
});

test('SARIF names its rules, the places, and what is accepted', () => {
  const { out } = check('faulty-rules.dothop.yaml', 'wick.dothop.yaml', '--sarif');
  const log = JSON.parse(out) as {
    version: string;
    runs: {
      tool: { driver: { name: string; rules: { id: string; defaultConfiguration: { level: string } }[] } };
      results: {
        ruleId: string;
        ruleIndex: number;
        level: string;
        message: { text: string };
        locations: {
          physicalLocation: {
            artifactLocation: { uri: string };
            region: { startLine: number; startColumn: number };
          };
        }[];
        suppressions?: { kind: string; justification: string }[];
      }[];
    }[];
  };
  expect(log.version).toBe('2.1.0');
  const [{ tool, results }] = log.runs as [(typeof log.runs)[0]];
  expect(results).toHaveLength(12);
  for (const { ruleId, ruleIndex, level, message, locations } of results) {
    expect(tool.driver.rules[ruleIndex]!.id).toBe(ruleId);
    expect(['error', 'warning', 'note']).toContain(level);
    expect(message.text.length).toBeGreaterThan(20);
    const { artifactLocation, region } = locations[0]!.physicalLocation;
    expect(artifactLocation.uri).toMatch(/^(faulty-rules|wick)\.dothop\.yaml$/);
    expect(region.startLine).toBeGreaterThan(0);
    expect(region.startColumn).toBeGreaterThan(0);
  }
  const suppressed = results.filter(({ suppressions }) => suppressions !== undefined);
  expect(suppressed.map(({ suppressions }) => suppressions![0]!.kind)).toEqual(Array(5).fill('inSource'));
});

test('two forms at once are misuse; standard input has its name', () => {
  for (const args of [
    ['check', 'wick.dothop.yaml', '--json', '--sarif'],
    ['ladder', 'wick.dothop.yaml', '--json', '--csv'],
    ['rehearse', 'none.yaml', '--json', '--junit'],
  ]) {
    const { code, out, err } = runIn(folder, args);
    expect({ code, out }).toEqual({ code: 2, out: '' });
    expect(err).toContain('cannot be used with option');
  }
  const text = readFileSync(path.join(folder, 'townsfolk/pim.dothop.yaml'), 'utf8')
    .replace('image: pim.png', 'image: townsfolk/pim.png')
    .replace('from: stroller', 'from: townsfolk/stroller');
  const { code, out } = runIn(folder, ['check', '-'], text);
  expect([code, out.split('\n')[0]]).toEqual([0, '(standard input)  pim, 2 states']);
});

test('a document that cannot be compiled is misuse, and told as ever', () => {
  writeFileSync(path.join(folder, 'broken.yaml'), 'dotHop: 1\nclips: 3\n');
  const { code, err } = check('broken.yaml');
  expect(code).toBe(2);
  expect(err).toContain('broken.yaml:2:8 clips: expected clips by name, not 3');
});

test('one that cannot be compiled keeps no other from being checked, and stands in every report', () => {
  writeFileSync(path.join(folder, 'broken.yaml'), 'dotHop: 1\nclips: 3\n');
  const both = ['broken.yaml', 'townsfolk/pim.dothop.yaml'];
  expect(check(...both)).toMatchObject({ code: 2, out: expect.stringContaining('nothing found') as string });
  const json = check(...both, '--json');
  const [broken, pim] = JSON.parse(json.out) as [{ problems: object[] }, { findings: object[] }];
  expect([json.code, pim.findings]).toEqual([2, []]);
  expect(broken.problems).toContainEqual(
    expect.objectContaining({
      code: 'field-kind',
      path: 'clips',
      line: 2,
      column: 8,
      message: 'expected clips by name, not 3',
    }),
  );
  const log = JSON.parse(check(...both, '--sarif').out) as {
    runs: [
      { tool: { driver: { rules: { id: string }[] } }; results: { ruleId: string; ruleIndex: number }[] },
    ];
  };
  const [{ tool, results }] = log.runs;
  expect(results.map(({ ruleId }) => ruleId)).toContain('field-kind');
  for (const { ruleId, ruleIndex } of results) expect(tool.driver.rules[ruleIndex]!.id).toBe(ruleId);
});

test('what was found is drawn into the ladder: the same one, with all of it below', async () => {
  const size = async (file: string) => (await sharp(path.join(folder, file)).metadata()).height;
  expect(check('faulty-rules.dothop.yaml', '-o', 'found.png').code).toBe(1);
  runIn(folder, ['ladder', 'faulty-rules.dothop.yaml', '-o', 'ladder.png']);
  expect((await size('found.png')) - (await size('ladder.png'))).toBeGreaterThan(7 * 50);
  // In the colour of an error, at the rung of the state that never shows.
  const { data, info } = await sharp(path.join(folder, 'found.png'))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const reds = Array.from({ length: info.height }, (_, y) => y).filter((y) =>
    Array.from({ length: 40 }, (_, x) => (y * info.width + 255 + x) * 3).some(
      (at) => data.subarray(at, at + 3).join() === '240,113,106',
    ),
  );
  // The fourth rung of nine, and nowhere else on the ladder.
  const rungs = new Set(reds.filter((y) => y < 74 + 9 * 66).map((y) => Math.floor((y - 74) / 66)));
  expect([...rungs]).toEqual([3]);
  expect(check('wick.dothop.yaml', '-o', 'wick-check.png').code).toBe(0);
  expect(check('wick.dothop.yaml', 'townsfolk/pim.dothop.yaml', '-o', 'x.png')).toMatchObject({
    code: 2,
    err: 'dot-hop: -o x.png is for one document; 2 were given\n',
  });
  expect(check('wick.dothop.yaml', '-o', 'x.svg').err).toContain('a check is written as .png');
});

test('a check measures the drawings too: the faulty sheet has every fault that drawings can have', () => {
  for (const file of ['faulty.dothop.yaml', 'faulty.png'])
    cpSync(path.join(root, 'demo', file), path.join(folder, file));
  const { code, out } = check('faulty.dothop.yaml', '--json');
  expect(code).toBe(1);
  const [{ findings: found }] = JSON.parse(out) as [{ findings: { code: string; path: string }[] }];
  expect([...new Set(found.map((one) => one.code))].sort()).toEqual(
    [
      ...['foot-line', 'clip-foot-line', 'centre-jump', 'width-jump', 'box-differs', 'cell-empty'],
      ...['cells-equal', 'cell-cut', 'cell-size'],
    ].sort(),
  );
  expect(found.find((one) => one.code === 'box-differs')!.path).toBe('clips.walk');
});

describe('dot-hop ladder', () => {
  test('lists the states from the highest rank down, with conditions and ways', () => {
    const { code, out } = runIn(folder, ['ladder', 'wick.dothop.yaml', '--json']);
    expect(code).toBe(0);
    const rungs = JSON.parse(out) as {
      track: string;
      rank: number;
      state: string;
      kind: string;
      groups: string[];
      ways: { to: string; if: string }[];
    }[];
    const [body, arms] = ['body', 'arms'].map((name) => rungs.filter(({ track }) => track === name));
    for (const track of [body!, arms!]) {
      // Of those in a group its rank counts first: in the air it is 20.
      const ranks = track.map(({ rank, groups }) => (groups[0] === 'air' ? 20 : rank));
      expect(ranks).toEqual([...ranks].sort((a, b) => b - a));
    }
    expect(body!.at(-1)).toMatchObject({ state: 'stand', kind: 'rest', rank: 0 });
    expect(arms!.at(-1)).toMatchObject({ state: 'with-body', kind: 'rest, in step with body' });
    expect(body!.find(({ state }) => state === 'swing1')!.kind).toBe('taken by arms');
    expect(arms!.find(({ state }) => state === 'swing1')!.ways).toEqual([{ to: 'swing2', if: 'swing' }]);
    expect(rungs.find(({ state }) => state === 'knocked')!.ways).toEqual([
      { to: 'get-up', if: 'it has ended' },
    ]);
    const table = runIn(folder, ['ladder', 'wick.dothop.yaml', '--csv']).out.trimEnd().split('\n');
    expect(table).toHaveLength(30);
    const ofArms = runIn(folder, ['ladder', 'wick.dothop.yaml', '--csv', '--track', 'arms']).out;
    // The arms have no groups, so there is no column for them.
    expect(ofArms.trimEnd().split('\n').slice(1)).toEqual(table.slice(-11).map((row) => row.slice(1)));
    expect(runIn(folder, ['ladder', 'wick.dothop.yaml', '--track', 'amrs'])).toMatchObject({
      code: 2,
      err: 'dot-hop: --track amrs: there is no such track; did you mean "arms"?\n',
    });
    expect(table.find((row) => row.includes(',takeoff,'))).toBe(
      ',body,30,takeoff,act,,jump and footing,rise if it has ended',
    );
  });

  test('draws a rung for each state, in its own colour, with its frames', async () => {
    expect(runIn(folder, ['ladder', 'wick.dothop.yaml', '-o', 'ladder.png']).code).toBe(0);
    const { data, info } = await sharp(path.join(folder, 'ladder.png'))
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(info.height).toBeGreaterThan(14 * 60);
    const colours = new Set<string>();
    for (let i = 0; i < data.length; i += 3) colours.add(data.subarray(i, i + 3).join());
    // The mark of a state, the lamp of the rungs, and the red of Wick's hair.
    for (const colour of ['232,163,61', '255,201,92', '138,68,50']) expect(colours).toContain(colour);
  });

  test('shows groups as rungs with rungs of their own', async () => {
    writeFileSync(
      path.join(folder, 'sea.yaml'),
      `dotHop: 1
sheets: { s: { image: wick.png, grid: { cell: [64, 56] } } }
clips: { stand: { cells: 0-7, fps: 8 }, stroke: { cells: 38-43, fps: 10, loop: once } }
signals: { water: { flag: false }, pull: { pulse: true }, out: { flag: false } }
states: { stand: { shows: stand, hops: [{ to: sea, if: out }] } }
groups:
  sea:
    while: water
    priority: 50
    rest: float
    states: { float: { shows: stand }, stroke: { shows: stroke, when: pull, priority: 2 } }
`,
    );
    expect(runIn(folder, ['ladder', 'sea.yaml']).out).toBe(
      [
        'rank    state     kind         while  when  ways',
        '50      sea       group        water',
        '  2       stroke  act                 pull',
        '  rest    float   rest of sea',
        '0       stand     rest                      sea if out',
        '',
      ].join('\n'),
    );
    expect(JSON.parse(runIn(folder, ['ladder', 'sea.yaml', '--json']).out)).toMatchObject([
      { state: 'stroke', rank: 2, groups: ['sea'], while: 'water' },
      { state: 'float', rank: 'rest', groups: ['sea'] },
      { state: 'stand', rank: 0, groups: [], ways: [{ to: 'sea', if: 'out' }] },
    ]);
    const winners = runIn(folder, ['ladder', 'sea.yaml', '--winners', '--csv']).out;
    expect(winners.split('\n').map((line) => line.split(',').slice(0, 3).join(' '))).toEqual([
      ...['group rank state', 'sea 2 stroke', 'sea rest float', ' 0 stand', ''],
    ]);
    runIn(folder, ['ladder', 'sea.yaml', '-o', 'sea.png']);
    const { height } = await sharp(path.join(folder, 'sea.png')).metadata();
    expect(height).toBeGreaterThan(300);
  });

  test('tells who takes over in which situation, also in those of one question', () => {
    const rows = runIn(folder, ['ladder', 'wick.dothop.yaml', '--winners']).out.trimEnd().split('\n');
    expect(rows.find((row) => row.includes(' takeoff  '))).toMatch(
      /^30 +takeoff +\+ jump {3}\+ footing +rise land brake go doze +jump, footing$/,
    );
    expect(rows.find((row) => /^15 +land /.test(row))).toContain('as it comes:   + footing');
    expect(rows.at(-1)).toMatch(/^0 +stand +else/);
    const asked = ['ladder', 'wick.dothop.yaml', '--when', 'grounded && moving'];
    const lines = runIn(folder, [...asked, '--csv'])
      .out.trimEnd()
      .split('\n');
    expect(lines[0]!.split(',').slice(0, 5)).toEqual(['rank', 'state', 'once', 'blow', 'sunk']);
    expect(lines.map((line) => line.split(',')[1])).toEqual([
      ...['state', 'knocked', 'climb', 'splashed', 'takeoff', 'land', 'brake', 'go', 'go', 'stand'],
    ]);
    const winners = JSON.parse(runIn(folder, [...asked, '--json']).out) as {
      state: string;
      terms: object[];
    }[];
    expect(winners[3]).toMatchObject({ state: 'takeoff', terms: [{ text: 'jump', on: true }] });
    expect(runIn(folder, ['ladder', 'wick.dothop.yaml', '--when', 'grunded'])).toMatchObject({
      code: 2,
      err: 'dot-hop: --when "grunded": there is no signal "grunded"; did you mean "grounded"?\n',
    });
  });

  test('is written as .png only', () => {
    const { code, err } = runIn(folder, ['ladder', 'wick.dothop.yaml', '-o', 'ladder.svg']);
    expect([code, err]).toEqual([2, 'dot-hop: -o ladder.svg: a ladder is written as .png\n']);
  });
});
