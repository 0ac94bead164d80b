import fc from 'fast-check';
import { Performer } from 'dot-hop';
import type { ControllerDefinition, PerformerSnapshot } from 'dot-hop';
import { compile, lastTold, shownBy, stepTold } from './characters.js';
import { characters } from './made-characters.js';
import { act, bearable, scenes } from './stories.js';
import type { Scene } from './stories.js';
import type { Parts } from './reference-signals.js';
import { often } from './often.js';

const throughJson = (snapshot: PerformerSnapshot): PerformerSnapshot =>
  JSON.parse(JSON.stringify(snapshot)) as PerformerSnapshot;

const clips: ControllerDefinition['clips'] = {
  stand: { cells: '0-3', ms: 100 },
  walk: { cells: '4-7', ms: 80, cues: { step: [0, 2] } },
  swing: { cells: '8-11', ms: 50, loop: 'once', spans: { late: '2-3' } },
  skid: { cells: '12-13', ms: 60, loop: 'once' },
};
const parts: Parts = {
  clips,
  signals: {
    vx: { number: 0 },
    mode: { choice: ['quay', 'ladder'] },
    aim: { vector: [1, 0] },
    swing: { pulse: { keep: 200 } },
  },
  derived: { moving: { of: 'abs(vx)', above: 12, below: 8 }, still: { of: '!moving', settle: 300 } },
  states: {
    stand: { shows: 'stand', bridges: { walk: 'skid' } },
    walk: { shows: 'walk', while: 'moving', priority: 1, rate: { travel: 'vx', least: 0.5 } },
    swing: {
      shows: 'swing',
      when: 'swing',
      priority: 5,
      hops: [{ to: 'walk', if: 'swing', during: 'late', at: 'end' }],
    },
  },
  rest: 'stand',
};
parts.clips.walk!.stride = 20;

