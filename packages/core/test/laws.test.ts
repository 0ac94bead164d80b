import fc from 'fast-check';
import { Performer } from 'dot-hop';
import type { State } from 'dot-hop';
import { compile, lastTold, shownBy, stepTold } from './characters.js';
import { characters } from './made-characters.js';
import { act, bearable, scenes } from './stories.js';
import type { Scene } from './stories.js';
import { often } from './often.js';

/** Everything a performer tells over some scenes: reports with their instants, and what shows after each wait. */
function play(performer: Performer, story: readonly Scene[], split: (wait: number) => number[]): string[] {
  const told: string[] = [];
  // Some characters switch at every microsecond: more reports than a call can be given.
  const add = (more: readonly string[]): void => more.forEach((one) => told.push(one));
  try {
    for (const { deeds, wait } of story) {
      for (const deed of deeds) if (act(performer, deed) !== undefined) add(lastTold(performer));
      for (const part of split(wait)) add(stepTold(performer, part / 1000));
      told.push(`${performer.time}: ${JSON.stringify(shownBy(performer))}`);
    }
  } catch (error) {
    add([...lastTold(performer), String(error)]);
  }
  return told;
}

const runs = { numRuns: often(200) };

describe('laws of time', () => {
  test('the splitting law: any split of the same time tells the same', () => {
    const cuts = fc.array(fc.integer({ min: 0, max: 1_000_000 }), { maxLength: 12 });
    fc.assert(
      fc.property(characters, scenes, cuts, (parts, story, at) => {
        const controller = compile(parts);
        const scenes = bearable(controller, story);
        const whole = play(new Performer(controller), scenes, (wait) => [wait]);
        const pieces = play(new Performer(controller), scenes, (wait) => {
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
        const seconds = bearable(
          controller,
          story.map(({ deeds }) => ({ deeds, wait: 1_000_000 })),
        );
        const whole = play(new Performer(controller), seconds, (wait) => [wait]);
        const ticks = play(new Performer(controller), seconds, (wait) => [
          ...new Array<number>(Math.floor(wait / 1000)).fill(1000),
          wait % 1000,
        ]);
        expect(ticks).toEqual(whole);
      }),
      { numRuns: often(60) },
    );
  });

  test('no act is cut off by an equal or lower rank, and no final state by any', () => {
    fc.assert(
      fc.property(characters, scenes, (parts, story) => {
        const controller = compile(parts);
        const performer = new Performer(controller);
        const { states, tracks } = controller;
        // Of a state that has taken a track, rank and name are those of the one in its own.
        const state = (name: string, track: string): State =>
          states.find((one) => one.name === name && tracks[one.track]!.name === track)!;
        for (const { deeds, wait } of bearable(controller, story)) {
          try {
            for (const deed of deeds) act(performer, deed);
            performer.step(wait / 1000);
          } catch (error) {
            expect(String(error)).toContain('without taking any time');
            return;
          }
          const { reports } = performer;
          for (let i = 0; i < reports.count; i++) {
            if (reports.kind(i) !== 'switch' || reports.rule(i) !== 'rank') continue;
            const from = state(reports.from(i), reports.track(i));
            expect(state(reports.name(i), reports.track(i)).rank).toBeGreaterThan(from.rank);
            expect(from.final).toBe(false);
          }
        }
      }),
      runs,
    );
  });

  test('an end is always left: no act stays on its last frame unless its atLeast or the rest keeps it', () => {
    fc.assert(
      fc.property(characters, scenes, (parts, story) => {
        const controller = compile(parts);
        const performer = new Performer(controller);
        for (const { deeds, wait } of bearable(controller, story)) {
          try {
            for (const deed of deeds) act(performer, deed);
            performer.step(wait / 1000);
          } catch (error) {
            expect(String(error)).toContain('without taking any time');
            return;
          }
          const all = { body: { states: parts.states!, rest: parts.rest }, ...parts.tracks };
          for (const [name, { states, rest = Object.keys(states)[0] }] of Object.entries(all)) {
            const { state } = performer.showing(name);
            const shot = performer.snapshot();
            const { progress } = name === 'body' ? shot : shot.tracks![name]!;
            const { when, while: during, inStep, lasts } = states[state] ?? { while: 'taken' };
            // What lasts a given time may stay on its last frame until then.
            const ends =
              (when !== undefined || during === undefined) && inStep === undefined && lasts === undefined;
            const { holding } = performer.why(name);
            const kept = holding === 'atLeast';
            if (ends && !kept && state !== rest) expect(progress).not.toContain('ended');
          }
        }
      }),
      runs,
    );
  });

  test('no cue is lost or doubled, whatever the rate and however it changes', () => {
    const frames = fc.array(fc.integer({ min: 1, max: 300 }), { minLength: 2, maxLength: 6 });
    const changes = fc.array(fc.tuple(fc.nat(400_000), fc.constantFrom(0, 0.25, 1, 1.7, 3)), {
      maxLength: 12,
    });
    fc.assert(
      fc.property(frames, changes, (ms, story) => {
        const performer = new Performer(
          compile({
            clips: { c: { cells: `0-${ms.length - 1}`, ms, cues: { odd: ms.map((_, i) => i) } } },
            signals: { speed: { number: 1 } },
            states: { s: { shows: 'c', rate: 'speed' } },
          }),
        );
        let cues = 0;
        let entered = 1;
        let frame = 0;
        for (const [wait, speed] of story) {
          performer.set('speed', speed);
          // Steps shorter than any frame at three times its speed: no frame can be passed over unseen.
          for (let left = wait; left > 0; left -= 300) {
            performer.step(Math.min(left, 300) / 1000);
            cues += performer.reports.count;
            if (performer.frameIndex !== frame) entered++;
            frame = performer.frameIndex;
          }
        }
        if (story.some(([wait]) => wait > 0)) expect(cues).toBe(entered);
      }),
      { numRuns: often(60) },
    );
  });

  test('the same document, signals and steps give the same, whoever else performs meanwhile', () => {
    fc.assert(
      fc.property(characters, scenes, scenes, (parts, story, other) => {
        const controller = compile(parts);
        const scenes = bearable(controller, story);
        const alone = play(new Performer(compile(parts)), scenes, (wait) => [wait]);
        play(new Performer(controller), bearable(controller, other), (wait) => [wait]);
        expect(play(new Performer(controller), scenes, (wait) => [wait])).toEqual(alone);
      }),
      { numRuns: often(60) },
    );
  });
});
