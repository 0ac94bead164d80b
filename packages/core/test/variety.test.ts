import fc from 'fast-check';
import { Performer } from 'dot-hop';
import type { ControllerDefinition, VarietyDefinition } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import { compiledOf } from 'dot-hop/compiled';
import { changedData, rename } from 'dot-hop/edit';
import { describeController } from 'dot-hop/explain';
import { Player, loadCompiled } from 'dot-hop/play';
import { Troupe } from 'dot-hop/troupe';
import { compile, sheets, stepTold } from './characters.js';
import { often } from './often.js';

type Parts = Parameters<typeof compile>[0];

const fidgety = (shows: VarietyDefinition, more: Partial<Parts> = {}): Parts => ({
  clips: {
    stand: { cells: 0, fps: 10 },
    yawn: { cells: '1-2', fps: 10, loop: 'once' },
    scratch: { cells: '3-5', fps: 10, loop: 'once' },
    look: { cells: '6-9', fps: 10, loop: 'once' },
    'yawn-wet': { cells: '10-11', fps: 10, loop: 'once' },
  },
  signals: { bored: { pulse: true }, wet: { flag: false } },
  states: { stand: { shows: 'stand' }, fidget: { shows, when: 'bored', priority: 1, again: 'restart' } },
  ...more,
});
const any = ['yawn', 'scratch', 'look'];

/** What it shows each of so many times. */
function picked(performer: Player, times: number): string[] {
  return Array.from({ length: times }, () => {
    performer.pulse('bored');
    performer.step(0);
    const { clip } = performer;
    performer.step(1000);
    return clip;
  });
}

test('they take turns, each time the state is entered, and keep what shows until then', () => {
  const performer = new Performer(compile(fidgety({ any })));
  expect(picked(performer, 4)).toEqual(['yawn', 'scratch', 'look', 'yawn']);
  performer.pulse('bored');
  expect(stepTold(performer, 100)).toEqual(['4000 stand > fidget']);
  // Pressed again, it begins again with the next.
  performer.pulse('bored');
  expect(stepTold(performer, 0)).toEqual(['4100 fidget > fidget']);
  expect([performer.clip, performer.frameIndex]).toEqual(['look', 0]);
});

test('chance takes the same for the same seed, by weight, and nothing twice in a row', () => {
  const controller = compile(fidgety({ any, pick: 'chance', weights: [6, 3, 1] }));
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 2 ** 32 - 1 }), (seed) => {
      const [one, other] = [new Performer(controller), new Performer(controller)];
      one.seed = other.seed = seed;
      const shown = picked(one, 30);
      expect(picked(other, 30)).toEqual(shown);
      expect(shown.filter((clip, i) => clip === shown[i - 1])).toEqual([]);
    }),
    { numRuns: often(30) },
  );
  const free = new Performer(compile(fidgety({ any, pick: 'chance', weights: [6, 3, 1], repeats: true })));
  free.seed = 7;
  const counts = picked(free, 2000).reduce<Record<string, number>>(
    (sum, clip) => ({ ...sum, [clip]: (sum[clip] ?? 0) + 1 }),
    {},
  );
  // Ten in all: within four standard deviations.
  expect(Math.abs(counts.yawn! - 1200)).toBeLessThan(88);
  expect(Math.abs(counts.look! - 200)).toBeLessThan(54);
});

test('what has no weight never comes; the only one that has comes each time', () => {
  const performer = new Performer(compile(fidgety({ any, pick: 'chance', weights: [0, 1, 0] })));
  expect(picked(performer, 5)).toEqual(new Array<string>(5).fill('scratch'));
});