describe('snapshots', () => {
  test('the snapshot law: restoring and going on equals never having stopped', () => {
    fc.assert(
      fc.property(characters, scenes, fc.nat(400_000), (made, story, cut) => {
        const controller = compile(made);
        const [whole, stopped] = [new Performer(controller), new Performer(controller)];
        let carried: Performer = stopped;
        /** What a doing gives, or the error with what was told until then. */
        const told = (performer: Performer, doing: (one: Performer) => unknown): unknown => {
          try {
            const given = doing(performer);
            const why = controller.tracks.map(({ name }) => performer.why(name));
            return [given, shownBy(performer), why];
          } catch (error) {
            return [...lastTold(performer), String(error)];
          }
        };
        for (const { deeds, wait } of bearable(controller, story)) {
          const split = Math.min(cut, wait);
          const doings = [
            ...deeds.map((deed) => (one: Performer) => act(one, deed)),
            (one: Performer) => stepTold(one, split / 1000),
            (one: Performer) => stepTold(one, (wait - split) / 1000),
          ];
          for (const doing of doings) {
            const next = new Performer(controller, { vx: 40, a: true });
            next.restore(throughJson(carried.snapshot()));
            carried = next;
            const expected = told(whole, doing);
            expect(told(carried, doing)).toEqual(expected);
            // States that lead to one another without end: the story ends there.
            if (String(expected).includes('without taking any time')) return;
          }
        }
      }),
      { numRuns: often(80) },
    );
  });

  test('is plain data that says where it stands', () => {
    const performer = new Performer(compile(parts));
    performer.set('vx', 40);
    performer.set('aim', [3, -4]);
    performer.step(130);
    performer.pulse('swing');
    performer.set('mode', 'ladder');
    const snapshot = performer.snapshot();
    expect(throughJson(snapshot)).toEqual(snapshot);
    expect(snapshot).toMatchObject({
      dotHopSnapshot: 2,
      time: 130,
      signals: { vx: 40, mode: 'ladder', aim: [3, -4], swing: true },
      timers: { swing: 330 },
      on: ['moving'],
      state: 'walk',
      since: 0,
      shows: 'walk',
      changed: true,
    });
  });

  test('of another version is refused, and nothing is changed', () => {
    const performer = new Performer(compile(parts));
    performer.set('vx', 40);
    performer.step(100);
    const other = new Performer(compile({ ...parts, states: { ...parts.states, extra: { shows: 'walk' } } }));
    other.step(10);
    expect(() => other.restore(performer.snapshot())).toThrow(/version .* this controller is .*"adopt"/);
    expect([other.state, other.time]).toEqual(['stand', 10]);
  });

  test('of version 1, in which three fields had other names, is restored all the same', () => {
    const performer = new Performer(
      compile({ ...parts, tracks: { arms: { states: { hang: { shows: 'walk' } } } } }),
    );
    performer.set('vx', -40);
    performer.step(90);
    performer.pulse('swing');
    performer.step(20);
    const now = performer.snapshot();
    const formerly = (fields: object): unknown =>
      JSON.parse(
        JSON.stringify(fields)
          .replaceAll('"slot":', '"book":')
          .replaceAll('"pointsTo":', '"toward":')
          .replaceAll('"progress":', '"marks":')
          .replaceAll('"dotHopSnapshot":2', '"dotHopSnapshot":1'),
      );
    const other = new Performer(performer.controller);
    other.restore(formerly(now) as PerformerSnapshot);
    expect(other.snapshot()).toEqual(now);
    expect(now.tracks!.arms!.pointsTo).toBe(now.pointsTo);
    // A name of version 1 in version 2 is refused.
    expect(() => other.restore({ ...now, ...{ book: 0 } })).toThrow('"book"');
  });

  test.each([
    ['no object', null, 'expected a snapshot of a performer, not null'],
    ['another thing', { dotHop: 1 }, 'dotHopSnapshot: "dotHopSnapshot" is missing'],
    [
      'a part of one',
      { dotHopSnapshot: 2, time: 1 },
      'since: "since" is missing; expected milliseconds from 0',
    ],
  ])('%s is refused', (_, data, message) => {
    const performer = new Performer(compile(parts));
    expect(() => performer.restore(data as unknown as PerformerSnapshot)).toThrow(message);
  });

  test('an edited document adopts it: same state, same phase, same band, same remembered press', () => {
    const performer = new Performer(compile(parts));
    performer.set('vx', 40);
    performer.step(100);
    performer.set('vx', 10);
    performer.set('mode', 'ladder');
    performer.pulse('swing');
    performer.step(80);
    expect(performer.state).toBe('swing');
    performer.step(60);
    performer.pulse('swing');
    performer.step(10);

    const edited = compile({
      ...parts,
      clips: { ...clips, swing: { ...clips.swing!, ms: 100 } },
      signals: { ...parts.signals, lamp: { flag: true } },
      states: { lamp: { shows: 'stand', while: '!lamp' }, ...parts.states },
    });
    const survivor = new Performer(edited);
    survivor.adopt(throughJson(performer.snapshot()));
    expect(survivor.time).toBe(250);
    expect([survivor.state, survivor.phase]).toEqual(['swing', performer.phase]);
    expect([survivor.value('moving'), survivor.value('mode'), survivor.value('lamp')]).toEqual([
      true,
      'ladder',
      true,
    ]);
    // The hop that was remembered is taken at the end of the slower swing.
    expect(stepTold(survivor, 400)).toContain('350 swing > walk');
  });

  test('pulses without keep that share a timer expire in every version', () => {
    const taps = (...names: string[]): Parts => ({
      clips,
      signals: Object.fromEntries(names.map((name) => [name, { pulse: true as const }])),
      states: { stand: { shows: 'stand' } },
    });
    const performer = new Performer(compile(taps('hit', 'splash')));
    performer.pulse('hit');
    expect(performer.snapshot().timers).toEqual({ hit: 0.001 });
    const survivor = new Performer(compile(taps('hit', 'blow')));
    survivor.adopt(throughJson(performer.snapshot()));
    expect(survivor.value('hit')).toBe(true);
    survivor.step(1);
    expect(survivor.value('hit')).toBe(false);
  });

  test('a state that is no more gives way to the one the signals ask for', () => {
    const performer = new Performer(compile(parts));
    performer.set('vx', 40);
    performer.pulse('swing');
    performer.step(120);
    const states = { ...parts.states };
    delete states.swing;
    const survivor = new Performer(compile({ ...parts, states }));
    survivor.adopt(performer.snapshot());
    expect([survivor.state, survivor.frameIndex]).toEqual(['walk', 0]);
    expect(survivor.value('vx')).toBe(40);
  });

  test('what an edit has made true is decided by the next step, of whichever performer', () => {
    const edited = compile({
      ...parts,
      states: { ...parts.states, walk: { shows: 'walk', while: 'vx > 1' } },
    });
    const others = [new Performer(edited), new Performer(edited)];
    const before = new Performer(compile(parts), { vx: 5 });
    before.step(50);
    for (const survivor of others) {
      survivor.adopt(before.snapshot());
      expect(survivor.state).toBe('stand');
      survivor.step(0);
      expect(survivor.state).toBe('walk');
    }
    // What is true already has not become true: no act begins. A press that is remembered still counts.
    const acts = (when: string): string => {
      const states: Parts['states'] = { ...parts.states, act: { shows: 'skid', when, priority: 9 } };
      const survivor = new Performer(compile({ ...parts, states }));
      survivor.adopt(before.snapshot());
      survivor.step(10);
      return survivor.state;
    };
    expect(acts('vx > 1')).toBe('stand');
    before.pulse('swing');
    expect([acts('vx > 1'), acts('swing and vx > 1')]).toEqual(['swing', 'act']);
  });

  test('reset begins again, with other first values if they are given', () => {
    const controller = compile(parts);
    const performer = new Performer(controller);
    performer.set('vx', 40);
    performer.pulse('swing');
    performer.step(500);
    performer.reset();
    expect(performer.snapshot()).toEqual(new Performer(controller).snapshot());
    performer.reset({ vx: 40 });
    expect([performer.state, performer.time]).toEqual(['walk', 0]);
    expect(() => performer.reset({ vy: 1 })).toThrow('did you mean "vx"');
  });
});

