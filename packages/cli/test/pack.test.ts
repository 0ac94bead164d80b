import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Performer } from 'dot-hop';
import type { OutfitDefinition } from 'dot-hop';
import { randomCrowd, wardrobeOf } from 'dot-hop/wardrobe';
import { readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import sharp from 'sharp';
import { loadCharacter } from '../src/character.js';
import type { Character } from '../src/character.js';
import { dyedImages } from '../src/dyed.js';
import { copyWick, root, runIn } from './command-line.js';
import { drawn } from './drawn-pose.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-pack-'));
  copyWick(folder, 'evening.rehearsal.yaml', 'gulls.rehearsal.yaml', 'running.rehearsal.yaml');
  cpSync(path.join(root, 'demo/townsfolk'), path.join(folder, 'townsfolk'), { recursive: true });
});
afterEach(() => rmSync(folder, { recursive: true }));

const load = (file: string): Promise<Character> => loadCharacter(path.join(folder, file));
const pack = (...args: string[]) => runIn(folder, ['pack', ...args]);

/** Everything a game sees of two characters that play the same. */
function expectSamePlay(one: Character, other: Character, rehearsals: readonly string[]): void {
  for (const file of rehearsals) {
    const { definition } = readRehearsal(readFileSync(path.join(folder, file), 'utf8'), file);
    const [was, is] = [one, other].map(({ controller }) =>
      runRehearsal(controller, { ...definition, expect: [] }),
    );
    expect(is!.trace).toEqual(was!.trace);
    expect(is!.samples).toHaveLength(was!.samples.length);
    was!.samples.forEach((sample, i) => {
      const { pose, ...same } = sample;
      const { pose: packed, ...packedSame } = is!.samples[i]!;
      expect(packedSame).toEqual(same);
      expect({ boxes: packed.boxes, points: packed.points }).toEqual({
        boxes: pose.boxes,
        points: pose.points,
      });
      expect(drawn(other, packed) === drawn(one, pose)).toBe(true);
    });
  }
}

test.each([
  ['wick.dothop.yaml', ['evening.rehearsal.yaml', 'gulls.rehearsal.yaml', 'running.rehearsal.yaml']],
  ['townsfolk/marlis.dothop.yaml', ['townsfolk/round.rehearsal.yaml']],
])('%s packed plays as the source does, to the pixel', async (document, rehearsals) => {
  const told = JSON.parse(pack(document, '-o', 'packed/game.json', '--json').out) as {
    pixels: { before: number; after: number };
    bytes: { before: number; after: number };
  };
  expect(told.pixels.after).toBeLessThan(told.pixels.before * 0.75);
  expect(told.bytes.after).toBeLessThan(told.bytes.before * 1.4);
  expectSamePlay(await load(document), await load('packed/game.json'), rehearsals);
});

interface Deed {
  readonly set?: Readonly<Record<string, number>>;
  readonly pulse?: string;
}

/** Two characters that wear the same look the same all the way, and the sheets that the packed one has. */
function expectSameLook(
  pair: readonly Character[],
  outfits: readonly OutfitDefinition[],
  deeds: readonly Deed[],
): void {
  let layers = 0;
  for (const worn of outfits) {
    const [was, is] = pair.map(({ controller, images }) => {
      const performer = new Performer(controller);
      const outfit = wardrobeOf(controller)!.outfit(worn);
      performer.wear(outfit);
      return { performer, images: dyedImages(images, [outfit]) };
    });
    for (const deed of deeds) {
      for (const { performer } of [was!, is!]) {
        for (const [name, value] of Object.entries(deed.set ?? {})) performer.set(name, value);
        if (deed.pulse !== undefined) performer.pulse(deed.pulse);
      }
      for (let i = 0; i < 12; i++) {
        for (const { performer } of [was!, is!]) performer.step(33);
        const pose = was!.performer.pose;
        layers += pose.layers.length;
        expect(
          drawn({ images: is!.images }, is!.performer.pose) === drawn({ images: was!.images }, pose),
        ).toBe(true);
      }
    }
  }
  expect(layers).toBeGreaterThan(outfits.length * deeds.length * 24);
}

test('what is worn is packed, too, each sheet by itself, and looks the same in all colours and while arms swing', async () => {
  const packed = async (document: string): Promise<Character[]> => {
    mkdirSync(path.join(folder, 'packed'), { recursive: true });
    expect(pack(document, '-o', 'packed/game.yaml').code).toBe(0);
    return [await load(document), await load('packed/game.yaml')];
  };
  const folk = await packed('townsfolk/folk.dothop.yaml');
  const wardrobe = wardrobeOf(folk[0]!.controller)!;
  expectSameLook(folk, randomCrowd(wardrobe, 'pack', 12), [
    { set: { vx: 30 } },
    { set: { vy: -40 } },
    { set: { vx: 0, vy: 0 } },
  ]);
  const wick = await packed('wick.dothop.yaml');
  expectSameLook(
    wick,
    [
      { pieces: { coat: 'oilskin', bag: 'satchel' }, colours: { 'body.scarf': 'sea', 'coat.oil': 'tar' } },
      { pieces: { hat: 'rain-hat' }, colours: { 'body.coat': 'plum' } },
    ],
    [
      { set: { vx: -130, along: 1 } },
      { pulse: 'swing' },
      { set: { vx: 0, along: 0 }, pulse: 'swing' },
      { pulse: 'blow' },
    ],
  );
  const { definition } = wick[1]!.document;
  // What lies on the foremost part alone is one image, not two.
  expect(definition.sheets['rain-hat']!.parts).toEqual({ upper: 'game-rain-hat.png' });
  expect(readdirSync(path.join(folder, 'packed'))).toContain('game-oilskin-behind.png');
});

