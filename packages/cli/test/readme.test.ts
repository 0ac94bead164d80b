import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { compileDocument, readDocument } from 'dot-hop/document';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const readme = readFileSync(path.join(root, 'README.md'), 'utf8');
const blocks = (language: string): string[] =>
  [...readme.matchAll(new RegExp(`\`\`\`${language}\\n([\\s\\S]*?)\`\`\``, 'g'))].map((found) => found[1]!);

test('the document in the README is sound', () => {
  for (const text of blocks('yaml'))
    expect(compileDocument(readDocument(text, 'README.yaml')).states.length).toBeGreaterThan(0);
});

test('the code in the README does what its comments say', () => {
  const [code] = blocks('ts');
  const said = [...code!.matchAll(/console\.log\(.*\); \/\/ (.*)$/gm)].map((found) => found[1]);
  const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module'], {
    cwd: root,
    input: `const text = ${JSON.stringify(blocks('yaml')[0])};\n${code}`,
    encoding: 'utf8',
  });
  expect(stderr).toBe('');
  expect(said).toHaveLength(2);
  expect(stdout.trimEnd().split('\n')).toEqual(said);
});

test('every picture and page that it links to is there', () => {
  const links = [...readme.matchAll(/\]\(([^)#]+)\)/g)].map((found) => found[1]!);
  expect(links.length).toBeGreaterThan(5);
  for (const link of links)
    expect({ link, there: existsSync(path.join(root, link)) }).toEqual({ link, there: true });
});

test('CI runs the test command as the README writes it', () => {
  const [, command] = blocks('sh').map((text) => text.trim());
  expect(readFileSync(path.join(root, '.ci/run'), 'utf8').trimEnd().split('\n').at(-1)).toBe(command);
});