test('two gaits of one clip, one of them a bridge away, come back as the one that showed', () => {
  const controller = compile({
    clips,
    signals: { vx: { number: 0 } },
    states: {
      go: { shows: undefined, gaits: { by: 'vx', shows: ['walk', 'stand', 'walk'], above: [5, 10] } },
    },
  });
  for (const vx of [0, 7, 20]) {
    const one = new Performer(controller, { vx });
    one.step(130);
    const again = new Performer(controller);
    again.restore(throughJson(one.snapshot()));
    expect(again.snapshot()).toStrictEqual(one.snapshot());
    expect(one.snapshot().slot).toBe(vx === 0 ? 0 : vx === 7 ? 1 : 2);
  }
});

test('a gait that an edit has put elsewhere is found by its name', () => {
  const withGaits = (shows: [string, string]) =>
    compile({
      clips,
      signals: { vx: { number: 0 } },
      states: { go: { gaits: { by: 'vx', shows, above: [20], margin: 2 } } },
      rest: 'go',
    });
  const one = new Performer(withGaits(['stand', 'walk']), { vx: 30 });
  one.step(90);
  const other = new Performer(withGaits(['walk', 'stand']), { vx: 30 });
  other.adopt(one.snapshot());
  expect([other.pose.cell.index, other.snapshot().shows]).toEqual([5, 'walk']);
});

test('a rate below 0 that is set and not decided yet turns no clip that is restored', () => {
  const controller = compile({
    clips: { wave: { cells: '0-2', ms: 100 } },
    signals: { vx: { number: 1 } },
    states: { wave: { shows: 'wave', rate: 'vx' } },
  });
  const one = new Performer(controller);
  one.step(130);
  one.set('vx', -1);
  const other = new Performer(controller);
  other.restore(throughJson(one.snapshot()));
  expect(other.snapshot()).toStrictEqual(one.snapshot());
  for (const each of [one, other]) each.step(60);
  expect([other.frameIndex, other.snapshot()]).toStrictEqual([0, one.snapshot()]);
});

