import { spawn } from 'node:child_process';
import { once } from 'node:events';
import {
  chmodSync,
  existsSync,
  linkSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { settle } from '../src/files/drafts.js';
import { copyWick, root, runIn, runProgram } from './command-line.js';

let folder: string;
const file = (name: string): string => path.join(folder, name);
const dotHop = (...args: string[]) => runIn(folder, args);

/** Everything in the folder but the drafts of others, so that a change of anything is seen. */
const inside = (): Record<string, string> =>
  Object.fromEntries(
    readdirSync(folder, { withFileTypes: true })
      .filter((one) => one.isFile())
      .map(({ name }) => [name, readFileSync(file(name)).toString('latin1')]),
  );

beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-writing-'));
});
afterEach(() => {
  rmSync(folder, { recursive: true });
});

describe('what may be written', () => {
  beforeEach(() => copyWick(folder, 'evening.rehearsal.yaml'));

  test('nothing that is read is written over, whatever it is called here', () => {
    linkSync(file('wick.png'), file('hard.png'));
    symlinkSync('wick.png', file('soft.png'));
    const before = inside();
    for (const args of [
      ['preview', 'wick.dothop.yaml', 'run', '-o', 'wick.png'],
      ['cells', 'wick.dothop.yaml', '-o', 'hard.png'],
      ['cells', 'wick.png', '--cell', '64x56', '-o', 'wick.png'],
      ['ladder', 'wick.dothop.yaml', '-o', './wick-legs.png'],
      ['check', 'wick.dothop.yaml', '-o', 'soft.png'],
      ['dress', 'wick.dothop.yaml', '-o', 'wick.png'],
      ['rehearse', 'evening.rehearsal.yaml', '-o', 'wick.png'],
      ['pack', 'wick.dothop.yaml', '-o', 'wick.json'],
      ['pack', 'wick.dothop.yaml', '-o', 'wick.dothop.yaml'],
    ]) {
      const { code, err } = dotHop(...args);
      expect([args.join(' '), code]).toEqual([args.join(' '), 2]);
      expect(err).toMatch(/nothing is written over .*, because it is read here/);
    }
    expect(inside()).toEqual(before);
  });

  test('only the kinds that a command writes, and no file of another kind', () => {
    writeFileSync(file('package.json'), '{ "name": "quay" }\n');
    writeFileSync(file('words.png'), 'not a picture\n');
    writeFileSync(file('sizes.csv'), 'x,y\n1,2\n');
    const before = inside();
    for (const [args, told] of [
      [['rehearse', 'evening.rehearsal.yaml', '-o', 'new.dothop.yaml'], 'is drawn as .png'],
      [['rehearse', 'evening.rehearsal.yaml', '-o', 'film.mp4'], 'is drawn as .png'],
      [['cells', 'wick.dothop.yaml', '-o', 'wick.dothop.yaml'], 'is written as .png'],
      [['cells', 'wick.dothop.yaml', '-o', 'cc.webp'], 'is written as .png'],
      [['cells', 'wick.png', '--cell', '64x56', '--write', 'x.png'], 'written as .yaml or .json'],
      [['preview', 'wick.dothop.yaml', 'run', '-o', 'run.json'], 'written as .webp, .gif or .apng'],
      [['convert', 'wick.dothop.yaml', '-o', 'wick.dothop.yaml', '--to', 'csv'], 'says another format'],
      [['convert', 'wick.dothop.yaml', '-o', 'package.json'], 'holds something else, not a document'],
      [['convert', 'wick.dothop.yaml', '-o', 'evening.rehearsal.yaml'], 'holds a rehearsal, not a document'],
      [['convert', 'wick.dothop.yaml', '-o', 'sizes.csv'], 'holds something else, not a table of clips'],
      [['ladder', 'wick.dothop.yaml', '-o', 'words.png'], 'holds something else, not a PNG image'],
      [['ladder', 'wick.dothop.yaml', '-o', 'gear'], 'is written as .png'],
    ] as const) {
      const { code, err } = dotHop(...args);
      expect([args.join(' '), code, err]).toEqual([args.join(' '), 2, expect.stringContaining(told)]);
    }
    expect(inside()).toEqual(before);
  });

  test('a folder that is not there is made; a link is written through; a mode is kept', () => {
    expect(dotHop('pack', 'wick.dothop.yaml', '-o', 'packed/far/hero.json').code).toBe(0);
    expect(readdirSync(file('packed/far')).sort()).toContain('hero.json');
    mkdirSync(file('kept'));
    writeFileSync(file('kept/clips.csv'), '');
    chmodSync(file('kept/clips.csv'), 0o640);
    symlinkSync('kept/clips.csv', file('clips.csv'));
    symlinkSync('kept/later.csv', file('later.csv'));
    for (const name of ['clips.csv', 'later.csv'])
      expect(dotHop('convert', 'wick.dothop.yaml', '-o', name).code).toBe(0);
    expect(readFileSync(file('kept/clips.csv'), 'utf8')).toMatch(/^clip,/);
    expect(statSync(file('kept/clips.csv')).mode & 0o777).toBe(0o640);
    expect(readFileSync(file('kept/later.csv'), 'utf8')).toMatch(/^clip,/);
  });

  test('a disk that is full is told, and nothing is left', () => {
    const before = inside();
    const bin = path.join(root, 'packages/cli/bin/dot-hop.js');
    const { status, stderr } = runShell(
      `ulimit -f 4; ${process.execPath} ${bin} pack wick.dothop.yaml -o hero.json`,
    );
    expect(stderr).toContain('cannot be written: the file would be larger than this user may write');
    expect(status).toBe(2);
    expect(inside()).toEqual(before);
  });

  test('a sheet image that a document then refuses is not written', () => {
    expect(dotHop('preview', 'wick.dothop.yaml', 'takeoff', '-o', 'takeoff.gif').code).toBe(0);
    expect(dotHop('cells', 'takeoff.gif', '--write', 'film.dothop.yaml').code).toBe(0);
    const text = readFileSync(file('film.dothop.yaml'), 'utf8');
    writeFileSync(file('film.dothop.yaml'), `${text}  late: { cells: 90, fps: 1 }\n`);
    writeFileSync(file('takeoff-sheet.png'), readFileSync(file('wick.png')));
    const before = inside();
    expect(dotHop('cells', 'takeoff.gif', '--write', 'film.dothop.yaml').code).toBe(2);
    expect(inside()).toEqual(before);
  });

  test('new: not onto a file, never over another text; what was begun is ended', () => {
    writeFileSync(file('taken'), '');
    expect(dotHop('new', 'taken').err).toContain('taken is a file');
    expect(dotHop('new', 'mine').code).toBe(0);
    const [first = '', ...rest] = readdirSync(file('mine'));
    const whole = readFileSync(file(`mine/${first}`));
    for (const name of rest) writeFileSync(file(`half-${name}`), readFileSync(file(`mine/${name}`)));
    mkdirSync(file('half'));
    writeFileSync(file(`half/${first}`), whole);
    expect(dotHop('new', 'half').code).toBe(0);
    expect(readdirSync(file('half'))).toEqual(readdirSync(file('mine')));
    writeFileSync(file(`half/${first}`), 'mine');
    expect(dotHop('new', 'half')).toMatchObject({
      code: 2,
      err: expect.stringContaining(`half has ${first} already`) as string,
    });
    expect(dotHop('new', 'mine').code).toBe(2);
  });
});

