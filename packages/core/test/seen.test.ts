import fc from 'fast-check';
import { Performer } from 'dot-hop';
import { Recording, expectationsSeen, readRehearsal, runRehearsal, unmetText } from 'dot-hop/rehearsal';
import { compile } from './characters.js';
import { controller as ferryman } from './ferryman.js';
import { characters } from './made-characters.js';
import { act, bearable, scenes } from './stories.js';
import { lawThatMeets } from './often.js';

test('each state is expected in the middle of its time, all in their order, and each cue so many times', () => {
  const script = [
    { at: 200, set: { vx: 60 } },
    { at: 500, set: { vx: -60 } },
    { at: 900, pulse: 'jump' },
    { at: 1100, set: { vx: 0 } },
  ];
  expect(expectationsSeen(ferryman, { lasts: 1500, script })).toEqual([
    { at: 100, state: 'stand', direction: 'east' },
    { at: 550, state: 'stroll', direction: 'west' },
    { at: 950, state: 'crouch', direction: 'west' },
    { at: 1050, state: 'stroll', direction: 'west' },
    { at: 1300, state: 'stand', direction: 'west' },
    { from: 0, to: 1500, passes: ['stand', 'stroll', 'crouch', 'stroll', 'stand'], cues: { leap: 1 } },
  ]);
});

test('what was seen of anybody is met when it passes again', () => {
  let expected = 0;
  lawThatMeets(
    fc.property(characters, scenes, (made, story) => {
      const controller = compile(made);
      const performer = new Performer(controller);
      const recording = new Recording(performer, 3_600_000);
      try {
        for (const { deeds, wait } of bearable(controller, story)) {
          for (const deed of deeds) if (!('pace' in deed)) act(performer, deed);
          performer.step(Math.max(wait, 1) / 1000);
        }
        const rehearsal = recording.rehearsal();
        const seen = expectationsSeen(controller, rehearsal);
        const file = { dotHopRehearsal: 1, document: 'made-up.yaml', ...rehearsal, expect: seen };
        const { definition } = readRehearsal(JSON.stringify(file), 'seen.rehearsal.json');
        expect(unmetText(runRehearsal(controller, definition))).toBe('');
        expected += seen.length;
      } catch (error) {
        if (!String(error).includes('without taking any time')) throw error;
      }
    }),
    { usual: 30, met: () => expected, moreThan: 40 },
  );
});
