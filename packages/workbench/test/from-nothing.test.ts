import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { servePage } from '../../cli/test/served-page.js';
import { WorkbenchPage, fileOf } from './workbench-page.js';

/*
 * The fishwife and her cat, made from their drawings alone: nothing is typed into the text pane. What comes of it is the third demo.
 * MAKE_DEMO=1 writes it again, and GUIDE_PICTURES=FOLDER takes the pictures of the guide on the way.
 */

const root = fileURLToPath(new URL('../../..', import.meta.url));
const demo = path.join(root, 'demo/fishwife');
const bench = new WorkbenchPage();
const drawings = (...names: string[]) =>
  names.map((name) => fileOf(name, readFileSync(path.join(demo, name))));

/** A picture for the guide. */
async function picture(name: string): Promise<void> {
  const to = process.env.GUIDE_PICTURES;
  if (to === undefined) return;
  mkdirSync(path.join(root, to), { recursive: true });
  const offer = bench.page.getByRole('button', { name: 'Not now' });
  if (await offer.isVisible()) await offer.click();
  await bench.page.waitForTimeout(600);
  await bench.page.mouse.move(640, 790);
  await bench.page.screenshot({ path: path.join(root, to, `${name}.png`) });
}

/** What was made is the demo of its name. */
async function isDemo(file: string): Promise<void> {
  const text = await bench.document();
  if (process.env.MAKE_DEMO !== undefined) writeFileSync(path.join(demo, file), text);
  expect(text).toBe(readFileSync(path.join(demo, file), 'utf8'));
}

async function nameCharacter(name: string): Promise<void> {
  await bench.page.getByTitle('give it another name').click();
  const field = bench.page.getByRole('textbox', { name: 'name of the character' });
  await field.fill(name);
  await field.press('Enter');
}

/** Gives a clip another name. */
async function rename(from: string, to: string): Promise<void> {
  await bench.clip(from);
  await bench.put('name', to);
  await bench.clip(to);
}

async function cue(name: string, frame: number): Promise<void> {
  const { page } = bench;
  await bench.frame(frame).click();
  const field = page.getByRole('textbox', { name: 'name of a new cue or span' });
  await field.fill(name);
  await page.getByRole('button', { name: 'cue on the selected frame' }).click();
  await page.getByTestId(`cue-${name}-${frame - 1}`).waitFor();
}

const pick = (row: string): Promise<void> => bench.page.getByRole('row', { name: row, exact: true }).click();

