import { readDocument, compileDocument } from 'dot-hop/document';
import { randomOutfit, wardrobeOf } from 'dot-hop/wardrobe';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { clips, keeper } from './keeper.js';
import { WorkbenchPage } from './workbench-page.js';

const bench = new WorkbenchPage();

const written = readDocument(
  readFileSync(fileURLToPath(new URL('../../../demo/townsfolk/folk.dothop.yaml', import.meta.url)), 'utf8'),
  'folk.dothop.yaml',
);
// Large enough for every cell.
const size = { width: 4096, height: 4096 };
const folk = compileDocument(written, {
  images: Object.fromEntries([...written.images.keys()].map((file) => [file, size])),
});
const wardrobe = wardrobeOf(folk)!;

/** Whether a canvas shows a colour. */
const shows = (testId: string, colour: string): Promise<unknown> =>
  bench.page.waitForFunction(
    ([id, wanted]) => {
      const canvas = document.querySelector<HTMLCanvasElement>(`[data-testid=${id}]`);
      const { data } =
        canvas
          ?.getContext('2d', { willReadFrequently: true })
          ?.getImageData(0, 0, canvas.width, canvas.height) ?? {};
      for (let i = 0; i < (data?.length ?? 0); i += 4) {
        const text = [data![i]!, data![i + 1]!, data![i + 2]!].map((one) =>
          one.toString(16).padStart(2, '0'),
        );
        if (`#${text.join('')}` === wanted) return true;
      }
      return false;
    },
    [testId, colour] as const,
  );

/** The colours of the images that a small picture is made of, one list for each of its pieces. */
const coloursIn = (selector: string): Promise<string[][]> =>
  bench.page.locator(`${selector} .drawing i`).evaluateAll((pieces) =>
    Promise.all(
      pieces.map(async (piece) => {
        const image = new Image();
        image.src = /url\("(.*)"\)/.exec((piece as HTMLElement).style.backgroundImage)![1]!;
        await image.decode();
        const canvas = new OffscreenCanvas(image.width, image.height);
        const context = canvas.getContext('2d')!;
        context.drawImage(image, 0, 0);
        const { data } = context.getImageData(0, 0, image.width, image.height);
        const found = new Set<string>();
        for (let i = 0; i < data.length; i += 4)
          found.add(
            `#${[data[i]!, data[i + 1]!, data[i + 2]!].map((one) => one.toString(16).padStart(2, '0')).join('')}`,
          );
        return [...found];
      }),
    ),
  );

test('what somebody wears is chosen on the stage, and worn in every room; nothing of it is in the document', async () => {
  const { page } = bench;
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await bench.begin();
  // Who has no choice to make is asked for none.
  expect(await page.getByRole('button', { name: 'clothes' }).count()).toBe(1);
  await bench.menu('the townsfolk of the quay');
  await bench.room('Time');
  const before = await bench.document();
  const copied = async (): Promise<unknown> => {
    await page.getByRole('button', { name: 'copy', exact: true }).click();
    await bench.told(/outfit is copied/);
    return JSON.parse(await page.evaluate(() => navigator.clipboard.readText()));
  };
  await page.getByRole('button', { name: 'clothes' }).click();
  // At first as the command dresses somebody for a picture.
  expect(await copied()).toEqual(randomOutfit(wardrobe, '1'));
  await page.getByRole('button', { name: 'by chance' }).click();
  await bench.told('dot-hop dress --seed 2');
  expect(await copied()).toEqual(randomOutfit(wardrobe, '2'));
  await bench.choose('coat', 'pilot');
  await page.getByRole('radiogroup', { name: 'coat.cloth' }).getByRole('radio', { name: 'ochre' }).click();
  await page.getByRole('radiogroup', { name: 'skin' }).getByRole('radio', { name: 'deep' }).click();
  expect(await copied()).toMatchObject({
    pieces: { coat: 'pilot' },
    colours: { 'coat.cloth': 'ochre', skin: 'deep' },
  });
  await page.keyboard.press('Escape');
  // The clip by itself, the dial, the trial.
  await shows('stage', '#deb04c');
  await shows('stage', '#96644e');
  // The small pictures: those of frames, clips, directions and states.
  const isDressed = async (selector: string): Promise<void> => {
    const pieces = await coloursIn(selector);
    expect(pieces.length).toBeGreaterThan(3);
    expect(pieces.filter((colours) => colours.includes('#deb04c'))).toHaveLength(1);
  };
  await isDressed('.frame >> nth=0 >>');
  await isDressed('.thumb >> nth=0 >>');
  await bench.room('Turn');
  await shows('dial-stage', '#deb04c');
  await isDressed('[data-testid=page-walk-northwest]');
  await bench.room('Rank');
  await isDressed('.thumb >> nth=0 >>');
  await bench.room('Try');
  await shows('try-canvas', '#deb04c');
  await page.getByRole('button', { name: 'clothes' }).click();
  await page.getByRole('button', { name: 'bare', exact: true }).click();
  await page.waitForFunction(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=try-canvas]')!;
    const { data } = canvas
      .getContext('2d', { willReadFrequently: true })!
      .getImageData(0, 0, canvas.width, canvas.height);
    return !data.some(
      (red, i) => i % 4 === 0 && red === 0xde && data[i + 1] === 0xb0 && data[i + 2] === 0x4c,
    );
  });
  await page.keyboard.press('Escape');
  await bench.room('Turn');
  expect(await coloursIn('[data-testid=page-walk-northwest]')).toHaveLength(1);
  expect(await bench.document()).toBe(before);
}, 120_000);

test('clothes that never go together leave the body bare, and are told about where they are asked for', async () => {
  const { page } = bench;
  await bench.begin();
  // Chance never picks the coat that the hat needs, and there is no going without a hat.
  await bench.bring(
    keeper(`${clips}wardrobe:
  layers:
    coat: { none: 1, pieces: { oilskin: { sheet: wick, weight: 0 } } }
    hat: { pieces: { cap: { sheet: wick, requires: [coat.oilskin] } } }
`),
  );
  await bench.told(/keeper/);
  await bench.room('Time');
  // A colour of his face.
  await shows('stage', '#e0a074');
  await page.getByRole('button', { name: 'clothes' }).click();
  await page.getByRole('button', { name: 'by chance' }).click();
  await bench.told(/go together/);
  // By hand they are put on all the same.
  await bench.choose('hat', 'cap');
  await page.getByRole('button', { name: /hat$/ }).filter({ hasText: 'cap' }).waitFor();
}, 120_000);
