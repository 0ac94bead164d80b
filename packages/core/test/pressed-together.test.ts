import { Performer } from 'dot-hop';
import { compile, perform, stepTold } from './characters.js';

const clips = {
  still: { cells: 0 },
  act: { cells: '0-1', ms: 50, loop: 'once' as const },
  loop: { cells: '0-3', ms: 100, stride: 40 },
};

describe('two pulses without "keep" that come together', () => {
  const states = {
    rest: { shows: 'still' },
    one: { shows: 'act', when: 'p', priority: 2, hops: [{ to: 'both', if: 'q' }] },
    both: { shows: 'act' },
  };
  const signals = { p: { pulse: true as const }, q: { pulse: true as const } };

  test('the use of one leaves the other for that instant', () => {
    const performer = perform({ clips, signals, states });
    performer.pulse('p');
    performer.pulse('q');
    expect(stepTold(performer, 10)).toEqual(['0 rest > one', '0 one > both']);
    expect([performer.value('p'), performer.value('q')]).toEqual([false, false]);
  });

  test('neither is there an instant later, used or not', () => {
    const performer = perform({ clips, signals, states });
    performer.pulse('p');
    performer.pulse('q');
    performer.step(0);
    expect(performer.state).toBe('both');
    performer.cut('one');
    expect(stepTold(performer, 10)).toEqual([]);
    expect(performer.state).toBe('one');
  });
});

test('travel by a signed value drives the feet by its size, either way', () => {
  const controller = compile({
    clips,
    signals: { vx: { number: 0 } },
    states: { go: { shows: 'loop', rate: { travel: 'vx' } } },
  });
  for (const vx of [200, -200]) {
    const performer = new Performer(controller, { vx });
    performer.step(100);
    // 400 ms of a pass that covers 40 px: 200 px a second are twice as fast as drawn.
    expect([performer.speed, performer.frameIndex]).toEqual([2, 2]);
  }
});

test('a queued act that no longer stands at its end is not played again', () => {
  const character = {
    clips,
    signals: { swing: { pulse: true as const }, armed: { flag: true } },
    states: {
      rest: { shows: 'still' },
      swing: { shows: 'act', when: 'swing', while: 'armed', priority: 2, again: 'queue' as const },
    },
  };
  for (const [armed, told] of [
    [true, ['100 swing > swing']],
    [false, ['30 swing > rest']],
  ] as const) {
    const performer = perform(character);
    performer.pulse('swing');
    performer.step(20);
    performer.pulse('swing');
    performer.step(10);
    performer.set('armed', armed);
    expect(stepTold(performer, 80)).toEqual(told);
  }
});

test('a route that is asked for during a bridge goes on when the bridge is over', () => {
  const performer = perform({
    clips,
    signals: { go: { flag: false } },
    states: {
      rest: { shows: 'still' },
      go: {
        shows: 'loop',
        while: 'go',
        priority: 1,
        bridges: { rest: 'act' },
        hops: [{ to: 'end', if: 'false', at: 'end' }],
      },
      end: { shows: 'still', priority: 2 },
    },
  });
  performer.set('go', true);
  performer.step(30);
  expect(performer.isBridging).toBe(true);
  expect(performer.route('end')).toBe(true);
  expect([performer.routeTo, performer.isBridging]).toEqual(['end', true]);
  // The bridge ends at 100 ms, and "end" is that of the state's own clip, 400 ms later.
  expect(stepTold(performer, 500)).toEqual(['500 go > end']);
  expect(performer.routeTo).toBeUndefined();
});
