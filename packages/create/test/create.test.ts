import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  realpathSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { root, runProgram } from '../../cli/test/command-line.js';

// That the game is installed, tested and built is tried from the packed packages, by `npm run check-packages`.
let folder: string;
beforeEach(() => {
  folder = realpathSync(mkdtempSync(path.join(tmpdir(), 'dot-hop-create-')));
});
afterEach(() => rmSync(folder, { recursive: true }));

const program = path.join(root, 'packages/create/bin/create-dot-hop.js');
const create = (at: string, ...args: string[]) => runProgram(at, process.execPath, [program, ...args]);
const nameIn = (at: string): string =>
  (JSON.parse(readFileSync(path.join(at, 'package.json'), 'utf8')) as { name: string }).name;

test('a game is begun in a new folder, and named after it', () => {
  const { code, out } = create(folder, 'far/Harbour Walk');
  expect(code).toBe(0);
  expect(out).toContain('cd "far/Harbour Walk"');
  const game = path.join(folder, 'far/Harbour Walk');
  expect(nameIn(game)).toBe('harbour-walk');
  expect(readFileSync(path.join(game, 'package.json'), 'utf8')).not.toMatch(/VERSION|NAME/);
  expect(readdirSync(game)).toEqual(expect.arrayContaining(['.gitignore', 'index.html', 'src']));
  expect(readdirSync(path.join(folder, 'far'))).toEqual(['Harbour Walk']);
});

test('an empty folder is filled, also the one in which one works', () => {
  const here = path.join(folder, 'here');
  mkdirSync(here);
  const { code, out } = create(here, '.');
  expect([code, out]).toEqual([0, expect.stringContaining('is in this folder')]);
  expect(out).not.toContain('cd ');
  expect(nameIn(here)).toBe('here');
});

test('nothing that is there is written over or taken away', () => {
  mkdirSync(path.join(folder, 'mine.making'));
  writeFileSync(path.join(folder, 'mine.making/drawing.png'), 'precious');
  expect(create(folder, 'mine').code).toBe(0);
  expect(readFileSync(path.join(folder, 'mine.making/drawing.png'), 'utf8')).toBe('precious');
  writeFileSync(path.join(folder, 'mine/src/main.ts'), 'mine');
  const again = create(folder, 'mine');
  expect([again.code, again.err]).toEqual([
    2,
    expect.stringContaining('mine has files already. Name another folder'),
  ]);
  expect(readFileSync(path.join(folder, 'mine/src/main.ts'), 'utf8')).toBe('mine');
});

test('what cannot be done is told, and leaves nothing behind', () => {
  writeFileSync(path.join(folder, 'note'), '');
  for (const [args, told] of [
    [['note'], 'note is a file'],
    [['note/game'], 'a part of the path is a file'],
    [['one', 'two'], 'one folder is made at a time, not one, two'],
    [['--fast'], 'there is no option --fast'],
  ] as const) {
    const { code, err } = create(folder, ...args);
    expect([args, code, err]).toEqual([args, 2, expect.stringContaining(told)]);
  }
  expect(readdirSync(folder)).toEqual(['note']);
  expect(existsSync(path.join(folder, 'note'))).toBe(true);
});
