import { Performer, compileController } from 'dot-hop';
import type { ControllerDefinition, Pose } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import { randomOutfit, wardrobeOf } from 'dot-hop/wardrobe';
import { coloursOf, measureWardrobe, recolour } from 'dot-hop/pixels';
import fc from 'fast-check';
import { controller, folk, wardrobe } from './folk.js';

const told = ({ layers }: Pose): string[] =>
  layers.map(
    ({ layer, piece, cell, dye }) => `${layer}${piece === undefined ? '' : ` ${piece}`} ${cell.index}${dye}`,
  );
const walker = (vx: number, vy: number): Performer => {
  const performer = new Performer(controller, { vx, vy });
  performer.step(0);
  return performer;
};
const all = {
  pieces: { coat: 'long', hair: 'bob', hat: 'cap', held: 'lamp' },
  colours: { 'coat.cloth': 'moss', skin: 'deep' },
};

test('layers show the cell that the body shows, mirrored alike, in the order that the place asks for', () => {
  const performer = walker(0, 0);
  expect(told(performer.pose)).toEqual(['body 0']);
  performer.wear(wardrobe.outfit(all));
  expect(told(performer.pose)).toEqual([
    'body 0?skin=deep',
    'coat long 0?cloth=moss&skin=deep',
    'hair bob 0',
    'hat cap 0',
    'held lamp 3',
  ]);
  expect(performer.pose).toBe(performer.pose);
  performer.step(100);
  expect(told(performer.pose)[1]).toBe('coat long 1?cloth=moss&skin=deep');
  // Seen from behind, what is held comes first.
  const away = walker(0, -20);
  away.wear(wardrobe.outfit(all));
  expect(told(away.pose)).toEqual([
    'held lamp 3',
    'body 6?skin=deep',
    'coat long 6?cloth=moss&skin=deep',
    'hair bob 6',
    'hat cap 6',
  ]);
});

test('a prop hangs on a point that moves with the body, also mirrored; one drawing for each direction', () => {
  const [east, west] = [walker(20, 0), walker(-20, 0)];
  for (const one of [east, west]) one.wear(wardrobe.outfit({ pieces: { held: 'sign' } }));
  const held = ({ pose }: Performer) => pose.layers.find(({ layer }) => layer === 'held')!;
  // Cell 2 has its hand at [3, 1], two pixels right of the pivot and three above it would be [1, -3].
  expect([held(east).x, held(east).y, held(east).cell.index]).toEqual([1, -3, 1]);
  expect([held(west).x, held(west).y, held(west).cell.index]).toEqual([-1, -3, 1]);
  expect(west.pose.mirrored).toBe(true);
  east.step(50);
  expect([held(east).x, held(east).y]).toEqual([-1, -2]);
  const away = walker(0, -20);
  away.wear(wardrobe.outfit({ pieces: { held: 'sign' } }));
  expect(held(away).cell.index).toBe(2);
});

test('a partial piece gives way to its stand-in, and a cue hides a layer for the rest of the pass', () => {
  const performer = walker(0, 0);
  performer.wear(wardrobe.outfit({ pieces: { hair: 'bun', hat: 'cap', coat: 'long' } }));
  expect(told(performer.pose)).toContain('hair bun 0');
  performer.set('vx', 20);
  performer.step(0);
  expect(told(performer.pose)).toEqual(['body 2', 'coat long 2', 'hair bob 2', 'hat cap 2']);
  performer.step(50);
  expect(told(performer.pose)).toEqual(['body 3', 'coat long 3', 'hair bob 3']);
  performer.step(50);
  expect(told(performer.pose)).toContain('hat cap 2');
});

test('what is worn changes nothing of what happens, whenever it is changed', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ ms: fc.nat(80), vx: fc.integer({ min: -20, max: 20 }), seed: fc.nat() }), {
        maxLength: 30,
      }),
      (story) => {
        const [bare, worn] = [new Performer(controller), new Performer(controller)];
        for (const { ms, vx, seed } of story) {
          worn.wear(seed % 3 === 0 ? undefined : wardrobe.outfit(randomOutfit(wardrobe, seed)));
          for (const one of [bare, worn]) one.set('vx', vx);
          expect(worn.step(ms)).toBe(bare.step(ms));
          expect(worn.snapshot()).toEqual(bare.snapshot());
          const { cell, mirrored, layers } = worn.pose;
          expect([cell, mirrored]).toEqual([bare.pose.cell, bare.pose.mirrored]);
          for (const layer of layers) if (layer.layer !== 'held') expect(layer.cell.index).toBe(cell.index);
        }
      },
    ),
  );
});

