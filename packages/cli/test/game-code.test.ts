import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  realpathSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { compileDocument, readDocument } from 'dot-hop/document';
import { gameCode, namesFile, namesFileOf, reportHtml, reportMarkdown } from 'dot-hop/pack';
import type { GameKind } from 'dot-hop/pack';
import { build } from 'esbuild';
import sharp from 'sharp';
import { TestBrowser } from '../../../examples/common/browser.js';
import { root, runIn, runProgram } from './command-line.js';
import { servePage } from './served-page.js';
import type { ServedPage } from './served-page.js';

const here = path.dirname(fileURLToPath(import.meta.url));
const demo = path.join(root, 'demo');
const wick = readDocument(readFileSync(path.join(demo, 'wick.dothop.yaml'), 'utf8'), 'wick.dothop.yaml');
const images = Object.fromEntries([...wick.images.keys()].map((name) => [name, { width: 512, height: 728 }]));
const controller = compileDocument(wick, { images });

let folder: string;
const run = (...args: string[]) => runProgram(folder, process.execPath, args);
beforeAll(() => {
  folder = realpathSync(mkdtempSync(path.join(tmpdir(), 'dot-hop-code-')));
  symlinkSync(path.join(root, 'node_modules'), path.join(folder, 'node_modules'), 'dir');
});
afterAll(() => rmSync(folder, { recursive: true }));

/** Puts a file into the folder. */
const put = (name: string, content: string): void => writeFileSync(path.join(folder, name), content);

test('the code for each kind of game is sound TypeScript, with the names of the character', () => {
  put(namesFileOf('wick.dothop.yaml'), namesFile('wick.dothop.yaml', controller));
  const kinds: GameKind[] = ['canvas', 'webgl', 'three', 'server'];
  for (const kind of kinds)
    put(`${kind}.ts`, gameCode(controller, kind, kind === 'server' ? 'wick-game.json' : 'wick.dothop.yaml'));
  // A misspelt signal is seen by the compiler.
  for (const kind of ['canvas', 'three'] as const)
    put(
      `misspelt-${kind}.ts`,
      gameCode(controller, kind, 'wick.dothop.yaml').replace("'grounded'", "'gruonded'"),
    );
  const options = {
    ...{ target: 'ES2022', module: 'ESNext', moduleResolution: 'bundler', strict: true, noEmit: true },
    ...{ allowArbitraryExtensions: true, skipLibCheck: true, types: ['node'], lib: ['ES2023', 'DOM'] },
  };
  put('tsconfig.json', JSON.stringify({ compilerOptions: options, include: ['*.ts'] }));
  const { out } = run(path.join(root, 'node_modules/typescript/bin/tsc'), '-p', '.');
  expect(out.match(/^\S+\(\d+,\d+\): .*$/gm)?.map((line) => line.replace(/\(.*?\).*/, ''))).toEqual([
    'misspelt-canvas.ts',
    'misspelt-three.ts',
  ]);
  expect(out).toContain('gruonded');
}, 120_000);

test('the code of a server plays the compiled character', async () => {
  expect(
    runIn(demo, ['pack', 'wick.dothop.yaml', '-o', path.join(folder, 'wick-game.json'), '--compiled']).code,
  ).toBe(0);
  const code = gameCode(controller, 'server', 'wick-game.json');
  put(
    'server.ts',
    code.replace("set('vx', 0)", "set('vx', 120)").replace("set('along', 0)", "set('along', 1)"),
  );
  put(
    'play.ts',
    `import { state, step } from './server.js';\nfor (let i = 0; i < 60; i++) step(16);\nconsole.log(state());\n`,
  );
  await build({
    entryPoints: [path.join(folder, 'play.ts')],
    outfile: path.join(folder, 'play.mjs'),
    ...{ bundle: true, platform: 'node', format: 'esm' },
  });
  const { out, err } = run('play.mjs');
  expect(err).toBe('');
  const lines = out.trim().split('\n');
  expect(lines.at(-1)).toBe('go');
  expect(lines).toContain('step');
});

test('the report has every signal and cue, as Markdown and as a page', () => {
  const markdown = reportMarkdown(controller);
  for (const row of [
    '| along | a number from -1 to 1 | 0 |',
    '| jump | a press, remembered for 120 ms |  |',
    '| step | walk, run |',
    '| strike | box | swing1, swing2, swing3, dash |',
    '| knocked | body | knocked | blow |',
    '| run | 8 | 571 ms, for ever | 53 px |',
  ])
    expect(markdown).toContain(row);
  expect(markdown).not.toContain('## Files');
  expect(reportMarkdown(controller, new Map([['wick.png', 12_345]]))).toContain('| wick.png | 12.3 kB |');
  const html = reportHtml(controller);
  expect(html).toContain('<td>a number from -1 to 1</td>');
  expect(html).toContain('footing and going and (along != 0 or not lately)');
  expect(html).not.toMatch(/<script|src=|href=/);
});

describe('in a browser', () => {
  let page: ServedPage;
  const browser = new TestBrowser(() => page.address);
  afterEach(() => page.close());

  test.each<GameKind>(['canvas', 'webgl', 'three'])(
    'the code draws the character: %s',
    async (kind) => {
      page = await servePage(path.join(here, 'game-page'), (at) => {
        cpSync(path.join(demo, 'wick.dothop.yaml'), path.join(at, 'wick.dothop.yaml'));
        for (const name of wick.images.keys()) {
          mkdirSync(path.dirname(path.join(at, name)), { recursive: true });
          if (existsSync(path.join(demo, name))) cpSync(path.join(demo, name), path.join(at, name));
        }
        writeFileSync(path.join(at, 'game.ts'), gameCode(controller, kind, 'wick.dothop.yaml'));
      });
      await browser.open('canvas');
      // The scarf is amber, and nothing else on the page is.
      const isDrawn = async (): Promise<boolean> => {
        const shot = await browser.page.locator('canvas').screenshot();
        const { data } = await sharp(shot).removeAlpha().raw().toBuffer({ resolveWithObject: true });
        let amber = 0;
        for (let i = 0; i < data.length; i += 3)
          if (data[i]! > 200 && data[i + 1]! > 110 && data[i + 1]! < 180 && data[i + 2]! < 110) amber++;
        return amber > 3;
      };
      const until = Date.now() + 60_000;
      while (!(await isDrawn())) {
        expect(Date.now()).toBeLessThan(until);
        await browser.page.waitForTimeout(200);
      }
    },
    120_000,
  );
});
