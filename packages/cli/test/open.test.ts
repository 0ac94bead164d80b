import {
  existsSync,
  chmodSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { get } from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { copyWick, runIn } from './command-line.js';
import { openFolder } from './opened.js';
import type { OpenedFolder } from './opened.js';

let folder: string;
let opened: OpenedFolder;
let base: string;
let token: string;

beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  const inside = path.join(folder, 'wick');
  mkdirSync(inside);
  copyWick(inside);
  writeFileSync(path.join(folder, 'secret.yaml'), 'dotHop: 1\n');
  opened = await openFolder(inside);
  [base, token] = opened.address.split('#token=') as [string, string];
});
afterAll(async () => {
  await opened.close();
  rmSync(folder, { recursive: true });
});

const call = (
  at: string,
  { headers, ...options }: Omit<RequestInit, 'headers'> & { headers?: Record<string, string> } = {},
): Promise<Response> =>
  fetch(`${base}api/${at}`, { ...options, headers: { authorization: `Bearer ${token}`, ...headers } });
const fileOf = (name: string): string => `file/${encodeURIComponent(name)}`;

test('it listens on the loopback address, and answers no one without the token or under another name', async () => {
  expect(base).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/$/);
  expect(token.length).toBeGreaterThan(30);
  for (const authorization of ['', 'Bearer ', `Bearer ${token.slice(1)}x`])
    expect((await fetch(`${base}api/folder`, { headers: { authorization } })).status).toBe(401);
  // What another site has pointed at this machine.
  const status = await new Promise<number | undefined>((done) => {
    get(
      `${base}api/folder`,
      { headers: { host: 'quay.example', authorization: `Bearer ${token}` } },
      ({ statusCode }) => done(statusCode),
    );
  });
  expect(status).toBe(403);
  const page = await fetch(base);
  expect(await page.text()).toContain('<title>Dot Hop workbench</title>');
  expect(page.headers.get('content-security-policy')).toContain("default-src 'self'");
});

test('it hands over the document and the drawings that this one names, and no other file', async () => {
  writeFileSync(path.join(folder, 'wick', 'other.png'), 'x');
  const { document, files } = (await (await call('folder')).json()) as {
    document: string;
    files: { name: string; version: string }[];
  };
  expect(document).toBe('wick.dothop.yaml');
  expect(files.map(({ name }) => name).sort()).toEqual([
    'gear/oilskin-behind.png',
    'gear/oilskin-upper.png',
    'gear/oilskin.png',
    'gear/rain-hat.png',
    'gear/satchel.png',
    'wick-behind.png',
    'wick-legs.png',
    'wick-upper.png',
    'wick.dothop.yaml',
    'wick.png',
  ]);
  const answer = await call(fileOf('wick.dothop.yaml'));
  expect(await answer.text()).toBe(readFileSync(path.join(folder, 'wick/wick.dothop.yaml'), 'utf8'));
});

test.each([
  ['../secret.yaml', 403],
  ['gear/../../secret.yaml', 403],
  ['/etc/hostname.yaml', 403],
  ['out.yaml', 403],
  ['out/secret.yaml', 403],
  ['.hidden.yaml', 403],
  ['run.sh', 403],
  ['missing.yaml', 404],
])('%s is not read, and nothing is written there', async (name, status) => {
  const inside = path.join(folder, 'wick');
  // Links that lead out.
  if (name === 'out.yaml') symlinkSync(path.join(folder, 'secret.yaml'), path.join(inside, 'out.yaml'));
  if (name === 'out/secret.yaml') symlinkSync(folder, path.join(inside, 'out'));
  expect((await call(fileOf(name))).status).toBe(status);
  if (status === 404) return;
  expect((await call(fileOf(name), { method: 'PUT', body: 'x' })).status).toBe(status);
  expect(readFileSync(path.join(folder, 'secret.yaml'), 'utf8')).toBe('dotHop: 1\n');
});

test('a file is written whole, only over the version that was read, and keeps its mode', async () => {
  const file = path.join(folder, 'wick', 'new.dothop.yaml');
  const put = (body: string, version: string | undefined): Promise<Response> =>
    call(fileOf('new.dothop.yaml'), {
      method: 'PUT',
      body,
      ...(version !== undefined && { headers: { 'if-match': version } }),
    });
  const first = await (await put('dotHop: 1\n', '')).text();
  chmodSync(file, 0o640);
  const second = await put('dotHop: 1\nname: a\n', first);
  expect([second.status, readFileSync(file, 'utf8')]).toEqual([200, 'dotHop: 1\nname: a\n']);
  expect(statSync(file).mode & 0o777).toBe(0o640);
  const late = await put('dotHop: 1\nname: b\n', first);
  expect([late.status, await late.text()]).toEqual([
    412,
    'new.dothop.yaml: another program has changed it meanwhile',
  ]);
  expect((await put('x', '')).status).toBe(412);
  expect(readFileSync(file, 'utf8')).toBe('dotHop: 1\nname: a\n');
  // Half written by hand, it holds no document for a moment, and is kept all the same.
  expect((await put('name: b\n', undefined)).status).toBe(200);
  expect(readFileSync(file, 'utf8')).toBe('name: b\n');
});

