import { cpSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { TestBrowser } from '../../../examples/common/browser.js';
import { root } from '../../cli/test/command-line.js';
import { servePage } from '../../cli/test/served-page.js';
import type { ServedPage } from '../../cli/test/served-page.js';

interface Compared {
  readonly differ: number;
  readonly drawn: number;
  readonly calls: number;
}

let page: ServedPage;
const browser = new TestBrowser(() => page.address);
beforeAll(async () => {
  const from = path.join(path.dirname(fileURLToPath(import.meta.url)), 'painter-page');
  page = await servePage(from, (folder) => {
    for (const file of ['stroller.dothop.yaml', 'pim.dothop.yaml', 'pim.png', 'folk.dothop.yaml', 'wardrobe'])
      cpSync(path.join(root, 'demo/townsfolk', file), path.join(folder, file), { recursive: true });
  });
});
afterAll(() => page.close());
const open = async (): Promise<void> => {
  await browser.open('canvas');
  await browser.page.waitForFunction('window.compare');
};
const compare = (count: number, offset: number, worn = false): Promise<Compared> =>
  browser.page.evaluate(`window.compare(${count}, ${offset}, ${worn})`);

test('the painter paints what the canvas draws, pixel by pixel, one draw call for an image', async () => {
  await open();
  for (const [count, offset] of [
    [6, 0],
    [40, 0],
    [700, -13],
  ] as const) {
    const { differ, drawn, calls } = await compare(count, offset);
    expect({ count, differ, calls }).toEqual({ count, differ: 0, calls: 2 });
    expect(drawn).toBeGreaterThan(200);
  }
  // Each image was told of as it came.
  expect(await browser.page.evaluate('window.files.at(-1)')).toEqual([1, 1]);
});

test('rectangles of an image are painted where the canvas draws them', async () => {
  await open();
  const { differ, drawn, calls } = await browser.page.evaluate<Compared>('window.stamped()');
  expect({ differ, calls }).toEqual({ differ: 0, calls: 1 });
  expect(drawn).toBeGreaterThan(2000);
});

test('members of a troupe are painted from its numbers as their poses are drawn, and who is gone is not', async () => {
  await open();
  const { differ, drawn, calls, shown } = await browser.page.evaluate<Compared & { shown: number }>(
    'window.membersPainted()',
  );
  expect({ differ, calls }).toEqual({ differ: 0, calls: 1 });
  expect(drawn).toBeGreaterThan(5000);
  expect(shown).toBeGreaterThan(8);
});

test('people in clothes of all colours are the same by both', async () => {
  await open();
  const { differ, drawn, calls } = await compare(60, -20, true);
  expect(differ).toBe(0);
  expect(drawn).toBeGreaterThan(5000);
  expect(calls).toBeGreaterThan(60);
});

test('a graphics card that was lost comes back, and nothing is painted after the end', async () => {
  await open();
  const whileLost = await browser.page.evaluate(`(async () => {
    const card = window.lose();
    const told = (name) => new Promise((done) => painted.addEventListener(name, done, { once: true }));
    const lost = told('webglcontextlost');
    card.loseContext();
    await lost;
    const { calls } = window.compare(10, 0);
    const restored = told('webglcontextrestored');
    // Only once the event of its loss is over can it be brought back.
    setTimeout(() => card.restoreContext(), 100);
    await restored;
    return calls;
  })()`);
  // Without a card nothing is painted, and nothing fails.
  expect(whileLost).toBe(0);
  expect((await compare(40, 0)).differ).toBe(0);
  expect(await browser.page.evaluate('window.painter.destroy(), window.compare(40, 0).calls')).toBe(0);
  browser.forgive(/CONTEXT_LOST|context lost/i);
});

test('boxes, points and the pivot are drawn where they are', async () => {
  await open();
  expect(await browser.page.evaluate('window.marks()')).toEqual({
    corner: [127, 200, 160, 255],
    inside: [0, 0, 0, 0],
    edge: [127, 200, 160, 255],
    hand: [255, 201, 92, 255],
    pivot: [255, 127, 138, 255],
  });
});