test('a clip that has ended goes on once an edit makes it a loop', () => {
  const wave = (loop: 'once' | 'forever') =>
    compile({ clips: { wave: { cells: '0-2', ms: 100, loop } }, states: { wave: { shows: 'wave' } } });
  const one = new Performer(wave('once'));
  one.step(1000);
  const other = new Performer(wave('forever'));
  other.adopt(one.snapshot());
  expect(other.frameIndex).toBe(2);
  other.step(150);
  expect([other.frameIndex, other.snapshot().progress]).toEqual([1, ['begun']]);
});

test('a track that an edit has added shows its rest, at its first frame', () => {
  const one = new Performer(compile(parts), { vx: 50 });
  one.step(350);
  const other = new Performer(
    compile({ ...parts, tracks: { arms: { states: { hang: { shows: 'swing' } } } } }),
  );
  other.adopt(one.snapshot());
  expect(other.snapshot().tracks!.arms).toMatchObject({ state: 'hang', phase: 0, place: 0 });
  expect(other.why('arms').since).toBe(0);
  expect(other.state).toBe('walk');
});

test('a place at the very border of two frames comes back to the unit', () => {
  // (1 / 49) * 49 is less than 1 in doubles: the phase alone would be before the border.
  const controller = compile({
    clips: { c: { cells: '0-1', ms: [1, 48], cues: { tick: [0, 1] } } },
    states: { s: { shows: 'c' } },
    rest: 's',
  });
  const one = new Performer(controller);
  one.step(1);
  const again = new Performer(controller);
  again.restore(throughJson(one.snapshot()));
  expect(again.snapshot()).toStrictEqual(one.snapshot());
  expect(stepTold(again, 100)).toEqual(stepTold(one, 100));
});

test('a snapshot that lacks a signal, or with a rest of pace out of range, is refused at its place', () => {
  const one = new Performer(compile(parts));
  one.step(10);
  const snapshot = throughJson(one.snapshot());
  const signals = Object.fromEntries(Object.entries(snapshot.signals).filter(([name]) => name !== 'vx'));
  expect(() => {
    one.restore({ ...snapshot, signals });
  }).toThrow('signals.vx: "vx" is missing');
  expect(() => {
    one.restore({ ...snapshot, paceRest: 1000 });
  }).toThrow('paceRest: ');
});

describe('a copy for going back to', () => {
  test('is where one was: what follows is the same again, whatever has happened in between', () => {
    fc.assert(
      fc.property(characters, scenes, scenes, (parts, before, after) => {
        const controller = compile(parts);
        const performer = new Performer(controller);
        const play = (story: readonly Scene[]): string[] =>
          story.flatMap(({ deeds, wait }) => {
            const told: string[] = [];
            for (const deed of deeds) {
              act(performer, deed);
              if ('ask' in deed || 'cut' in deed || 'route' in deed) told.push(...lastTold(performer));
            }
            return [...told, ...stepTold(performer, wait / 1000), JSON.stringify(shownBy(performer))];
          });
        try {
          play(bearable(controller, before));
          const saved = performer.save();
          const first = play(bearable(controller, after));
          performer.load(saved);
          expect(play(bearable(controller, after))).toEqual(first);
          const other = new Performer(controller);
          other.load(saved);
          expect(other.save(saved)).toBe(saved);
        } catch (error) {
          expect(String(error)).toContain('without taking any time');
        }
      }),
      { numRuns: often(40) },
    );
  });

  test('is refused by another controller', () => {
    const parts = { clips: { c: { cells: 0 } } };
    const other = new Performer(compile(parts)).save();
    expect(() => {
      new Performer(compile(parts)).load(other);
    }).toThrow('of another controller');
  });
});
