import { Performer } from 'dot-hop';
import type { Observer } from 'dot-hop';
import { Recording } from 'dot-hop/rehearsal';
import { Troupe } from 'dot-hop/troupe';
import { lastTold, shownBy } from './characters.js';
import { walker } from './walker.js';

const controller = walker();

/** A troupe of four, and what an observer of member 2 hears. */
function watchedTroupe(more: Observer = {}): { troupe: Troupe; heard: string[]; end: () => void } {
  const troupe = new Troupe(controller, 4);
  const heard: string[] = [];
  const end = troupe.member(2).observe({
    ...more,
    input: ({ kind, name }) => heard.push(`${kind} ${name}`),
    step: (count, from) => {
      const { reports } = troupe;
      heard.push(Array.from({ length: count }, (_, i) => reports.name(from + i)).join(' '));
    },
    moved: () => heard.push('moved'),
  });
  return { troupe, heard, end };
}

test('a member of a crowd is recorded as a performer by itself is', () => {
  const troupe = new Troupe(controller, 5);
  const alone = new Performer(controller);
  const recordings = [new Recording(troupe.member(3)), new Recording(alone)];
  const [crowded, single] = recordings as [Recording, Recording];
  for (let tick = 0; tick < 400; tick++) {
    const speed = tick % 90 < 50 ? 60 : 0;
    troupe.setEach('speed', [90 - speed, speed, 50, speed, tick]);
    alone.set('speed', speed);
    if (tick % 70 === 30) {
      troupe.pulse({ from: 0, to: 5 }, 'wave');
      alone.pulse('wave');
    }
    troupe.step(16.667);
    alone.step(16.667);
  }
  expect(single.trace.length).toBeGreaterThan(50);
  expect(crowded.trace).toEqual(single.trace);
  expect(crowded.rehearsal()).toEqual(single.rehearsal());
  for (let time = 0; time < alone.time; time += 111.1)
    expect([time, shownBy(crowded.at(time))]).toEqual([time, shownBy(single.at(time))]);
  for (const recording of recordings) recording.stop();
});

test('who watches a member hears what the troupe tells it, and each step, also when nothing happens', () => {
  const { troupe, heard, end } = watchedTroupe();
  troupe.set({ from: 0, to: 4 }, 'speed', 50);
  troupe.set(1, 'speed', 0);
  troupe.step(0);
  troupe.step(5);
  troupe.setEach('speed', [70, 80, 0, 90]);
  troupe.pulse(2, 'wave');
  troupe.step(10);
  troupe.member(2).cut('stand');
  expect(heard).toEqual([
    'set speed',
    'walk step',
    '',
    'set speed',
    'pulse wave',
    'wave',
    'cut stand',
    'stand',
  ]);
  end();
  troupe.set(2, 'speed', 60);
  troupe.step(10);
  expect(heard).toHaveLength(8);
});

test('who watches a member can keep signals from it, and from nobody else', () => {
  const { troupe } = watchedTroupe({ holds: (signal) => signal === 'speed' });
  troupe.set({ from: 0, to: 4 }, 'speed', 50);
  troupe.setEach('speed', [50, 50, 51, 50]);
  troupe.step(1);
  expect([0, 1, 2, 3].map((index) => troupe.member(index).state)).toEqual(['walk', 'walk', 'stand', 'walk']);
});

test('of a member that leaves nothing is heard any more, and nothing of the one that has its number next', () => {
  const { troupe, heard, end } = watchedTroupe();
  troupe.remove(2);
  troupe.add({ speed: 50 });
  troupe.set(2, 'speed', 0);
  troupe.step(100);
  expect(heard).toEqual([]);
  const second: number[] = [];
  troupe.member(2).observe({ step: (count) => second.push(count) });
  // What ends the first says nothing of the second.
  end();
  troupe.step(10);
  expect([heard, second]).toEqual([[], [0]]);
});

test('a copy of the troupe brings a member elsewhere, and who watches is whoever watches now', () => {
  const { troupe, heard, end } = watchedTroupe();
  const saved = troupe.save();
  troupe.set(2, 'speed', 50);
  troupe.step(10);
  heard.length = 0;
  troupe.load(saved);
  troupe.step(10);
  expect(heard).toEqual(['moved', '']);
  end();
  // The copy was made while it was watched.
  troupe.load(saved);
  troupe.set(2, 'speed', 50);
  troupe.step(10);
  expect(heard).toHaveLength(2);
  const unwatched = new Troupe(controller, 1).save();
  troupe.member(2).observe({ moved: () => heard.push('moved again') });
  troupe.load(unwatched);
  // There is no member 2 in this copy.
  troupe.step(10);
  expect([heard.length, troupe.length]).toEqual([2, 1]);
  expect(lastTold(troupe)).toEqual([]);
});
