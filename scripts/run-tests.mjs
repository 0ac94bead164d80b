// npm test: prepares what the tests drive (the compiled command, the built page, a browser), then runs Jest.
// Words after `--` go to Jest, such as `npm test -- packages/core`.
import path from 'node:path';
import { build as buildPage } from 'vite';
import { needChromium } from './chromium.mjs';
import { build, node, root, say } from './run.mjs';

build();
say('building the page');
await buildPage({ root: path.join(root, 'examples', 'jetty'), logLevel: 'warn' });
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
