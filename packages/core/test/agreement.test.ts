import fc from 'fast-check';
import { Performer } from 'dot-hop';
import type { Controller } from 'dot-hop';
import { agree } from './agree.js';
import { compile, lastTold, shownBy, stepTold } from './characters.js';
import { characters } from './made-characters.js';
import { act, bearable, scenes as stories } from './stories.js';
import type { Scene } from './stories.js';
import { Reference } from './reference.js';
import { often } from './often.js';

/** How many made-up characters are compared; `npm run agreement` compares 100,000. */
const numRuns = Number(process.env.AGREEMENT_RUNS ?? often(500));

/** More flags than a word has bits. */
const padding = Object.fromEntries(Array.from({ length: 45 }, (_, i) => [`pad${i}`, { flag: i % 3 === 0 }]));

/** Plays a story, as far as it goes. */
function played(controller: Controller, scenes: readonly Scene[]): void {
  const performer = new Performer(controller);
  try {
    for (const { deeds, wait } of scenes) {
      for (const deed of deeds) act(performer, deed);
      performer.step(wait / 1000);
    }
  } catch {
    // States that lead to one another without time end a story here as they do below.
  }
}

test('the runtime and the plain reference tell the same, at every instant', () => {
  fc.assert(
    fc.property(characters, stories, fc.boolean(), fc.boolean(), (own, story, isLate, isKnown) => {
      // With flags before its own, a character's bits lie in further words.
      const parts = isLate ? { ...own, signals: { ...padding, ...own.signals } } : own;
      const controller = compile(parts);
      const scenes = bearable(controller, story);
      // Another performer has met the same situations, so that what is known of them counts.
      if (isKnown) played(controller, scenes);
      const performer = new Performer(controller);
      const reference = new Reference(parts, controller);
      expect(performer.state).toBe(reference.tracks[0]!.state);
      for (const { deeds, wait } of scenes) {
        for (const deed of deeds) {
          let granted: boolean | undefined;
          try {
            granted = act(performer, deed);
          } catch (error) {
            expect(() => reference.do(deed)).toThrow('without taking any time');
            expect(String(error)).toContain('without taking any time');
            return;
          }
          reference.told.length = 0;
          agree(reference.do(deed), granted);
          if (granted !== undefined) agree(lastTold(performer), reference.told);
        }
        let told: string[] | string;
        try {
          told = stepTold(performer, wait / 1000);
        } catch (error) {
          expect(() => reference.step(wait)).toThrow('without taking any time');
          expect(String(error)).toContain('without taking any time');
          return;
        }
        reference.told.length = 0;
        reference.step(wait);
        const shown = shownBy(performer).map(({ state, facing, clip, frameIndex: frame }) => {
          return { state, facing, clip, frame };
        });
        agree([told, shown], [reference.told, reference.tracks.map((track) => track.shown)]);
      }
    }),
    { numRuns },
  );
});
