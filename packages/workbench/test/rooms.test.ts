import { readFileSync } from 'node:fs';
import { violations } from './violations.js';
import { WorkbenchPage, fileOf } from './workbench-page.js';

const bench = new WorkbenchPage();

test('who comes first is shown round, by keys, and is not asked again; what is pointed at is there', async () => {
  const { page } = bench;
  await bench.begin();
  await page.getByRole('button', { name: 'Show me round' }).click();
  const rooms: string[] = [];
  for (let step = 1; step <= 9; step++) {
    await page.getByText(`${step} of 9`).waitFor();
    rooms.push((await page.locator('.room').getAttribute('data-testid'))!);
    // The ring lies around something.
    await page.waitForFunction(() => {
      const ring = document.querySelector('[data-testid=ring]')!.getBoundingClientRect();
      return ring.width > 40 && ring.height > 20;
    });
    expect(await violations(bench.page)).toEqual([]);
    // The button that leads on has the focus.
    if (step < 9) await page.keyboard.press('Enter');
  }
  expect([...new Set(rooms)].map((room) => room.replace('room-', ''))).toEqual([
    ...['cut', 'time', 'turn', 'signals', 'rank', 'try', 'check', 'ship'],
  ]);
  await page.keyboard.press('Escape');
  await page.locator('.tour').waitFor({ state: 'detached' });
  await page.reload();
  await page.getByTestId('notice').waitFor();
  expect(await page.getByRole('button', { name: 'Show me round' }).count()).toBe(0);
}, 240_000);

test('by keys alone: rooms, cells, the feet, a point, frames, a cue, a span', async () => {
  await bench.begin();
  const { keyboard, page } = { keyboard: bench.page.keyboard, page: bench.page };
  await page.getByTestId('sheet').focus();
  await keyboard.press('ArrowRight');
  await keyboard.press('ArrowDown');
  expect(await bench.text('cells-selected')).toBe('cell 8 of 104');
  await page.getByTestId('close-up').focus();
  await keyboard.press('ArrowLeft');
  await keyboard.press('ArrowDown');
  await bench.told('place the feet of cell 8');
  await page.getByRole('option', { name: 'waist point' }).focus();
  await keyboard.press('Enter');
  await page.getByTestId('close-up').focus();
  await keyboard.press('ArrowUp');
  await bench.told('place waist on cell 8');
  expect(await bench.document()).toContain('      8: { pivot: [31, 54], points: { waist: [32, 39] } }\n');
  await keyboard.press('Alt+2');
  await page.getByTestId('room-time').waitFor();
  await bench.clip('land');
  await page.getByTestId('cue-thud-0').focus();
  await keyboard.press('ArrowRight');
  await bench.told('place cue thud');
  await page.getByTestId('span-recovery').focus();
  await keyboard.press('ArrowLeft');
  await bench.told('place span recovery');
  await bench.frame(2).focus();
  await keyboard.press('ArrowRight');
  await keyboard.press('+');
  await bench.told('time frame 3');
  expect(await bench.document()).toContain(
    '  land:       { cells: 35-37, ms: [70, 70, 90], loop: once, cues: { thud: 1 }, spans: { recovery: 0-2 } }\n',
  );
});

