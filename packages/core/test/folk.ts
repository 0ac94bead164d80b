import { compileController } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { wardrobeOf } from 'dot-hop/wardrobe';

const grid = { cell: [4, 4] as const };
const sheet = (
  image: string,
): {
  image: string;
  size: readonly [number, number];
  grid: typeof grid;
  pivot: readonly [number, number];
} => ({
  image,
  size: [16, 8],
  grid,
  pivot: [2, 4],
});
/** Townsfolk of two clips in four directions, with all that a wardrobe can have. */
export const folk = {
  dotHop: 1,
  name: 'folk',
  sheets: {
    body: { ...sheet('body.png'), points: { hand: [1, 2] }, perCell: { 2: { points: { hand: [3, 1] } } } },
    bob: sheet('bob.png'),
    bun: sheet('bun.png'),
    long: sheet('long.png'),
    cape: sheet('cape.png'),
    cap: sheet('cap.png'),
    things: { ...sheet('things.png'), pivot: [1, 0] },
  },
  clips: {
    stand: { cells: '0-1', rows: ['east', 'north'], fps: 10 },
    walk: { cells: '2-3', rows: ['east', 'north'], fps: 20, cues: { step: 1 }, spans: { low: '0-0' } },
  },
  compass: { directions: 'four', mirror: { west: 'east' }, by: ['vx', 'vy'], start: 'east' },
  signals: { vx: { number: 0 }, vy: { number: 0 } },
  derived: { moving: { of: 'hypot(vx, vy)', above: 5, below: 3 } },
  states: { stand: { shows: 'stand' }, walk: { shows: 'walk', while: 'moving', priority: 1 } },
  rest: 'stand',
  palettes: {
    skin: { drawn: 'fair', shared: true, colours: { fair: ['#f0c8a0'], deep: ['#604030'] } },
    cloth: {
      drawn: 'navy',
      colours: { navy: ['#102040', '#304080'], moss: ['#204020', '#408040'], wine: ['#401020', '#803050'] },
    },
  },
  wardrobe: {
    layers: {
      coat: {
        pieces: {
          long: { sheet: 'long', palettes: ['cloth', 'skin'] },
          cape: { sheet: 'cape', palettes: ['cloth'], excludes: ['hat'] },
        },
      },
      hair: {
        pieces: {
          bob: { sheet: 'bob', weight: 2 },
          bun: { sheet: 'bun', clips: ['stand'], otherwise: 'bob' },
        },
      },
      hat: {
        none: 1,
        hidden: [{ clips: ['walk'], from: 'step' }],
        pieces: { cap: { sheet: 'cap', palettes: ['cloth'], requires: ['coat.long'] } },
      },
      held: {
        none: 1,
        pieces: {
          lamp: { sheet: 'things', cell: 3, at: 'hand' },
          sign: { sheet: 'things', cell: { east: 1, north: 2 }, at: 'hand' },
        },
      },
    },
    order: ['body', 'coat', 'hair', 'hat', 'held'],
    orders: [{ directions: ['north'], order: ['held', 'body', 'coat', 'hair', 'hat'] }],
    palettes: ['skin'],
    schemes: [
      { 'coat.cloth': 'moss', 'hat.cloth': ['moss', 'navy'] },
      { 'coat.cloth': ['wine', 'navy'], 'hat.cloth': 'wine' },
    ],
  },
} as const satisfies ControllerDefinition;
export const controller = compileController(folk as ControllerDefinition);
export const wardrobe = wardrobeOf(controller)!;
