import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { copyWick, runIn } from './command-line.js';

let folder: string;
const file = (name: string): string => path.join(folder, name);
const dotHop = (...args: string[]): ReturnType<typeof runIn> => runIn(folder, args);
const kit = `dotHop: 1
from: ../common/wick.dothop.yaml
name: kit
clips: { run: { fps: 10 } }        # heavier
states: { doze: null, go: { priority: 12 } }
`;

beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  mkdirSync(file('common'));
  mkdirSync(file('player'));
  copyWick(file('common'));
  writeFileSync(file('player/kit.dothop.yaml'), kit);
});
afterEach(() => rmSync(folder, { recursive: true }));

test('a finding is told in the document that it stands in; what only others need is none', () => {
  writeFileSync(
    file('player/kit.dothop.yaml'),
    kit
      .replace('priority: 12', 'priority: 70')
      .replace('name: kit', 'name: kit\nsignals: { mood: { flag: false } }'),
  );
  const { code, out } = dotHop('check', 'player/kit.dothop.yaml');
  expect(code).toBe(1);
  expect(out).toMatch(/\n {2}4:\d+ {2}warning {2}signal-unused {2}signals\.mood/);
  expect(out).toMatch(/\n {2}common\/wick\.dothop\.yaml:\d+:\d+ {2}note {2}yield-needless {2}states\.land/);
  // The dozing that is taken away leaves a clip and a derived signal behind, which others use.
  expect(out).not.toMatch(/clip-unused|derived-unused/);
  const [{ findings }] = JSON.parse(dotHop('check', 'player/kit.dothop.yaml', '--json').out) as [
    { findings: { code: string; file: string }[] },
  ];
  expect(findings.find((one) => one.code === 'signal-unused')!.file).toBe('player/kit.dothop.yaml');
  expect(findings.some((one) => one.file === 'common/wick.dothop.yaml')).toBe(true);
});

test('what was not as expected is explained with the documents in which states stand', () => {
  writeFileSync(
    file('player/still.rehearsal.yaml'),
    'dotHopRehearsal: 1\ndocument: kit.dothop.yaml\nlasts: 50\nscript: []\nexpect: [{ at: 20, state: go }]\n',
  );
  const { code, out } = dotHop('rehearse', 'player/still.rehearsal.yaml');
  expect(code).toBe(1);
  expect(out).toMatch(/12 {2}go: .* \(player\/kit\.dothop\.yaml:5\)/);
  expect(out).toMatch(/knocked: .* \(common\/wick\.dothop\.yaml:\d+\)/);
});

test('it is written whole, or as it is; packed it plays the same', () => {
  const plain = dotHop('convert', 'player/kit.dothop.yaml');
  expect(plain.out.trimEnd()).toBe(kit.trimEnd());
  expect(JSON.parse(dotHop('convert', 'player/kit.dothop.yaml', '--to', 'json').out)).toMatchObject({
    from: '../common/wick.dothop.yaml',
    states: { doze: null },
  });
  expect(dotHop('convert', 'player/kit.dothop.yaml', '--whole', '-o', 'player/whole.yaml').code).toBe(0);
  const whole = readFileSync(file('player/whole.yaml'), 'utf8');
  expect(whole).not.toMatch(/^from|while: drowsy/m);
  expect(whole).toContain('image: ../common/wick.png');
  const ladder = (name: string): string => dotHop('ladder', name).out.split('\n').slice(1).join('\n');
  expect(ladder('player/whole.yaml')).toBe(ladder('player/kit.dothop.yaml'));
  expect(ladder('player/kit.dothop.yaml')).not.toBe(ladder('common/wick.dothop.yaml'));
  const packed = dotHop('pack', 'player/kit.dothop.yaml', '-o', 'game.json');
  expect(packed.code).toBe(0);
  expect(readFileSync(file('game.json'), 'utf8')).not.toContain('"from":"');
  expect(ladder('game.json')).toBe(ladder('player/kit.dothop.yaml'));
});

