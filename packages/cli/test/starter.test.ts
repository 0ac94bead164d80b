import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { runIn } from './command-line.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

const files = ['first.rehearsal.yaml', 'keeper.dothop.yaml', 'keeper.png'];

test('a new character is there with drawings, document and rehearsal, and everything it says to try works', () => {
  const { code, out } = runIn(folder, ['new', 'mine/keeper']);
  expect(code).toBe(0);
  const mine = path.join(folder, 'mine/keeper');
  expect(readdirSync(mine).sort()).toEqual(files);
  const document = readFileSync(path.join(mine, 'keeper.dothop.yaml'), 'utf8');
  const said = [...`${out}\n${document}`.matchAll(/dot-hop ((?:preview|ladder|rehearse|check) .*)$/gm)];
  expect(said.length).toBeGreaterThan(6);
  for (const [, words] of said)
    expect({ words, code: runIn(mine, words!.trim().split(' ')).code }).toEqual({ words, code: 0 });
});

test('nothing that is there is written over', () => {
  writeFileSync(path.join(folder, 'keeper.png'), 'mine');
  const { code, err } = runIn(folder, ['new', '.']);
  expect([code, err]).toEqual([
    2,
    'dot-hop: . has keeper.png already; nothing is written over. Name another folder\n',
  ]);
  expect(readdirSync(folder)).toEqual(['keeper.png']);
  expect(readFileSync(path.join(folder, 'keeper.png'), 'utf8')).toBe('mine');
});

test('rehearsals are told as JUnit XML, what was not met with its why', () => {
  runIn(folder, ['new', '.']);
  const file = path.join(folder, 'first.rehearsal.yaml');
  const text = readFileSync(file, 'utf8');
  writeFileSync(
    path.join(folder, 'wrong.yaml'),
    text.replace('state: walk, direction: east', 'state: stand'),
  );
  const { code, out } = runIn(folder, ['rehearse', 'first.rehearsal.yaml', 'wrong.yaml', '--junit']);
  expect(code).toBe(1);
  expect(out.match(/<testsuite name="[^"]+" tests="3" failures="\d"/g)).toEqual([
    '<testsuite name="first.rehearsal.yaml" tests="3" failures="0"',
    '<testsuite name="wrong.yaml" tests="3" failures="1"',
  ]);
  expect(out.match(/<testcase /g)).toHaveLength(6);
  expect(out).toContain('<failure message="instead: state walk">walk shows since 200 ms');
  // Signs of XML in the why are written so that they mean themselves.
  expect(out.replace(/<\/?(testsuites?|testcase|failure)\b[^>]*>|<\?xml[^>]*>/g, '')).not.toMatch(
    /[<>]|&(?!(?:gt|lt|amp);)/,
  );
});
