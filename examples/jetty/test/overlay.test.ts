import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { compileDocument, readDocument } from 'dot-hop/document';
import { readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import { JettyPage } from './jetty-page.js';

const browser = new JettyPage();
const wick = fileURLToPath(new URL('../../../demo/wick.dothop.yaml', import.meta.url));
const read = readDocument(readFileSync(wick, 'utf8'), 'wick.dothop.yaml');
const size = { width: 512, height: 728 };
const controller = compileDocument(read, {
  images: Object.fromEntries([...read.images.keys()].map((file) => [file, size])),
});

/** What the overlay says. */
const says = (part: string): Promise<string> => browser.page.locator(`[data-overlay] ${part}`).innerText();
const shows = (state: string): Promise<unknown> =>
  browser.page.waitForFunction(
    (name) =>
      document.querySelector('[data-overlay]')?.shadowRoot?.querySelector('[data-shows]')?.textContent ===
      name,
    state,
  );
const click = (title: string): Promise<void> =>
  browser.page.locator(`[data-overlay] [title="${title}"]`).click();

/** Goes on clicking until a state shows: a slow machine is many steps further when time stops. */
async function clickUntil(title: string, state: string): Promise<void> {
  for (let clicks = 0; (await says('[data-shows]')) !== state; clicks++) {
    expect(clicks).toBeLessThan(400);
    await click(title);
    // What the overlay says follows ten times a second.
    await browser.page.waitForTimeout(110);
  }
}

async function look(): Promise<void> {
  await browser.open('.scene canvas');
  await browser.page.getByText('look closer').click();
  await shows('stand');
}

test('signals are set by hand while the game runs, and let go', async () => {
  await look();
  await click('press blow');
  await browser.hasShown('knocked');
  // Held by hand, the game's own zero is not heard.
  await browser.open('.scene canvas');
  await browser.page.getByText('look closer').click();
  await shows('stand');
  const setBy = (name: string, value: string): Promise<void> =>
    browser.page.locator(`[data-overlay] #signal-${name}`).evaluate((input, to) => {
      const slider = input as HTMLInputElement;
      slider.max = '200';
      slider.value = to;
      slider.dispatchEvent(new Event('input'));
    }, value);
  await setBy('vx', '140');
  await setBy('along', '1');
  await shows('go');
  await browser.page.waitForTimeout(400);
  expect(await says('[data-shows]')).toBe('go');
  await click('let the game set vx again');
  await click('let the game set along again');
  await shows('stand');
  // A number is written too; what is typed is not for the game.
  const field = browser.page.locator('[data-overlay]').getByLabel('along, as a number');
  await field.fill('-1');
  await field.press('Enter');
  await browser.page.waitForFunction('window.jetty.game.performer.value("along") === -1');
  await click('let the game set along again');
  // Folded, only its head is there.
  const ladder = browser.page.locator('[data-overlay] .ladder').first();
  await click('show the head of this panel alone');
  await ladder.waitFor({ state: 'hidden' });
  expect(await says('[data-shows]')).not.toBe('');
  await click('show the head of this panel alone');
  await ladder.waitFor();
}, 240_000);

test('time stops, what was is seen again frame by frame, and why a state did not show', async () => {
  await look();
  await browser.page.keyboard.press('KeyJ');
  await browser.hasShown('swing1');
  await click('stop time');
  // What it says follows ten times a second.
  await browser.page.waitForTimeout(300);
  const stopped = await says('.facts small');
  await browser.page.waitForTimeout(300);
  expect(await says('.facts small')).toBe(stopped);
  await clickUntil('one frame back', 'swing1');
  await clickUntil('one frame back', 'stand');
  await click('why swing1?');
  await browser.page.locator('[data-overlay] .why').waitFor();
  const answer = await says('.why');
  expect(answer).toContain('swing1: its condition is not true.');
  expect(answer).toMatch(/- swing\n/);
  // Escape closes it.
  await browser.page.keyboard.press('Escape');
  await browser.page.locator('[data-overlay] .why').waitFor({ state: 'hidden' });
  // On again: the swing is found where it was.
  await clickUntil('one frame on', 'swing1');
  // What a slider is moved by is not for the game.
  await browser.page.locator('[data-overlay] #signal-breath').focus();
  await browser.page.keyboard.press('ArrowRight');
  expect(await browser.page.evaluate('window.jetty.game.performer.value("along")')).toBe(0);
  await click('let time run');
  await shows('stand');
}, 240_000);

test('what just happened is copied as a rehearsal that passes the same without a browser', async () => {
  await look();
  const { keyboard } = browser.page;
  await keyboard.down('ArrowRight');
  await shows('go');
  await browser.page.waitForTimeout(200);
  await keyboard.press('Space');
  await browser.hasShown('land');
  await keyboard.up('ArrowRight');
  await keyboard.press('KeyJ');
  await browser.hasShown('swing1');
  await click('stop time');
  // What it says stands there for two seconds only: it is waited for before the press.
  const told = browser.page
    .locator('[data-overlay] [title^="what happened lately"]')
    .filter({ hasText: /^cop(ied|y it below)$/ })
    .waitFor();
  await click('what happened lately, as a file that plays it again');
  await told;
  const text = await browser.page.locator('[data-overlay] textarea').inputValue();
  const { definition } = readRehearsal(text, 'seen.rehearsal.json');
  expect(definition.document).toBe('wick.dothop.yaml');
  const { trace, samples } = runRehearsal(controller, definition);
  // Each state once, in its own track; the page does not tell that the arms hang along.
  const trackOf = (name: string): string => controller.tracks[controller.stateNamed.get(name)!.track]!.name;
  const passed = trace.flatMap((one) =>
    one.kind === 'switch' && one.track === trackOf(one.name) && one.name !== 'with-body' ? [one.name] : [],
  );
  // How high he leaps depends on how long the key was down, and that on the machine.
  expect(passed.slice(0, 3).join(' ')).toMatch(/^go takeoff (rise|fall)$/);
  const shown = samples
    .at(-1)!
    .tracks.filter(({ state }, i) => trackOf(state) === controller.tracks[i]!.name && state !== 'with-body')
    .map(({ state }) => state);
  expect(shown.join(' + ')).toBe(await says('[data-shows]'));
  // The trail that the page itself kept is the same.
  const trail = await browser.page.getByTestId('trail').innerText();
  const seen = trail
    .split(/\s*\n\s*/)
    .filter((one) => !/: (walk|run)$/.test(one))
    .map((one) => one.split(':')[0]);
  expect(passed.slice(-seen.length + 1)).toEqual(seen.slice(1));
}, 240_000);

test('closed, it leaves nothing behind', async () => {
  await look();
  await click('stop time');
  await browser.page.getByText('close the overlay').click();
  expect(await browser.page.locator('[data-overlay]').count()).toBe(0);
  // Time goes on, and the game is heard again.
  await browser.page.keyboard.down('ArrowRight');
  await browser.shows('go');
  await browser.page.keyboard.up('ArrowRight');
  await browser.shows('stand');
}, 240_000);
