import { Performer } from 'dot-hop';
import type { Input } from 'dot-hop';
import { Recording } from 'dot-hop/rehearsal';
import { compile } from './characters.js';

const make = () =>
  compile({
    clips: { sit: { cells: 0 }, walk: { cells: '0-1', ms: 10, cues: { left: 0, right: 1 } } },
    signals: { go: { flag: false }, aim: { vector: [0, 0] }, vx: { number: 0 }, hit: { pulse: true } },
    states: { sit: { shows: 'sit' }, walk: { shows: 'walk', while: 'go', priority: 1 } },
  });
const controller = make();
const walking = (of = controller) => new Performer(of, { go: true });
const namesOf = (performer: Performer) => [...performer.reports].map(({ name, at }) => `${at} ${name}`);

test('reports belong to the latest step of their performer, whenever they were taken and whoever else steps', () => {
  const [one, other] = [walking(), walking()];
  const early = one.reports;
  expect(early.count).toBe(0);
  one.step(25);
  expect([...early]).toEqual([...one.reports]);
  expect(namesOf(one)).toEqual(['0 left', '10 right', '20 left']);
  // Others step in between, many of them, with more to tell.
  const many = Array.from({ length: 300 }, walking);
  for (const each of [other, ...many]) each.step(55);
  expect(namesOf(one)).toEqual(['0 left', '10 right', '20 left']);
  expect(early.name(1)).toBe('right');
  one.step(10);
  expect([early.count, early.name(0), early.at(0)]).toEqual([1, 'right', 30]);
  one.step(1);
  expect(early.count).toBe(0);
  expect(() => early.name(0)).toThrow('0 things happened in this step');
  expect(namesOf(other)).toHaveLength(6);
});

test('stepping another performer inside the loop is allowed; stepping the same one is refused', () => {
  const [one, other] = [walking(), walking()];
  one.step(30);
  const seen: string[] = [];
  for (const { name } of one.reports) {
    seen.push(name);
    other.step(40);
    seen.push(...[...other.reports].map((report) => `other ${report.name}`).slice(0, 1));
  }
  expect(seen).toEqual([
    'left',
    'other left',
    'right',
    'other right',
    'left',
    'other right',
    'right',
    'other right',
  ]);
  one.step(30);
  expect(() => {
    for (const { name } of one.reports) if (name !== '') one.step(30);
  }).toThrow('this performer has stepped since');
  const kept = [...one.reports];
  const same = structuredClone(kept);
  one.step(30);
  expect(kept).toEqual(same);
});

test('of more reports than any memory holds the first million are kept, and the rest counted', () => {
  const fast = compile({
    clips: { walk: { cells: '0-1', ms: 1, cues: { tick: [0, 1] } } },
    states: { walk: { shows: 'walk', rate: 64 } },
  });
  const one = new Performer(fast);
  expect(one.step(20_000)).toBe(1_000_000);
  expect(one.reports.missed).toBe(20_000 * 64 + 1 - 1_000_000);
  expect(one.reports.at(999_999)).toBeCloseTo(999_999 / 64, 2);
  one.step(1);
  expect([one.reports.missed, one.reports.count]).toEqual([0, 64]);
});

test('observers: each is told of everything, none of another performer, and one that ends ends alone', () => {
  const one = new Performer(controller);
  const told: [string, Input | number][] = [];
  const watch = (who: string) =>
    one.observe({ input: (input) => told.push([who, input]), step: (count) => told.push([who, count]) });
  const [endA, endB] = [watch('a'), watch('b')];
  new Performer(controller).set('vx', 9);
  one.set('go', true);
  one.setVector('aim', 1, 2);
  endA();
  endA();
  one.pulse('hit');
  one.step(5);
  expect(() => one.set('vx', NaN)).toThrow('finite');
  expect(() => one.ask('nowhere')).toThrow('there is no state');
  one.cut('sit');
  endB();
  one.set('vx', 1);
  const set = (name: string, value: unknown) => ({ kind: 'set', name, value });
  expect(told).toEqual([
    ['a', set('go', true)],
    ['b', set('go', true)],
    ['a', set('aim', [1, 2])],
    ['b', set('aim', [1, 2])],
    ['b', { kind: 'pulse', name: 'hit' }],
    ['b', 2],
    ['b', { kind: 'cut', name: 'sit' }],
    ['b', 3],
  ]);
});

test('two recordings of one performer do not mind one another', () => {
  const one = new Performer(controller);
  const recordings = [new Recording(one), new Recording(one)];
  one.set('go', true);
  one.step(25);
  recordings[0]!.stop();
  one.set('vx', 5);
  one.step(10);
  const scripts = recordings.map((recording) => recording.rehearsal().script);
  expect(scripts[0]).toEqual([{ at: 0, set: { go: true } }]);
  expect(scripts[1]).toEqual([
    { at: 0, set: { go: true } },
    { at: 25, set: { vx: 5 } },
  ]);
});

test('a hand that holds a signal keeps the game from it, vectors and pulses too', () => {
  const one = new Performer(controller);
  const held = new Set(['aim', 'hit', 'vx']);
  const end = one.observe({ holds: (name) => held.has(name) });
  one.set('aim', [1, 1]);
  one.setVector('aim', 2, 2);
  one.set(controller.signal('vx'), 3);
  one.pulse('hit');
  expect([one.value('aim'), one.value('vx'), one.value('hit')]).toEqual([[0, 0], 0, false]);
  end();
  one.setVector('aim', 2, 2);
  expect(one.value('aim')).toEqual([2, 2]);
});

test('what is no signal, no handle of this controller, no number of milliseconds is refused in words', () => {
  const one = new Performer(controller);
  const stranger = compile({
    clips: { c: { cells: 0 } },
    signals: { vx: { number: 0 } },
    states: { s: { shows: 'c' } },
  });
  expect(() => one.set(stranger.signal('vx'), 1)).toThrow(
    '"vx" is not a signal of this performer\'s controller',
  );
  expect(() => one.setVector(stranger.signal('vx') as never, 1, 1)).toThrow('"vx" is not a signal of');
  for (const odd of [undefined, null, 3, {}, { kind: 'number', place: 5 }])
    for (const call of [() => one.set(odd as never, 1 as never), () => one.pulse(odd as never)])
      expect(call).toThrow("is not a signal of this performer's controller");
  for (const ms of ['16', null, undefined, [16], true, NaN, -1, Infinity])
    expect(() => one.step(ms as never)).toThrow('step takes milliseconds from 0 to 3600000');
  expect(one.time).toBe(0);
});
