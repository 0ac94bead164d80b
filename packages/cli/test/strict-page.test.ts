import { cpSync, mkdtempSync, readFileSync, realpathSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { TestBrowser } from '../../../examples/common/browser.js';
import { root, runProgram } from './command-line.js';

/** Nothing but files of its own: no inline code or style, no data as an image, no text that is run. */
const policy =
  "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self'; connect-src 'self'; worker-src 'self'";
const kinds: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.png': 'image/png',
  '.yaml': 'text/yaml',
};

let folder: string;
let server: Server;
const browser = new TestBrowser(() => `http://localhost:${(server.address() as AddressInfo).port}/`);

beforeAll(async () => {
  folder = realpathSync(mkdtempSync(path.join(tmpdir(), 'dot-hop-strict-')));
  cpSync(path.join(root, 'packages/cli/starter'), folder, { recursive: true });
  cpSync(path.join(root, 'packages/cli/starter'), path.join(folder, 'public'), { recursive: true });
  symlinkSync(path.join(root, 'node_modules'), path.join(folder, 'node_modules'), 'dir');
  writeFileSync(
    path.join(folder, 'vite.config.mjs'),
    `import { dotHop } from '@dot-hop/vite'; export default { plugins: [dotHop()], worker: { format: 'es', plugins: () => [dotHop()] }, build: { outDir: 'out', modulePreload: false } };`,
  );
  writeFileSync(
    path.join(folder, 'index.html'),
    '<!doctype html><link rel="icon" href="/keeper.png"><canvas></canvas><script type="module" src="./page.js"></script>',
  );
  writeFileSync(
    path.join(folder, 'worker.js'),
    `import { Performer, compileController } from 'dot-hop';
    import keeper from './keeper.dothop.yaml';
    const performer = new Performer(compileController(keeper.definition, { images: keeper.sizes }));
    performer.set('vx', 30);
    performer.step(100);
    postMessage(performer.state);`,
  );
  writeFileSync(
    path.join(folder, 'page.js'),
    `import { loadCharacter, openCharacter } from '@dot-hop/browser';
    import { mountOverlay } from '@dot-hop/browser/overlay';
    import { Performer } from 'dot-hop';
    import keeper from './keeper.dothop.yaml';
    const { controller, images } = await openCharacter(keeper);
    mountOverlay({ performer: new Performer(controller), images });
    const loaded = await loadCharacter({ document: '/keeper.dothop.yaml' });
    const worker = new Worker(new URL('./worker.js', import.meta.url), { type: 'module' });
    const heard = await new Promise((told) => worker.addEventListener('message', ({ data }) => told(data)));
    document.title = [loaded.controller.name, heard].join(' ');`,
  );
  const built = runProgram(folder, process.execPath, [
    path.join(root, 'node_modules/vite/bin/vite.js'),
    'build',
  ]);
  expect({ code: built.code, err: built.code === 0 ? '' : built.err }).toEqual({ code: 0, err: '' });
  server = createServer(({ url = '/' }, answer) => {
    const file = path.join(folder, 'out', url === '/' ? 'index.html' : url.replace(/\?.*/, ''));
    try {
      const body = readFileSync(file);
      answer.setHeader('content-security-policy', policy);
      answer.setHeader('content-type', kinds[path.extname(file)] ?? 'application/octet-stream');
      answer.end(body);
    } catch {
      answer.writeHead(404).end();
    }
  });
  await new Promise<void>((done) => server.listen(0, 'localhost', done));
});
afterAll(() => {
  server.close();
  rmSync(folder, { recursive: true });
});

test('under a strict content policy characters load, a worker plays one, and the overlay has its looks', async () => {
  await browser.open('canvas');
  await browser.page.waitForFunction(() => document.title.includes('walk'));
  expect(await browser.page.title()).toBe('keeper walk');
  const panel = browser.page.locator('section.overlay');
  await panel.waitFor();
  expect(await panel.evaluate((element) => getComputedStyle(element).position)).toBe('fixed');
}, 240_000);
