import { spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  realpathSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { root, runIn, runProgram } from './command-line.js';

const packages = readdirSync(path.join(root, 'packages')).filter((name) =>
  existsSync(path.join(root, 'packages', name, 'package.json')),
);
const read = (...where: string[]): string => readFileSync(path.join(root, 'packages', ...where), 'utf8');
const blocks = (name: string, language: string): string[] =>
  [...read(name, 'README.md').matchAll(new RegExp(`\`\`\`${language}\\n([\\s\\S]*?)\`\`\``, 'g'))].map(
    (found) => found[1]!,
  );

let folder: string;
beforeEach(() => {
  folder = realpathSync(mkdtempSync(path.join(tmpdir(), 'dot-hop-readme-')));
});
afterEach(() => rmSync(folder, { recursive: true }));

test.each(packages)('the package %s says what it is, what runs it and under which licence', (name) => {
  const manifest = JSON.parse(read(name, 'package.json')) as Record<string, unknown>;
  for (const field of ['description', 'keywords', 'license', 'engines'])
    expect([field, manifest[field]]).toEqual([field, expect.anything()]);
  expect(read(name, 'README.md')).toMatch(new RegExp(`^# ${manifest.name as string}\n`));
  expect(existsSync(path.join(root, 'packages', name, 'LICENSE'))).toBe(true);
});

test('the code of dot-hop does what its comments say', () => {
  const [code] = blocks('core', 'ts');
  const said = [...code!.matchAll(/console\.log\(.*\); \/\/ (.*)$/gm)].map((found) => found[1]);
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module'], {
    cwd: root,
    input: code!,
    encoding: 'utf8',
  });
  expect({ stderr, said: stdout.trimEnd().split('\n') }).toEqual({ stderr: '', said });
  expect(said).toHaveLength(2);
});

test('the code of all packages is sound TypeScript', () => {
  symlinkSync(path.join(root, 'node_modules'), path.join(folder, 'node_modules'), 'dir');
  cpSync(path.join(root, 'packages/cli/starter'), folder, { recursive: true });
  expect(runIn(folder, ['names', 'keeper.dothop.yaml']).code).toBe(0);
  for (const name of ['core', 'browser', 'three'])
    blocks(name, 'ts').forEach((code, i) => writeFileSync(path.join(folder, `${name}${i}.ts`), code));
  const options = {
    ...{ target: 'ES2022', module: 'ESNext', moduleResolution: 'bundler', strict: true, noEmit: true },
    ...{ allowArbitraryExtensions: true, skipLibCheck: true, types: [], lib: ['ES2023', 'DOM'] },
  };
  writeFileSync(
    path.join(folder, 'tsconfig.json'),
    JSON.stringify({ compilerOptions: options, include: ['*.ts'] }),
  );
  const { out } = runProgram(folder, process.execPath, [
    path.join(root, 'node_modules/typescript/bin/tsc'),
    '-p',
    '.',
  ]);
  expect(out).toBe('');
}, 120_000);

test('the commands of the command’s page run one after the other', () => {
  const [shell] = blocks('cli', 'sh');
  const lines = [...shell!.matchAll(/^npx dot-hop ([^#\n]*)/gm)].map((found) => found[1]!.trim());
  expect(lines.length).toBeGreaterThan(4);
  for (const line of lines.filter((one) => !one.startsWith('open')))
    expect([line, runIn(folder, line.split(' ')).code]).toEqual([line, 0]);
});