test('pieces of several sheets, single drawings, places that are gone and names that clash come through', async () => {
  await makeStrange();
  const document = readFileSync(path.join(folder, 'odd.yaml'), 'utf8');
  writeFileSync(
    path.join(folder, 'odd.yaml'),
    `${document.replace('sheets:\n', 'sheets:\n  clothes: { image: odd.png, grid: { cell: [8, 16] }, pivot: [3, 12] }\n  packed: { images: [one.png, two.png, one.png] }\n').replace('name: odd', 'name: clothes')}
wardrobe:
  layers:
    coat:
      hidden: [{ clips: [unused] }, { clips: [unused, loose] }]
      pieces: { two: { sheet: { odd: clothes, loose: packed } }, half: { sheet: clothes, clips: [unused, go], otherwise: { clip: spare } } }
    badge: { pieces: { star: { sheet: packed, cell: { east: 2, west: 1 } }, dot: { sheet: packed, cell: 1, clips: [unused] } } }
  orders: [{ clips: [unused], order: [badge, body, coat] }, { clips: [gone], order: [coat, badge, body] }]
`
      .replace('go: { cells: 1-3', 'go: { sheet: odd, cells: 1-3')
      .replace('gone: { cells: [4, 5]', 'gone: { sheet: odd, cells: [4, 5]')
      .replace('unused: { cells: 0', 'unused: { sheet: odd, cells: 0')
      .replace('spare: { cells: 2', 'spare: { sheet: odd, cells: 2'),
  );
  const { code, err } = pack('odd.yaml', '-o', 'game.yaml');
  expect({ code, err }).toEqual({ code: 0, err: '' });
  const both = [await load('odd.yaml'), await load('game.yaml')];
  const { definition } = both[1]!.document;
  expect(definition.wardrobe).toMatchObject({
    layers: {
      coat: { hidden: [{ clips: ['loose'] }], pieces: { half: { sheet: 'clothes-2' } } },
      badge: { pieces: { star: { cell: { east: 1, west: 0 } }, dot: { cell: 0, clips: [] } } },
    },
    orders: [{ clips: ['gone'], order: ['coat', 'badge', 'body'] }],
  });
  expectSameLook(
    both,
    [
      { pieces: { coat: 'two', badge: 'star' } },
      { pieces: { coat: 'half', badge: 'star' } },
      { pieces: { coat: 'half', badge: 'dot' } },
    ],
    [{ set: { vx: -3 } }, { set: { vx: 9 } }, { pulse: 'hit' }, { set: { vx: 1 } }],
  );
  writeFileSync(
    path.join(folder, 'odd.yaml'),
    readFileSync(path.join(folder, 'odd.yaml'), 'utf8').replace(
      'sheet: packed, cell: 1,',
      'sheet: { odd: packed, loose: clothes }, cell: 1,',
    ),
  );
  expect(pack('odd.yaml', '-o', 'game.yaml')).toMatchObject({
    code: 2,
    err: expect.stringContaining(
      'wardrobe.layers.badge.pieces.dot: it shows one cell, of another sheet',
    ) as string,
  });
});

