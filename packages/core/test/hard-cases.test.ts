import { Performer } from 'dot-hop';
import type { ControllerDefinition, StateDefinition } from 'dot-hop';
import { compile, perform, stepTold } from './characters.js';

const clips: ControllerDefinition['clips'] = {
  stand: { cells: '0-3', ms: 100 },
  run: { cells: '4-7', ms: 100, cues: { step: 0 }, stride: 40 },
  walk: { cells: '8-11', ms: 200, cues: { step: 0 }, stride: 20 },
  takeoff: { cells: '12-13', ms: 50, loop: 'once' },
  rise: { cells: 14 },
  fall: { cells: 15 },
  land: { cells: '16-17', ms: 80, loop: 'once' },
  swing: { cells: '18-21', ms: 50, loop: 'once', spans: { late: '2-3' }, cues: { whoosh: 2 } },
  hurt: { cells: '22-23', ms: 60, loop: 'once' },
  skid: { cells: '24-26', ms: 40, loop: 'once' },
};
const signals: ControllerDefinition['signals'] = {
  vx: { number: 0 },
  vy: { number: 0 },
  grounded: { flag: true },
  held: { flag: false },
  jump: { pulse: { keep: 100 } },
  swing: { pulse: { keep: 200 } },
  hit: { pulse: true },
};
const stage = (states: Record<string, StateDefinition>): Performer =>
  perform({ clips, signals, states: { stand: { shows: 'stand' }, ...states }, rest: 'stand' });

test('a single tick that is seconds long across take-off, rise, fall and land', () => {
  const performer = stage({
    land: { shows: 'land', priority: 20 },
    fall: { shows: 'fall', priority: 20, hops: [{ to: 'land', if: 'grounded', at: 'end' }] },
    rise: { shows: 'rise', priority: 20, hops: [{ to: 'fall', at: 'end' }] },
    takeoff: { shows: 'takeoff', when: 'jump && grounded', priority: 30, then: 'rise' },
  });
  performer.pulse('jump');
  expect(stepTold(performer, 5000)).toEqual([
    '0 stand > takeoff',
    '100 takeoff > rise',
    '200 rise > fall',
    '300 fall > land',
    '460 land > stand',
  ]);
  expect([performer.state, performer.frameIndex, performer.time]).toEqual(['stand', 1, 5000]);
});

test('two presses that count at their instant only and come together are both gone after it', () => {
  for (const kept of ['hit', 'gust']) {
    const performer = perform({
      clips,
      signals: { ...signals, gust: { pulse: true } },
      states: {
        stand: { shows: 'stand' },
        blow: { shows: 'land', when: 'swing', priority: 9, final: true },
        late: { shows: 'skid', when: kept, priority: 5 },
      },
      rest: 'stand',
    });
    performer.pulse('swing');
    performer.step(10);
    performer.pulse('hit');
    performer.pulse('gust');
    performer.step(1);
    expect([performer.value('hit'), performer.value('gust')]).toEqual([false, false]);
    expect(stepTold(performer, 2000)).toEqual(['160 blow > stand']);
  }
});

test('a press during the last frame of an act leads on at its end, not later and not twice', () => {
  const performer = stage({
    one: {
      shows: 'swing',
      when: 'swing',
      priority: 5,
      hops: [{ to: 'two', if: 'swing', during: 'late', at: 'end' }],
    },
    two: { shows: 'swing', priority: 5 },
  });
  performer.pulse('swing');
  performer.step(199.999);
  performer.pulse('swing');
  expect(stepTold(performer, 0.001)).toEqual(['200 one > two']);
  expect(stepTold(performer, 1000)).toEqual(['300 whoosh', '400 two > stand']);
});

test('a press and a hit in the same tick: the hit shows, and the press is used after it', () => {
  const performer = stage({
    swing: { shows: 'swing', when: 'swing', priority: 5 },
    hurt: { shows: 'hurt', when: 'hit', priority: 9 },
  });
  performer.pulse('swing');
  performer.pulse('hit');
  expect(stepTold(performer, 400)).toEqual([
    '0 stand > hurt',
    '120 hurt > swing',
    '220 whoosh',
    '320 swing > stand',
  ]);
});

