import { cpSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { TestBrowser } from '../../../examples/common/browser.js';
import { root, runIn } from '../../cli/test/command-line.js';
import { servePage } from '../../cli/test/served-page.js';
import type { ServedPage } from '../../cli/test/served-page.js';

const here = path.dirname(fileURLToPath(import.meta.url));
let page: ServedPage;
const browser = new TestBrowser(() => page.address);
const text = (): Promise<string> => browser.page.locator('#shows').innerText();
const file = (name: string): string => path.join(page.folder, name);
/** Changes the document while the page runs. */
const edit = (name: string, what: string, to: string): void => {
  const before = readFileSync(file(name), 'utf8');
  expect(before).toContain(what);
  writeFileSync(file(name), before.replace(what, to));
};
const showsIn = (words: RegExp): Promise<unknown> =>
  browser.page.waitForFunction(
    (pattern) => new RegExp(pattern).test(document.querySelector('#shows')?.textContent ?? ''),
    words.source,
  );

async function serve(document: string): Promise<void> {
  page = await servePage(path.join(here, 'hot-page'), (folder) => {
    if (document.startsWith('night'))
      writeFileSync(
        path.join(folder, document),
        'dotHop: 1\nfrom: keeper.dothop.yaml\nname: night\nclips: { walk: { hold: { 0: 2 } } }\n',
      );
    if (document.endsWith('.json'))
      expect(runIn(folder, ['convert', 'keeper.dothop.yaml', '-o', document]).code).toBe(0);
    const script = path.join(folder, 'page.js');
    writeFileSync(script, readFileSync(script, 'utf8').replace('DOCUMENT', document));
  });
}
afterEach(() => page.close());

for (const [shown, document] of [
  ['keeper.dothop.yaml', 'keeper.dothop.yaml'],
  ['keeper.dothop.json', 'keeper.dothop.json'],
  ['night.dothop.yaml', 'keeper.dothop.yaml'],
] as const)
  test(`${document} is edited while a page shows ${shown}: its state is kept; a faulty edit is shown, and the old one plays on`, async () => {
    await serve(shown);
    await browser.open('canvas');
    await showsIn(/^stand stand-south/);
    const begun = await browser.page.evaluate('window.begun');
    await browser.page.evaluate("window.set('vx', 30)");
    await showsIn(/^walk walk-east [2-7]/);
    const isYaml = document.endsWith('yaml');

    // Slower, and another state's name changed: walk goes on as walk, where it was.
    edit(document, isYaml ? 'fps: 12' : '"fps": 12', isYaml ? 'fps: 2' : '"fps": 2');
    edit(document, isYaml ? 'priority: 10' : '"priority": 10', isYaml ? 'priority: 11' : '"priority": 11');
    const slow = async (): Promise<number> => {
      const seen = new Set<string>();
      for (let i = 0; i < 10; i++) {
        seen.add(await text());
        await browser.page.waitForTimeout(50);
      }
      return seen.size;
    };
    let frames = 10;
    for (let i = 0; i < 20 && frames > 4; i++) frames = await slow();
    expect(frames).toBeLessThanOrEqual(4);
    expect(await text()).toMatch(/^walk walk-east/);
    expect(await browser.page.evaluate('window.begun')).toBe(begun);

    // A mistake: told with its line and the nearest name, and he walks on.
    edit(
      document,
      isYaml ? 'while: moving' : '"while": "moving"',
      isYaml ? 'while: movign' : '"while": "movign"',
    );
    const overlay = browser.page.locator('vite-error-overlay');
    await overlay.waitFor();
    const told = await overlay.evaluate((element) => element.shadowRoot!.textContent);
    expect(told).toContain('movign');
    expect(told).toContain('did you mean "moving"?');
    expect(told).toMatch(new RegExp(`${document.replaceAll('.', '\\.')}:\\d+:\\d+`));
    const before = await text();
    await showsIn(new RegExp(`^walk walk-east (?!${before.split(' ')[2]} )`));
    // The browser says of the server's refusal that it failed to load: that is so.
    browser.forgive(/Failed to load resource|\[hmr\]|\[vite\]/);

    edit(document, 'movign', 'moving');
    await overlay.waitFor({ state: 'detached' });
    expect(await browser.page.evaluate('window.begun')).toBe(begun);
    // The names are there for the compiler.
    const names = readFileSync(file(shown.replace(/dothop\.(\w+)$/, 'dothop.d.$1.ts')), 'utf8');
    expect(names).toContain('"vx": number;');
    expect(names).toContain('states: "stand" | "walk";');
  }, 240_000);

test('a drawing that is changed is seen at once', async () => {
  await serve('keeper.dothop.yaml');
  await browser.open('canvas');
  await showsIn(/^stand/);
  const before = (await text()).split(' ')[3]!;
  cpSync(path.join(root, 'demo/townsfolk/pim.png'), file('keeper.png'));
  await browser.page.waitForFunction(
    (old) => !(document.querySelector('#shows')?.textContent ?? old).endsWith(old),
    before,
  );
}, 240_000);

test('a compiled document is played, watched by the overlay and edited while the page runs, and a packed one is fetched', async () => {
  page = await servePage(
    path.join(here, 'compiled-page'),
    (folder) =>
      expect(runIn(folder, ['pack', 'keeper.dothop.yaml', '-o', 'game.json', '--compiled']).code).toBe(0),
    { names: true, compiled: true },
  );
  await browser.open('canvas');
  await showsIn(/^stand stand-south/);
  await browser.page.keyboard.down('KeyD');
  await showsIn(/^walk walk-east/);
  await browser.page.evaluate('void window.lookCloser()');
  const overlay = browser.page.locator('[data-overlay]');
  await overlay.getByText('it ranks above stand and took over').waitFor();
  await browser.page.keyboard.up('KeyD');
  await showsIn(/^stand stand-east/);

  edit('keeper.dothop.yaml', 'shows: stand', 'shows: walk');
  await showsIn(/^stand walk-east/);
  expect(readFileSync(file('keeper.dothop.d.yaml.ts'), 'utf8')).toContain('CompiledModule<{');
  expect(await browser.page.evaluate('window.packed()')).toEqual({
    state: 'walk',
    images: ['game.png'],
    files: [2, 2],
  });
}, 240_000);
