import { Performer, compileController } from 'dot-hop';
import type { ControllerDefinition, OutfitDefinition, SheetDefinition, WardrobeDefinition } from 'dot-hop';
import { measureWardrobe } from 'dot-hop/pixels';
import { wardrobeOf } from 'dot-hop/wardrobe';

const sheet = (image: string, parts?: SheetDefinition['parts']): SheetDefinition => ({
  image,
  size: [48, 32],
  grid: { cell: [8, 8] },
  pivot: [4, 8],
  ...(parts && { parts }),
});
const wardrobe: WardrobeDefinition = {
  layers: {
    cape: { pieces: { long: { sheet: 'cape' } } },
    coat: {
      hidden: [{ states: ['fall'] }],
      pieces: {
        oiled: { sheet: 'coat', palettes: ['oil'] },
        running: { sheet: 'coat', clips: ['run'], otherwise: 'oiled' },
        standing: { sheet: 'coat', clips: ['stand', 'swing'] },
        stiff: { sheet: 'coat', clips: ['swing'], otherwise: { clip: 'stand' } },
      },
    },
    hat: { hidden: [{ states: ['swing'] }], pieces: { tall: { sheet: 'hat' } } },
  },
  order: ['cape', 'body', 'coat', 'hat'],
};
const define = (more: Partial<ControllerDefinition> = {}): ControllerDefinition => ({
  dotHop: 1,
  sheets: {
    w: {
      ...sheet('w.png', {
        back: { image: 'w-back.png', joint: 'waist' },
        legs: 'w-legs.png',
        arms: { image: 'w-arms.png', joint: 'waist' },
      }),
      points: { waist: [4, 5] },
      perCell: { 7: { points: { waist: [5, 6] } } },
    },
    cape: sheet('cape.png', { back: 'cape.png' }),
    coat: sheet('coat.png', { back: 'coat-back.png', arms: 'coat-arms.png' }),
    hat: sheet('hat.png'),
  },
  clips: {
    stand: { cells: '0-1', ms: 200 },
    run: { cells: '6-9', ms: 50 },
    swing: { cells: '12-15', ms: 100, loop: 'once' },
    fall: { cells: '18-19', ms: 100, loop: 'once' },
  },
  compass: { directions: 'sides', by: ['vx', 0], mirror: { west: 'east' } },
  signals: { vx: { number: 0 }, moving: { flag: false }, swing: { pulse: true }, hit: { pulse: true } },
  states: {
    stand: { shows: 'stand' },
    run: { shows: 'run', while: 'moving', priority: 10 },
    fall: { shows: 'fall', when: 'hit', priority: 80, takes: ['arms'] },
  },
  rest: 'stand',
  tracks: {
    arms: {
      draws: ['back', 'arms'],
      states: { along: { inStep: 'body' }, swing: { shows: 'swing', when: 'swing', priority: 40 } },
      rest: 'along',
    },
  },
  palettes: { oil: { drawn: 'straw', colours: { straw: ['#d9a531'], tar: ['#262c3a'] } } },
  wardrobe,
  ...more,
});
const controller = compileController(define());
const dressed = (
  pieces: OutfitDefinition['pieces'],
  colours: OutfitDefinition['colours'] = {},
): Performer => {
  const wick = new Performer(controller);
  wick.wear(wardrobeOf(controller)!.outfit({ pieces, colours }));
  wick.step(0);
  return wick;
};
const drawn = ({ pose }: Performer): string[] =>
  pose.layers.map(({ layer, piece, cell, dye, x, y }) =>
    [piece === undefined ? layer : `${layer} ${piece}`, `${cell.image}${dye}`, cell.index, `${x},${y}`].join(
      ' ',
    ),
  );
const problemsOf = (act: () => unknown): readonly string[] => {
  try {
    act();
  } catch (error) {
    return (error as Error).message.split('\n');
  }
  return [];
};
const swingWhileRunning = (wick: Performer): Performer => {
  wick.set('moving', true);
  wick.step(60);
  wick.pulse('swing');
  wick.step(0);
  return wick;
};

test('on the whole body a piece is whole; where the body is drawn in parts it lies part by part on these', () => {
  const wick = dressed({ cape: 'long', coat: 'oiled', hat: 'tall' }, { 'coat.oil': 'tar' });
  expect(drawn(wick)).toEqual([
    'cape long cape.png 0 0,0',
    'body w.png 0 0,0',
    'coat oiled coat.png?oil=tar 0 0,0',
    'hat tall hat.png 0 0,0',
  ]);
  swingWhileRunning(wick);
  // The arms' drawing hangs on the waist of the legs', and its sleeves with it; a hat that is not cut follows the legs.
  const swinging = [
    'cape long cape.png 12 1,1',
    'back w-back.png 12 1,1',
    'coat oiled coat-back.png?oil=tar 12 1,1',
    'legs w-legs.png 7 0,0',
    'arms w-arms.png 12 1,1',
    'coat oiled coat-arms.png?oil=tar 12 1,1',
  ];
  expect(drawn(wick)).toEqual(swinging);
  expect(wick.pose).toBe(wick.pose);
  const before = wick.pose;
  wick.step(10);
  expect(wick.pose).toBe(before);
  // Mirrored as the parts are.
  wick.set('vx', -50);
  wick.step(0);
  expect(wick.pose.layers.map(({ mirrored, x }) => [mirrored, x])).toEqual(
    swinging.map((one) => [true, one.includes('legs') ? 0 : -1]),
  );
});