test('by pointer: the feet are clicked, a box is drawn, a border dragged, a cell dropped into the strip', async () => {
  await bench.begin();
  const { page } = bench;
  const sheet = (await page.locator('.sheet-view').boundingBox())!;
  // The first cell lies at the upper left of the sheet, which is in the middle.
  await page.mouse.click(sheet.x + sheet.width / 2 - 200, sheet.y + 36);
  expect(await bench.text('cells-selected')).toBe('cell 0 of 104');
  const close = (await page.getByTestId('close-up').boundingBox())!;
  const scale = close.width / 72;
  const at = (x: number, y: number): [number, number] => [
    close.x + (x + 4) * scale,
    close.y + (y + 4) * scale,
  ];
  await page.mouse.click(...at(35, 50));
  await bench.told('place the feet of cell 0');
  await page.getByRole('textbox', { name: 'name of a new box or point' }).fill('reach');
  await page.getByRole('button', { name: 'new box' }).click();
  await page.mouse.move(...at(10.5, 12.5));
  await page.mouse.down();
  await page.mouse.move(...at(20.5, 30.5), { steps: 4 });
  await page.mouse.up();
  await bench.told('place reach on cell 0');
  expect(await bench.document()).toContain(
    '      0: { pivot: [35, 50], boxes: { reach: [10, 12, 11, 19] } }\n',
  );
  const drag = async (from: [number, number], to: [number, number]): Promise<void> => {
    await page.mouse.move(...at(...from));
    await page.mouse.down();
    await page.mouse.move(...at(...to), { steps: 4 });
    await page.mouse.up();
  };
  // A corner is dragged, an edge, and what lies between them moves the whole box.
  await drag([21, 31], [25, 33]);
  await drag([10, 20], [8, 40]);
  await drag([15, 20], [16, 19]);
  expect(await bench.document()).toContain('boxes: { reach: [9, 11, 17, 21] } }\n');
  await bench.room('Time');
  await bench.clip('rise');
  const border = (await page.getByTestId('border-0').boundingBox())!;
  await page.mouse.move(border.x + 4, border.y + 40);
  await page.mouse.down();
  await page.mouse.move(border.x + 64, border.y + 40, { steps: 5 });
  await page.mouse.up();
  await bench.told('time frame 1 of rise');
  const text = await bench.document();
  const [, first] = /rise: +\{ cells: 28-29, ms: \[(\d+), 111\] \}/.exec(text)!;
  expect(Number(first)).toBeGreaterThan(115);
  const cell = (await page.getByRole('option', { name: 'cell 30', exact: true }).boundingBox())!;
  const second = (await bench.frame(2).boundingBox())!;
  await page.mouse.move(cell.x + 10, cell.y + 10);
  await page.mouse.down();
  await page.mouse.move(cell.x + 20, cell.y, { steps: 3 });
  await page.mouse.move(second.x + 20, second.y + 40, { steps: 8 });
  await page.mouse.up();
  await bench.told('add a frame to rise');
  expect(/ rise: .*/.exec(await bench.document())![0]).toContain('cells: [28, 30-29], ms: [');
});

test('text and rooms: one history, the same problems, what is selected in one is selected in the other', async () => {
  await bench.begin();
  const { page } = bench;
  await bench.room('Time');
  await page.keyboard.press('Alt+t');
  const text = page.locator('.cm-content');
  await text.waitFor();
  await bench.clip('doze');
  await page.locator('.cm-line', { hasText: 'doze:       { cells: 54-59, fps: 4 }' }).click();
  await page.keyboard.press('End');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  // The line is selected in the room, too, when the cursor goes there.
  await page.keyboard.type(', lop: once');
  await page.locator('.found li.trouble', { hasText: 'did you mean "loop"' }).waitFor();
  await page.locator('.cm-lintRange-error').first().waitFor();
  // The stage goes on with the last version that could be performed.
  expect(await bench.text('stage-says')).toBe('doze');
  await page.keyboard.press('Control+z');
  await bench.told('undone: typing');
  await page.locator('.found h2', { hasText: 'Nothing wrong' }).waitFor();
  // An edit by hand comes after it in the same history.
  await bench.put('frames a second', '6');
  await page.locator('.cm-line', { hasText: 'fps: 6' }).waitFor();
  await page.locator('.cm-line', { hasText: /^ {2}land:/ }).click();
  await page.getByRole('listbox', { name: 'frames of land', exact: true }).waitFor();
  // Fields are proposed with what they are for.
  await page.keyboard.press('Home');
  await page.locator('.cm-line', { hasText: /^ {2}land:/ }).click({ position: { x: 130, y: 8 } });
  await page.keyboard.type('fp');
  await page.locator('.cm-tooltip-autocomplete', { hasText: 'fps' }).waitFor();
  // So are names where they fit: of the other states, for what is carried from them.
  await page.keyboard.type(': 6, ');
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Enter');
  await page.keyboard.type('states: { dive: { carry: { swi');
  await page.locator('.cm-tooltip-autocomplete', { hasText: 'swing1' }).waitFor();
});