test('the fishwife is made: cut, timed, named, ranked, with a group, a variant and arms of their own', async () => {
  const { page } = bench;
  await bench.beginNew();
  await nameCharacter('hedda');
  await bench.bring(drawings('hedda.png', 'hedda-legs.png', 'hedda-upper.png'));
  await bench.told('hedda-upper.png is laid out like hedda: it is its part upper.');
  // Cut: one foot line for all, a waist for the upper body to hang by.
  await page.getByTestId('stand').click();
  await page.getByRole('menuitem', { name: /one foot line for all/ }).click();
  await bench.told(/stand on one foot line/);
  await picture('1-cut');
  await page.getByTestId('sheet').focus();
  await page.keyboard.press('Control+a');
  await page.getByRole('textbox', { name: 'name of a new box or point' }).fill('waist');
  await page.getByRole('button', { name: 'new point' }).click();
  await bench.put('x', '22');
  await bench.put('y', '40');
  const upper = page.getByRole('group', { name: 'part upper' });
  await upper.getByRole('button', { name: /hangs by$/ }).click();
  await page.getByRole('option', { name: 'waist', exact: true }).click();
  await upper.scrollIntoViewIfNeeded();
  await picture('2-parts');
  // Time.
  await bench.room('Time');
  const names = [
    'stand',
    'walk',
    'stand-loaded',
    'walk-loaded',
    'cry',
    'tend',
    'sell',
    'slip',
    'get-up',
    'cry-loaded',
  ];
  for (const [i, name] of names.entries()) await rename(`row${i}`, name);
  for (const name of ['stand', 'stand-loaded', 'tend']) {
    await bench.clip(name);
    await bench.put('frames a second', '6');
  }
  for (const name of ['cry', 'cry-loaded', 'sell', 'slip', 'get-up']) {
    await bench.clip(name);
    await bench.choose('at its end', 'once');
  }
  for (const name of ['cry', 'cry-loaded']) {
    await bench.clip(name);
    await bench.frame(4).click();
    await bench.put('frame 4', '420');
    await cue('cry', 3);
  }
  await bench.clip('slip');
  await cue('thud', 4);
  await bench.clip('sell');
  await bench.frame(5).click();
  await bench.put('frame 5', '320');
  for (const name of ['walk-loaded', 'walk']) {
    await bench.clip(name);
    await bench.put('stride', '19');
    await cue('step', 1);
    await cue('step', 5);
  }
  await picture('3-time');
  // What the game tells.
  await bench.room('Signals');
  await bench.newSignal('number', 'vx');
  await bench.put('unit', 'px/s');
  await bench.newSignal('flag', 'loaded');
  await bench.newSignal('flag', 'stall');
  await bench.newSignal('pulse', 'hail');
  await bench.newSignal('pulse', 'customer');
  await bench.newSignal('pulse', 'wet');
  await bench.newSignal('band', 'moving');
  await picture('4-signals');
  // To both sides; the drawings look to the right.
  await bench.room('Turn');
  await page.getByRole('button', { name: 'let it turn' }).click();
  await bench.put('dead zone', '4');
  await bench.room('Rank');
  await bench.newState('stand', 'stand');
  await page.getByRole('button', { name: 'new variant' }).click();
  await bench.choose('instead of stand', 'stand-loaded');
  await bench.newState('walk', 'walk');
  await bench.addTerm('as long as', 'moving');
  await bench.choose('playback speed', 'so that no foot slides');
  await page.getByRole('button', { name: 'new variant' }).click();
  await bench.choose('instead of walk', 'walk-loaded');
  await picture('5-rank');
  // Behind her stall everything else waits: a group, in which selling ranks above tending.
  await bench.newState('tend', 'tend');
  await bench.choose('in the group', 'a new one');
  await pick('group');
  await bench.put('name of the group', 'market');
  await page.getByRole('region', { name: 'the group market' }).waitFor();
  await bench.put('rank of the group', '30');
  const market = page.getByTestId('condition-as long as').getByRole('textbox');
  await market.fill('stall and not moving');
  await market.press('Enter');
  await bench.newState('sell', 'sell');
  await bench.addTerm('starts when', 'customer');
  await pick('market');
  await picture('6-group');
  // A wet plank: she slips, sits, and gets up, and nothing cuts that off.
  await pick('stand');
  await bench.newState('slip', 'slip');
  await bench.put('rank', '80');
  await bench.addTerm('starts when', 'wet');
  await bench.newState('get-up', 'get-up');
  await bench.put('rank', '80');
  await pick('slip');
  await bench.choose('at its end follows', 'get-up');
  // Her arms and her voice are a track of their own: she cries her fish while she walks.
  await page.getByRole('button', { name: 'new track' }).click();
  await page.getByRole('checkbox', { name: 'draws upper' }).click();
  await bench.newState('cry', 'cry');
  await bench.addTerm('starts when', 'hail');
  await page.getByRole('button', { name: 'new variant' }).click();
  await bench.choose('instead of cry', 'cry-loaded');
  await picture('7-track');
  for (const state of ['slip', 'get-up', 'sell']) {
    await pick(state);
    await bench.choose('the track arms', 'shows this too');
  }
  // Try: she walks and cries at once; what is seen is kept as it shall stay.
  await bench.room('Try');
  await bench.put('speed', '34');
  await bench.shows(/stand/);
  await page.getByTestId('try-stage').focus();
  await page.keyboard.down('ArrowRight');
  await bench.shows(/walk/);
  await page.keyboard.press('j');
  await bench.shows(/cry/);
  await page.waitForTimeout(350);
  await page.locator('[data-overlay] [title="stop time"]').click();
  await picture('8-try');
  await page.keyboard.up('ArrowRight');
  await bench.choose('it should have shown', 'walk');
  await page.getByRole('button', { name: 'keep as a rehearsal' }).click();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'hedda-tried-1' })
    .filter({ hasText: '1 met' })
    .waitFor();
  await bench.room('Check');
  await page.getByRole('heading', { name: /to look at|Nothing/ }).waitFor();
  await picture('9-check');
  await page.getByRole('row', { name: /the same drawing/ }).click();
  await page
    .getByRole('textbox', { name: 'It is meant to be so, because' })
    .fill('one foot passes the other as that one does');
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: 'Nothing wrong' }).first().waitFor();
  await bench.room('Ship');
  const save = page.getByRole('button', { name: 'Save hedda-game.zip' });
  await save.waitFor();
  await picture('10-ship');
  await isDemo('hedda.dothop.yaml');
  // What the programmer gets runs in a project of Vite as it is.
  const download = page.waitForEvent('download');
  await save.click();
  const files = unzipSync(readFileSync(await (await download).path()));
  await page.getByRole('button', { name: 'in your game' }).click();
  await bench.choose('and plays', 'hedda-game.json, as it is packed');
  const code = await page.getByRole('region', { name: 'game.ts' }).locator('pre').innerText();
  const gamePage = fileURLToPath(new URL('../../cli/test/game-page', import.meta.url));
  const served = await servePage(gamePage, (at) => {
    for (const [name, content] of Object.entries(files)) writeFileSync(path.join(at, name), content);
    writeFileSync(path.join(at, 'game.ts'), code);
  });
  try {
    await page.goto(served.address);
    await page.locator('canvas').waitFor();
    // Her kerchief is blue, and nothing else of the page is.
    const blue = async (): Promise<number> => {
      const shot = await page.locator('canvas').screenshot();
      const { data } = await sharp(shot).removeAlpha().raw().toBuffer({ resolveWithObject: true });
      let found = 0;
      for (let i = 0; i < data.length; i += 3) if (data[i + 2]! > data[i]! + 60) found++;
      return found;
    };
    const until = Date.now() + 60_000;
    while ((await blue()) < 8) {
      expect(Date.now()).toBeLessThan(until);
      await page.waitForTimeout(200);
    }
  } finally {
    await served.close();
  }
}, 400_000);

