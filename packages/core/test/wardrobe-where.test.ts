import { Performer, compileController } from 'dot-hop';
import type { ControllerDefinition, WhereDefinition } from 'dot-hop';
import { wardrobeOf } from 'dot-hop/wardrobe';
import { folk } from './folk.js';

/** The townsfolk with clips of four frames, and with a hat that is hidden somewhere. */
function hidingHat(where: WhereDefinition): Performer {
  const { layers } = folk.wardrobe;
  const definition: ControllerDefinition = {
    ...folk,
    clips: {
      stand: { cells: '0-3', rows: ['east', 'north'], every: 4, ms: 100 },
      walk: {
        cells: [0, 1, 2, 3, 2, 1],
        rows: ['east', 'north'],
        every: 4,
        ms: 100,
        cues: { start: 0, lift: 1, land: 3 },
        spans: { high: '1-2' },
      },
    },
    wardrobe: {
      ...folk.wardrobe,
      layers: {
        ...layers,
        hair: { pieces: { bob: { sheet: 'bob' } } },
        hat: { ...layers.hat, hidden: [where] },
      },
    },
  };
  const controller = compileController(definition);
  const performer = new Performer(controller);
  performer.wear(wardrobeOf(controller)!.outfit({ pieces: { coat: 'long', hat: 'cap' } }));
  return performer;
}

/** The frames of a pass on which the hat shows, each as its number. */
function shownOn(performer: Performer, vx: number, vy: number): string {
  performer.set('vx', vx);
  performer.set('vy', vy);
  performer.step(0);
  let frames = '';
  for (let i = 0; i < (performer.state === 'walk' ? 6 : 4); i++) {
    if (performer.pose.layers.some(({ layer }) => layer === 'hat')) frames += String(performer.frameIndex);
    performer.step(100);
  }
  return frames;
}

// Where the hat shows: while she stands, walks east, west (the mirror image) and north.
test.each<[WhereDefinition, string, string, string, string]>([
  [{}, '', '', '', ''],
  [{ frames: '1-2' }, '03', '0345', '0345', '0345'],
  [{ frames: 0 }, '123', '12345', '12345', '12345'],
  [{ clips: ['walk'] }, '0123', '', '', ''],
  [{ clips: ['walk'], frames: '4-5' }, '0123', '0123', '0123', '0123'],
  [{ span: 'high' }, '0123', '0345', '0345', '0345'],
  [{ from: 'land' }, '0123', '012', '012', '012'],
  [{ until: 'lift' }, '', '12345', '12345', '12345'],
  // A cue of the first frame: from there on is everywhere, until there is nowhere.
  [{ from: 'start' }, '0123', '', '', ''],
  [{ until: 'start' }, '', '012345', '012345', '012345'],
  [{ from: 'lift', until: 'land' }, '0123', '0345', '0345', '0345'],
  [{ directions: ['north'] }, '0123', '012345', '012345', ''],
  [{ directions: ['east'] }, '', '', '', '012345'],
  [{ directions: ['west'] }, '0123', '012345', '', '012345'],
  [{ states: ['stand'] }, '', '012345', '012345', '012345'],
])(
  'hidden where %j, a hat shows on these frames: %s while she stands; walking %s, %s, %s',
  (where, ...shown) => {
    const performer = hidingHat(where);
    expect([
      shownOn(performer, 0, 0),
      shownOn(performer, 20, 0),
      shownOn(hidingHat(where), -20, 0),
      shownOn(hidingHat(where), 0, -20),
    ]).toEqual(shown);
  },
);

test('a piece that is drawn for one of two sheets of the body is left out on the other', () => {
  const controller = compileController({
    ...folk,
    sheets: { ...folk.sheets, running: { ...folk.sheets.body, image: 'running.png' } },
    clips: { ...folk.clips, walk: { ...folk.clips.walk, sheet: 'running' } },
    wardrobe: {
      layers: {
        coat: { pieces: { long: { sheet: { body: 'long' } } } },
        hat: { pieces: { cap: { sheet: { body: 'cap', running: 'cap' } } } },
      },
    },
  });
  const performer = new Performer(controller);
  performer.wear(wardrobeOf(controller)!.outfit({ pieces: { coat: 'long', hat: 'cap' } }));
  const worn = (): unknown[] => performer.pose.layers.map(({ piece, cell }) => [piece, cell.image]);
  expect(worn()).toEqual([
    [undefined, 'body.png'],
    ['long', 'long.png'],
    ['cap', 'cap.png'],
  ]);
  performer.set('vx', 20);
  performer.step(0);
  expect(worn()).toEqual([
    [undefined, 'running.png'],
    ['cap', 'cap.png'],
  ]);
});

test('a piece that is drawn for some directions shows there, and where their mirror image is shown', () => {
  const shown = (directions: string[]): string[] => {
    const controller = compileController({
      ...folk,
      wardrobe: { layers: { hat: { pieces: { cap: { sheet: 'cap', directions } } } } },
    });
    const performer = new Performer(controller);
    performer.wear(wardrobeOf(controller)!.outfit({ pieces: { hat: 'cap' } }));
    return ['east', 'west', 'north'].filter((direction) => {
      performer.set('vx', { east: 20, west: -20, north: 0 }[direction]!);
      performer.set('vy', direction === 'north' ? -20 : 0);
      performer.step(0);
      expect(performer.facing).toBe(direction);
      return performer.pose.layers.some(({ layer }) => layer === 'hat');
    });
  };
  expect(shown(['east'])).toEqual(['east', 'west']);
  expect(shown(['west'])).toEqual(['west']);
  expect(shown(['north'])).toEqual(['north']);
});

test('without states a place names clips, which are states then', () => {
  const dressed = (definition: ControllerDefinition, state: string): ControllerDefinition => ({
    ...definition,
    wardrobe: { layers: { hat: { pieces: { cap: { sheet: 'cap' } }, hidden: [{ states: [state] }] } } },
  });
  const clipsOnly = { ...folk, states: undefined, rest: undefined };
  const controller = compileController(dressed(clipsOnly, 'stand'));
  const performer = new Performer(controller);
  performer.wear(wardrobeOf(controller)!.outfit({ pieces: { hat: 'cap' } }));
  const hats = (): number => performer.pose.layers.filter(({ layer }) => layer === 'hat').length;
  expect([performer.state, hats()]).toEqual(['stand', 0]);
  performer.cut('walk');
  expect([performer.state, hats()]).toEqual(['walk', 1]);
  expect(() => wardrobeOf(compileController(dressed(folk, 'walk-east')))).toThrow(
    'there is no state "walk-east"',
  );
});
