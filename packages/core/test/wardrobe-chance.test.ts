import { compileController } from 'dot-hop';
import { differences, goTogether, randomCrowd, randomOutfit, wardrobeOf } from 'dot-hop/wardrobe';
import { folk, wardrobe } from './folk.js';

test('the same seed gives the same outfit; pieces go together, colours keep to a scheme; a crowd differs', () => {
  // Written down once: other machines must come to the same.
  expect(randomOutfit(wardrobe, 7)).toMatchInlineSnapshot(`
   {
     "colours": {
       "coat.cloth": "moss",
       "hat.cloth": "navy",
       "skin": "fair",
     },
     "pieces": {
       "coat": "long",
       "hair": "bun",
       "hat": "cap",
       "held": "lamp",
     },
   }
  `);
  const seen = new Set<string>();
  for (let seed = 0; seed < 400; seed++) {
    const { pieces, colours } = randomOutfit(wardrobe, seed);
    expect(goTogether(wardrobe, pieces)).toBe(true);
    if (pieces.hat === 'cap') expect(pieces.coat).toBe('long');
    if (colours['coat.cloth'] === 'moss') expect(['moss', 'navy']).toContain(colours['hat.cloth']);
    else expect(colours['hat.cloth']).toBe('wine');
    for (const [layer, piece] of Object.entries(pieces)) seen.add(`${layer}.${piece}`);
  }
  expect([...seen].sort()).toEqual([
    'coat.cape',
    'coat.long',
    'hair.bob',
    'hair.bun',
    'hat.cap',
    'hat.none',
    'held.lamp',
    'held.none',
    'held.sign',
  ]);
  const crowd = randomCrowd(wardrobe, 1, 12, { differ: 2 });
  crowd.forEach((one, i) =>
    crowd.slice(0, i).forEach((other) => expect(differences(one, other)).toBeGreaterThanOrEqual(2)),
  );
  expect(() => randomCrowd(wardrobe, 1, 500, { differ: 4 })).toThrow(
    /only \d+ of 500 people were found that differ in 4 choices/,
  );
});

test('what is told is worn, and chance picks what goes with it; a crowd differs all the same', () => {
  for (let seed = 0; seed < 200; seed++) {
    const { pieces, colours } = randomOutfit(wardrobe, seed, {
      pieces: { hat: 'cap' },
      colours: { 'coat.cloth': 'moss' },
    });
    expect([pieces.hat, pieces.coat, colours['coat.cloth']]).toEqual(['cap', 'long', 'moss']);
    expect(['moss', 'navy']).toContain(colours['hat.cloth']);
  }
  // A cape excludes any hat: who tells both means it.
  expect(randomOutfit(wardrobe, 1, { pieces: { hat: 'cap', coat: 'cape' } }).pieces).toMatchObject({
    hat: 'cap',
    coat: 'cape',
  });
  const crowd = randomCrowd(wardrobe, 3, 8, { differ: 2, wear: { pieces: { coat: 'cape' } } });
  crowd.forEach((one, i) => {
    expect(one.pieces).toMatchObject({ coat: 'cape', hat: 'none' });
    for (const other of crowd.slice(0, i)) expect(differences(one, other)).toBeGreaterThanOrEqual(2);
  });
  expect(() => randomOutfit(wardrobe, 1, { pieces: { hat: 'cpa' } })).toThrow('did you mean "cap"?');
});

test('a seed may be a text; who asks for what can never go together is told', () => {
  const seeds = ['ann', 'bea', 'cid', 'dot', 'eve', 'fay', 'gus', 'hal'];
  const crowd = seeds.map((seed) => JSON.stringify(randomOutfit(wardrobe, seed)));
  expect(crowd).toEqual(seeds.map((seed) => JSON.stringify(randomOutfit(wardrobe, seed))));
  expect(new Set(crowd).size).toBeGreaterThan(4);
  // A cap requires the long coat, which chance never takes here.
  const { layers } = folk.wardrobe;
  const { long, cape } = layers.coat.pieces;
  const rare = compileController({
    ...folk,
    wardrobe: {
      ...folk.wardrobe,
      layers: { ...layers, coat: { pieces: { long: { ...long, weight: 0 }, cape } } },
    },
  });
  expect(() => randomOutfit(wardrobeOf(rare)!, 1, { pieces: { hat: 'cap' } })).toThrow(
    'chance found no clothes that go together in 400 tries',
  );
});

test('a weight of two comes about twice as often', () => {
  let bobs = 0;
  for (let seed = 0; seed < 3000; seed++) if (randomOutfit(wardrobe, seed).pieces.hair === 'bob') bobs++;
  expect(bobs / 3000).toBeGreaterThan(0.62);
  expect(bobs / 3000).toBeLessThan(0.71);
});
