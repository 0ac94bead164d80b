// npm test: prepares what the tests drive (the compiled command, the built pages, a browser), then runs Jest.
// Words after `--` go to Jest, such as `npm test -- packages/core`; then only what these tests need is prepared.
import { needChromium } from './chromium.js';
import { buildPages, isPage, pages } from './pages.js';
import type { Page } from './pages.js';
import { build, node, say, typescript } from './run.js';

const words = process.argv.slice(2);
/** The folders whose tests are asked for, such as `packages/core`; none for all. */
const folders = words.flatMap((word) => /^(?:packages|examples)\/[\w-]+/.exec(word) ?? []);

/** The built pages that the tests of a folder open. Other packages than the workbench make small pages of their own. */
function pagesFor(folder: string): readonly Page[] {
  const name = folder.split('/')[1]!;
  if (folder === 'examples/common') return pages;
  return isPage(name) ? [name] : [];
}

const needed =
  folders.length === 0 ? pages : pages.filter((page) => folders.some((one) => pagesFor(one).includes(page)));
/** The core knows no page, so its tests need no browser. */
const needsBrowser = folders.length === 0 || folders.some((folder) => folder !== 'packages/core');

build();
if (needed.length > 0) await buildPages(needed);
// serve-pages.mjs serves these.
process.env.PAGES = needed.join(' ');
try {
  if (needsBrowser) process.env.CHROMIUM = needChromium();
} catch (error) {
  console.error(`\n${error instanceof Error ? error.message : String(error)}`);
  process.exit(1);
}
say('running the tests');
node(
  ...typescript,
  '--experimental-vm-modules',
  '--no-warnings',
  'node_modules/jest/bin/jest.js',
  '--config',
  'jest.config.mjs',
  ...words,
);