test('an act interrupted on its first frame leaves nothing behind', () => {
  const performer = stage({
    swing: {
      shows: 'swing',
      when: 'swing',
      priority: 5,
      hops: [{ to: 'stand', if: 'swing', during: 'late', at: 'end' }],
    },
    hurt: { shows: 'hurt', when: 'hit', priority: 9 },
  });
  performer.pulse('swing');
  performer.step(0);
  performer.pulse('hit');
  expect(stepTold(performer, 500)).toEqual(['0 swing > hurt', '120 hurt > stand']);
  performer.pulse('swing');
  expect(stepTold(performer, 500)).toEqual(['500 stand > swing', '600 whoosh', '700 swing > stand']);
});

test('a held flag under an act with a follow-up: the act plays once, the follow-up comes', () => {
  const performer = stage({
    swing: { shows: 'swing', when: 'held', priority: 5, then: 'after' },
    after: { shows: 'land', priority: 1 },
  });
  performer.set('held', true);
  expect(stepTold(performer, 3000)).toEqual([
    '0 stand > swing',
    '100 whoosh',
    '200 swing > after',
    '360 after > stand',
  ]);
});

test("a posture that turns false and true within one step's signals does not begin again", () => {
  const performer = stage({ run: { shows: 'run', while: 'vx > 10', priority: 1 } });
  performer.set('vx', 50);
  performer.step(130);
  performer.set('vx', 0);
  performer.set('vx', 50);
  expect(stepTold(performer, 20)).toEqual([]);
  expect(performer.phase).toBeCloseTo(150 / 400);
});

test('a bridge cut off: a higher rank takes over, and the bridge does not come back', () => {
  const performer = perform({
    clips,
    signals,
    states: {
      stand: { shows: 'stand', bridges: { run: 'skid' } },
      run: { shows: 'run', while: 'vx > 10', priority: 1 },
      hurt: { shows: 'hurt', when: 'hit', priority: 9 },
    },
    rest: 'stand',
  });
  performer.set('vx', 50);
  performer.step(10);
  performer.set('vx', 0);
  expect(stepTold(performer, 50)).toEqual(['10 run > stand']);
  expect([performer.state, performer.clip, performer.frameIndex, performer.isBridging]).toEqual([
    'stand',
    'skid',
    1,
    true,
  ]);
  performer.pulse('hit');
  expect(stepTold(performer, 130)).toEqual(['60 stand > hurt', '180 hurt > stand']);
  expect([performer.clip, performer.isBridging]).toEqual(['stand', false]);
});

test('a bridge played to its end: the clip itself begins at its beginning, at the exact instant', () => {
  const performer = perform({
    clips: { ...clips, stand: { ...clips.stand!, cues: { breath: 0 } } },
    signals,
    states: {
      stand: { shows: 'stand', bridges: { run: 'skid' } },
      run: { shows: 'run', while: 'vx > 10', priority: 1 },
    },
    rest: 'stand',
  });
  performer.set('vx', 50);
  performer.step(10);
  performer.set('vx', 0);
  expect(stepTold(performer, 1000)).toEqual(['10 run > stand', '130 breath', '530 breath', '930 breath']);
});

test('a route through three hops interrupted midway is given up', () => {
  const states: Record<string, StateDefinition> = {
    sit: { shows: 'land', hops: [{ to: 'lie', if: 'held', at: 'end' }] },
    lie: { shows: 'land', hops: [{ to: 'sleep', if: 'held', at: 'end' }] },
    sleep: { shows: 'run' },
    hurt: { shows: 'hurt', when: 'hit', priority: 9 },
  };
  const whole = perform({
    clips,
    signals,
    states: { stand: { shows: 'stand', hops: [{ to: 'sit', if: 'held' }] }, ...states },
    rest: 'stand',
  });
  expect(whole.route('sleep')).toBe(true);
  expect(whole.routeTo).toBe('sleep');
  expect(stepTold(whole, 500)).toEqual(['160 sit > lie', '320 lie > sleep', '320 step']);
  expect(whole.routeTo).toBeUndefined();

  const cutOff = new Performer(whole.controller);
  cutOff.route('sleep');
  cutOff.step(200);
  cutOff.pulse('hit');
  expect(stepTold(cutOff, 800)).toEqual(['200 lie > hurt', '320 hurt > stand']);
  expect(cutOff.routeTo).toBeUndefined();
});

