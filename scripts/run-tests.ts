// npm test: prepares what the tests drive (the compiled command, the built pages, a browser), then runs Jest.
// Words after `--` go to Jest, such as `npm test -- packages/core`.
import { needChromium } from './chromium.js';
import { buildPages } from './pages.js';
import { build, node, say, typescript } from './run.js';

build();
await buildPages();
try {
  process.env.CHROMIUM = needChromium();
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
  ...process.argv.slice(2),
);
