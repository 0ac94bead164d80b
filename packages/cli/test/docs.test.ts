import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { compileDocument, gatherBases, readDocument } from 'dot-hop/document';
import type { Bases, CharacterDocument } from 'dot-hop/document';
import { readRehearsal, runRehearsal, unmetText } from 'dot-hop/rehearsal';
import sharp from 'sharp';
import { root, runIn } from './command-line.js';

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

describe('the guides', () => {
  const guides = readdirSync(path.join(root, 'docs')).filter((file) => file.startsWith('guide-'));
  let folder: string;

  beforeAll(async () => {
    folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-guide-'));
    cpSync(path.join(root, 'demo'), folder, { recursive: true });
    mkdirSync(path.join(folder, 'frames'));
    for (let i = 1; i <= 3; i++)
      await sharp(path.join(folder, 'wick.png'))
        .extract({ left: i * 64, top: 56, width: 64, height: 56 })
        .toFile(path.join(folder, `frames/walk${i}.png`));
  });
  afterAll(() => rmSync(folder, { recursive: true }));

  test.each(guides)('%s: every command in it runs on the demo data', (guide) => {
    const text = readFileSync(path.join(root, 'docs', guide), 'utf8');
    const lines = [...text.matchAll(/^dot-hop (.*)$/gm)].map((found) => found[1]!);
    // A recipe is no file: there is nothing to run a command on.
    expect(lines.length).toBeGreaterThan(guide === 'guide-recipes.md' ? -1 : 2);
    for (const line of lines) {
      const [words, comment = ''] = line.split('  # ');
      const { code, err } = runIn(folder, words!.split(' '));
      expect({ line, code, err }).toEqual({ line, code: comment === 'exits with 1' ? 1 : 0, err });
    }
  });

  test.each(guides)('%s: its code does what its comments say', (guide) => {
    const text = readFileSync(path.join(root, 'docs', guide), 'utf8');
    for (const [, code] of text.matchAll(/```ts\n([\s\S]*?)```/g)) {
      const before = text.slice(0, text.indexOf(code!));
      const given = [...before.matchAll(/```yaml\n([\s\S]*?)```/g)].at(-1)![1];
      const said = [...code!.matchAll(/console\.log\(.*\); \/\/ (.*)$/gm)].map((found) => found[1]);
      const { stdout, stderr } = spawnSync(process.execPath, ['--input-type=module'], {
        cwd: root,
        input: `const text = ${JSON.stringify(given)};\n${code}`,
        encoding: 'utf8',
      });
      expect({ stderr, said: stdout.trimEnd().split('\n') }).toEqual({ stderr: '', said });
      expect(said.length).toBeGreaterThan(1);
    }
  });

  test.each(guides)('%s: its documents are sound, and its links lead somewhere', async (guide) => {
    const text = readFileSync(path.join(root, 'docs', guide), 'utf8');
    const all = [...text.matchAll(/```yaml\n([\s\S]*?)```/g)].map((found) => found[1]!);
    const basesOf = (block: string): Promise<Bases> =>
      gatherBases(block, guide, (address) =>
        // The first document of a page is the one that its others may build on.
        address === 'drawings.dothop.yaml'
          ? Promise.resolve(all[0]!)
          : readFile(path.join(folder, address), 'utf8'),
      );
    let above: CharacterDocument | undefined;
    for (const block of all)
      if (block.startsWith('dotHopRehearsal')) {
        const { definition } = readRehearsal(block, guide);
        const document =
          definition.document === 'above.yaml'
            ? above!
            : readDocument(readFileSync(path.join(folder, definition.document), 'utf8'));
        const size = { width: 512, height: 728 };
        const images = Object.fromEntries([...document.images.keys()].map((file) => [file, size]));
        const result = runRehearsal(compileDocument(document, { images }), definition);
        expect(unmetText(result)).toBe('');
      } else {
        above = readDocument(block, guide, await basesOf(block));
        expect(compileDocument(above).clips.size).toBeGreaterThan(0);
      }
    // A fragment is told of a document of the demo: its lines stand there.
    const demo = readFileSync(path.join(root, 'demo/wick.dothop.yaml'), 'utf8');
    for (const [, fragment] of text.matchAll(/```yaml fragment\n([\s\S]*?)```/g))
      for (const line of fragment!.trimEnd().split('\n')) expect(demo).toContain(line);
    for (const [, link] of text.matchAll(/\]\(([^)#]+)[)#]/g))
      expect({ link, there: existsSync(path.join(root, 'docs', link!)) }).toEqual({ link, there: true });
  });
});

test('CI runs the test command as the README writes it', () => {
  const [, command] = blocks('sh').map((text) => text.trim());
  expect(readFileSync(path.join(root, '.ci/run'), 'utf8').trimEnd().split('\n').at(-1)).toBe(command);
});
