// npm run check-docs: builds the site for a path that is not the root, and uses it as its readers do, in a real browser: documents
// play and are changed, every rehearsal goes as it should, every finding is found, a name is searched for. Nothing asks outside.
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { readdirSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { chromium } from 'playwright-core';
import type { Locator } from 'playwright-core';
import { flags, needChromium, newPage } from './chromium.js';
import { node, root, say, typescript } from './run.js';

const base = '/handbook/';
process.env.DOCS_BASE = base;
if (!process.argv.includes('--built')) node(...typescript, 'scripts/build-docs.ts');

const site = path.join(root, 'out/docs');
const types: Record<string, string> = {
  ...{ '.html': 'text/html', '.js': 'text/javascript', '.css': 'text/css', '.json': 'application/json' },
  ...{ '.png': 'image/png', '.webp': 'image/webp', '.svg': 'image/svg+xml', '.woff2': 'font/woff2' },
};
const server = createServer((asked, answer) => {
  const { pathname } = new URL(asked.url ?? '', 'http://localhost');
  const file = pathname.startsWith(base)
    ? path.join(site, decodeURIComponent(pathname.slice(base.length)))
    : '';
  readFile(pathname.endsWith('/') ? path.join(file, 'index.html') : file).then(
    (content) =>
      answer.writeHead(200, { 'content-type': types[path.extname(file)] ?? 'text/html' }).end(content),
    () => answer.writeHead(404).end(),
  );
}).listen(0);
const address = `http://localhost:${(server.address() as AddressInfo).port}${base}`;

/** The names that the library has pages for. */
const publicNames = (): string[] => [
  ...new Set(
    readdirSync(path.join(site, 'api'), { recursive: true, encoding: 'utf8' }).flatMap((file) => {
      const { name, ext } = path.parse(file);
      return ext === '.html' && name !== 'index' ? [name] : [];
    }),
  ),
];

const wrong: string[] = [];
const expected = (is: boolean, what: string): void => {
  if (!is) wrong.push(what);
};

const browser = await chromium.launch({
  executablePath: needChromium(),
  args: flags,
  chromiumSandbox: false,
});
try {
  const page = await newPage(browser);
  page.setDefaultTimeout(30_000);
  page.on('console', (message) => expected(message.type() !== 'error', `${page.url()}: ${message.text()}`));
  page.on('pageerror', (error) => expected(false, `${page.url()}: ${error.message}`));
  page.on('request', (request) =>
    expected(
      /^(data:|blob:)/.test(request.url()) || request.url().startsWith(address),
      `asks for ${request.url()}`,
    ),
  );
  const visit = (to: string) => page.goto(`${address}${to}`);
  const stages = page.locator('.live');
  /** Shows a stage and waits until its character has come. */
  const show = async (stage: Locator): Promise<void> => {
    await stage.scrollIntoViewIfNeeded();
    await stage.locator('.says b', { hasNotText: '…' }).waitFor();
  };

  say('playing the recipes');
  await visit('guide-recipes.html');
  const recipes = await stages.count();
  expected(recipes >= 20, `${recipes} recipes play, not 20`);
  for (let i = 0; i < recipes; i++) {
    const stage = stages.nth(i);
    await show(stage);
    const rehearse = stage.getByRole('button', { name: 'play the rehearsal' });
    if ((await rehearse.count()) === 0) continue;
    await rehearse.click();
    const told = await stage.locator('.told').innerText();
    expected(told === 'The rehearsal goes as it should.', `recipe ${i}: ${told}`);
  }
  say('changing a recipe');
  // States that last are looked at: others could be over before this program looks again.
  const crouching = stages.nth(0);
  await visit('guide-recipes.html');
  await show(crouching);
  const says = (words: string): Promise<void> => crouching.locator('.says', { hasText: words }).waitFor();
  await says('stand (stand');
  await crouching.getByLabel('low').check();
  await says('crouch (doze');
  const text = crouching.locator('textarea');
  const document = await text.inputValue();
  await text.fill(document.replace('shows: doze', 'shows: dozze'));
  await crouching.locator('.told.wrong', { hasText: 'did you mean "doze"' }).waitFor();
  // What played before plays on.
  await says('crouch (doze');
  await text.fill(document.replace('shows: doze', 'shows: slide'));
  await says('crouch (slide');
  await crouching.getByRole('button', { name: 'as it was' }).click();
  await says('crouch (doze');

  say('finding every fault');
  await visit('findings.html');
  const findings = await page.evaluate(() =>
    [...globalThis.document.querySelectorAll('.live')].map((live) => {
      let above = live.previousElementSibling;
      while (above !== null && above.tagName !== 'H3') above = above.previousElementSibling;
      const code = above?.querySelector('code')?.textContent ?? '';
      return { code, says: live.classList.contains('mended') ? 'The check finds nothing.' : code };
    }),
  );
  expected(findings.length > 50, `${findings.length} documents of findings play`);
  for (const [i, { code, says: expectedWords }] of findings.entries()) {
    await show(stages.nth(i));
    const told = stages.nth(i).locator('.told', { hasText: expectedWords });
    await told
      .waitFor({ timeout: 5000 })
      .catch(() => expected(false, `under ${code} the check does not say "${expectedWords}"`));
  }

  const names = publicNames();
  // A search takes half a second. `--every-name` asks for all of them.
  const asked = process.argv.includes('--every-name')
    ? names
    : names.filter((name, i) => i % 12 === 0 || ['Cell', 'Performer', 'Troupe', 'Signal'].includes(name));
  say(`searching for ${asked.length} of ${names.length} public names`);
  await visit('');
  // The page hears keys a while after it shows.
  const search = page.getByRole('searchbox');
  for (let tries = 0; tries < 30 && !(await search.isVisible()); tries++) {
    await page.keyboard.press('Control+k');
    await page.waitForTimeout(1000);
  }
  const first = page.locator('.VPLocalSearchBox .result').first();
  for (const name of asked) {
    await search.fill(name);
    const headed = new RegExp(`: ${name}(\\W|$)`, 'i');
    await first
      .filter({ hasText: headed })
      .waitFor({ timeout: 3000 })
      .catch(async () => {
        expected(
          false,
          `who searches for ${name} finds ${await first.textContent({ timeout: 100 }).catch(() => 'nothing')} first`,
        );
      });
  }
  await search.fill('crispCanvas');
  await page.locator('.VPLocalSearchBox .result', { hasText: 'crispCanvas' }).first().click();
  await page
    .getByRole('heading', { name: /crispCanvas/ })
    .first()
    .waitFor();
  await visit('fields.html');
  for (const heading of [/^A state \(/, /^A line of the script/])
    await page.getByRole('heading', { name: heading }).waitFor();
  // Each field says how it is written.
  await page.getByRole('row', { name: /^atLeast .* atLeast: 80/ }).waitFor();
} finally {
  await browser.close();
  server.close();
}
if (wrong.length > 0) {
  console.error(wrong.join('\n'));
  process.exitCode = 1;
} else say('the site is well');