test('what the page wrote beside a document can be taken away again, and nothing else', async () => {
  const inside = path.join(folder, 'wick');
  const listed = async (): Promise<string[]> =>
    ((await (await call('folder')).json()) as { files: { name: string }[] }).files.map(({ name }) => name);
  const remove = (name: string, version?: string): Promise<Response> =>
    call(fileOf(name), {
      method: 'DELETE',
      ...(version !== undefined && { headers: { 'if-match': version } }),
    });
  writeFileSync(path.join(inside, 'wick.controls.json'), '{}');
  writeFileSync(path.join(inside, 'other.controls.json'), '{}');
  // The controls of another character are none of the page's.
  expect((await listed()).filter((name) => name.endsWith('.controls.json'))).toEqual(['wick.controls.json']);
  expect((await remove('wick.controls.json', 'another')).status).toBe(412);
  const version = (await call(fileOf('wick.controls.json'))).headers.get('etag')!;
  expect((await remove('wick.controls.json', version)).status).toBe(200);
  expect(existsSync(path.join(inside, 'wick.controls.json'))).toBe(false);
  // It is gone, as was wanted.
  expect((await remove('wick.controls.json')).status).toBe(200);
  for (const name of ['wick.dothop.yaml', 'wick.png', '../away.rehearsal.yaml'])
    expect((await remove(name)).status).toBe(403);
  expect(existsSync(path.join(inside, 'wick.dothop.yaml'))).toBe(true);
});

test('a disk that refuses is told, and the old file stays', async () => {
  const file = path.join(folder, 'wick', 'kept.dothop.yaml');
  mkdirSync(file);
  const answer = await call(fileOf('kept.dothop.yaml'), { method: 'PUT', body: 'x' });
  expect([answer.status, await answer.text()]).toEqual([507, expect.stringContaining('it is a folder')]);
  const odd = await call(fileOf('no/such/\0.yaml'), { method: 'PUT', body: 'x' });
  expect(odd.status).toBe(403);
});

test('what other programs do is told, by name and version', async () => {
  const events = await fetch(`${base}api/changes?token=${token}`);
  const reader = events.body!.getReader();
  const file = path.join(folder, 'wick', 'wick.dothop.yaml');
  writeFileSync(file, `${readFileSync(file, 'utf8')}# more\n`);
  let heard = '';
  const told = /data: (\{"name":"wick\.dothop\.yaml".*\})/;
  while (!told.test(heard)) heard += new TextDecoder().decode((await reader.read()).value);
  const { version } = JSON.parse(told.exec(heard)![1]!) as { version: string };
  expect((await call(fileOf('wick.dothop.yaml'))).headers.get('etag')).toBe(version);
  await reader.cancel();
});

test.each([
  [['nowhere'], 'nowhere: there is no such file'],
  [['nowhere/wick.dothop.yaml'], 'nowhere/wick.dothop.yaml: there is no such file'],
  [
    ['wick/wikc.dothop.yaml'],
    'wick/wikc.dothop.yaml: there is no such file; did you mean "wick.dothop.yaml"?',
  ],
  [
    ['wick/wick.png'],
    'a document (.yaml, .yml or .json) or a folder is opened; for drawings open their folder',
  ],
  [['wick', '--port', '70000'], '--port'],
])('open %j is misuse', (args, words) => {
  const { code, err } = runIn(folder, ['open', ...args, '--no-browser']);
  expect([code, err]).toEqual([2, expect.stringContaining(words)]);
});

test('another character of the folder is read and written by its name, and none outside', async () => {
  const inside = path.join(folder, 'wick', 'boats');
  mkdirSync(inside);
  writeFileSync(path.join(inside, 'pilot.dothop.yaml'), 'dotHop: 1\nname: pilot\nsheets: {}\nclips: {}\n');
  expect(await (await call('characters')).json()).toEqual(
    expect.arrayContaining(['boats/pilot.dothop.yaml', 'wick.dothop.yaml']),
  );
  const other = (character: string): string => `?character=${encodeURIComponent(character)}`;
  const listed = await call(`folder${other('boats/pilot.dothop.yaml')}`);
  expect(await listed.json()).toMatchObject({
    document: 'pilot.dothop.yaml',
    files: [{ name: 'pilot.dothop.yaml' }],
  });
  const at = `${fileOf('pilot.dothop.yaml')}${other('boats/pilot.dothop.yaml')}`;
  expect(await (await call(at)).text()).toContain('name: pilot');
  expect((await call(at, { method: 'PUT', body: 'dotHop: 1\nname: helm\n' })).status).toBe(200);
  expect(readFileSync(path.join(inside, 'pilot.dothop.yaml'), 'utf8')).toContain('name: helm');
  for (const name of ['../secret.yaml', 'nobody.dothop.yaml'])
    expect((await call(`folder${other(name)}`)).status).toBe(404);
  rmSync(inside, { recursive: true });
});

test('a document that is not there yet is a new character of its folder', async () => {
  const made = await openFolder(path.join(folder, 'wick', 'harbourmaster.dothop.yaml'));
  try {
    const [at, key] = made.address.split('#token=') as [string, string];
    const asked = await fetch(`${at}api/folder`, { headers: { authorization: `Bearer ${key}` } });
    expect(await asked.json()).toMatchObject({ document: 'harbourmaster.dothop.yaml' });
    expect(existsSync(path.join(folder, 'wick', 'harbourmaster.dothop.yaml'))).toBe(false);
  } finally {
    await made.close();
  }
});

test('a port that is taken is told', () => {
  const port = new URL(base).port;
  const { code, err } = runIn(folder, ['open', 'wick/wick.dothop.yaml', '--no-browser', '--port', port]);
  expect([code, err]).toEqual([2, expect.stringContaining(`--port ${port}: another program listens there`)]);
});
