// npm run screenshots: the pictures of docs/screenshots/, made anew from the demo data.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { chromium } from 'playwright-core';
import { flags, needChromium } from './chromium.mjs';
import { buildPages, servePages } from './pages.mjs';
import { build, dotHop, root } from './run.mjs';

const shot = (name) => path.join('docs', 'screenshots', name);
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
dotHop('ladder', wick, '-o', shot('ladder.png'));
const folk = (name) => path.join('demo', 'townsfolk', name);
const trail = ['--trail', folk('round.rehearsal.yaml')];
dotHop('preview', folk('marlis.dothop.yaml'), 'walk', '--dial', ...trail, '-o', shot('dial.png'));
dotHop('rehearse', path.join('demo', 'evening.rehearsal.yaml'), '--quiet', '-o', shot('rehearsal.png'));
dotHop('rehearse', path.join('demo', 'gulls.rehearsal.yaml'), '--quiet', '-o', shot('gulls.png'));

await buildPages();
const served = await servePages();
const browser = await chromium.launch({
  executablePath: needChromium(),
  args: flags,
  chromiumSandbox: false,
});
/** A page as it looks after something was done on it. */
async function picture(name, act) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(served[name].address);
  await page.waitForSelector('.scene canvas');
  await act(page);
  await page.screenshot({ path: path.join(root, shot(`${name}.png`)) });
  await page.close();
}
/** What a command prints, as a terminal shows it. */
async function terminal(name, ...args) {
  const { stdout } = spawnSync(process.execPath, ['packages/cli/bin/dot-hop.js', ...args], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, FORCE_COLOR: '1' },
  });
  const colours = { 1: 'b', 2: 'dim', 31: 'red', 32: 'green', 33: 'yellow', 36: 'cyan' };
  const html = `$ dot-hop ${args.join(' ')}\n${stdout}`
    .replace(/[&<>]/g, (sign) => `&#${sign.charCodeAt(0)};`)
    .replace(/\x1b\[(1|2|31|32|33|36)m/g, (_, code) => `<span class="${colours[code]}">`)
    .replace(/\x1b\[(22|39)m/g, '</span>');
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.setContent(`<style>
    body { margin: 0; padding: 24px 28px; background: #1d1930; color: #f0e6da }
    pre { font: 15px/1.45 monospace; white-space: pre-wrap; margin: 0; max-width: 1224px }
    .b { font-weight: bold } .dim { color: #a99fbd } .red { color: #f0716a } .green { color: #7fc8a0 }
    .yellow { color: #ffc95c } .cyan { color: #7fc3dc }
  </style><pre>${html}</pre>`);
  await page.screenshot({ path: path.join(root, shot(`${name}.png`)) });
  await page.close();
}
try {
  await terminal('check', 'check', 'demo/faulty-rules.dothop.yaml');
  await picture('jetty', async (page) => {
    await page.waitForSelector('.showing');
    await page.keyboard.down('ArrowRight');
    await page.waitForTimeout(900);
    await page.keyboard.down('Space');
    await page.waitForSelector('[data-testid=state-rise].showing');
  });
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