test('colours are exchanged exactly, and nothing else is', () => {
  const { dyed } = wardrobe.outfit(all);
  expect(dyed.map(({ name, file }) => [name, file])).toEqual([
    ['body.png?skin=deep', 'body.png'],
    ['long.png?cloth=moss&skin=deep', 'long.png'],
  ]);
  const pixels = new Uint8Array([
    0x10, 0x20, 0x40, 255, 0xf0, 0xc8, 0xa0, 128, 1, 2, 3, 255, 0x10, 0x20, 0x40, 0,
  ]);
  const made = recolour({ width: 2, height: 2, pixels }, dyed[1]!.colours);
  expect([...made.pixels]).toEqual([
    0x20, 0x40, 0x20, 255, 0x60, 0x40, 0x30, 128, 1, 2, 3, 255, 0x10, 0x20, 0x40, 0,
  ]);
  expect([...coloursOf(made)]).toEqual([
    [0x204020, 1],
    [0x604030, 1],
    [0x010203, 1],
  ]);
});

test('an outfit of another version is worn as far as it fits; an unknown name is told with the nearest', () => {
  const other = {
    pieces: { hair: 'bob', hat: 'crown', tail: 'long' },
    colours: { skin: 'deep', 'coat.cloth': 'gold' },
  };
  expect(wardrobe.fitting(other)).toEqual({ pieces: { hair: 'bob' }, colours: { skin: 'deep' } });
  expect(() => wardrobe.outfit({ pieces: { hair: 'bbo' } })).toThrow(
    'the layer "hair" has no piece "bbo"; did you mean "bob"?',
  );
  expect(() => wardrobe.outfit({ pieces: { hairs: 'bob' } })).toThrow('did you mean "hair"?');
  expect(() => wardrobe.outfit({ colours: { 'coat.cloth': 'mos' } })).toThrow('did you mean "moss"?');
  expect(() => wardrobe.outfit({ colours: { 'coat.skin': 'deep' } })).toThrow(
    'there is no palette of a layer "coat.skin"',
  );
});

test('a layer is hidden in any of the states that are named', () => {
  const { layers } = folk.wardrobe;
  const hiding = compileController({
    ...folk,
    wardrobe: {
      ...folk.wardrobe,
      layers: { ...layers, hat: { ...layers.hat, hidden: [{ states: ['walk', 'stand'] }] } },
    },
  });
  const performer = new Performer(hiding, { vx: 30 });
  performer.wear(wardrobeOf(hiding)!.outfit(all));
  performer.step(0);
  expect(performer.state).toBe('walk');
  expect(performer.pose.layers.map(({ layer }) => layer)).not.toContain('hat');
});

test('a sheet of fewer cells than the body is refused for what follows the body, and no other one', () => {
  const small = { ...folk.sheets.things, size: [8, 4] as const };
  const dressed = (held: object): (() => unknown) => {
    const { hat, coat } = folk.wardrobe.layers;
    const layers = { coat, hat, held } as NonNullable<ControllerDefinition['wardrobe']>['layers'];
    const wardrobe = { ...folk.wardrobe, layers, order: ['body', 'coat', 'hat', 'held'], orders: [] };
    return () => wardrobeOf(compileController({ ...folk, sheets: { ...folk.sheets, small }, wardrobe }));
  };
  expect(dressed({ pieces: { lamp: { sheet: 'small', cell: 1, at: 'hand' } } })).not.toThrow();
  expect(dressed({ pieces: { scarf: { sheet: 'small' } } })).toThrow('2 cells');
  // Of a sheet that is not there no more is said.
  expect(dressed({ pieces: { scarf: { sheet: 'smal' } } })).not.toThrow(/cells/);
  expect(dressed({ pieces: { scarf: { sheet: 'smal' } } })).toThrow('did you mean "small"?');
  // What a piece goes with, or not.
  const beside = (fields: object): (() => unknown) =>
    dressed({ pieces: { lamp: { sheet: 'small', cell: 1, at: 'hand', ...fields } } });
  expect(beside({ excludes: ['hat.cap', 'coat'] })).not.toThrow();
  expect(beside({ excludes: ['hat.cp'] })).toThrow('excludes[0]: there is no piece or layer "hat.cp"');
  expect(beside({ requires: ['coat', 'cot'] })).toThrow('requires[1]: there is no piece or layer "cot"');
  // How often a layer stays empty.
  expect(dressed({ none: 0, pieces: {} })).not.toThrow();
  expect(dressed({ none: -1, pieces: {} })).toThrow('wardrobe.layers.held.none');
});

test('colours that chance never picks weigh 0; less is refused', () => {
  const weighed = (navy: number) =>
    wardrobeOf(
      compileController({
        ...folk,
        palettes: { ...folk.palettes, cloth: { ...folk.palettes.cloth, weights: { navy, wine: 0 } } },
        wardrobe: { ...folk.wardrobe, schemes: [] },
      }),
    )!;
  const picked = Array.from(
    { length: 20 },
    (_, seed) => randomOutfit(weighed(0), seed).colours['coat.cloth'],
  );
  expect(new Set(picked)).toEqual(new Set(['moss']));
  expect(() => weighed(-1)).toThrow('palettes.cloth.weights.navy');
});

