// npm run screenshots: the pictures of docs/screenshots/, made anew from the demo data.
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { chromium } from 'playwright-core';
import type { Page as BrowserPage } from 'playwright-core';
import type { Game as FlownGame } from '../examples/jetty/test/pilot.js';
import { flags, needChromium, newPage } from './chromium.js';
import { buildPages, servePages } from './pages.js';
import type { Page } from './pages.js';
import { build, dotHop, root } from './run.js';

declare global {
  interface Window {
    hands: Hands;
  }
}

/** What the pictures of the jetty need of its game. */
interface Game extends FlownGame {
  readonly lit: boolean[];
  draw(context: CanvasRenderingContext2D, ahead: number): void;
  seen(x: number, y: number): { readonly x: number; readonly y: number };
}

/** Plays the jetty step by step. */
interface Hands {
  readonly game: Game;
  readonly run: (steps: number) => void;
  readonly until: (test: (game: Game) => boolean) => void;
  readonly down: (code: string) => void;
  readonly up: (code: string) => void;
}

const shot = (name: string): string => path.join('docs', 'screenshots', name);
const wick = path.join('demo', 'wick.dothop.yaml');

/** On the faulty demo files something is found, so the command ends with 1 there. */
function faulty(...args: string[]): void {
  spawnSync(process.execPath, ['packages/cli/bin/dot-hop.js', ...args], { cwd: root, stdio: 'inherit' });
}

build();
dotHop('cells', wick, '-o', shot('cells.png'));
dotHop('preview', wick, 'swing1', '--scale', '3', '-o', shot('preview-strip.png'));
const moving = (name: string): string => path.join('docs', 'pictures', name);
dotHop('preview', wick, 'run', '-o', moving('run-ground.webp'), '--ground', '--scale', '3');
dotHop('preview', wick, 'walk', '-o', moving('walk-compare.webp'), '--compare', '24,12,6', '--scale', '3');
faulty('cells', path.join('demo', 'faulty.dothop.yaml'), '--measure', '-o', moving('measure.png'));
dotHop('ladder', wick, '-o', shot('ladder.png'));
const folk = (name: string): string => path.join('demo', 'townsfolk', name);
const trail = ['--trail', folk('round.rehearsal.yaml')];
dotHop('preview', folk('marlis.dothop.yaml'), 'walk', '--dial', ...trail, '-o', moving('dial.png'));
dotHop('dress', folk('folk.dothop.yaml'), '--count', '100', '--seed', 'quay', '-o', shot('town.png'));
const gear = ['--wear', 'coat=oilskin,hat=rain-hat,bag=satchel', '--scale', '3'];
dotHop('preview', wick, 'swing1', '--over', 'run', ...gear, '-o', moving('gear.png'));
dotHop('rehearse', path.join('demo', 'errand.rehearsal.yaml'), '--quiet', '-o', shot('rehearsal.png'));
dotHop('rehearse', path.join('demo', 'gulls.rehearsal.yaml'), '--quiet', '-o', moving('gulls.png'));
dotHop('rehearse', path.join('demo', 'errand.rehearsal.yaml'), '--quiet', '-o', moving('errand.webp'));
dotHop('rehearse', path.join('demo', 'running.rehearsal.yaml'), '--quiet', '-o', moving('running.png'));
faulty('check', path.join('demo', 'faulty-rules.dothop.yaml'), '-o', shot('check.png'));
faulty('rehearse', path.join('demo', 'faulty-rehearsal.yaml'), '--quiet', '-o', moving('missed.png'));

await buildPages();
const served = await servePages();
const browser = await chromium.launch({
  executablePath: needChromium(),
  args: flags,
  chromiumSandbox: false,
});
/** A page as it looks after something was done on it. */
async function picture(
  name: string,
  act: (page: BrowserPage) => Promise<void>,
  at: Page,
  place = shot,
): Promise<void> {
  const page = await newPage(browser);
  await page.goto(served[at].address);
  await page.waitForSelector('.scene canvas');
  await act(page);
  await page.screenshot({ path: path.join(root, place(`${name}.png`)) });
  await page.close();
}

/** A room of the workbench, with Wick in it. */
async function room(name: string, act: (page: BrowserPage) => Promise<void>): Promise<void> {
  const page = await newPage(browser);
  await page.goto(served.workbench.address);
  await page.waitForSelector('[data-testid=sheet]');
  await page.getByRole('button', { name: 'Not now' }).click();
  await act(page);
  await page.waitForTimeout(900);
  await page.screenshot({ path: path.join(root, shot(`workbench-${name}.png`)) });
  await page.close();
}

