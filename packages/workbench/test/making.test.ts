import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { runIn } from '../../cli/test/command-line.js';
import { clips, keeper, png } from './keeper.js';
import { WorkbenchPage } from './workbench-page.js';

const bench = new WorkbenchPage();
let folder: string;

beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

/** What the command says to a rehearsal of what was made in the page. */
async function rehearsed(rehearsal: string): Promise<string> {
  writeFileSync(path.join(folder, 'keeper.dothop.yaml'), await bench.document());
  writeFileSync(path.join(folder, 'wick.png'), png);
  writeFileSync(path.join(folder, 'day.rehearsal.yaml'), rehearsal);
  return runIn(folder, ['rehearse', 'day.rehearsal.yaml', '--quiet']).out;
}

test('from clips to a character that stands, goes, leaps and swings, without a word typed into the text', async () => {
  const { page } = bench;
  await bench.beginNew();
  await bench.bring(keeper(clips));
  await bench.told(/keeper/);
  await bench.room('Try');
  await page.getByText('Nothing can be tried yet').waitFor();
  await bench.room('Signals');
  await bench.newSignal('number', 'vx');
  await bench.put('unit', 'px/s');
  await bench.newSignal('flag', 'grounded');
  await page.getByRole('checkbox', { name: 'on at first' }).check();
  await bench.newSignal('pulse', 'jump');
  await bench.newSignal('pulse', 'swing');
  await bench.newSignal('band', 'moving');
  await page.getByRole('slider', { name: 'on above' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await bench.room('Rank');
  await bench.newState('stand', 'stand');
  // The whole character plays from its first state on.
  await page.locator('[data-rung=stand][data-now=shows]').waitFor();
  await bench.newState('walk', 'go');
  await bench.addTerm('as long as', 'grounded');
  await bench.addTerm('as long as', 'moving');
  // Two gaits, whose feet do not slide.
  await bench.choose('shows', 'gaits, by a number');
  await bench.put('gait 2 above', '60');
  await bench.choose('playback speed', 'so that no foot slides');
  await bench.newState('rise', 'air');
  await bench.addTerm('as long as', 'grounded');
  // A term is turned about where it stands.
  await page
    .getByTestId('condition-as long as')
    .getByRole('button', { name: 'grounded', exact: true })
    .click();
  await page.getByRole('menuitem', { name: 'not grounded' }).click();
  await bench.newState('crouch', 'hop');
  await bench.addTerm('starts when', 'jump');
  await bench.addTerm('starts when', 'grounded');
  await bench.newState('swing', 'swing');
  await bench.addTerm('starts when', 'swing');
  // One that is asked for in the middle of a swing is remembered until its end.
  await page.getByRole('button', { name: 'new hop' }).click();
  await bench.choose('to', 'hop');
  await bench.choose('its condition counts', 'during late, until then');
  await bench.addTerm('if', 'jump');
  // Who goes on before it has ended cuts its last part short.
  await page.getByRole('button', { name: 'give way to somebody' }).click();
  const ways = page.getByRole('group', { name: 'to whom swing gives way' });
  await ways.getByRole('button', { name: /to$/ }).click();
  await page.getByRole('option', { name: 'go', exact: true }).click();
  await ways.getByRole('button', { name: /during$/ }).click();
  await page.getByRole('option', { name: 'late', exact: true }).click();
  expect(await bench.document()).toBe(`${clips}signals:
  vx: { number: 0, unit: px/s }
  grounded: { flag: true }
  jump: { pulse: { keep: 120 } }
  swing: { pulse: { keep: 120 } }
derived:
  moving: { of: abs(vx), above: 14, below: 8 }
states:
  stand: { shows: stand }
  go: { priority: 10, while: grounded and moving, gaits: { by: abs(vx), shows: [walk, run], above: [60], margin: 10 }, rate: { travel: vx } }
  air: { shows: rise, priority: 20, while: not grounded }
  hop: { shows: crouch, priority: 30, when: jump and grounded }
  swing: { shows: swing, priority: 40, when: swing, hops: [{ to: hop, at: end, during: late, if: jump }], yields: [{ to: [go], during: late }] }
`);
  const passed = await rehearsed(`dotHopRehearsal: 1
document: keeper.dothop.yaml
lasts: 5000
body: { platformer: { leapAt: leap } }
script:
  - { at: 200, press: right, for: 700 }
  - { at: 600, press: jump, for: 60 }
  - { at: 2500, pulse: swing }
  - { at: 2900, pulse: jump }
expect:
  - { from: 0, to: 5000, passes: [stand, go, hop, air, stand, swing, hop, air, stand] }
`);
  expect(passed).toContain('the expectation is met');
}, 240_000);

/** The same with what is told by the game, and clips of blows and falls. */
const fighter = `${clips}  swing2: { cells: 44-49, fps: 12, loop: once, spans: { late: 3-5 } }
  hurt: { cells: 50-53, fps: 10, loop: once }
  fallen: { cells: 70-76, fps: 10, loop: once }
  skid: { cells: 66-68, fps: 12, loop: once }
signals:
  vx: { number: 0 }
  swing: { pulse: { keep: 200 } }
  blow: { pulse: true }
  alive: { flag: true }
  tired: { flag: false }
derived:
  speed: abs(vx)
  moving: { of: speed, above: 12, below: 8 }
`;

test('a chain of blows in a group, hurt, death, a bridge, a variant and a track are made by hand, and rehearsed', async () => {
  const { page } = bench;
  await bench.beginNew();
  await bench.bring(keeper(fighter));
  await bench.told(/keeper/);
  await bench.room('Rank');
  await bench.newState('stand', 'stand');
  await bench.newState('walk', 'go');
  await bench.addTerm('as long as', 'moving');
  // Who is tired walks where others run: the same rules, other drawings.
  await page.getByRole('button', { name: 'new variant' }).click();
  await bench.choose('while', 'tired');
  await bench.choose('instead of walk', 'run');
  // Out of a walk he brakes.
  await page.getByRole('row', { name: 'stand', exact: true }).click();
  await page.getByRole('button', { name: 'new bridge' }).click();
  await bench.choose('coming from', 'go');
  await bench.choose('first plays', 'skid');
  // Blows on the way: a group, in which a blow ranks above going.
  await page.getByRole('row', { name: 'go', exact: true }).click();
  await bench.choose('in the group', 'a new one');
  await page.getByRole('row', { name: 'group', exact: true }).click();
  await bench.put('name of the group', 'afoot');
  await page.getByRole('region', { name: 'the group afoot' }).waitFor();
  await bench.put('tags of all its states', 'busy');
  await bench.newState('swing', 'swing');
  await bench.addTerm('starts when', 'swing');
  await bench.newState('swing2', 'swing2');
  await page.getByRole('row', { name: 'swing', exact: true }).click();
  await page.getByRole('button', { name: 'new hop' }).click();
  await bench.choose('to', 'swing2');
  await bench.choose('its condition counts', 'during late, until then');
  await bench.addTerm('if', 'swing');
  await page.getByRole('row', { name: 'stand', exact: true }).click();
  await bench.newState('hurt', 'hurt');
  await bench.addTerm('starts when', 'blow');
  await bench.newState('fallen', 'fallen');
  await bench.addTerm('starts when', 'alive');
  await page.getByTestId('condition-starts when').getByRole('button', { name: 'alive', exact: true }).click();
  await page.getByRole('menuitem', { name: 'not alive' }).click();
  await page.getByRole('checkbox', { name: 'nothing cuts it off' }).click();
  // Arms of their own go along, and show that he falls too.
  await page.getByRole('button', { name: 'new track' }).click();
  await page.getByRole('region', { name: 'the track arms' }).waitFor();
  await page.getByRole('row', { name: 'fallen', exact: true }).click();
  await bench.choose('the track arms', 'shows this too');
  // It is called otherwise, also where a state takes it.
  await page.getByRole('row', { name: 'arms', exact: true }).click();
  await bench.put('name of the track', 'moving');
  await bench.told(/There is a signal moving already/);
  await bench.put('name of the track', 'upper');
  await page.getByRole('region', { name: 'the track upper' }).waitFor();
  expect(await bench.document()).toBe(`${fighter}states:
  stand: { shows: stand, bridges: { go: skid } }
  hurt: { shows: hurt, priority: 20, when: blow }
  fallen: { shows: fallen, priority: 30, when: not alive, final: true, takes: [upper] }
variants:
  tired: { walk: run }
groups:
  afoot:
    while: moving
    priority: 10
    rest: go
    states:
      go: { shows: walk }
      swing: { shows: swing, priority: 10, when: swing, hops: [{ to: swing2, at: end, during: late, if: swing }] }
      swing2: { shows: swing2, priority: 10 }
    tags: [busy]
tracks:
  upper:
    states:
      arms-along: { inStep: body }
`);
  await page.getByRole('row', { name: 'upper', exact: true }).click();
  await page.getByRole('button', { name: 'delete this track' }).click();
  await page.getByRole('row', { name: 'upper', exact: true }).waitFor({ state: 'detached' });
  expect(await bench.document()).not.toMatch(/takes|tracks/);
  await page.keyboard.press('Control+z');
  await bench.told(/^undone/);
  const passed = await rehearsed(`dotHopRehearsal: 1
document: keeper.dothop.yaml
lasts: 4000
script:
  - { at: 200, set: { vx: 40 } }
  - { at: 600, pulse: swing }
  - { at: 950, pulse: swing }
  - { at: 2100, pulse: blow }
  - { at: 2600, set: { vx: 0 } }
  - { at: 3200, set: { alive: false } }
expect:
  - { from: 0, to: 4000, passes: [stand, go, swing, swing2, go, hurt, go, stand, fallen] }
  - { at: 2650, clip: skid }
`);
  expect(passed).toContain('all 2 expectations met');
}, 240_000);

test('an instant at parts of a pass, what a turn shows, and what is kept of the clip by state, are said by hand', async () => {
  const { page } = bench;
  await bench.beginNew();
  const going = `${clips}compass: { directions: sides, mirror: { west: east }, by: [vx, 0] }
signals: { vx: { number: 0 } }
states:
  stand: { shows: stand }
  walk: { shows: walk, while: abs(vx) > 10 }
  run: { shows: run, while: abs(vx) > 60, priority: 10, carry: phase }
`;
  await bench.bring(keeper(going));
  await bench.told(/keeper/);
  await bench.room('Rank');
  await page.getByRole('row', { name: 'walk', exact: true }).click();
  await bench.choose('is left', 'at parts of a pass');
  const strip = page.getByRole('group', { name: 'where it may be in walk' });
  await strip.getByRole('button', { name: 'where frame 5 begins', pressed: true }).waitFor();
  await strip.getByRole('button', { name: 'where frame 1 begins' }).click();
  await strip.getByRole('button', { name: 'where frame 5 begins' }).click();
  await strip.getByRole('button', { name: 'where frame 7 begins' }).click();
  // The last one stays: without any it could never be left.
  await strip.getByRole('button', { name: 'where frame 7 begins' }).click();
  await strip.getByRole('button', { name: 'where frame 1 begins' }).click();
  await bench.choose('when it turns, first play', 'crouch');
  await bench.put('if it turns by at least', '170');
  await page.getByRole('row', { name: 'run', exact: true }).click();
  await page.getByRole('button', { name: 'coming from one state' }).click();
  const keeps = page.getByRole('group', { name: /^what run keeps/ });
  const [first, second] = [keeps.locator('.hop').nth(0), keeps.locator('.hop').nth(1)];
  await second.getByRole('button', { name: /its clip$/ }).click();
  await page.getByRole('option', { name: 'keeps the frame', exact: true }).click();
  await first.getByRole('button', { name: /its clip$/ }).click();
  await page.getByRole('option', { name: 'starts at its beginning', exact: true }).click();
  expect(await bench.document()).toBe(
    going
      .replace('10 }\n', '10, leaves: { phases: [0] }, turns: { shows: crouch, least: 170 } }\n')
      .replace('carry: phase', 'carry: { stand: none, walk: frame }'),
  );
}, 240_000);

test('a state is dragged up the ladder, ranked by keys, and undone; who wins is told', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Rank');
  const ladder = page.getByRole('grid', { name: /^states/ });
  const order = (): Promise<string[]> =>
    ladder.locator('[data-rung]').evaluateAll((all) => all.map((one) => (one as HTMLElement).dataset.rung!));
  await ladder.getByRole('row', { name: 'doze', exact: true }).waitFor();
  const before = await order();
  expect(before.slice(0, 3)).toEqual(['knocked', 'get-up', 'climb']);
  await ladder.getByRole('row', { name: 'doze', exact: true }).click();
  const wins = page.getByRole('region', { name: 'who wins' });
  await wins.getByText('cuts off').waitFor();
  expect(
    await wins
      .getByRole('paragraph')
      .filter({ hasText: /^cuts off/ })
      .innerText(),
  ).toMatch(/stand/);
  await wins.getByText('drowsy').first().waitFor();
  // The ladder follows right after what it says.
  const comesTo = (rung: number): Promise<unknown> =>
    page.waitForFunction(
      (wanted) =>
        [...document.querySelectorAll<HTMLElement>('[data-rung]')].findIndex(
          ({ dataset }) => dataset.rung === 'doze',
        ) === wanted,
      rung,
    );
  await page.keyboard.press('Alt+ArrowUp');
  await bench.told('rank doze 11');
  await comesTo(before.indexOf('doze') - 1);
  // By hand: it is let go above the one that leaps.
  const row = (name: string) => ladder.getByRole('row', { name, exact: true });
  await row('doze').dragTo(row('takeoff'), {
    sourcePosition: { x: 160, y: 12 },
    targetPosition: { x: 160, y: 3 },
  });
  await bench.told(/rank doze 3\d|rank doze 4\d/);
  await comesTo(before.indexOf('takeoff'));
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await comesTo(before.indexOf('doze'));
  // A hop is drawn from rung to rung, in one track only.
  const knob = async (to: string): Promise<void> => {
    const [from, onto] = [
      (await page.getByTestId('hop-knob').boundingBox())!,
      (await row(to).boundingBox())!,
    ];
    await page.mouse.move(from.x + 7, from.y + 7);
    await page.mouse.down();
    await page.mouse.move(from.x + 7, onto.y + onto.height / 2, { steps: 5 });
    await page.mouse.up();
  };
  await row('doze').click();
  await knob('swing1');
  await bench.told('A hop leads to another state of the same track');
  await knob('land');
  await bench.told('a hop from doze to land at its end');
  await page.getByRole('button', { name: 'delete the hop to land' }).waitFor();
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'delete the hop to land' }).waitFor({ state: 'detached' });
  expect(await order()).toEqual(before);
}, 240_000);

