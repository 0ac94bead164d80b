import { Performer } from 'dot-hop';
import { Recording, readRehearsal, runRehearsal, shortened } from 'dot-hop/rehearsal';
import type { TraceEntry } from 'dot-hop/rehearsal';
import fc from 'fast-check';
import { compile } from './characters.js';
import { controller as ferryman } from './ferryman.js';
import { characters } from './made-characters.js';
import { act, bearable, scenes } from './stories.js';
import type { Parts } from './reference-signals.js';
import { lawThatMeets } from './often.js';

/** What a performer reported, without what was set. */
const reported = (trace: readonly TraceEntry[]): string[] =>
  trace.flatMap((one) => {
    if (
      one.kind === 'set' ||
      one.kind === 'pulse' ||
      one.kind === 'ask' ||
      one.kind === 'route' ||
      one.kind === 'cut'
    )
      return [];
    return [`${one.kind} ${one.at.toFixed(3)} ${one.name}`];
  });

const parts: Parts = {
  clips: {
    sit: { cells: '0-3', ms: 100, cues: { look: 2 } },
    hop: { cells: '4-7', ms: 50, loop: 'once', cues: { tap: 1 } },
  },
  signals: { near: { flag: false }, wind: { vector: [0, 0] }, crumb: { pulse: { keep: 80 } } },
  states: { sit: { shows: 'sit' }, hop: { shows: 'hop', when: 'crumb && !near', priority: 3 } },
  rest: 'sit',
};

test('a recording played as a rehearsal passes the same again, wherever it begins', () => {
  let compared = 0;
  lawThatMeets(
    fc.property(characters, scenes, fc.nat(3), (made, story, after) => {
      const controller = compile(made);
      const performer = new Performer(controller);
      const scenes = bearable(controller, story);
      const play = (scene: (typeof story)[number]): void => {
        // A game's steps take time, also of the performer's own: all that is set while that stands still is recorded as set at once.
        for (const deed of scene.deeds) if (!('pace' in deed && deed.pace < 0.1)) act(performer, deed);
        performer.step(Math.max(scene.wait, 10) / 1000);
      };
      try {
        scenes.slice(0, after).forEach(play);
        const recording = new Recording(performer, 3_600_000);
        scenes.slice(after).forEach(play);
        const rehearsal = recording.rehearsal();
        // It goes through a file unchanged.
        const { definition } = readRehearsal(
          JSON.stringify({ dotHopRehearsal: 1, document: 'made-up.yaml', ...rehearsal }),
          'seen.rehearsal.json',
        );
        const again = runRehearsal(performer.controller, definition);
        const offset = recording.begins;
        const was = recording.trace.map((one) => ({ ...one, at: one.at - offset }));
        expect(reported(again.trace)).toEqual(reported(was));
        expect(again.samples.at(-1)).toMatchObject({ state: performer.state, pose: performer.pose });
        compared += again.trace.length;
      } catch (error) {
        // States that lead to one another without time end a story; all else is a failure.
        if (!String(error).includes('without taking any time')) throw error;
      }
    }),
    { usual: 60, met: () => compared, moreThan: 500 },
  );
}, 240_000);

test('any instant of it can be seen again', () => {
  const performer = new Performer(compile(parts));
  const recording = new Recording(performer);
  const seen: [number, string, number][] = [];
  for (let i = 0; i < 300; i++) {
    if (i % 40 === 7) performer.pulse('crumb');
    if (i === 150) performer.set('near', true);
    performer.setVector(performer.controller.signal('wind'), i, 0);
    performer.step(16.667);
    seen.push([performer.time, performer.state, performer.frameIndex]);
  }
  // Out of order: each is found from the nearest place that was kept.
  for (const [time, state, frame] of [...seen].reverse()) {
    const then = recording.at(time);
    expect([then.state, then.frameIndex]).toEqual([state, frame]);
  }
  expect(recording.at(-5).time).toBe(0);
  expect(recording.at(1e9).time).toBe(performer.time);
  expect(
    recording
      .at(seen[160]![0])
      .why()
      .states.find(({ name }) => name === 'hop')!.when!.terms,
  ).toMatchObject([{ text: 'crumb' }, { text: 'near', on: true }]);
});

test('it reaches back as far as it should, and forgets what lies before', () => {
  const performer = new Performer(compile(parts));
  const recording = new Recording(performer, 3000);
  for (let i = 0; i < 6000; i++) {
    performer.set('near', i % 50 === 0);
    performer.step(10);
  }
  expect(performer.time - recording.begins).toBeGreaterThanOrEqual(3000);
  expect(performer.time - recording.begins).toBeLessThan(4100);
  expect(Math.min(...recording.trace.map(({ at }) => at))).toBeGreaterThanOrEqual(recording.begins);
  const { lasts, script } = recording.rehearsal();
  expect(lasts).toBe(performer.time - recording.begins);
  // On and off again every half second, and nothing for all the sets that changed nothing.
  expect(script.length).toBeGreaterThan(10);
  expect(script.length).toBeLessThan(20);
});

