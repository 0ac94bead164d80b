import { startLoop } from '@dot-hop/browser';

/** Frames of a display that come when the test says so. */
function display() {
  let waiting = new Map<number, (now: number) => void>();
  let next = 0;
  Object.assign(globalThis, {
    requestAnimationFrame: (draw: (now: number) => void) => {
      waiting.set(++next, draw);
      return next;
    },
    cancelAnimationFrame: (frame: number) => waiting.delete(frame),
  });
  return (now: number): unknown[] => {
    const due = [...waiting.values()];
    waiting = new Map();
    const thrown: unknown[] = [];
    for (const draw of due)
      try {
        draw(now);
      } catch (error) {
        thrown.push(error);
      }
    return thrown;
  };
}

test('steps that threw are not caught up with in a burst', () => {
  const frame = display();
  const start = performance.now();
  let [made, broken] = [0, true];
  const loop = startLoop({
    stepsPerSecond: 120,
    step: () => {
      made++;
      if (broken) throw new Error('a fault of the game');
    },
    draw: () => undefined,
  });
  for (let i = 1; i <= 100; i++) expect(frame(start + i * 100)).toHaveLength(1);
  expect(made).toBe(100);
  broken = false;
  made = 0;
  frame(start + 100 * 100 + 17);
  expect(made).toBe(2);
  loop.stop();
});

test('stop() inside a step ends the steps of that frame, and nothing is drawn any more', () => {
  const frame = display();
  const start = performance.now();
  let [made, drawn] = [0, 0];
  const loop = startLoop({
    stepsPerSecond: 120,
    step: () => {
      if (++made === 3) loop.stop();
    },
    draw: () => drawn++,
  });
  frame(start + 90);
  frame(start + 180);
  expect([made, drawn]).toEqual([3, 0]);
});