test('her cat is made, seen from above: rows of its sheet are dropped on the directions they are drawn for', async () => {
  const { page } = bench;
  await bench.beginNew();
  await nameCharacter('tallow');
  await bench.bring(drawings('cat.png'));
  await bench.told(/Cut in cells of 40 x 40/);
  await page.getByTestId('stand').click();
  await page.getByRole('menuitem', { name: /one foot line for all/ }).click();
  await bench.room('Time');
  for (const [row, name, fps] of [
    ['row0', 'sit', '5'],
    ['row5', 'walk', '12'],
    ['row10', 'pounce', '10'],
  ] as const) {
    await rename(row, name);
    await bench.put('frames a second', fps);
  }
  await bench.choose('at its end', 'once');
  await cue('pat', 5);
  await bench.clip('walk');
  await bench.put('stride', '14');
  await bench.room('Signals');
  for (const name of ['vx', 'vy']) {
    await bench.newSignal('number', name);
    await bench.put('unit', 'px/s');
  }
  await bench.newSignal('pulse', 'mouse');
  await bench.newSignal('band', 'moving');
  await bench.put('number', 'hypot(vx, vy)');
  await bench.room('Rank');
  await bench.newState('sit', 'sit');
  await bench.newState('walk', 'walk');
  await bench.addTerm('as long as', 'moving');
  await bench.choose('playback speed', 'so that no foot slides');
  await bench.put('pixels a second', 'hypot(vx, vy)');
  await bench.newState('pounce', 'pounce');
  await bench.addTerm('starts when', 'mouse');
  await bench.room('Turn');
  await page.getByRole('button', { name: 'let it turn' }).click();
  await bench.put('downwards', 'vy');
  await bench.choose('directions', 'eight');
  await bench.put('dead zone', '4');
  await bench.choose('faces at first', 'south');
  // Room for the table and for the rows below it.
  await page.setViewportSize({ width: 1280, height: 1300 });
  const drawnFor = ['south', 'southeast', 'east', 'northeast', 'north'];
  for (const [clip, first] of [
    ['sit', 0],
    ['walk', 5],
    ['pounce', 10],
  ] as const)
    for (const [i, direction] of drawnFor.entries()) {
      if (i === 0) continue;
      await page.getByTestId(`row-${first + i}`).scrollIntoViewIfNeeded();
      await page.getByTestId(`row-${first + i}`).dragTo(page.getByTestId(`page-${clip}-${direction}`));
      await page
        .getByRole('button', { name: `${clip}, ${direction}: ${clip}-${direction}, drawn` })
        .waitFor();
      if (i > 1) continue;
      // What is found now must not move the next row from under the pointer.
      const top = async (): Promise<number> => (await page.getByTestId('row-0').boundingBox())!.y;
      const before = await top();
      await page.getByText(`"${clip}" has no drawing for`).first().waitFor();
      expect(await top()).toBe(before);
    }
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('button', { name: 'walk, west: walk-east, mirrored' }).click();
  await page.getByTestId('dial-says').filter({ hasText: 'west' }).waitFor();
  await picture('11-cat');
  await isDemo('tallow.dothop.yaml');
}, 400_000);
