// npm run bench:workbench: what the workbench feels like, measured in a real browser on its built page. An edit to the next
// picture at 40 states and 400 cells; opening Wick from a cold start; panning a sheet of 4096 x 4096 with 1,024 cells; how
// much code comes before the first picture. `--json` prints the figures as data.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { chromium } from 'playwright-core';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { flags, needChromium, newPage } from '../scripts/chromium.js';
import { buildPages, servePages } from '../scripts/pages.js';
import { build, root } from '../scripts/run.js';
import { median } from './median.js';

declare global {
  interface Window {
    /** What is measured: one deed on the page. */
    act: () => void;
  }
}

const json = process.argv.includes('--json');
build();
await buildPages(['workbench']);
const { workbench } = await servePages(['workbench']);
// The page draws without WebGL. The other pages' tests have a graphics card emulated for theirs; that takes 38 ms a picture, which
// neither a machine with a card takes nor one without, where the browser draws by itself.
const browser = await chromium.launch({
  executablePath: needChromium(),
  args: [...flags.filter((flag) => !flag.includes('swiftshader')), '--disable-gpu'],
  chromiumSandbox: false,
});

/** A character of 40 states and 400 cells, with the text of it. */
function large(): string {
  const clips = Array.from(
    { length: 40 },
    (_, i) => `  c${i}: { cells: ${i * 10}-${i * 10 + 9}, fps: 10 }\n`,
  ).join('');
  const states = Array.from(
    { length: 39 },
    (_, i) =>
      `  s${i + 1}: { shows: c${i + 1}, while: vx > ${i * 10 + 1} && mode == 'm${i % 5}', priority: ${i} }\n`,
  ).join('');
  return `dotHop: 1
name: large
sheets:
  sheet: { image: sheet.png, grid: { cell: [32, 32] }, pivot: [16, 31] }
clips:
${clips}signals:
  vx: { number: 0 }
  mode: { choice: [m0, m1, m2, m3, m4] }
states:
  s0: { shows: c0 }
${states}rest: s0
`;
}

/** A sheet of equal cells, each with something drawn in it. */
async function sheet(width: number, height: number, cell: number): Promise<Buffer> {
  const pixels = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [inX, inY] = [x % cell, y % cell];
      if (inX < cell / 4 || inX > (cell * 3) / 4 || inY < cell / 8 || inY > cell - 2) continue;
      const at = (y * width + x) * 4;
      pixels.set([(x * 7) & 255, (y * 5) & 255, 90, 255], at);
    }
  return sharp(pixels, { raw: { width, height, channels: 4 } })
    .png({ compressionLevel: 3 })
    .toBuffer();
}

/** A file to open. */
interface Given {
  readonly name: string;
  readonly mimeType: string;
  readonly buffer: Buffer;
}

async function openFiles(page: Page, files: Given[]): Promise<void> {
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Character', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Open files …' }).click();
  await (await chooser).setFiles(files);
}

/** From a cold start, a new browser's profile each time, until Wick's sheet is drawn. */
async function opening(): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < 5; i++) {
    const page = await newPage(browser);
    const before = performance.now();
    await page.goto(workbench.address);
    await page.waitForFunction(() => {
      const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=sheet]');
      const context = canvas?.getContext('2d');
      if (!canvas || !context) return false;
      return context.getImageData(canvas.width >> 1, canvas.height >> 1, 1, 1).data[3] === 255;
    });
    times.push(performance.now() - before);
    await page.close();
  }
  return median(times);
}

/**
 * The time from something that is done to the end of the next picture, at 40 states and 400 cells: the median of 25.
 *
 * @param ready goes to where it is done
 * @param act does it once, in the page: it may use nothing else of this file
 */
async function untilDrawn(ready: (page: Page) => Promise<void>, act: () => void): Promise<number> {
  const page = await newPage(browser);
  await page.goto(workbench.address);
  await page.waitForSelector('[data-testid=sheet]');
  await openFiles(page, [
    { name: 'large.dothop.yaml', mimeType: 'text/yaml', buffer: Buffer.from(large()) },
    { name: 'sheet.png', mimeType: 'image/png', buffer: await sheet(640, 640, 32) },
  ]);
  await page.getByRole('heading', { name: 'large' }).waitFor();
  await ready(page);
  await page.waitForTimeout(1500);
  await page.evaluate(`window.act = ${String(act)}`);
  const times: number[] = [];
  for (let i = 0; i < 25; i++) {
    times.push(
      await page.evaluate(
        () =>
          new Promise<number>((done) => {
            const { act: run } = window;
            const before = performance.now();
            run();
            // What is posted while a picture is made comes when it was handed over.
            const { port1, port2 } = new MessageChannel();
            port2.onmessage = () => done(performance.now() - before);
            requestAnimationFrame(() => port1.postMessage(0));
          }),
      ),
    );
    await page.waitForTimeout(400);
  }
  await page.close();
  return median(times);
}

/** A frame of a clip lasts longer, by a key. */
const editing = (): Promise<number> =>
  untilDrawn(
    async (page) => {
      await page.keyboard.press('Alt+2');
      await page.getByRole('row', { name: 'c1', exact: true }).click();
      await page.getByRole('option', { name: /^frame 2,/ }).click();
    },
    () => {
      const [, second] = document.querySelectorAll('.frame');
      second!.dispatchEvent(new KeyboardEvent('keydown', { key: '+', bubbles: true }));
    },
  );

