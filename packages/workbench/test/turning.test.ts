import { clips, keeper } from './keeper.js';
import { WorkbenchPage } from './workbench-page.js';

const bench = new WorkbenchPage();

/** Moves the pointer from one place of an element to another, both as angle and length from its middle. */
async function drag(
  testId: string,
  [fromDegrees, fromLength]: readonly [number, number],
  [toDegrees, toLength]: readonly [number, number],
): Promise<void> {
  const { page } = bench;
  const box = (await page.getByTestId(testId).boundingBox())!;
  const at = (degrees: number, long: number): [number, number] => {
    const angle = (degrees * Math.PI) / 180;
    return [box.x + box.width / 2 + Math.cos(angle) * long, box.y + box.height / 2 + Math.sin(angle) * long];
  };
  await page.mouse.move(...at(fromDegrees, fromLength));
  await page.mouse.down();
  await page.mouse.move(...at(toDegrees, toLength), { steps: 5 });
  await page.mouse.up();
}

test('borders and diagonals are dragged on the dial; a camera goes round, and the dial turns with it', async () => {
  const { page } = bench;
  await bench.begin();
  await bench.menu('the townsfolk of the quay');
  await bench.room('Turn');
  const dial = page.getByTestId('dial');
  const rim = (await dial.boundingBox())!.width / 2 - 8;
  const says = (words: RegExp): Promise<void> =>
    page.getByTestId('dial-says').filter({ hasText: words }).waitFor();
  await says(/^south$/);
  // The border between east and southeast lies at 22.5 degrees.
  await drag('dial', [22.5, rim * 0.75], [29, rim * 0.75]);
  await bench.told('sticks by 6.5');
  await drag('dial', [22.5, rim * 0.93], [36, rim * 0.93]);
  await bench.told('diagonals: horizontal');
  await drag('dial', [33.75, rim * 0.93], [10, rim * 0.93]);
  await bench.told('diagonals: vertical');
  expect(await bench.document()).toMatch(/stick: 6\.5[\s\S]*diagonal: vertical/);
  await dial.dblclick({ position: { x: rim + 8 + rim * 0.93 * 0.9808, y: rim + 8 + rim * 0.93 * 0.195 } });
  await bench.told('diagonals: keep');
  await page.getByText('as a 3D camera sees it').click();
  // It goes to the right on the map; from below it is seen going to the right, from the left going away.
  await drag('orbit', [90, 88], [89, 88]);
  await says(/^east$/);
  await drag('orbit', [89, 88], [180, 88]);
  await says(/^north$/);
  await page.getByTestId('orbit').focus();
  for (let i = 0; i < 18; i++) await page.keyboard.press('ArrowDown');
  await says(/^south$/);
}, 240_000);

test('a row of cells is dropped on a direction, by hand and by keyboard', async () => {
  const { page } = bench;
  await bench.beginNew();
  await bench.bring(
    keeper(
      `${clips}compass: { directions: sides, by: [0, 0] }\nstates:\n  stand: { shows: stand }\n  go: { shows: walk, while: 'true' }\n`,
    ),
  );
  await bench.room('Turn');
  const page_ = (name: string, direction: string) => page.getByTestId(`page-${name}-${direction}`);
  const showsWest = (clip: string): Promise<void> =>
    page.getByRole('button', { name: `stand, west: ${clip}, drawn` }).waitFor();
  await showsWest('stand');
  await page.getByTestId('row-2').getByRole('button').scrollIntoViewIfNeeded();
  await page.getByTestId('row-2').dragTo(page_('stand', 'west'));
  await bench.told('stand to the west');
  await showsWest('stand-west');
  const text = await bench.document();
  expect(text).toContain('  stand-east: { cells: 0-7, fps: 8 }\n');
  expect(text).toContain('  stand-west: { cells: 16-23, fps: 8 }\n');
  expect(text).toContain('flipbooks:\n  stand: { east: stand-east, west: stand-west }\n');
  await page.keyboard.press('Control+z');
  await showsWest('stand');
  // The same without a pointer.
  await page.getByRole('button', { name: 'move row 3,' }).focus();
  await page.keyboard.press('Enter');
  for (let i = 0; i < 8; i++) {
    const place = await page.evaluate(() => document.activeElement?.getAttribute('data-testid'));
    if (place === 'page-walk-east') break;
    await page.keyboard.press('Tab');
  }
  await page.keyboard.press('Enter');
  await bench.told('walk to the east');
  expect(await bench.document()).toContain('  walk-east-2: { cells: 24-31, fps: 11, stride: 23 }\n');
}, 240_000);