test('written into another folder it still finds what it names, line by line and as JSON', () => {
  mkdirSync(file('out'));
  const ladder = (name: string): string => dotHop('ladder', name).out;
  for (const name of ['out/kit.dothop.yaml', 'out/kit.dothop.json', 'out/whole.yaml']) {
    const whole = name.includes('whole') ? ['--whole'] : [];
    expect(dotHop('convert', 'player/kit.dothop.yaml', ...whole, '-o', name).code).toBe(0);
    expect({ name, ladder: ladder(name) }).toEqual({ name, ladder: ladder('player/kit.dothop.yaml') });
  }
  expect(readFileSync(file('out/kit.dothop.yaml'), 'utf8')).toBe(kit);
  expect(dotHop('convert', 'common/wick.dothop.yaml', '-o', 'out/wick.yaml').code).toBe(0);
  const text = readFileSync(file('out/wick.yaml'), 'utf8');
  expect(text).toContain('image: ../common/wick.png');
  expect(text).toContain('legs: ../common/wick-legs.png');
  expect(dotHop('check', 'out/wick.yaml').code).toBe(0);
});

test('a file that is not there is told with the name that was probably meant', () => {
  writeFileSync(file('player/kit.dothop.yaml'), kit.replace('wick.dothop', 'wikc.dothop'));
  expect(dotHop('check', 'player/kit.dothop.yaml').err).toContain(
    'cannot be read (there is no such file; did you mean "wick.dothop.yaml"?)',
  );
  writeFileSync(file('player/kit.dothop.yaml'), kit + 'sheets: { wick: { image: ../common/wcik.png } }\n');
  expect(dotHop('check', 'player/kit.dothop.yaml').err).toContain('no such file; did you mean "wick.png"?');
});

test('what lies outside the folder in which the command works is not read, also by a link', () => {
  const from = (name: string): ReturnType<typeof runIn> => runIn(file('player'), ['check', name]);
  const outside = 'it lies outside the folder in which this command works';
  expect(from('kit.dothop.yaml')).toMatchObject({ code: 2 });
  expect(from('kit.dothop.yaml').err).toContain(`kit.dothop.yaml:2:7 from: `);
  expect(from('kit.dothop.yaml').err).toContain(outside);
  symlinkSync(file('common/wick.dothop.yaml'), file('player/near.yaml'));
  writeFileSync(file('player/kit.dothop.yaml'), kit.replace('../common/wick.dothop.yaml', 'near.yaml'));
  expect(from('kit.dothop.yaml').err).toContain(outside);
});

test('a base is never written over', () => {
  const before = readFileSync(file('common/wick.dothop.yaml'), 'utf8');
  const { code, err } = dotHop(
    'convert',
    'player/kit.dothop.yaml',
    '--whole',
    '-o',
    'common/wick.dothop.yaml',
  );
  expect(code).toBe(2);
  expect(err).toContain('common/wick.dothop.yaml');
  expect(readFileSync(file('common/wick.dothop.yaml'), 'utf8')).toBe(before);
});

test('drawings that are gathered again change the document and not the one it builds on', () => {
  cpSync(file('common/wick.png'), file('player/wick.png'));
  const before = readFileSync(file('common/wick.dothop.yaml'), 'utf8');
  const args = ['cells', 'player/wick.png', '--cell', '64x56', '--write', 'player/kit.dothop.yaml'];
  const { code, err } = dotHop(...args);
  expect({ code, err }).toMatchObject({ code: 0 });
  const now = readFileSync(file('player/kit.dothop.yaml'), 'utf8');
  expect(now).toContain('# heavier');
  expect(now).toContain('image: wick.png');
  expect(now).not.toContain('grid');
  expect(readFileSync(file('common/wick.dothop.yaml'), 'utf8')).toBe(before);
});
