import { Performer, compileController } from 'dot-hop';
import type { ControllerDefinition, NumberBounds, StateDefinition } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import { boundsText, describeController } from 'dot-hop/explain';
import { runRehearsal } from 'dot-hop/rehearsal';

const definitionOf = (
  bounds: NumberBounds,
  states: Record<string, StateDefinition>,
  first = 50,
): ControllerDefinition => ({
  dotHop: 1,
  sheets: { s: { image: 's.png', size: [64, 64], grid: { cell: [8, 8] } } },
  clips: { stand: { cells: 0, fps: 10 }, lie: { cells: 1, fps: 10 } },
  signals: { health: { number: first, ...bounds } },
  states: { stand: { shows: 'stand' }, ...states },
  rest: 'stand',
});
const codes = (bounds: NumberBounds, states: Record<string, StateDefinition>): string[] =>
  checkController(compileController(definitionOf(bounds, states))).findings.map(({ code }) => code);
const down = { lie: { shows: 'lie', while: 'health <= 0', priority: 1 } };
const low = { lie: { shows: 'lie', while: 'health <= 20', priority: 1 } };

test('a check claims nothing about values that a number never has', () => {
  expect(codes({}, down)).toContain('flicker');
  // At an end of what it can be it does not tremble, nor does a whole number anywhere.
  expect(codes({ from: 0 }, down)).not.toContain('flicker');
  expect(codes({ from: 0 }, low)).toContain('flicker');
  expect(codes({ from: 0, whole: true }, low)).not.toContain('flicker');
  // What only such values bring about never shows.
  expect(codes({}, { lie: { shows: 'lie', while: 'health > 100', priority: 1 } })).not.toContain(
    'condition-never',
  );
  expect(
    codes({ from: 0, to: 100 }, { lie: { shows: 'lie', while: 'health > 100', priority: 1 } }),
  ).toContain('condition-never');
  expect(
    codes({ whole: true }, { lie: { shows: 'lie', while: 'health > 3 and health < 4', priority: 1 } }),
  ).toContain('condition-never');
  expect(
    codes({ whole: true }, { lie: { shows: 'lie', while: 'health > 3 and health < 5', priority: 1 } }),
  ).not.toContain('condition-never');
});

test('a number that says from where on it goes is no rate below 0', () => {
  const rate = { lie: { shows: 'lie', while: 'abs(health) > 2', rate: 'health', priority: 1 } };
  expect(codes({}, rate)).toContain('rate-below-zero');
  expect(codes({ from: 0 }, rate)).not.toContain('rate-below-zero');
});

test('a rehearsal tells where the game leaves the bounds, and goes on', () => {
  const controller = compileController(definitionOf({ from: 0, to: 100, unit: 'hp' }, low));
  const { trace } = runRehearsal(controller, {
    lasts: 100,
    script: [
      { at: 10, set: { health: 120 } },
      { at: 20, set: { health: 10 } },
    ],
  });
  expect(trace.filter(({ kind }) => kind === 'set')).toEqual([
    { kind: 'set', at: 10, name: 'health', value: 120, outside: '0 to 100 hp' },
    { kind: 'set', at: 20, name: 'health', value: 10 },
  ]);
  const performer = new Performer(controller);
  performer.set('health', -3);
  performer.step(10);
  expect(performer.state).toBe('lie');
});

test('who shows signals is told the bounds', () => {
  const bounds = { from: 0, to: 100, whole: true, unit: 'hp' };
  expect(describeController(compileController(definitionOf(bounds, low))).signals[0]!.bounds).toEqual(bounds);
  expect(boundsText(bounds)).toBe('0 to 100 hp, whole');
  expect(boundsText({ from: 3 })).toBe('3 or more');
  expect(boundsText({ to: 3, whole: true })).toBe('at most 3, whole');
  expect(boundsText({ unit: 'px/s' })).toBe('any px/s');
});

test.each<[NumberBounds, number, RegExp]>([
  [{ from: 5, to: 3 }, 4, /signals\.health: "from" \(5\) lies above "to" \(3\)/],
  [
    { from: 5 },
    4,
    /signals\.health\.number: it begins with 4, which is outside of what it can be \(5 or more\)/,
  ],
  [{ whole: true }, 0.5, /signals\.health\.number: it begins with 0.5/],
  [{ unit: 3 as never }, 0, /signals\.health\.unit: expected a text/],
])('refused: %j', (bounds, first, told) => {
  expect(() => compileController(definitionOf(bounds, low, first))).toThrow(told);
});
