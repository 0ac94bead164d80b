import { cpSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { TestBrowser } from '../../../examples/common/browser.js';
import { root } from '../../cli/test/command-line.js';
import { servePage } from '../../cli/test/served-page.js';
import type { ServedPage } from '../../cli/test/served-page.js';

let page: ServedPage;
const browser = new TestBrowser(() => page.address);
beforeAll(async () => {
  const from = path.join(path.dirname(fileURLToPath(import.meta.url)), 'page');
  page = await servePage(from, (folder) => {
    for (const file of ['stroller.dothop.yaml', 'pim.dothop.yaml', 'pim.png', 'folk.dothop.yaml', 'wardrobe'])
      cpSync(path.join(root, 'demo/townsfolk', file), path.join(folder, file), { recursive: true });
  });
});
afterAll(() => page.close());

/** Calls one of the page's functions. */
async function run<T>(call: string): Promise<T> {
  await browser.open('canvas');
  await browser.page.waitForFunction('window.test');
  return browser.page.evaluate<T>(`window.test.${call}`);
}

/** Who faces the first camera is seen from the other sides by a camera that goes round to her left. */
const aroundHer = ['south', 'southwest', 'west', 'northwest', 'north', 'northeast', 'east', 'southeast'];

test.each([false, true])(
  'from each side her picture is the one of that side, clothes: %s',
  async (isDressed) => {
    const { seen, differ, drawn, left } = await run<{
      seen: string[];
      differ: number;
      drawn: number;
      left: number;
    }>(`round(${isDressed})`);
    expect(seen).toEqual(aroundHer);
    expect(drawn).toBeGreaterThan(1500);
    expect(differ).toBe(0);
    expect(left).toBe(0);
  },
);

test('in the light she throws a shadow of her shape', async () => {
  const { shaded, lit } = await run<{ shaded: number; lit: number }>('shadow()');
  expect(shaded).toBeGreaterThan(8);
  expect(lit).toBeGreaterThan(150);
});

test('what cannot be shown so is told', async () => {
  const [twice, size] = await run<string[]>('faults()');
  expect(twice).toContain('has a signal "seen" already');
  expect(size).toBe('pixelsPerUnit is a number above 0, not 0');
});