test('the stage plays the selected clip, and the whole character by keys, in the same state after an edit', async () => {
  await bench.begin();
  const { page } = bench;
  await bench.room('Time');
  await bench.clip('run');
  await page.getByTestId('stage-says').filter({ hasText: 'run' }).waitFor();
  await page.getByText('whole character').click();
  await page.getByTestId('stage').click();
  await page.keyboard.down('ArrowRight');
  await page.getByTestId('stage-says').filter({ hasText: 'go' }).waitFor();
  await page.keyboard.up('ArrowRight');
  // Lying on his back takes nine seconds at a quarter of the pace, and goes on through an edit.
  await page.getByRole('radio', { name: '¼' }).click();
  await page.getByRole('button', { name: 'blow' }).click();
  await page.getByTestId('stage-says').filter({ hasText: 'knocked' }).waitFor();
  await bench.put('frames a second', '20');
  await bench.told('time run');
  expect(await bench.text('stage-says')).toContain('knocked');
});

test('one state plays by itself, over and over, and turns by the arrows', async () => {
  await bench.begin();
  const { page } = bench;
  const pick = async (button: RegExp, entry: string): Promise<void> => {
    await page.getByRole('button', { name: button }).click();
    await page.getByRole('menuitem', { name: entry }).click();
  };
  await pick(/one state or flipbook/, 'takeoff state');
  await page.getByTestId('stage-says').filter({ hasText: 'takeoff' }).waitFor();
  // It has ended after 170 ms, waits, and begins again: the picture of its end comes more than once.
  const seen = await page.evaluate(
    () =>
      new Promise<number>((done) => {
        const stage = document.querySelector<HTMLCanvasElement>('[data-testid=stage]')!;
        const pictures: string[] = [];
        requestAnimationFrame(function look() {
          const now = stage.toDataURL();
          if (now !== pictures[pictures.length - 1]) pictures.push(now);
          if (pictures.length > new Set(pictures).size + 2) done(new Set(pictures).size);
          else requestAnimationFrame(look);
        });
      }),
  );
  expect(seen).toBeGreaterThan(1);
  await pick(/state takeoff plays/, 'doze state');
  await page.getByTestId('stage-says').filter({ hasText: 'doze' }).waitFor();
  /** Where the flame of his lamp is, which he holds before him: how far to the right of the middle. */
  const flame = (): Promise<number> =>
    page.evaluate(() => {
      const stage = document.querySelector<HTMLCanvasElement>('[data-testid=stage]')!;
      const { data } = stage.getContext('2d')!.getImageData(0, 0, stage.width, stage.height);
      const bright = Array.from({ length: data.length / 4 }, (_, i) => i).filter(
        (i) => data[i * 4]! > 245 && data[i * 4 + 1]! > 225 && data[i * 4 + 2]! > 160,
      );
      return bright.reduce((sum, i) => sum + (i % stage.width), 0) / bright.length - stage.width / 2;
    });
  expect(await flame()).toBeGreaterThan(3);
  await page.getByTestId('stage').click();
  await page.keyboard.down('ArrowLeft');
  while ((await flame()) > -3) await page.waitForTimeout(50);
  // He turns, and never leaves the state, whatever the keys say.
  await page.waitForTimeout(300);
  await page.keyboard.up('ArrowLeft');
  expect(await flame()).toBeLessThan(-3);
  expect(await bench.text('stage-says')).toContain('doze');
});

test('what is wrong with files is told where one works, and nothing is lost', async () => {
  await bench.begin();
  const before = await bench.document();
  await bench.bring([fileOf('broken.png', 'this is no picture')]);
  await bench.told('broken.png is not a picture that can be read. Save it again as PNG and drop it again.');
  await bench.bring([fileOf('notes.txt', 'no picture at all')]);
  await bench.told('There is no picture among that.');
  expect(await bench.document()).toBe(before);
  // A document with thirty problems opens all the same, and says them.
  const clips = Array.from({ length: 30 }, (_, i) => `  c${i}: { cells: ${900 + i}, fps: 9 }\n`).join('');
  const text = `dotHop: 1\nname: wreck\nsheets:\n  w: { image: w.png, size: [64, 56], grid: { cell: [64, 56] } }\nclips:\n${clips}`;
  await bench.bring([fileOf('wreck.dothop.yaml', text)]);
  await bench.page.locator('.found h2', { hasText: '30 problems' }).waitFor();
  expect(await bench.document()).toBe(text);
});