test('what is set at one instant stands in one line, requests in lines of their own', () => {
  const performer = new Performer(compile(parts));
  const recording = new Recording(performer);
  performer.set('near', true);
  performer.set('wind', [3, 4]);
  performer.pulse('crumb');
  performer.ask('hop');
  performer.step(5);
  performer.cut('sit');
  expect(recording.rehearsal().script).toEqual([
    { at: 0, set: { near: true, wind: [3, 4] }, pulse: ['crumb'] },
    { at: 0, ask: 'hop' },
    { at: 5, cut: 'sit' },
  ]);
});

test('after it was stopped the performer is as it was; a refused call is not recorded', () => {
  const performer = new Performer(compile(parts));
  const plain = Object.keys(performer);
  const recording = new Recording(performer);
  expect(() => performer.set('near', 3)).toThrow('"near" is a flag');
  expect(recording.rehearsal().script).toEqual([]);
  recording.stop();
  expect(Object.keys(performer)).toEqual(plain);
  performer.set('near', true);
  performer.step(3000);
  expect(recording.rehearsal().script).toEqual([]);
});

test('what puts the performer elsewhere begins the recording again', () => {
  const performer = new Performer(compile(parts));
  const snapshot = performer.snapshot();
  performer.step(500);
  const recording = new Recording(performer);
  performer.pulse('crumb');
  performer.step(30);
  performer.restore(snapshot);
  expect([recording.begins, recording.trace.length]).toEqual([0, 0]);
  performer.step(40);
  performer.reset();
  expect(recording.begins).toBe(0);
});

test('a recording outlives an edit of its document, and that of another character is refused', () => {
  const performer = new Performer(compile(parts));
  performer.set('near', true);
  performer.step(130);
  const recording = new Recording(performer);
  performer.step(20);
  performer.set('near', false);
  performer.pulse('crumb');
  performer.step(300);
  const rehearsal = recording.rehearsal();
  const { states } = parts;
  const next = { ...parts, states: { ...states, hop: { ...states!.hop, priority: 4 } } };
  const edited = compile(next);
  expect(reported(runRehearsal(edited, rehearsal).trace)).toEqual([
    'switch 20.000 hop',
    'cue 70.000 tap',
    'switch 220.000 sit',
  ]);
  const other = compile({ ...next, name: 'somebody else' });
  expect(() => runRehearsal(other, rehearsal)).toThrow('somebody else (version');
});

describe('a rehearsal is made shorter', () => {
  const controller = ferryman;

  test('numbers are rounded as far as nothing else happens, and what does not change is left out', () => {
    const script = [
      { at: 200, set: { vx: 59.98765432 } },
      { at: 300, set: { vx: 60.01234 } },
      { at: 500, set: { vx: -60.4999 } },
      { at: 1100, set: { vx: 0.00001 } },
    ];
    expect(shortened(controller, { lasts: 1500, script }).script).toEqual([
      { at: 200, set: { vx: 60 } },
      { at: 500, set: { vx: -60 } },
      { at: 1100, set: { vx: 0 } },
    ]);
  });

  test('a number that rounded would lead round in a circle is rounded less', () => {
    const circling = compile({
      clips: { stand: { cells: 0, ms: 100 } },
      signals: { x: { number: 0 } },
      states: {
        stand: { shows: 'stand' },
        ping: { shows: 'stand', while: 'x > 0.9', priority: 1, hops: [{ to: 'pong' }] },
        pong: { shows: 'stand', hops: [{ to: 'ping' }] },
      },
    });
    const exact = { lasts: 100, script: [{ at: 0, set: { x: 0.6123 } }] };
    expect(shortened(circling, exact).script).toEqual([{ at: 0, set: { x: 0.6 } }]);
  });

  test('made-up characters do the same by it, in the same order, and it is never longer', () => {
    let rounded = 0;
    lawThatMeets(
      fc.property(characters, scenes, (made, story) => {
        const one = new Performer(compile(made));
        const recording = new Recording(one, 60_000);
        try {
          for (const { deeds, wait } of bearable(one.controller, story)) {
            for (const deed of deeds) {
              if ('pace' in deed) continue;
              // As a body tells it: never quite a whole number.
              act(
                one,
                'set' in deed && typeof deed.to === 'number' ? { ...deed, to: deed.to + 0.0001234 } : deed,
              );
            }
            one.step(Math.min(wait, 200_000) / 1000);
          }
        } catch {
          return;
        }
        const exact = recording.rehearsal();
        const short = shortened(one.controller, exact);
        const told = (of: typeof exact): string[] =>
          runRehearsal(one.controller, of).trace.flatMap(({ kind, name }) =>
            ['switch', 'cue', 'turn', 'flipbook'].includes(kind) ? [`${kind} ${name}`] : [],
          );
        expect(told(short)).toEqual(told(exact));
        const [length, before] = [JSON.stringify(short).length, JSON.stringify(exact).length];
        expect(length).toBeLessThanOrEqual(before);
        if (length < before) rounded++;
      }),
      // So many that some more than twenty can be rounded, whatever chance brings.
      { usual: 90, met: () => rounded, moreThan: 20 },
    );
  });
});
