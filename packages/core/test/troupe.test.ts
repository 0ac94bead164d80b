import fc from 'fast-check';
import { Performer, compileController } from 'dot-hop';
import type { Controller } from 'dot-hop';
import { Troupe } from 'dot-hop/troupe';
import { agree } from './agree.js';
import { compile, lastTold, shownBy } from './characters.js';
import { characters } from './made-characters.js';
import { act, bearable, scenes } from './stories.js';
import type { Deed, Scene } from './stories.js';
import { walker } from './walker.js';
import { often } from './often.js';

/** How many made-up troupes are compared; `npm run agreement` compares more. */
const numRuns = Number(process.env.AGREEMENT_RUNS ?? often(600)) / 5;

/** What the latest step of a troupe told of one member, in the words of `lastTold`. */
function toldOf(troupe: Troupe, member: number): string[] {
  const all = lastTold(troupe);
  return all.filter((_, i) => troupe.reports.memberAt(i) === member);
}

/** Does something to a member, by way of the troupe where that can. */
function actOn(troupe: Troupe, member: number, deed: Deed): boolean | undefined {
  if ('set' in deed) troupe.set(member, deed.set, deed.to);
  else if ('pulse' in deed) troupe.pulse(member, deed.pulse);
  else return act(troupe.member(member), deed);
  return undefined;
}

/** A story of somebody without a pace of its own: the time of members is that of the troupe. */
const withoutPace = (story: readonly Scene[]): Scene[] =>
  story.map(({ deeds, wait }) => ({ deeds: deeds.filter((deed) => !('pace' in deed)), wait }));

/** What an observer of a performer hears. @param first which of its reports must be the first of a step */
function watched(performer: Performer, first: (from: number) => number): unknown[] {
  const heard: unknown[] = [];
  performer.observe({
    input: (input) => heard.push(input),
    step: (count, from) => {
      expect(from).toBe(first(from));
      const { reports } = performer;
      heard.push([performer.time, ...Array.from({ length: count }, (_, i) => reports.name(from + i))]);
    },
    moved: () => heard.push('moved'),
  });
  return heard;
}

const isCircle = (error: unknown): boolean => String(error).includes('without taking any time');

test('members of a troupe tell and show what performers do, whatever else the troupe does', () => {
  fc.assert(
    fc.property(characters, scenes, scenes, (parts, first, second) => {
      const controller = compile(parts);
      const [one, other] = [withoutPace(first), withoutPace(second)];
      const stories = [bearable(controller, one, other), other];
      const performers = stories.map(() => new Performer(controller));
      const troupe = new Troupe(controller, 2);
      const seen = [watched(performers[0]!, () => 0), watched(troupe.member(0), (from) => from)];
      for (const [i, { wait }] of stories[0]!.entries()) {
        for (const [member, performer] of performers.entries())
          for (const deed of stories[member]![i]?.deeds ?? []) {
            let granted: boolean | undefined;
            try {
              granted = act(performer, deed);
            } catch (error) {
              expect(isCircle(error)).toBe(true);
              expect(() => actOn(troupe, member, deed)).toThrow('without taking any time');
              return;
            }
            expect(actOn(troupe, member, deed)).toBe(granted);
          }
        try {
          for (const performer of performers) performer.step(wait / 1000);
        } catch (error) {
          expect(isCircle(error)).toBe(true);
          expect(() => troupe.step(wait / 1000)).toThrow('without taking any time');
          return;
        }
        troupe.step(wait / 1000);
        const expected = performers.map((performer) => [lastTold(performer), shownBy(performer)]);
        const found = performers.map((_, member) => [toldOf(troupe, member), shownBy(troupe.member(member))]);
        agree(found, expected);
        agree(seen[1], seen[0]);
      }
    }),
    { numRuns },
  );
});

