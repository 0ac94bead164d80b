import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import type { Sharp } from 'sharp';
import { WorkbenchPage } from './workbench-page.js';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const bench = new WorkbenchPage();
let folder: string;

beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

/** One of Wick's drawings. */
const drawing = (cell: number): Sharp =>
  sharp(path.join(root, 'demo/wick.png')).extract({
    left: (cell % 8) * 64,
    top: Math.floor(cell / 8) * 56,
    width: 64,
    height: 56,
  });

test('from a folder of images to a timed clip that stands on its feet, without a word typed into the text', async () => {
  const gull = path.join(folder, 'keeper');
  mkdirSync(path.join(gull, 'walk'), { recursive: true });
  mkdirSync(path.join(gull, 'stand'));
  for (let i = 0; i < 4; i++) await drawing(8 + i).toFile(path.join(gull, 'walk', `${i + 1}.png`));
  for (let i = 0; i < 2; i++) await drawing(i).toFile(path.join(gull, 'stand', `${i + 1}.png`));
  await bench.beginNew();
  await bench.bring(gull);
  await bench.told('6 images, in 2 clips: stand, walk.');
  await bench.page.getByTestId('stand').click();
  await bench.page.getByRole('menuitem', { name: /one foot line for all/ }).click();
  await bench.told('6 drawings stand on one foot line.');
  await bench.room('Time');
  await bench.clip('walk');
  await bench.put('frames a second', '8');
  await bench.frame(2).click();
  await bench.page.getByRole('textbox', { name: 'name of a new cue or span' }).fill('step');
  await bench.page.getByRole('button', { name: 'cue on the selected frame' }).click();
  await bench.put('frame 2', '180');
  await bench.put('step is reported as one of', 'plank creak');
  expect(await bench.document()).toBe(`dotHop: 1
name: character
sheets:
  keeper:
    images:
      - keeper/stand/1.png
      - keeper/stand/2.png
      - keeper/walk/1.png
      - keeper/walk/2.png
      - keeper/walk/3.png
      - keeper/walk/4.png
    pivot: [34, 54]
clips:
  stand: { cells: 0-1, fps: 10 }
  walk: { cells: 2-5, cues: { step: 1 }, ms: [125, 180, 125, 125] }
cues:
  step: { any: [plank, creak] }
`);
});

test('a sheet without a grid, on a colour: its drawings are found, joined, and stand each on its own feet', async () => {
  const spaced = sharp({ create: { width: 307, height: 151, channels: 3, background: '#305070' } });
  const at = [
    [7, 5, 0],
    [101, 11, 8],
    [172, 3, 9],
    [20, 80, 16],
  ] as const;
  const file = path.join(folder, 'spaced.png');
  const pieces = await Promise.all(
    at.map(async ([left, top, cell]) => ({ input: await drawing(cell).png().toBuffer(), left, top })),
  );
  await spaced.composite(pieces).png().toFile(file);
  await bench.beginNew();
  await bench.bring([file]);
  await bench.told('4 drawings found by the gaps between them. #305070, the colour in its corners, is taken');
  await bench.page.getByTestId('sheet').focus();
  await bench.page.keyboard.press('ArrowRight');
  await bench.page.keyboard.press('Shift+ArrowRight');
  expect(await bench.text('cells-selected')).toBe('2 cells of 4');
  await bench.page.getByRole('button', { name: 'join into one cell' }).click();
  await bench.told('join 2 cells of spaced');
  expect(await bench.text('cells-selected')).toBe('cell 0 of 3');
  const text = await bench.document();
  expect(text).toContain('  row0: { cells: 0-1, fps: 10 }\n  row1: { cells: 2 }\n');
  // Undone, all is as it was found.
  await bench.page.keyboard.press('Control+z');
  await bench.told('undone: join 2 cells of spaced');
  expect(await bench.document()).toContain('  row0: { cells: 0-2, fps: 10 }\n  row1: { cells: 3 }\n');
  // The same by keys, and split again where the least is drawn: in the gap between the two.
  const { keyboard } = bench.page;
  await bench.page.getByTestId('sheet').focus();
  await keyboard.press('Escape');
  await keyboard.press('ArrowRight');
  await keyboard.press('Shift+ArrowRight');
  await keyboard.press('j');
  await bench.told('join 2 cells of spaced');
  await keyboard.press('s');
  const line = bench.page.getByRole('slider', { name: 'where cell 0 is split' });
  const place = Number(await line.getAttribute('aria-valuenow'));
  await keyboard.press('ArrowRight');
  expect(Number(await line.getAttribute('aria-valuenow'))).toBe(place + 1);
  await keyboard.press('Enter');
  await bench.told('split cell 0 of spaced');
  expect(await bench.text('cells-selected')).toBe('2 cells of 4');
  // Where one was is gone back to, so that the next key is for the sheet again.
  await keyboard.press('c');
  await bench.told('Clip clip is made of 2 cells.');
  const [, cells] = /cells: (\[\[.*\]\])/.exec(await bench.document())!;
  const [first, second] = JSON.parse(cells!) as number[][];
  expect(first![0]! + first![2]!).toBe(second![0]);
  // The left drawing ends before the line, and the right one begins behind it.
  expect(second![0]!).toBeGreaterThan(7 + 20);
  expect(second![0]!).toBeLessThan(101 + 20);
});