test("a gait change at a loop's border: the foot's cue is told once", () => {
  const gaits = { by: 'vx', shows: ['walk', 'run'], above: [30], margin: 10 };
  const performer = stage({ go: { gaits, while: 'vx > 5', priority: 1 } });
  performer.set('vx', 20);
  expect(stepTold(performer, 800)).toEqual(['0 stand > go', '0 step', '800 step']);
  performer.set('vx', 40);
  expect(stepTold(performer, 400)).toEqual(['800 flipbook run', '1200 step']);
  performer.set('vx', 25);
  expect(stepTold(performer, 0)).toEqual([]);
  performer.set('vx', 19);
  expect(stepTold(performer, 800)).toEqual(['1200 flipbook walk', '2000 step']);
});

test('a rate of zero stops the clip and nothing else', () => {
  const performer = stage({
    run: { shows: 'run', while: 'vx > -1', priority: 1, rate: 'vx / 100' },
    hurt: { shows: 'hurt', when: 'hit', priority: 9 },
  });
  performer.set('vx', 100);
  performer.step(150);
  performer.set('vx', 0);
  expect(stepTold(performer, 10_000)).toEqual([]);
  expect([performer.frameIndex, performer.speed]).toEqual([1, 0]);
  performer.set('vx', 50);
  performer.step(99.999);
  expect(performer.frameIndex).toBe(1);
  performer.step(0.001);
  expect(performer.frameIndex).toBe(2);
  performer.set('vx', 0);
  performer.pulse('hit');
  expect(stepTold(performer, 10)).toEqual(['10250 run > hurt']);
});

test('a hop cycle without time is an error that names it, and the performer can go on', () => {
  const performer = stage({
    a: { shows: 'run', while: 'held', priority: 1, hops: [{ to: 'b' }] },
    b: { shows: 'run', hops: [{ to: 'a' }] },
  });
  performer.set('held', true);
  expect(() => performer.step(10)).toThrow(/without taking any time: b -> a -> b/);
  performer.set('held', false);
  performer.step(10);
  expect(performer.time).toBe(10);
});

test('a final state with everything screaming stays to its end', () => {
  const screaming = Object.fromEntries(
    Array.from({ length: 12 }, (_, i): [string, StateDefinition] => [
      `s${i}`,
      i % 2 === 0
        ? { shows: 'run', while: 'held', priority: 20 + i }
        : { shows: 'swing', when: i % 3 === 0 ? 'hit' : 'held', priority: 20 + i },
    ]),
  );
  const performer = stage({ ...screaming, out: { shows: 'hurt', when: 'jump', priority: 99, final: true } });
  performer.pulse('jump');
  performer.step(10);
  performer.set('held', true);
  performer.pulse('hit');
  expect(stepTold(performer, 109.999)).toEqual([]);
  expect(performer.ask('s10')).toBe(false);
  expect(stepTold(performer, 0.001)).toEqual(['120 out > s10', '120 step']);
});

test('forty acts of equal rank pressed at once: the first plays; the presses of the others run out', () => {
  const names = Array.from({ length: 29 }, (_, i) => `p${i}`);
  const performer = perform({
    clips,
    signals: Object.fromEntries(names.map((name) => [name, { pulse: { keep: 150 } }])),
    states: {
      stand: { shows: 'stand' },
      ...Object.fromEntries(
        Array.from({ length: 40 }, (_, i): [string, StateDefinition] => [
          `act${i}`,
          { shows: 'hurt', when: names[i % 29]!, priority: 5 },
        ]),
      ),
    },
    rest: 'stand',
  });
  for (const name of names) performer.pulse(name);
  expect(stepTold(performer, 1000)).toEqual(['0 stand > act0', '120 act0 > act1', '240 act1 > stand']);
});

test('a controller of one state and no signal is no special case', () => {
  const performer = new Performer(compile({ clips, states: { stand: { shows: 'stand' } } }));
  expect(stepTold(performer, 3_600_000)).toEqual([]);
  expect(performer.frameIndex).toBe(0);
});
