import fc from 'fast-check';
import { Performer } from 'dot-hop';
import { act, characters, compile, lastTold, scenes, stepTold } from './characters.js';
import type { Scene } from './characters.js';

/** Everything a performer tells over some scenes: reports with their instants, and what shows after each wait. */
function play(performer: Performer, story: readonly Scene[], split: (wait: number) => number[]): string[] {
  const told: string[] = [];
  try {
    for (const { deeds, wait } of story) {
      for (const deed of deeds) if (act(performer, deed) !== undefined) told.push(...lastTold(performer));
      for (const part of split(wait)) told.push(...stepTold(performer, part / 1000));
      told.push(
        `${performer.time}: ${performer.state} ${performer.facing} ${performer.frameIndex} ${performer.phase}`,
      );
    }
  } catch (error) {
    told.push(...lastTold(performer), String(error));
  }
  return told;
}

const runs = { numRuns: 2000 };

describe('laws of time', () => {
  test('the splitting law: any split of the same time tells the same', () => {
    const cuts = fc.array(fc.integer({ min: 0, max: 1_000_000 }), { maxLength: 12 });
    fc.assert(
      fc.property(characters, scenes, cuts, (parts, story, at) => {
        const controller = compile(parts);
        const whole = play(new Performer(controller), story, (wait) => [wait]);
        const pieces = play(new Performer(controller), story, (wait) => {
          const borders = [0, ...at.map((cut) => cut % (wait + 1)), wait].sort((a, b) => a - b);
          return borders.slice(1).map((border, i) => border - borders[i]!);
        });
        expect(pieces).toEqual(whole);
      }),
      runs,
    );
  });

  test('one step of a second is a thousand steps of a millisecond', () => {
    fc.assert(
      fc.property(characters, scenes, (parts, story) => {
        const controller = compile(parts);
        const seconds = story.map(({ deeds }) => ({ deeds, wait: 1_000_000 }));
        const whole = play(new Performer(controller), seconds, (wait) => [wait]);
        const ticks = play(new Performer(controller), seconds, (wait) =>
          new Array<number>(1000).fill(wait / 1000),
        );
        expect(ticks).toEqual(whole);
      }),
      { numRuns: 60 },
    );
  });

  test('the same document, signals and steps give the same, whoever else performs meanwhile', () => {
    fc.assert(
      fc.property(characters, scenes, scenes, (parts, story, other) => {
        const controller = compile(parts);
        const alone = play(new Performer(compile(parts)), story, (wait) => [wait]);
        play(new Performer(controller), other, (wait) => [wait]);
        expect(play(new Performer(controller), story, (wait) => [wait])).toEqual(alone);
      }),
      { numRuns: 300 },
    );
  });
});