/** A sheet of drawings in all colours, with an equal pair, an empty cell, a composed one, boxes and points. */
async function makeStrange(): Promise<void> {
  const width = 48;
  const pixels = Buffer.alloc(width * 16 * 4);
  for (let cell = 0; cell < 6; cell++)
    for (let y = 2; y < 13; y++)
      for (let x = 3; x < 3 + (cell % 4); x++) {
        const at = (y * width + ((cell % 6) * 8 + x)) * 4;
        const shade = cell === 4 ? 0 : cell;
        if (cell !== 5) pixels.set([x * 20, y * 17, shade * 50, x === 4 ? 128 : 255], at);
      }
  // The fifth looks like the second.
  for (let y = 0; y < 16; y++)
    for (let x = 0; x < 8; x++)
      pixels.copy(pixels, (y * width + 32 + x) * 4, (y * width + 8 + x) * 4, (y * width + 9 + x) * 4);
  const raw = { raw: { width, height: 16, channels: 4 as const } };
  await sharp(pixels, raw).png().toFile(path.join(folder, 'odd.png'));
  await sharp(pixels, raw)
    .extract({ left: 8, top: 1, width: 8, height: 14 })
    .png()
    .toFile(path.join(folder, 'one.png'));
  await sharp(pixels, raw)
    .extract({ left: 16, top: 0, width: 11, height: 16 })
    .png()
    .toFile(path.join(folder, 'two.png'));
  writeFileSync(
    path.join(folder, 'odd.yaml'),
    `dotHop: 1
name: odd
sheets:
  odd:
    image: odd.png
    grid: { cell: [8, 16] }
    pivot: [4, 14]
    boxes: { body: [1, 2, 4, 8] }
    perCell: { 2: { pivot: [3, 15] }, 3: { points: { hand: [5, 6] } } }
  made: { image: odd.png, grid: { cell: [8, 16] }, pivot: [4, 14], compose: [[{ cell: 1 }, { cell: 3, at: [2, 1], flip: x }]] }
  loose: { images: [one.png, two.png], pivot: [2, 12] }
clips:
  go: { cells: 1-3, ms: [33.333, 41.667, 50], loop: back-and-forth, cues: { step: 1 }, perFrame: { 0: { points: { hat: [1, 1] } } } }
  gone: { cells: [4, 5], fps: 7, loop: once, spans: { late: 1 } }
  loose: { sheet: loose, cells: 0-1, fps: 9 }
  made: { sheet: made, cells: 0 }
  unused: { cells: 0, loop: forever }
  spare: { cells: 2 }
flipbooks: { all: { east: go, west: made } }
compass: { directions: sides, by: [vx, 0] }
signals: { vx: { number: 0 }, hit: { pulse: true } }
states: { go: { shows: all }, loose: { shows: loose, while: vx > 5 },  gone: { shows: gone, when: hit, priority: 1, hops: [{ to: go, during: late, at: end }] } }
accept: [{ finding: clip-unused, because: it is a test }]
`,
  );
  writeFileSync(
    path.join(folder, 'odd.rehearsal.yaml'),
    'dotHopRehearsal: 1\ndocument: odd.yaml\nlasts: 2000\nscript: [{ at: 300, set: { vx: 9 } }, { at: 700, set: { vx: -3 } }, { at: 1200, pulse: hit }]\n',
  );
}

test('composed cells, equal drawings, empty cells, several sheets and marks of all kinds come through', async () => {
  await makeStrange();
  const { code, out, err } = pack(
    'odd.yaml',
    '-o',
    'game.yaml',
    '--padding',
    '1',
    '--power-of-two',
    '--json',
  );
  expect({ code, err }).toEqual({ code: 0, err: '' });
  const told = JSON.parse(out) as { width: number; height: number; cells: object; clips: object };
  expect(told).toMatchObject({ cells: { used: 8, all: 9, drawings: 5 }, clips: { used: 4, all: 6 } });
  expect([told.width, told.height].every((size) => Number.isInteger(Math.log2(size)))).toBe(true);
  const packed = await load('game.yaml');
  expect(Object.keys(packed.document.definition)).toEqual(expect.not.arrayContaining(['accept', '$schema']));
  expectSamePlay(await load('odd.yaml'), packed, ['odd.rehearsal.yaml']);
  // Nothing touches: around each drawing is an empty pixel.
  const image = packed.images.get('game.png')!;
  for (const { x, y, width, height } of packed.controller.sheets.get('odd')!.cells)
    for (let i = -1; i <= width; i++)
      for (const row of [y - 1, y + height])
        expect(image.pixels[(row * image.width + x + i) * 4 + 3]).toBe(0);
});

test('a document without states keeps all its clips', async () => {
  const file = path.join(folder, 'clips.yaml');
  writeFileSync(
    file,
    `dotHop: 1\nsheets: { w: { image: wick.png, grid: { cell: [64, 56] } } }\nclips: { a: { cells: 0-3, fps: 8 }, b: { cells: 9 } }\n`,
  );
  expect(pack('clips.yaml', '-o', 'game.json').code).toBe(0);
  const packed = await load('game.json');
  expect([...packed.controller.clips.keys()]).toEqual(['a', 'b']);
  expect(new Performer(packed.controller).state).toBe('a');
});

test.each([
  [['wick.dothop.yaml'], "required option '-o, --out <file>' not specified"],
  [['wick.dothop.yaml', '-o', 'game.png'], 'the packed document is written as .json or .yaml'],
  [
    ['wick.dothop.yaml', '-o', 'wick.json'],
    'wick.png: nothing is written over this file, because it is read here',
  ],
  [['wick.dothop.yaml', '-o', 'wick.dothop.yaml'], 'nothing is written over'],
  [['wick.dothop.yaml', '-o', 'game.json', '--most', '100'], 'do not fit into an image of 100 by 100 pixels'],
  [['wick.dothop.yaml', '-o', 'game.json', '--padding', '-1'], 'It must be a whole number from 0'],
])('%j is refused, and nothing is written', (args, words) => {
  const before = readdirSync(folder);
  const { code, err } = pack(...args);
  expect({ code, err }).toEqual({ code: 2, err: expect.stringContaining(words) as string });
  expect(readdirSync(folder)).toEqual(before);
  expect(existsSync(path.join(folder, 'game.png'))).toBe(false);
});
