// npm test: prepares what the tests drive (the compiled command, the built pages, a browser), then runs Jest.
// Words after `--` go to Jest, such as `npm test -- packages/core`.
import { needChromium } from './chromium.mjs';
import { buildPages } from './pages.mjs';
import { build, node, say } from './run.mjs';

build();
await buildPages();
try {
  process.env['CHROMIUM'] = needChromium();
} catch (error) {
  console.error(`\n${error.message}`);
  process.exit(1);
}
say('running the tests');
node(
  '--experimental-vm-modules',
  '--no-warnings',
  'node_modules/jest/bin/jest.js',
  '--config',
  'jest.config.mjs',
  ...process.argv.slice(2),
);