test('a snapshot, a copy and a compiled document pick on as they would have', () => {
  const parts = fidgety({ any, pick: 'chance' });
  const controller = compile(parts);
  const performer = new Performer(controller);
  performer.seed = 99;
  picked(performer, 3);
  performer.pulse('bored');
  performer.step(50);
  const snapshot = JSON.parse(JSON.stringify(performer.snapshot())) as ReturnType<Performer['snapshot']>;
  expect(snapshot.picks).toEqual({ fidget: { shows: performer.clip, place: any.indexOf(performer.clip) } });
  const saved = performer.save();
  const again = new Performer(controller);
  again.restore(snapshot);
  expect([again.clip, again.seed]).toEqual([performer.clip, performer.seed]);
  const player = new Player(loadCompiled(JSON.parse(JSON.stringify(compiledOf(controller))) as never));
  player.seed = 99;
  picked(player, 3);
  player.pulse('bored');
  player.step(50);
  // Edited, it shows what it showed, by name.
  const edited = new Performer(compile(fidgety({ any: ['look', 'yawn', 'scratch'], pick: 'chance' })));
  edited.adopt(snapshot);
  edited.step(0);
  expect(edited.clip).toBe(performer.clip);
  const expected = picked(performer, 6);
  expect(picked(again, 6)).toEqual(expected);
  expect(picked(player, 6)).toEqual(expected);
  performer.load(saved);
  expect(picked(performer, 6)).toEqual(expected);
  expect(() => again.restore({ ...snapshot, seed: 0.5 })).toThrow('seed: expected a whole number from 0 to');
  for (const seed of [NaN, 0.5, -1, 2 ** 32])
    expect(() => (again.seed = seed)).toThrow('a seed is a whole number from 0 to 4294967295, not');
  again.seed = 2 ** 32 - 1;
  expect(again.seed).toBe(2 ** 32 - 1);
});

test('members of a troupe have seeds of their own, and variants stand for what is picked', () => {
  const controller = compile(fidgety({ any, pick: 'chance' }, { variants: { wet: { yawn: 'yawn-wet' } } }));
  const troupe = new Troupe(controller, 40);
  for (let i = 0; i < 40; i++) {
    troupe.member(i).seed = i * 7919;
    troupe.pulse(i, 'bored');
  }
  troupe.step(0);
  const shown = new Set(Array.from({ length: 40 }, (_, i) => troupe.member(i).clip));
  expect(shown).toEqual(new Set(any));
  const performer = new Performer(
    compile(fidgety({ any: ['look', 'yawn'] }, { variants: { wet: { yawn: 'yawn-wet' } } })),
    { wet: true },
  );
  expect(picked(performer, 2)).toEqual(['look', 'yawn-wet']);
});

test('it is described, checked and renamed as what shows', () => {
  const controller = compile(fidgety({ any }));
  expect(describeController(controller).states[0]!.shows).toEqual(any);
  const unused = checkController(controller).findings.filter(({ code }) => code === 'clip-unused');
  expect(unused.map(({ path }) => path.join('.'))).toEqual(['clips.yawn-wet']);
  const definition = { dotHop: 1, sheets, ...fidgety({ any }) } as ControllerDefinition;
  const { changes } = rename(definition, { kind: 'clip', from: 'scratch', to: 'itch' });
  expect(changedData(definition, changes).states!.fidget!.shows).toEqual({ any: ['yawn', 'itch', 'look'] });
});

test.each<[VarietyDefinition, string]>([
  [{ any: ['yawn'] }, 'states.fidget.shows.any: "any" picks one of two or more; here is 1'],
  [
    { any: ['yawn', 'yown'] },
    'states.fidget.shows.any[1]: there is no clip or flipbook "yown"; did you mean "yawn"?',
  ],
  [{ any, weights: [1, 2, 3] }, 'states.fidget.shows.weights: "weights" is for chance'],
  [
    { any, pick: 'chance', weights: [1, 2] },
    'shows.weights: "weights" has a number for each of the 3 in "any", not 2',
  ],
  [{ any, pick: 'chance', weights: [0, 0, 0] }, 'shows.weights: all weights are 0'],
  [{ any, pick: 'chance', weights: [1, -1, 0] }, 'shows.weights[1]: expected 0 or more, not -1'],
  [{ any, pick: 'luck' as never }, 'shows.pick: expected "turn" or "chance", not "luck"'],
  [{ any: ['yawn', 'stand'] }, 'the clip "stand" loops forever, so this act would never end'],
])('what cannot be picked from is refused in words: %j', (shows, words) => {
  expect(() => compile(fidgety(shows))).toThrow(words);
});

test('each of several performers has a seed of its own', () => {
  const controller = compile(fidgety({ any, pick: 'chance' }));
  const all = [7, 4_000_000_000, 12].map((seed) => {
    const performer = new Performer(controller);
    performer.seed = seed;
    return performer;
  });
  expect(all.map(({ seed }) => seed)).toEqual([7, 4_000_000_000, 12]);
  const alone = new Performer(controller);
  alone.seed = 12;
  expect(picked(all[2]!, 6)).toEqual(picked(alone, 6));
});