test('a condition is one thing seen two ways; what is misspelt is told under it', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.room('Rank');
  await page.getByRole('row', { name: 'go', exact: true }).click();
  const condition = page.getByTestId('condition-as long as');
  const typed = condition.getByRole('textbox');
  const says = async (text: string): Promise<unknown> =>
    page.waitForFunction(([field, wanted]) => (field as HTMLInputElement).value === wanted, [
      await typed.elementHandle(),
      text,
    ] as const);
  await says('footing and going and (along != 0 or not lately)');
  await condition.getByRole('button', { name: 'or; press for and' }).click();
  await says('footing and going and along != 0 and not lately');
  await condition.getByRole('button', { name: 'along != 0', exact: true }).click();
  await page.getByRole('menuitem', { name: 'delete it' }).click();
  await says('footing and going and not lately');
  await typed.fill('footing and goin');
  await typed.press('Enter');
  await page
    .getByRole('alert')
    .filter({ hasText: 'there is no signal "goin"; did you mean "going"?' })
    .waitFor();
  // The stage goes on with what could be performed last, and the mended text counts at once.
  await typed.fill('footing and going');
  await typed.press('Enter');
  await page.getByRole('alert').waitFor({ state: 'detached' });
  expect(await bench.document()).toMatch(/\n {4}while: footing and going\n/);
  // What is true on the stage is lit.
  await page.locator('.chip.lit', { hasText: 'footing' }).waitFor();
}, 240_000);