test('an order that names a layer twice is refused, and what has the wrong shape is told once', () => {
  const messageOf = (changed: object): string[] => {
    try {
      wardrobeOf(compileController({ ...folk, wardrobe: { ...folk.wardrobe, ...changed } }));
    } catch (error) {
      return (error as Error).message.split('\n');
    }
    return [];
  };
  expect(messageOf({ order: ['body', 'coat', 'hair', 'hat', 'hat'] })).toEqual([
    expect.stringContaining('wardrobe.order: an order names the body and each layer once'),
  ]);
  expect(messageOf({ order: [...folk.wardrobe.order, 'hat'] })).toHaveLength(1);
  expect(messageOf({ layers: 3 })).toEqual([expect.stringContaining('wardrobe.layers: expected')]);
});

test('faults of a wardrobe are told with their place', () => {
  const { hair } = folk.wardrobe.layers;
  const faulty = {
    ...folk,
    palettes: {
      ...folk.palettes,
      hair: { drawn: 'red', shared: true, colours: { red: ['#ff0000'], odd: ['red', '#00ff00'] } },
    },
    wardrobe: {
      ...folk.wardrobe,
      layers: {
        ...folk.wardrobe.layers,
        hair: {
          pieces: { ...hair.pieces, wig: { sheet: 'wgi', weight: -1, otherwise: 'bub', palettes: ['clot'] } },
        },
      },
      order: ['body', 'coat', 'hair', 'hat'],
      orders: [{ states: ['stnad'], span: 'lwo', order: folk.wardrobe.order }],
      schemes: [{ coats: 'long', hat: 'cpa' }],
    },
  } as unknown as ControllerDefinition;
  let message = '';
  try {
    wardrobeOf(compileController(faulty));
  } catch (error) {
    message = (error as Error).message;
  }
  for (const part of [
    'palettes.hair.colours.odd: there are 2 colours here and 1 in "red"',
    'palettes.hair.colours.odd[0]: a colour is written "#rrggbb", in quotes, not "red"',
    'palettes.hair: "hair" is both a layer and a shared palette',
    'wardrobe.layers.hair.pieces.wig.sheet: there is no sheet "wgi"',
    'wardrobe.layers.hair.pieces.wig.weight: a weight is a number from 0, not -1',
    'wardrobe.layers.hair.pieces.wig.otherwise: the layer "hair" has no piece "bub"; did you mean "bob"?',
    'wardrobe.layers.hair.pieces.wig.palettes[0]: there is no palette "clot"; did you mean "cloth"?',
    'wardrobe.order: an order names the body and each layer once',
    'wardrobe.orders[0].states[0]: there is no state "stnad"; did you mean "stand"?',
    'wardrobe.orders[0].span: there is no span "lwo"; did you mean "low"?',
    'wardrobe.schemes[0].coats: there is no layer or palette "coats"',
    'wardrobe.schemes[0].hat: "hat" has no "cpa"; did you mean "cap"?',
  ])
    expect(message).toContain(part);
});

test('the check looks at the drawings: what is missing, drifts, is in no drawing, is in no palette', () => {
  /** Every cell filled with a colour, but for some. */
  const filled = (colour: number, without: readonly number[] = []) => {
    const pixels = new Uint8Array(16 * 8 * 4);
    for (let at = 0; at < 128; at++) {
      const cell = Math.floor(at / 64) * 4 + Math.floor((at % 16) / 4);
      if (without.includes(cell)) continue;
      pixels.set([colour >> 16, (colour >> 8) & 255, colour & 255, 255], at * 4);
    }
    return { width: 16, height: 8, pixels };
  };
  const images: Record<string, ReturnType<typeof filled>> = {
    'body.png': filled(0xf0c8a0),
    'long.png': filled(0x102040),
    'cape.png': filled(0x304080),
    'cap.png': filled(0x777777),
    'bob.png': filled(0x222222, [4, 5]),
    'bun.png': filled(0x222222),
    'things.png': filled(0x222222),
  };
  const drifted = compileController({
    ...folk,
    sheets: { ...folk.sheets, cape: { ...folk.sheets.cape, pivot: [3, 4] } },
  });
  const found = measureWardrobe(drifted, (image) => images[image]!);
  expect(found.map(({ code, path }) => [code, path.join('.')])).toEqual([
    ['piece-drift', 'wardrobe.layers.coat.pieces.cape'],
    ['piece-missing', 'wardrobe.layers.hair.pieces.bob'],
    ['colour-unnamed', 'wardrobe.layers.hat.pieces.cap'],
  ]);
  expect(found[0]!.text).toContain('1 px across and 0 px down');
  expect(found[1]!.text).toContain('no drawing for stand-north');
  expect(found[2]!.text).toContain('#777777');
  const pale: typeof images = { ...images, 'cape.png': filled(0x102040) };
  expect(measureWardrobe(controller, (image) => pale[image]!).map(({ code }) => code)).toContain(
    'palette-unseen',
  );
  // They are findings like all others.
  expect(checkController(drifted, { wardrobe: found }).findings.map(({ code }) => code)).toEqual(
    expect.arrayContaining(['piece-drift', 'piece-missing', 'colour-unnamed']),
  );
});