test('what is not cut lies under all parts of the body, once, if its order says so', () => {
  const { hat, ...others } = wardrobe.layers;
  const behind = compileController(
    define({
      wardrobe: {
        layers: { hat: { pieces: hat!.pieces }, ...others },
        order: ['hat', 'cape', 'body', 'coat'],
      },
    }),
  );
  const wick = new Performer(behind);
  wick.wear(wardrobeOf(behind)!.outfit({ pieces: { hat: 'tall' } }));
  wick.step(0);
  swingWhileRunning(wick);
  expect(drawn(wick)).toEqual([
    'hat tall hat.png 7 0,0',
    'back w-back.png 12 1,1',
    'legs w-legs.png 7 0,0',
    'arms w-arms.png 12 1,1',
  ]);
});

test('a layer is hidden by a state of whichever track, and comes back with its end', () => {
  const wick = swingWhileRunning(dressed({ coat: 'oiled', hat: 'tall' }));
  expect(drawn(wick).filter((one) => one.startsWith('hat'))).toEqual([]);
  wick.step(400);
  expect(wick.showing('arms').state).toBe('along');
  expect(drawn(wick)).toEqual(['body w.png 7 0,0', 'coat oiled coat.png 7 0,0', 'hat tall hat.png 7 0,0']);
  wick.pulse('hit');
  wick.step(0);
  expect(drawn(wick)).toEqual(['body w.png 18 0,0', 'hat tall hat.png 18 0,0']);
});

test('one drawing is dressed as each state asks that shows it', () => {
  const mope = { shows: 'stand', while: 'vx < 0', priority: 1, facing: 'held' as const };
  const hat = { ...wardrobe.layers.hat!, hidden: [{ states: ['mope'] }] };
  const moping = compileController(
    define({
      states: { ...define().states, mope },
      wardrobe: { layers: { hat } },
    }),
  );
  const wick = new Performer(moping);
  wick.wear(wardrobeOf(moping)!.outfit({ pieces: { hat: 'tall' } }));
  wick.step(0);
  expect(drawn(wick)).toEqual(['body w.png 0 0,0', 'hat tall hat.png 0 0,0']);
  wick.set('vx', -1);
  wick.step(0);
  expect([wick.state, ...drawn(wick)]).toEqual(['mope', 'body w.png 0 0,0']);
});

test('what it is drawn for is asked of each part by itself', () => {
  const on = (piece: string): string[] =>
    drawn(swingWhileRunning(dressed({ coat: piece }))).filter((one) => one.startsWith('coat'));
  // Drawn for running alone: the arms do not run, so the other stands in.
  expect(on('running')).toEqual(['coat oiled coat-back.png 12 1,1', 'coat oiled coat-arms.png 12 1,1']);
  expect(on('standing')).toEqual([
    'coat standing coat-back.png 12 1,1',
    'coat standing coat-arms.png 12 1,1',
  ]);
  const wick = dressed({ coat: 'stiff' });
  wick.set('moving', true);
  wick.step(60);
  expect(drawn(wick)[1]).toBe('coat stiff coat.png 0 0,0');
  expect(on('stiff')).toEqual(['coat stiff coat-back.png 12 1,1', 'coat stiff coat-arms.png 12 1,1']);
});

test.each([
  [
    { bcak: 'coat-back.png' },
    'sheets.coat.parts.bcak: there is no part of a sheet "bcak"; did you mean "back"?',
  ],
  [
    { back: { image: 'coat-back.png', joint: 'waist' } },
    'sheets.coat.parts.back: a part of a piece hangs where the part of the body hangs on which it lies',
  ],
])("parts of a piece that are not as the body's are refused: %j", (parts, words) => {
  const { sheets } = define();
  const faulty = compileController(define({ sheets: { ...sheets, coat: sheet('coat.png', parts) } }));
  // Once, however many pieces are of that sheet.
  expect(problemsOf(() => wardrobeOf(faulty))).toEqual([expect.stringContaining(words)]);
});

test('the check tells a piece whose parts are not what it is as a whole', () => {
  /** One pixel in the fourth row of each cell: of the body at 1 to 6, of parts and pieces as told. */
  const row = (...columns: readonly number[]) => {
    const pixels = new Uint8Array(48 * 32 * 4);
    for (let cell = 0; cell < 24; cell++)
      for (const column of columns) {
        const at = ((Math.floor(cell / 6) * 8 + 4) * 48 + (cell % 6) * 8 + column) * 4;
        pixels.set([column * 9, 80, 20, 255], at);
      }
    return { width: 48, height: 32, pixels };
  };
  const other = (picture: ReturnType<typeof row>) => {
    const pixels = picture.pixels.map((value, i) =>
      i % 4 === 1 && picture.pixels[i + 2]! > 0 ? 200 : value,
    );
    return { ...picture, pixels };
  };
  const pictures: Record<string, ReturnType<typeof row>> = {
    'w.png': row(1, 2, 3, 4),
    'w-back.png': row(1, 2),
    'w-legs.png': row(2, 3),
    'w-arms.png': row(4),
    // Under the body whole, and under each part of it: what the legs hide of it is hidden both ways.
    'cape.png': row(0, 3),
    // Its back lies under the legs at 2.
    'coat.png': other(row(1, 4)),
    'coat-back.png': other(row(1, 2)),
    'coat-arms.png': other(row(4)),
    'hat.png': row(6),
  };
  const found = () =>
    measureWardrobe(controller, (image) => pictures[image]!)
      .filter(({ code }) => code === 'piece-parts')
      .map(({ path, text }) => `${path.join('.')}: ${text}`);
  expect(found()).toEqual([]);
  pictures['coat-arms.png'] = other(row(4, 5));
  expect(found()).toHaveLength(4);
  expect(found()[1]).toMatch(
    /^wardrobe\.layers\.coat\.pieces\.running: on the body drawn in parts it is not what it is on the whole body in run \(up to 1 pixels differ\)/,
  );
});