test('several sheets at once are a sheet each, and a row of drawings a clip that is called like its file', async () => {
  const rows = { prowl: [8, 9, 10, 11], dart: [16, 17, 18, 19, 20] };
  for (const [name, cells] of Object.entries(rows)) {
    const sheet = sharp({
      create: { width: cells.length * 64, height: 56, channels: 4, background: '#00000000' },
    });
    const pieces = await Promise.all(
      cells.map(async (cell, i) => ({
        input: await drawing(cell).png().toBuffer(),
        left: i * 64,
        top: 0,
      })),
    );
    await sheet
      .composite(pieces)
      .png()
      .toFile(path.join(folder, `${name}.png`));
  }
  await bench.beginNew();
  await bench.bring(Object.keys(rows).map((name) => path.join(folder, `${name}.png`)));
  await bench.told(/^dart: .*prowl: /);
  const text = await bench.document();
  expect(text).toMatch(/sheets:\n {2}dart:\n {4}image: dart.png\n[^]* {2}prowl:\n {4}image: prowl.png\n/);
  expect(text).toContain('  dart: { cells: 0-4, fps: 10 }\n  prowl: { sheet: prowl, cells: 0-3, fps: 10 }\n');
});

test('a moving GIF brings its own times, and a table its names', async () => {
  const gif = path.join(folder, 'takeoff.gif');
  const command = ['packages/cli/bin/dot-hop.js', 'preview', 'demo/wick.dothop.yaml', 'takeoff', '-o', gif];
  execFileSync('node', [...command, '--scale', '1', '--background', 'none'], { cwd: root });
  await bench.beginNew();
  await bench.bring([gif]);
  await bench.told('4 pictures that move have become the sheet takeoff-sheet.png');
  expect(await bench.document()).toContain('  takeoff: { cells: 0-3, ms: [40, 40, 40, 50], loop: once }\n');

  const table = path.join(folder, 'cells.csv');
  writeFileSync(table, 'id,left,top,w,h\nhop_2,64,0,64,56\nhop_1,0,0,64,56\nsit,0,56,64,56\n');
  await bench.menu('New, with nothing');
  await bench.bring([path.join(root, 'demo/wick.png')]);
  await bench.told('Cut in cells of 64 x 56, which fit.');
  await bench.page.getByRole('tab', { name: 'table' }).click();
  const chooser = bench.page.waitForEvent('filechooser');
  await bench.page.getByRole('button', { name: /Choose a table/ }).click();
  await (await chooser).setFiles(table);
  await bench.page.getByRole('button', { name: 'Apply' }).click();
  await bench.told('cut wick by a table');
  const text = await bench.document();
  expect(text).toContain('    cells: [[64, 0, 64, 56], [0, 0, 64, 56], [0, 56, 64, 56]]\n');
  expect(text).toContain('  hop: { cells: 1-0, fps: 10 }\n  sit: { cells: 2 }\n');
});

test('forty mixed edits undone give the first text, letter by letter', async () => {
  await bench.begin();
  const before = await bench.document();
  await bench.room('Time');
  const { keyboard } = bench.page;
  const edits = async (clip: string): Promise<void> => {
    await bench.clip(clip);
    await bench.frame(2).click();
    await keyboard.press('d');
    await bench.told('duplicate frame 2');
    await keyboard.press('ArrowRight');
    await keyboard.press('Alt+ArrowLeft');
    await keyboard.press('Alt+ArrowLeft');
    await bench.told('move frame 2');
    await bench.put('frame 1', '77');
    await bench.told('time frame 1');
    await bench.frame(2).click();
    await keyboard.press('Delete');
    await bench.told('delete frame 2');
    await bench.put('stride', '31');
    await bench.told(`stride of ${clip}`);
    await bench.put('frames a second', '7');
    await bench.told(`time ${clip}`);
    await bench.page.getByRole('button', { name: 'duplicate this clip' }).click();
    await bench.told(`duplicate clip ${clip}`);
    await bench.put('name', `${clip} again`);
    await bench.told(`rename clip ${clip}-copy`);
  };
  for (const clip of ['walk', 'run', 'doze', 'stand', 'skid']) await edits(clip);
  expect(await bench.document()).not.toBe(before);
  let undone = 0;
  const undo = bench.page.getByRole('button', { name: /^(?:Undo:|nothing to undo)/ });
  while (await undo.isEnabled()) {
    await undo.click();
    await bench.told('undone:');
    undone++;
  }
  expect(undone).toBe(40);
  expect(await bench.document()).toBe(before);
});
