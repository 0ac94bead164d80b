import fc from 'fast-check';
import { Performer } from 'dot-hop';
import type { PerformerSnapshot } from 'dot-hop';
import { whyText } from 'dot-hop/explain';
import { Recording, readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import { Troupe } from 'dot-hop/troupe';
import { compile, perform, stepTold } from './characters.js';
import type { Parts } from './characters.js';
import { often } from './often.js';

/** It strolls, and swings when it is told to. */
const parts: Parts = {
  clips: {
    stroll: { cells: '0-3', ms: 100, cues: { heel: 2 } },
    swing: { cells: '4-6', ms: 50, loop: 'once' },
  },
  signals: { press: { pulse: { keep: 120 } }, wet: { flag: false } },
  states: { stroll: { shows: 'stroll' }, swing: { shows: 'swing', when: 'press', priority: 2 } },
};

test('at a quarter of the pace all takes four times as long, in instants of its own time', () => {
  const performer = perform(parts);
  performer.pace = 0.25;
  expect(stepTold(performer, 799)).toEqual([]);
  expect(performer.frameIndex).toBe(1);
  expect(stepTold(performer, 1)).toEqual(['200 heel']);
  expect([performer.pace, performer.time, performer.frameIndex]).toEqual([0.25, 200, 2]);
  performer.pulse('press');
  // 150 ms of its own from 200 on.
  expect(stepTold(performer, 599)).toEqual(['200 stroll > swing']);
  expect(stepTold(performer, 2)).toEqual(['350 swing > stroll']);
  performer.pace = 2;
  const before = performer.time;
  performer.step(50);
  expect(performer.time).toBe(before + 100);
});

test('while its time stands still, nothing passes, and what is set is decided upon', () => {
  const performer = perform(parts);
  performer.step(130);
  performer.pace = 0;
  expect(stepTold(performer, 10_000)).toEqual([]);
  expect([performer.time, performer.frameIndex, performer.why().pace]).toEqual([130, 1, 0]);
  expect(whyText(performer.why())).toContain('Its time stands still (pace 0).');
  performer.pulse('press');
  expect(stepTold(performer, 5000)).toEqual(['130 stroll > swing']);
  performer.pace = 0.5;
  expect(whyText(performer.why())).toContain("Its time runs at 0.5 of the game's.");
  performer.pace = 1;
  expect(whyText(performer.why())).not.toContain('Its time');
  expect(stepTold(performer, 150)).toEqual(['280 swing > stroll']);
});

test('a press is kept as long as its own time says', () => {
  const performer = perform({
    ...parts,
    states: { ...parts.states, swing: { shows: 'swing', when: 'press and not wet', priority: 2 } },
  });
  performer.set('wet', true);
  performer.step(0);
  performer.pace = 0.5;
  performer.pulse('press');
  performer.step(239);
  performer.set('wet', false);
  performer.step(0);
  expect(performer.state).toBe('swing');
});

test('any pace and any steps are the same as steps of its own time, to the microsecond', () => {
  const controller = compile(parts);
  const deeds = fc.array(
    fc.record({
      pace: fc.option(fc.double({ min: 0, max: 64, noNaN: true }), { nil: undefined }),
      press: fc.boolean(),
      wait: fc.nat(90_000),
      again: fc.boolean(),
    }),
    { maxLength: 20 },
  );
  fc.assert(
    fc.property(deeds, (all) => {
      const [paced, plain] = [new Performer(controller), new Performer(controller)];
      let [thousandths, parts] = [1000, 0];
      for (const { pace, press, wait, again } of all) {
        if (pace !== undefined) {
          const wanted = Math.round(pace * 1000);
          if (wanted !== thousandths) [thousandths, parts] = [wanted, 0];
          paced.pace = pace;
        }
        if (press) for (const one of [paced, plain]) one.pulse('press');
        // It goes on from a snapshot, or a copy, as if nothing had been.
        if (again) paced.restore(JSON.parse(JSON.stringify(paced.snapshot())) as PerformerSnapshot);
        else paced.load(paced.save());
        parts += wait * thousandths;
        const own = Math.floor(parts / 1000);
        parts -= own * 1000;
        const steps = [stepTold(plain, own / 1000)].flat();
        expect(stepTold(paced, wait / 1000)).toEqual(steps);
        expect([paced.time, paced.pose]).toEqual([plain.time, plain.pose]);
      }
    }),
    { numRuns: often(200) },
  );
});

test('it begins with 1, also again', () => {
  const performer = perform(parts);
  expect([performer.pace, performer.snapshot().pace]).toEqual([1, undefined]);
  performer.pace = 0.3333;
  expect([performer.pace, performer.snapshot().pace]).toEqual([0.333, 0.333]);
  performer.reset();
  expect(performer.pace).toBe(1);
  performer.step(100);
  expect(performer.time).toBe(100);
});

test.each([-0.1, 64.1, NaN, Infinity, '2', undefined])('%s is no pace, and changes nothing', (pace) => {
  const performer = perform(parts);
  performer.pace = 0.5;
  expect(() => (performer.pace = pace as number)).toThrow(
    'a pace is a number from 0 (it stands still) to 64',
  );
  expect(performer.pace).toBe(0.5);
});

test('a member of a troupe has the time of the troupe', () => {
  const member = new Troupe(compile(parts), 1).member(0);
  expect(() => (member.pace = 0.5)).toThrow('a member of a troupe is not stepped, slowed');
  expect(member.pace).toBe(1);
});

describe('in a rehearsal', () => {
  const rehearsed = (script: object[], more: object = {}): ReturnType<typeof runRehearsal> => {
    const file = { dotHopRehearsal: 1, document: 'stroller.dothop.yaml', lasts: 2000, script, ...more };
    return runRehearsal(
      compile(parts),
      readRehearsal(JSON.stringify(file), 'slow.rehearsal.json').definition,
    );
  };
  const told = ({ trace }: ReturnType<typeof runRehearsal>): string[] =>
    trace.map(({ kind, at, name }) => `${at} ${kind} ${name}`);

  test('a line slows it down; instants stay those of the rehearsal', () => {
    const result = rehearsed([
      { at: 100, pace: 0.3 },
      { at: 500, pulse: 'press', pace: 0 },
      { at: 700, pace: 0.5 },
    ]);
    expect(told(result)).toEqual([
      '100 pace pace',
      // 100 ms of its own at 0.3.
      '433.334 cue heel',
      '500 pace pace',
      '500 pulse press',
      '500 switch swing',
      '700 pace pace',
      '1000 switch stroll',
      '1400 cue heel',
    ]);
    expect(result.samples.map(({ at, state, frame }) => `${at} ${state} ${frame}`)).toContain('500 swing 0');
  });

  test('what it begins with may have a pace', () => {
    const performer = perform(parts);
    performer.pace = 0.7;
    performer.step(0.001);
    const result = rehearsed([], { begins: performer.snapshot() });
    // 199,999.3 µs at 0.7.
    expect(told(result)[0]).toBe('285.714 cue heel');
  });

  test('a line has it begin again, with first values of its own', () => {
    const result = rehearsed([
      { at: 250, pulse: 'press', pace: 4 },
      { at: 260, reset: true, set: { wet: true } },
    ]);
    expect(told(result)).toEqual([
      '200 cue heel',
      '250 pace pace',
      '250 pulse press',
      '250 switch swing',
      '260 reset reset',
      '260 set wet',
      '460 cue heel',
      '860 cue heel',
      '1260 cue heel',
      '1660 cue heel',
    ]);
    expect(result.samples.find(({ at }) => at === 260)).toMatchObject({ state: 'stroll', frame: 0 });
  });

  test.each([
    [{ at: 0, pace: 65 }, 'a number from 0 to 64'],
    [{ at: 0, reset: false }, 'true'],
    [
      { at: 0, reset: true, set: { wett: true } },
      'script[0].set.wett: there is no signal "wett"; did you mean "wet"?',
    ],
  ])('%j is refused', (line, message) => {
    expect(() => rehearsed([line])).toThrow(message);
  });

  test('a recording of one that was slowed down is in its own time, and passes the same', () => {
    const performer = perform(parts);
    performer.pace = 0.5;
    const recording = new Recording(performer);
    performer.step(100);
    performer.pulse('press');
    performer.step(400);
    const rehearsal = recording.rehearsal();
    expect(rehearsal.script).toEqual([{ at: 50, pulse: 'press' }]);
    expect(rehearsal.begins).not.toHaveProperty('pace');
    expect(told(runRehearsal(performer.controller, rehearsal))).toEqual([
      '50 pulse press',
      '50 switch swing',
      '200 switch stroll',
    ]);
    expect(recording.at(51).state).toBe('swing');
  });
});
