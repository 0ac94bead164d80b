// npm run screenshots: the pictures of docs/screenshots/, made anew from the demo data.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { chromium } from 'playwright-core';
import { flags, needChromium } from './chromium.mjs';
import { buildPages, servePages } from './pages.mjs';
import { build, dotHop, root } from './run.mjs';

const shot = (name) => path.join('docs', 'screenshots', name);
const wick = path.join('demo', 'wick.dothop.yaml');

/** On the faulty demo files something is found, so the command ends with 1 there. */
function faulty(...args) {
  spawnSync(process.execPath, ['packages/cli/bin/dot-hop.js', ...args], { cwd: root, stdio: 'inherit' });
}

build();
dotHop('cells', wick, '-o', shot('cells.png'));
dotHop('preview', wick, 'swing1', '--scale', '3', '-o', shot('preview-strip.png'));
const moving = (name) => path.join('docs', 'pictures', name);
dotHop('preview', wick, 'run', '-o', moving('run-ground.webp'), '--ground', '--scale', '3');
dotHop('preview', wick, 'walk', '-o', moving('walk-compare.webp'), '--compare', '24,12,6', '--scale', '3');
faulty('cells', path.join('demo', 'faulty.dothop.yaml'), '--measure', '-o', shot('measure.png'));
dotHop('ladder', wick, '-o', shot('ladder.png'));
const folk = (name) => path.join('demo', 'townsfolk', name);
const trail = ['--trail', folk('round.rehearsal.yaml')];
dotHop('preview', folk('marlis.dothop.yaml'), 'walk', '--dial', ...trail, '-o', shot('dial.png'));
dotHop('rehearse', path.join('demo', 'errand.rehearsal.yaml'), '--quiet', '-o', shot('rehearsal.png'));
dotHop('rehearse', path.join('demo', 'gulls.rehearsal.yaml'), '--quiet', '-o', shot('gulls.png'));
faulty('check', path.join('demo', 'faulty-rules.dothop.yaml'), '-o', shot('check.png'));
faulty('rehearse', path.join('demo', 'faulty-rehearsal.yaml'), '--quiet', '-o', shot('missed.png'));

await buildPages();
const served = await servePages();
const browser = await chromium.launch({
  executablePath: needChromium(),
  args: flags,
  chromiumSandbox: false,
});
/** A page as it looks after something was done on it. */
async function picture(name, act, at = name) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(served[at].address);
  await page.waitForSelector('.scene canvas');
  await act(page);
  await page.screenshot({ path: path.join(root, shot(`${name}.png`)) });
  await page.close();
}
try {
  await picture('jetty', async (page) => {
    await page.waitForSelector('.showing');
    await page.keyboard.down('ArrowRight');
    await page.waitForTimeout(900);
    await page.keyboard.down('Space');
    await page.waitForSelector('[data-testid=state-rise].showing');
  });
  await picture(
    'overlay',
    async (page) => {
      // As the page calls it: on the jetty, with the overlay beside it.
      await page.getByText('look closer').click();
      await page.keyboard.down('ArrowRight');
      await page.waitForTimeout(900);
      await page.keyboard.press('Space');
      await page.waitForTimeout(900);
      await page.keyboard.up('ArrowRight');
      await page.keyboard.press('KeyJ');
      await page.waitForTimeout(300);
      const overlay = page.locator('[data-overlay]');
      await overlay.locator('[title="stop time"]').click();
      for (let i = 0; i < 6; i++) await overlay.locator('[title="one frame back"]').click();
      await overlay.locator('[title="why go?"]').click();
      await overlay.locator('.overlay').evaluate((panel) => panel.scrollTo(0, 0));
      await page.waitForTimeout(200);
    },
    'jetty',
  );
  await picture('market', async (page) => {
    await page.waitForTimeout(2500);
    await page.keyboard.down('ArrowRight');
    await page.keyboard.down('ArrowDown');
    await page.waitForTimeout(900);
  });
  await picture('lighthouse', async (page) => {
    await page.keyboard.down('ArrowRight');
    await page.waitForTimeout(1200);
    await page.keyboard.up('ArrowRight');
    await page.waitForTimeout(1500);
  });
} finally {
  await browser.close();
  for (const { server } of Object.values(served)) await server.close();
}