/** A condition joins its terms by the other word. */
const ranking = (): Promise<number> =>
  untilDrawn(
    async (page) => {
      await page.keyboard.press('Alt+5');
      await page.getByRole('row', { name: 's20', exact: true }).click();
      await page.locator('.condition .word').waitFor();
    },
    () => document.querySelector<HTMLElement>('.condition .word')!.click(),
  );

/**
 * Pictures a second while a large sheet is panned, against those of a page that does nothing but paint a picture of that size
 * anew: what this machine and browser can do at all.
 */
async function panning(): Promise<{ readonly still: number; readonly moving: number }> {
  const page = await newPage(browser);
  await page.goto(workbench.address);
  await page.waitForSelector('[data-testid=sheet]');
  const text = `dotHop: 1\nname: vast\nsheets:\n  vast: { image: vast.png, grid: { cell: [128, 128] } }\nclips:\n  all: { cells: 0-1023, fps: 10 }\n`;
  await openFiles(page, [
    { name: 'vast.dothop.yaml', mimeType: 'text/yaml', buffer: Buffer.from(text) },
    { name: 'vast.png', mimeType: 'image/png', buffer: await sheet(4096, 4096, 128) },
  ]);
  await page.getByRole('heading', { name: 'vast' }).first().waitFor();
  await page.waitForTimeout(3000);
  for (let i = 0; i < 6; i++) await page.getByTestId('sheet').press('+');
  const rate = (): Promise<number> =>
    page.evaluate(
      () =>
        new Promise<number>((done) => {
          const canvas = document.querySelector('[data-testid=sheet]')!;
          const send = (kind: string, x: number): boolean =>
            canvas.dispatchEvent(
              new PointerEvent(kind, { bubbles: true, pointerId: 1, clientX: x, clientY: 300, altKey: true }),
            );
          canvas.setPointerCapture = () => undefined;
          send('pointerdown', 600);
          const begun = performance.now();
          let count = 0;
          requestAnimationFrame(function tick() {
            count++;
            send('pointermove', 600 + (count % 200));
            if (performance.now() - begun < 3000) requestAnimationFrame(tick);
            else {
              send('pointerup', 600);
              done((count * 1000) / (performance.now() - begun));
            }
          });
        }),
    );
  const moving = await rate();
  const { width, height } = (await page.getByTestId('sheet').boundingBox())!;
  await page.close();
  const plain = await newPage(browser);
  const still = await plain.evaluate(
    ([wide, high]) =>
      new Promise<number>((done) => {
        const canvas = document.body.appendChild(document.createElement('canvas'));
        [canvas.width, canvas.height] = [wide, high];
        const picture = new OffscreenCanvas(wide + 200, high);
        const ink = picture.getContext('2d')!;
        for (let i = 0; i < 400; i++) {
          ink.fillStyle = `hsl(${i} 60% 50%)`;
          ink.fillRect((i * 37) % wide, (i * 53) % high, 60, 60);
        }
        const context = canvas.getContext('2d')!;
        const begun = performance.now();
        let count = 0;
        requestAnimationFrame(function tick() {
          count++;
          context.drawImage(picture, -(count % 200), 0);
          if (performance.now() - begun < 3000) requestAnimationFrame(tick);
          else done((count * 1000) / (performance.now() - begun));
        });
      }),
    [Math.round(width), Math.round(height)] as const,
  );
  await plain.close();
  return { still, moving };
}

/** The scripts that come before the first picture, gzipped, in kB; the worker that checks begins beside it. */
async function size(): Promise<number> {
  const page = await newPage(browser);
  const names = new Set<string>();
  page.on('response', (response) => {
    if (/\.(?:js|css)$/.test(response.url())) names.add(path.basename(response.url()));
  });
  await page.goto(workbench.address);
  await page.waitForSelector('[data-testid=sheet]');
  await page.close();
  const assets = path.join(root, 'packages/workbench/dist/assets');
  const all = readdirSync(assets).filter((file) => names.has(file) && !file.startsWith('check-worker'));
  return all.reduce((sum, file) => sum + gzipSync(readFileSync(path.join(assets, file))).length, 0) / 1000;
}

try {
  const pan = await panning();
  const figures: readonly [what: string, value: number, must: number, unit: string][] = [
    ['an edit to the next picture, 40 states and 400 cells', await editing(), 50, 'ms'],
    ['a condition changed to the next picture, the same character', await ranking(), 50, 'ms'],
    ['opening Wick from a cold start', await opening(), 1500, 'ms'],
    [
      'pictures a second while panning 4096 x 4096, of what can be painted',
      pan.moving / pan.still,
      0.9,
      'at least',
    ],
    ['code to the first picture, gzipped', await size(), 350, 'kB'],
  ];
  if (json) console.log(JSON.stringify(figures.map(([what, value, must]) => ({ what, value, must }))));
  else
    for (const [what, value, must, unit] of figures) {
      const isMet = unit === 'at least' ? value >= must : value <= must;
      console.log(
        `${what.padEnd(72)} ${value.toFixed(unit === 'at least' ? 2 : 0).padStart(6)} ${unit.padEnd(9)} must ${must}  ${isMet ? '' : 'NOT REACHED'}`,
      );
    }
  if (!json)
    console.log(
      `(panning ${pan.moving.toFixed(0)} pictures a second, such a picture alone ${pan.still.toFixed(0)})`,
    );
} finally {
  await browser.close();
  await workbench.server.close();
}
