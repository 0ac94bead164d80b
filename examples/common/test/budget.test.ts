import { TestBrowser } from '../browser.js';

const addressOf = (name: string): string => process.env[`${name.toUpperCase()}_ADDRESS`]!;
const browser = new TestBrowser(() => addressOf('jetty'));

interface Counted {
  commits: number;
  /** Nodes that came into the page or went out of it. */
  nodes: number;
  pictures: number;
}

declare global {
  interface Window {
    counted: Counted;
  }
}

/** Has a page that is yet to be opened count what React does, as React's own tools would. */
function countCommits(): void {
  window.counted = { commits: 0, nodes: 0, pictures: 0 };
  Object.assign(window, {
    __REACT_DEVTOOLS_GLOBAL_HOOK__: {
      supportsFiber: true,
      renderers: new Map(),
      inject: () => 1,
      onCommitFiberRoot: () => window.counted.commits++,
      onCommitFiberUnmount: () => undefined,
      onPostCommitFiberRoot: () => undefined,
      checkDCE: () => undefined,
    },
  });
}

/** Begins to count pictures, and what React changes. */
const beginToCount = (): Promise<void> =>
  browser.page.evaluate(() => {
    new MutationObserver((changes) => {
      for (const { addedNodes, removedNodes } of changes)
        window.counted.nodes += addedNodes.length + removedNodes.length;
    }).observe(document.body, { childList: true, subtree: true });
    const count = (): void => {
      window.counted.pictures++;
      requestAnimationFrame(count);
    };
    requestAnimationFrame(count);
  });

/** Counts over a second of the page's own time. The clock is the test's, so that a slow machine counts the same. */
async function count(keys: readonly string[]): Promise<Counted> {
  const { page } = browser;
  await page.evaluate(() => {
    window.counted.commits = window.counted.nodes = window.counted.pictures = 0;
  });
  for (const key of keys) await page.keyboard.down(key);
  await page.clock.runFor(1000);
  for (const key of keys) await page.keyboard.up(key);
  return page.evaluate(() => window.counted);
}

test.each(['jetty', 'lanterns'])(
  'React draws no picture of %s: its panel follows now and then',
  async (name) => {
    const { page } = browser;
    await page.addInitScript(countCommits);
    await page.clock.install();
    await page.goto(addressOf(name));
    await page.waitForSelector('aside section');
    await page.clock.pauseAt(await page.evaluate(() => Date.now() + 1000));
    await beginToCount();
    for (const keys of [[], ['ArrowRight']]) {
      const { commits, nodes, pictures } = await count(keys);
      expect(pictures).toBeGreaterThan(50);
      expect(commits).toBeGreaterThan(0);
      expect(commits).toBeLessThanOrEqual(pictures / 3);
      // The rows of the panel stay; only what they say changes.
      expect(nodes).toBeLessThan(10);
    }
  },
);