describe('a troupe', () => {
  const controller = walker();

  test('numbers its members, and gives the number of one that left to the next', () => {
    const troupe = new Troupe(controller, 3);
    expect([troupe.members, troupe.length]).toEqual([3, 3]);
    troupe.remove(1);
    expect([troupe.members, troupe.length, troupe.has(1)]).toEqual([2, 3, false]);
    expect(troupe.add({ speed: 50 })).toBe(1);
    expect(troupe.member(1).state).toBe('walk');
    expect(troupe.add()).toBe(3);
  });

  test('who takes the number of one that left leaves the next alone', () => {
    const troupe = new Troupe(controller, 3);
    const alone = new Performer(controller);
    for (const one of [troupe.member(1), alone]) one.set('speed', 50);
    for (const ms of [40, 333, 1, 500, 70.5, 40]) {
      troupe.remove(0);
      troupe.add();
      troupe.step(ms);
      alone.step(ms);
      expect(toldOf(troupe, 1)).toEqual(lastTold(alone));
      expect([troupe.pose(1), troupe.member(1).phase]).toEqual([alone.pose, alone.phase]);
    }
  });

  test('what is due in seconds or minutes comes at its instant, whatever the steps', () => {
    const waiting = compile({
      clips: { rest: { cells: 0 }, wake: { cells: '1-2', ms: 100, loop: 'once', cues: { up: 0 } } },
      signals: { tired: { flag: false } },
      derived: {
        brief: { of: 'tired', settle: 3900 },
        slow: { of: 'tired', settle: 9000 },
        late: { of: 'tired', settle: 400_000 },
      },
      states: {
        rest: { shows: 'rest' },
        ...Object.fromEntries(
          ['brief', 'slow', 'late'].map((name, i) => [name, { shows: 'wake', when: name, priority: i + 1 }]),
        ),
      },
      rest: 'rest',
    });
    for (const ms of [16, 700, 5000, 70_000]) {
      const troupe = new Troupe(waiting, 2);
      const alone = new Performer(waiting);
      for (const one of [troupe.member(1), alone]) one.set('tired', true);
      let told = 0;
      for (let time = 0; time < 500_000; time += ms) {
        troupe.step(ms);
        told += alone.step(ms);
        expect(toldOf(troupe, 1)).toEqual(lastTold(alone));
      }
      // Three times up, with its cue, and to rest again.
      expect(told).toBe(9);
    }
  });

  test.each([-1, 1.5, NaN, 1e9])('of %d members is refused', (count) => {
    expect(() => new Troupe(controller, count)).toThrow(`not ${count}`);
  });

  test('a member that is added later begins then, as a performer would', () => {
    const troupe = new Troupe(controller);
    troupe.step(1000);
    troupe.add({ speed: 50 });
    const alone = new Performer(controller, { speed: 50 });
    for (const ms of [40, 333, 1, 500, 70.5]) {
      troupe.step(ms);
      alone.step(ms);
      expect(toldOf(troupe, 0).map((one) => one.replace(/^[\d.]+/, (at) => `${Number(at) - 1000}`))).toEqual(
        lastTold(alone),
      );
      expect(troupe.pose(0)).toBe(alone.pose);
    }
  });

  test('a member that is added later has the first values of the document, and no others', () => {
    const troupe = new Troupe(controller);
    troupe.step(1234.5);
    const [added, alone] = [troupe.member(troupe.add()), new Performer(controller)];
    const valuesOf = (one: Pick<Performer, 'value'>): unknown[] =>
      ['speed', 'wave'].map((name) => one.value(name));
    expect(valuesOf(added)).toEqual(valuesOf(alone));
    troupe.step(1);
    alone.step(1);
    expect([added.state, added.time - 1234.5]).toEqual([alone.state, alone.time]);
  });

  test('tells a range what it tells one', () => {
    const troupe = new Troupe(controller, 5);
    troupe.remove(2);
    troupe.set({ from: 1, to: 4 }, 'speed', 50);
    troupe.step(10);
    const states = [0, 1, 3, 4].map((index) => troupe.member(index).state);
    expect(states).toEqual(['stand', 'walk', 'walk', 'stand']);
    troupe.pulse({ from: 0, to: 5 }, 'wave');
    troupe.step(10);
    expect([0, 1, 3, 4].map((index) => troupe.member(index).state)).toEqual(['wave', 'wave', 'wave', 'wave']);
  });

  test('of a member that was told something and removed then, nothing is told any more', () => {
    const troupe = new Troupe(controller, 2);
    troupe.step(10);
    const gone = troupe.member(1);
    troupe.set(1, 'speed', 50);
    troupe.remove(1);
    gone.set('speed', 70);
    expect(troupe.step(1000)).toBe(0);
    // Whoever is given its index next begins again, and once.
    expect(troupe.add({ speed: 50 })).toBe(1);
    troupe.step(0);
    expect(toldOf(troupe, 1)).toEqual(['1010 step']);
  });

  test('the performer of a removed member goes on alone, and has nothing to do with the next of its index', () => {
    const troupe = new Troupe(controller, 2);
    troupe.set(1, 'speed', 50);
    const shown = [troupe.step(1130), troupe.member(1).phase];
    const saved = troupe.save();
    const gone = troupe.member(1);
    troupe.remove(1);
    expect(troupe.add()).toBe(1);
    troupe.step(10);
    gone.set('speed', 60);
    gone.observe({});
    expect(troupe.step(1000)).toBe(0);
    expect([troupe.member(1).state, troupe.member(1) === gone]).toEqual(['stand', false]);
    // It stands where it stood, and is stepped like any other.
    expect([gone.state, gone.time, gone.phase]).toEqual(['walk', 1130, shown[1]]);
    gone.step(1000);
    expect([gone.time, gone.reports.count > 0]).toEqual([2130, true]);
    // The same for one that a copy of the troupe does not have; one that it has stays the same.
    const [zeroth, second] = [troupe.member(0), troupe.member(troupe.add({ speed: 50 }))];
    troupe.step(20);
    troupe.load(saved);
    troupe.add();
    second.step(5);
    expect([second.state, second.time, troupe.member(2).time]).toEqual(['walk', 2165, 1130]);
    expect(troupe.member(0)).toBe(zeroth);
  });

  test('a member with a faulty first value is not added', () => {
    const troupe = new Troupe(controller, 1);
    expect(() => troupe.add({ speed: NaN })).toThrow('a finite number');
    expect([troupe.members, troupe.has(1)]).toEqual([1, false]);
    expect(troupe.add()).toBe(1);
  });

  test('sets a number of each; NaN sets nothing', () => {
    const troupe = new Troupe(controller, 4);
    troupe.setEach('speed', new Float32Array([0, 50, NaN, 50]));
    troupe.setEach('speed', [50], 2);
    troupe.step(0);
    expect([0, 1, 2, 3].map((index) => troupe.member(index).state)).toEqual([
      'stand',
      'walk',
      'walk',
      'walk',
    ]);
  });

  test('writes what members show into arrays', () => {
    const troupe = new Troupe(controller, 3);
    troupe.set(1, 'speed', -50);
    troupe.remove(2);
    troupe.step(250);
    const out = { cell: new Int32Array(3), image: new Uint16Array(3), mirrored: new Uint8Array(3) };
    expect(troupe.draw(out)).toBe(3);
    const shown = [0, 1].map((index) => troupe.pose(index));
    expect([...out.cell]).toEqual([...shown.map(({ cell }) => cell.index), -1]);
    expect([...out.mirrored]).toEqual([0, 1, 0]);
    expect(shown.map(({ cell }) => cell.image)).toEqual(
      [...out.image.subarray(0, 2)].map((i) => troupe.images[i]),
    );
  });

  test('goes back to where it was saved, again and again, without a copy being made again', () => {
    const troupe = new Troupe(controller, 40);
    for (let i = 0; i < 40; i += 3) troupe.set(i, 'speed', 10 * i);
    troupe.step(77);
    troupe.set(5, 'speed', 90);
    const saved = troupe.save();
    const play = (): string[] => {
      const told: string[] = [];
      for (let tick = 0; tick < 30; tick++) {
        if (tick === 7) troupe.pulse({ from: 0, to: 40 }, 'wave');
        if (tick === 12 && troupe.has(9)) troupe.remove(9);
        if (tick === 15) troupe.add({ speed: 70 });
        troupe.step(16.667);
        told.push(...lastTold(troupe).sort());
      }
      return told;
    };
    const first = play();
    expect(first.length).toBeGreaterThan(100);
    troupe.load(saved);
    expect([troupe.members, troupe.time]).toEqual([40, 77]);
    expect(troupe.save(saved)).toBe(saved);
    expect(play()).toEqual(first);
    expect(() => {
      troupe.load(new Troupe(walker(), 2).save());
    }).toThrow('of another controller');
  });

  test('steps all others when the states of one lead to one another, and says so', () => {
    const circle: Controller = compile({
      clips: { c: { cells: 0, ms: 100 } },
      signals: { mad: { flag: false } },
      states: {
        rest: { shows: 'c', hops: [{ to: 'other', if: 'mad' }] },
        other: { shows: 'c', hops: [{ to: 'rest', if: 'mad' }] },
      },
      rest: 'rest',
    });
    const troupe = new Troupe(circle, 3);
    troupe.set(1, 'mad', true);
    expect(() => troupe.step(50)).toThrow('without taking any time');
    expect(troupe.time).toBe(50);
    troupe.set(1, 'mad', false);
    troupe.step(60);
    expect(troupe.member(0).phase).toBeCloseTo(0.1);
  });

  test.each([
    [
      'an index that was never given',
      (troupe: Troupe) => {
        troupe.set(9, 'speed', 1);
      },
      'there is no member 9',
    ],
    [
      'a removed one',
      (troupe: Troupe) => {
        troupe.remove(1);
        troupe.pulse(1, 'wave');
      },
      'there is no member 1',
    ],
    ['no index', (troupe: Troupe) => troupe.member(0.5), 'there is no member 0.5'],
    [
      'a range past the end',
      (troupe: Troupe) => {
        troupe.set({ from: 1, to: 9 }, 'speed', 1);
      },
      'whole numbers from 0 to 3',
    ],
    [
      'values past the end',
      (troupe: Troupe) => {
        troupe.setEach('speed', [1, 2], 2);
      },
      'whole numbers from 0 to 3',
    ],
    [
      'a kind that has no numbers',
      (troupe: Troupe) => {
        troupe.setEach('wave', [1]);
      },
      'wave',
    ],
    [
      'an unknown signal',
      (troupe: Troupe) => {
        troupe.set(0, 'sped', 1);
      },
      'speed',
    ],
    [
      'infinity',
      (troupe: Troupe) => {
        troupe.set(0, 'speed', Infinity);
      },
      'a finite number',
    ],
    [
      'infinity among many',
      (troupe: Troupe) => {
        troupe.setEach('speed', [0, -Infinity]);
      },
      'a finite number',
    ],
    ['a member that is stepped by itself', (troupe: Troupe) => troupe.member(0).step(10), 'troupe'],
    ['a member that is saved by itself', (troupe: Troupe) => troupe.member(0).save(), 'troupe'],
    ['no time', (troupe: Troupe) => troupe.step(NaN), 'NaN'],
    ['more than memory holds', () => new Troupe(controller, 5e9), '8388608'],
  ])('%s is refused in words', (_, run, words) => {
    expect(() => run(new Troupe(controller, 3))).toThrow(words);
  });
});

test('who sleeps is not looked at, and is where it should be a day later', () => {
  const controller = compileController({
    dotHop: 1,
    sheets: { s: { image: 's.png', size: [64, 64], grid: { cell: [8, 8] } } },
    clips: { idle: { cells: '0-3', ms: [100, 110, 120, 130] } },
  });
  const troupe = new Troupe(controller, 2);
  const alone = new Performer(controller);
  for (let hour = 0; hour < 24; hour++) {
    troupe.step(3_600_000 - hour);
    alone.step(3_600_000 - hour);
  }
  expect(troupe.pose(1)).toBe(alone.pose);
  expect(troupe.member(0).phase).toBe(alone.phase);
});