const demo = (file: string): Buffer => readFileSync(new URL(`../../../demo/${file}`, import.meta.url));

test('a document with a fault is worked on in every room, and the fault leads to its line', async () => {
  const text = demo('townsfolk/marlis.dothop.yaml').toString();
  await bench.begin();
  await bench.bring([
    fileOf('marlis.dothop.yaml', text.replace('fps:', 'fsp:')),
    fileOf('marlis.png', demo('townsfolk/marlis.png')),
  ]);
  await bench.page.locator('.found h2', { hasText: '1 problem' }).waitFor();
  expect(await bench.text('cells-selected')).toMatch(/^\d\d cells$/);
  await bench.page.locator('.found li.trouble button').click();
  await bench.page.getByTestId('room-time').waitFor();
  // The line is in sight and selected, and mended there.
  await bench.page.locator('.cm-activeLine', { hasText: 'fsp:' }).waitFor();
  await bench.frame(4).waitFor();
  await bench.page.keyboard.type(/.*fps:.*/.exec(text)![0]);
  await bench.page.locator('.found h2', { hasText: 'Nothing wrong' }).waitFor();
  await bench.page.getByTestId('stage-says').filter({ hasText: 'walk' }).waitFor();
});

test('what cannot be read at all is told and kept; an image that is not there is asked for', async () => {
  await bench.begin();
  await bench.bring([fileOf('torn.dothop.yaml', 'dotHop: 1\nsheets: { a: [\n')]);
  await bench.page.getByText('The text of this document cannot be read').waitFor();
  expect(await bench.document()).toBe('dotHop: 1\nsheets: { a: [\n');
  await bench.bring([fileOf('marlis.dothop.yaml', demo('townsfolk/marlis.dothop.yaml'))]);
  await bench.page
    .locator('.sheet-view', { hasText: 'marlis.png is not among the files. Drop it here.' })
    .waitFor();
  await bench.page.locator('.found h2', { hasText: '1 problem' }).waitFor();
  await bench.bring([fileOf('marlis.png', demo('townsfolk/marlis.png'))]);
  await bench.page.locator('.found h2', { hasText: 'Nothing wrong' }).waitFor();
});

test('of two pages on one character each keeps its own', async () => {
  await bench.begin();
  await bench.room('Time');
  await bench.clip('doze');
  await bench.put('frames a second', '3');
  await bench.kept();
  const popup = bench.page.waitForEvent('popup');
  await bench.page.evaluate(() => void window.open(location.href));
  const other = await popup;
  await other
    .getByTestId('notice')
    .filter({ hasText: 'wick.dothop.yaml is open on another page too.' })
    .waitFor();
  await other.getByRole('row', { name: 'doze', exact: true }).click();
  await other.getByRole('textbox', { name: 'frames a second' }).fill('9');
  await other.keyboard.press('Enter');
  await other
    .getByTestId('saved')
    .filter({ hasText: /^saved$/ })
    .waitFor();
  await other.close();
  expect(await bench.document()).toContain('cells: 54-59, fps: 3');
  await bench.page.getByRole('button', { name: 'Character', exact: true }).click();
  expect(await bench.page.getByRole('menuitem', { name: /^wick\.dothop\.yaml, saved/ }).count()).toBe(2);
});

test('what is kept in the browser is there again, and a browser that keeps nothing is told', async () => {
  await bench.begin();
  await bench.room('Time');
  await bench.clip('doze');
  await bench.put('frames a second', '3');
  await bench.kept();
  await bench.page.reload();
  await bench.page.getByTestId('room-time').waitFor();
  expect(await bench.document()).toContain('  doze:       { cells: 54-59, fps: 3 }\n');
  await bench.page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('the storage is full', 'QuotaExceededError');
    };
  });
  await bench.clip('doze');
  await bench.put('frames a second', '5');
  await bench.told(
    'The browser does not keep it (the storage is full). Save it as a zip, so that nothing is lost.',
  );
  expect(await bench.text('saved')).toBe('not saved');
});
