// npm run screenshots: the pictures of docs/screenshots/, made anew from the demo data.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { chromium } from 'playwright-core';
import { build as buildPage, preview } from 'vite';
import { flags, needChromium } from './chromium.mjs';
import { build, dotHop, root } from './run.mjs';

const shot = (name) => path.join('docs', 'screenshots', name);
const jetty = path.join(root, 'examples', 'jetty');
const wick = path.join('demo', 'wick.dothop.yaml');

/** The faulty sheet: measuring finds something, so the command ends with 1 there. */
function measured() {
  const faulty = path.join('demo', 'faulty.dothop.yaml');
  const args = ['cells', faulty, '--measure', '-o', shot('measure.png')];
  spawnSync(process.execPath, ['packages/cli/bin/dot-hop.js', ...args], { cwd: root, stdio: 'inherit' });
}

build();
dotHop('cells', wick, '-o', shot('cells.png'));
dotHop('preview', wick, 'swing1', '--scale', '3', '-o', shot('preview-strip.png'));
const moving = (name) => path.join('docs', 'pictures', name);
dotHop('preview', wick, 'run', '-o', moving('run-ground.webp'), '--ground', '--scale', '3');
dotHop('preview', wick, 'walk', '-o', moving('walk-compare.webp'), '--compare', '24,12,6', '--scale', '3');
measured();
dotHop('rehearse', path.join('demo', 'evening.rehearsal.yaml'), '--quiet', '-o', shot('rehearsal.png'));
dotHop('rehearse', path.join('demo', 'gulls.rehearsal.yaml'), '--quiet', '-o', shot('gulls.png'));

await buildPage({ root: jetty, logLevel: 'warn' });
const server = await preview({ root: jetty, preview: { port: 0 }, logLevel: 'error' });
const browser = await chromium.launch({
  executablePath: needChromium(),
  args: flags,
  chromiumSandbox: false,
});
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`http://localhost:${server.httpServer.address().port}/`);
  await page.waitForSelector('.showing');
  await page.keyboard.down('ArrowRight');
  await page.waitForTimeout(900);
  await page.keyboard.down('Space');
  await page.waitForSelector('[data-testid=state-rise].showing');
  await page.screenshot({ path: path.join(root, shot('jetty.png')) });
} finally {
  await browser.close();
  await server.close();
}