function runShell(command: string): { status: number | null; stderr: string } {
  const { code, err } = runProgram(folder, 'bash', ['-c', command]);
  return { status: code, stderr: err };
}

describe('whole or not at all', () => {
  const module = path.join(root, 'packages/cli/dist/files/writing.js');
  const names = ['a.txt', 'b.txt', 'c.txt'];
  /** Writes three files again and again; each holds its round, many times. */
  const writer = (mark: string, rounds: number): string =>
    `import { writeFiles } from ${JSON.stringify(module)};
     console.log('begun');
     for (let round = 0; round < ${rounds}; round++)
       await writeFiles(${JSON.stringify(names)}.map((file) => ({ file, content: ('${mark}' + round + ' ').repeat(20000) })));`;
  const start = async (mark: string, rounds: number) => {
    const child = spawn(process.execPath, ['--input-type=module', '-e', writer(mark, rounds)], {
      cwd: folder,
    });
    const ended = once(child, 'exit');
    await once(child.stdout, 'data');
    return { child, ended };
  };
  /** What the three files hold, once a next call has ended what was begun; none where there is none. */
  const rounds = (): string[] => {
    settle(folder);
    expect(readdirSync(folder).filter((name) => name.startsWith('.'))).toEqual([]);
    return names
      .filter((name) => existsSync(file(name)))
      .map((name) => {
        const text = readFileSync(file(name), 'utf8');
        const word = text.slice(0, text.indexOf(' ') + 1);
        expect(text === word.repeat(20000)).toBe(true);
        return word;
      });
  };

  test.each(['SIGKILL', 'SIGINT'] as const)('after %s, many times', async (signal) => {
    const seen = new Set<string>();
    for (let i = 0; i < 16; i++) {
      const { child, ended } = await start(`${i}-`, 1000);
      await new Promise((resolve) => setTimeout(resolve, i * 2.7));
      child.kill(signal);
      await ended;
      const found = rounds();
      expect(found.length === 0 || (found.length === 3 && new Set(found).size === 1)).toBe(true);
      seen.add(found[0] ?? 'none');
    }
    expect(seen.size).toBeGreaterThan(5);
  });

  test('with two writers at once, again and again', async () => {
    for (let i = 0; i < 5; i++) {
      const both = [await start('one', 12), await start('two', 12)];
      await Promise.all(both.map(({ ended }) => ended));
      expect(both.map(({ child }) => child.exitCode)).toEqual([0, 0]);
      expect(new Set(rounds())).toEqual(new Set([expect.stringMatching(/^(one|two)11 $/) as string]));
    }
  });
});