/** Hands for the jetty while its own time stands still: steps of a 120th of a second, keys as a player presses them. */
function takeHands(): void {
  const { loop } = window.jetty;
  const game = window.jetty.game as Game;
  loop.pace = 0;
  const key = (type: string, code: string): void => {
    window.dispatchEvent(new KeyboardEvent(type, { code, bubbles: true }));
  };
  window.hands = {
    game,
    run(steps) {
      for (let i = 0; i < steps; i++) loop.stepOnce();
    },
    until(test) {
      for (let i = 0; i < 2000 && !test(game); i++) loop.stepOnce();
    },
    down: (code) => key('keydown', code),
    up: (code) => key('keyup', code),
  };
}

/** Rows of pictures around switches, each with its instant and what shows. */
async function switches(page: BrowserPage): Promise<string> {
  await page.evaluate(takeHands);
  return page.evaluate(() => {
    const { game, run, until, down, up } = window.hands;
    const crop = { width: 92, height: 84, scale: 2, label: 34 };
    const cell = { width: crop.width * crop.scale + 6, height: crop.height * crop.scale + crop.label };
    const sheet = document.createElement('canvas');
    sheet.width = cell.width * 7 + 6;
    sheet.height = cell.height * 2 + 12;
    const context = sheet.getContext('2d')!;
    context.fillStyle = '#1d1930';
    context.fillRect(0, 0, sheet.width, sheet.height);
    context.imageSmoothingEnabled = false;
    const scene = document.createElement('canvas');
    [scene.width, scene.height] = [280, 198];
    const row = (top: number, every: number): void => {
      const from = game.performer.time;
      for (let i = 0; i < 7; i++) {
        game.draw(scene.getContext('2d')!, 0);
        const { performer, body } = game;
        const [x, y] = [6 + i * cell.width, top];
        const at = game.seen(body.x, body.y);
        const [left, above] = [Math.round(at.x - crop.width / 2), Math.round(at.y - crop.height + 14)];
        const [width, height] = [crop.width * crop.scale, crop.height * crop.scale];
        context.drawImage(scene, left, above, crop.width, crop.height, x, y, width, height);
        context.fillStyle = '#ffc95c';
        context.font = '600 13px sans-serif';
        const what = performer.isBridging ? `${performer.state}: ${performer.clip}` : performer.state;
        context.fillText(what, x + 2, y + height + 15);
        context.fillStyle = '#a99fbd';
        context.font = '12px sans-serif';
        const time = Math.round(performer.time - from);
        context.fillText(`${time} ms, ${performer.clip} ${performer.frameIndex}`, x + 2, y + height + 30);
        run(every);
      }
    };
    // Out of a run he brakes: the skid, then stand.
    game.body.place(520, 158);
    run(60);
    down('ArrowRight');
    until(({ body }) => body.vx >= 139);
    run(8);
    up('ArrowRight');
    run(1);
    row(6, 7);
    // A dash that ends at a wall, and down to the ground.
    game.body.place(1040, 100);
    run(80);
    down('ArrowRight');
    until(({ body }) => body.x > 1058);
    down('Space');
    until(({ body }) => !body.grounded && body.vy > -190);
    down('KeyK');
    run(2);
    up('ArrowRight');
    up('KeyK');
    row(6 + cell.height, 9);
    up('Space');
    return sheet.toDataURL().split(',')[1]!;
  });
}
try {
  await picture(
    'jetty',
    async (page) => {
      await page.waitForFunction('window.jetty');
      await page.evaluate(takeHands);
      await page.evaluate(() => {
        const { game, run, until, down } = window.hands;
        game.lit.fill(true, 0, 5);
        const [first, second] = game.physics.decks;
        until(() => first!.x > 712 && second!.x > 820);
        game.body.place(first!.x - 14, 150);
        run(60);
        down('ArrowRight');
        run(24);
        down('Space');
        until(({ body }) => !body.grounded && body.vy > -70);
        down('KeyK');
        until(({ performer }) => performer.state === 'dash');
        run(14);
      });
      // The panel follows the scene a little later.
      await page.waitForSelector('[data-testid=state-dash].showing');
      await page.waitForTimeout(300);
    },
    'jetty',
  );
  await room('cut', async (page) => {
    await page.getByTestId('sheet').focus();
    for (let i = 0; i < 41; i++) await page.keyboard.press('ArrowRight');
  });
  await room('time', async (page) => {
    await page.keyboard.press('Alt+2');
    await page.getByRole('row', { name: 'swing1', exact: true }).click();
    await page.getByRole('option', { name: /^frame 3,/ }).click();
  });
  await room('turn', async (page) => {
    await page.keyboard.press('Alt+3');
    const dial = await page.getByTestId('dial').boundingBox();
    if (dial === null) throw new Error('the room Turn shows no dial');
    const [x, y] = [dial.x + dial.width / 2, dial.y + dial.height / 2];
    await page.mouse.move(x + 80, y - 20);
    await page.mouse.down();
    for (let i = 0; i <= 30; i++) await page.mouse.move(x + 85 * Math.cos(i / 12), y + 60 * Math.sin(i / 12));
    await page.mouse.up();
  });
  await room('signals', async (page) => {
    await page.keyboard.press('Alt+4');
    await page.getByRole('row', { name: 'moving', exact: true }).click();
    await page.getByRole('application').focus();
    await page.keyboard.down('ArrowRight');
  });
  await room('rank', async (page) => {
    await page.keyboard.press('Alt+5');
    await page.getByRole('row', { name: 'swing1', exact: true }).click();
    await page.getByText('can be cut off by').waitFor();
  });
  await room('try', async (page) => {
    await page.keyboard.press('Alt+6');
    await page.getByTestId('try-stage').focus();
    await page.keyboard.down('ArrowRight');
    await page.waitForTimeout(1500);
    await page.keyboard.press('Space');
    await page.waitForTimeout(900);
    await page.locator('[data-overlay] [title="stop time"]').click();
    for (let i = 0; i < 14; i++) await page.locator('[data-overlay] [title="one frame back"]').click();
    await page.locator('[data-overlay] [title="why go?"]').click();
  });
  await room('shelf', async (page) => {
    await page.keyboard.press('Alt+0');
    await page.waitForFunction(() => document.querySelectorAll('.shelf canvas').length === 4);
    await page.getByText(/4 of 4 rehearsals/).waitFor();
  });
  const openFaulty = async (page: BrowserPage): Promise<void> => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Character', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Open files …' }).click();
    const files = ['faulty-rules.dothop.yaml', 'wick.png'].map((name) => path.join(root, 'demo', name));
    await (await chooser).setFiles(files);
    await page.getByTestId('notice').filter({ hasText: 'faulty-rules' }).waitFor();
  };
  await room('check', async (page) => {
    await openFaulty(page);
    await page.keyboard.press('Alt+7');
    await page.getByRole('row', { name: /between two thresholds/ }).click();
  });
  await room('ship', async (page) => {
    await page.keyboard.press('Alt+8');
    await page.getByRole('button', { name: /^Save wick-game/ }).waitFor();
  });
  const page = await newPage(browser);
  await page.goto(served.jetty.address);
  await page.waitForFunction('window.jetty');
  writeFileSync(path.join(root, moving('switches.png')), Buffer.from(await switches(page), 'base64'));
  await page.close();
  await picture(
    'overlay',
    async (page) => {
      // As the page calls it: on the jetty, with the overlay beside it.
      await page.waitForFunction('window.jetty');
      await page.evaluate('window.jetty.game.body.place(384, 158)');
      await page.getByText('look closer').click();
      await page.waitForTimeout(2500);
      await page.keyboard.press('KeyJ');
      await page.waitForTimeout(2500);
      await page.keyboard.down('ArrowRight');
      await page.waitForTimeout(1200);
      await page.keyboard.press('Space');
      await page.waitForTimeout(1500);
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
    moving,
  );
  await picture(
    'market',
    async (page) => {
      await page.waitForTimeout(2500);
      await page.getByTestId('lead-you').click();
      await page.getByTestId('dressing').click();
      await page.keyboard.down('ArrowRight');
      await page.keyboard.down('ArrowDown');
      await page.waitForTimeout(900);
    },
    'market',
  );
  await picture(
    'lanterns',
    async (page) => {
      await page.waitForFunction('window.lanterns');
      await page.evaluate(`(() => {
      const { game, loop } = window.lanterns;
      loop.pace = 0;
      const waving = () => {
        const { crowd } = game;
        const near = (i) => Math.hypot(crowd.x[i] - 4520, crowd.y[i] - 1300) < 150;
        let count = 0;
        for (let i = 0; i < crowd.count; i++) if (near(i) && crowd.troupe.member(i).state === 'wave') count++;
        return count;
      };
      for (let i = 0; i < 2400 && (i < 600 || i % 10 > 0 || waving() < 4); i++) loop.stepOnce();
      game.lookAt(4520, 1330);
      game.crowd.lead(game.crowd.at(4500, 1300, Infinity));
    })()`);
      await page.waitForTimeout(2500);
    },
    'lanterns',
  );
  await picture(
    'lighthouse',
    async (page) => {
      await page.keyboard.down('ArrowRight');
      await page.waitForTimeout(1200);
      await page.keyboard.up('ArrowRight');
      await page.waitForTimeout(1500);
    },
    'lighthouse',
  );
} finally {
  await browser.close();
  for (const { server } of Object.values(served)) await server.close();
}
