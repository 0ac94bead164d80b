import { Performer, compileController } from 'dot-hop';
import type { ControllerDefinition, StateDefinition } from 'dot-hop';
import { compiledOf } from 'dot-hop/compiled';
import { Player, loadCompiled } from 'dot-hop/play';
import { checkController } from 'dot-hop/check';
import { stepTold } from './characters.js';

const definitionOf = (states: Record<string, StateDefinition>): ControllerDefinition => ({
  dotHop: 1,
  sheets: { s: { image: 's.png', size: [64, 64], grid: { cell: [8, 8] } } },
  clips: {
    stand: { cells: 0, fps: 10 },
    dizzy: { cells: '1-4', fps: 10, cues: { step: 0 } },
    fall: { cells: '5-6', fps: 10, loop: 'once', cues: { thud: 1 } },
  },
  signals: { blow: { pulse: true }, ms: { number: 250 }, low: { flag: false } },
  states: { stand: { shows: 'stand' }, up: { shows: 'stand' }, ...states },
  rest: 'stand',
});
const begin = (state: StateDefinition): Performer =>
  new Performer(compileController(definitionOf({ x: { priority: 9, when: 'blow', ...state } })));
const hit = (performer: Player, ms: number): string[] => {
  performer.pulse('blow');
  return stepTold(performer, ms);
};

test('a state lasts as long as it says, though its clip loops', () => {
  expect(hit(begin({ shows: 'dizzy', lasts: 650 }), 1000)).toEqual([
    '0 stand > x',
    '0 step',
    '400 step',
    '650 x > stand',
  ]);
});

test('though its clip is played once, it stays on the last frame until then', () => {
  const performer = begin({ shows: 'fall', lasts: 650, then: 'up' });
  expect(hit(performer, 400)).toEqual(['0 stand > x', '100 thud']);
  expect([performer.state, performer.phase]).toEqual(['x', 1]);
  expect(stepTold(performer, 400)).toEqual(['650 x > up']);
});

test('though its clip is longer, it is over then', () => {
  expect(hit(begin({ shows: 'fall', lasts: 60 }), 200)).toEqual(['0 stand > x', '60 x > stand']);
});

test('an expression is read when it is entered, and never again until then', () => {
  const performer = begin({ shows: 'dizzy', lasts: 'ms * 2' });
  expect(hit(performer, 100)).toEqual(['0 stand > x', '0 step']);
  performer.set('ms', 10);
  expect(stepTold(performer, 500)).toEqual(['400 step', '500 x > stand']);
  performer.set('ms', -5);
  expect(hit(performer, 10)).toEqual(['600 stand > x', '600 step', '600.001 x > stand']);
});

test('a clip that fits takes as long as its state', () => {
  const performer = begin({ shows: 'fall', lasts: 'ms', fit: true });
  expect(hit(performer, 240)).toEqual(['0 stand > x', '125.031 thud']);
  expect(performer.phase).toBeCloseTo(0.96, 2);
  expect(stepTold(performer, 20)).toEqual(['250 x > stand']);
});

test('a press while it lasts is again; what stays on its last frame plays still', () => {
  const performer = begin({ shows: 'fall', lasts: 300, again: 'restart' });
  hit(performer, 250);
  expect(hit(performer, 400)).toEqual(['250 x > x', '350 thud', '550 x > stand']);
  const queued = begin({ shows: 'fall', lasts: 300, again: 'queue' });
  hit(queued, 250);
  expect(hit(queued, 400)).toEqual(['300 x > x', '400 thud', '600 x > stand']);
});

test('atLeast may be an expression', () => {
  const performer = new Performer(
    compileController(definitionOf({ x: { shows: 'dizzy', while: 'low', priority: 9, atLeast: 'ms' } })),
  );
  performer.set('low', true);
  performer.step(100);
  performer.set('ms', 0);
  performer.set('low', false);
  expect(performer.why().holding).toBeUndefined();
  expect(stepTold(performer, 100)).toEqual([]);
  expect(performer.why().holding).toBe('atLeast');
  expect(stepTold(performer, 100)).toEqual(['250 x > stand']);
});

test('snapshots, copies and compiled documents go on with the length that was read', () => {
  const performer = begin({ shows: 'dizzy', lasts: 'ms', atLeast: 'ms / 2' });
  hit(performer, 100);
  performer.set('ms', 9000);
  performer.step(0);
  const left = ['250 x > stand'];
  const snapshot = JSON.parse(JSON.stringify(performer.snapshot())) as ReturnType<Performer['snapshot']>;
  expect([snapshot.overAt, snapshot.keptUntil]).toEqual([250, 125]);
  const other = new Performer(performer.controller);
  other.restore(snapshot);
  expect(stepTold(other, 200)).toEqual(left);
  const copy = performer.save();
  performer.step(500);
  performer.load(copy);
  expect(stepTold(performer, 200)).toEqual(left);
  const player = new Player(
    loadCompiled(JSON.parse(JSON.stringify(compiledOf(performer.controller))) as never),
  );
  expect(hit(player, 400)).toEqual(['0 stand > x', '0 step', ...left]);
});

test('what an edit brings begins to count then', () => {
  const performer = begin({ shows: 'dizzy', lasts: 5000 });
  hit(performer, 100);
  const plain = begin({ shows: 'dizzy', lasts: 300 });
  const { overAt, ...snapshot } = performer.snapshot();
  expect(overAt).toBe(5000);
  plain.adopt(snapshot);
  expect(stepTold(plain, 500).at(-1)).toBe('400 x > stand');
});

test('a state that lasts is stuck nowhere, and its follow-up comes', () => {
  const states = { x: { shows: 'dizzy', lasts: 100, then: 'up', when: 'blow', priority: 2 } };
  const controller = compileController(definitionOf({ ...states, up: { shows: 'dizzy', lasts: 100 } }));
  expect(checkController(controller).findings.map(({ code }) => code)).not.toContain('then-endless');
  expect(checkController(controller).findings.map(({ code }) => code)).not.toContain('state-stuck');
});

test.each<[StateDefinition, RegExp]>([
  [{ shows: 'dizzy', lasts: '-5' }, /states\.x\.lasts: a length is 0 ms or more, not -5/],
  [
    { shows: 'dizzy', lasts: -5 },
    /states\.x\.lasts: expected milliseconds from 0 to 3600000, or an expression, not -5/,
  ],
  [{ shows: 'dizzy', lasts: 'low' }, /states\.x\.lasts/],
  [{ shows: 'dizzy', lasts: 'mz' }, /states\.x\.lasts: there is no signal "mz"; did you mean "ms"/],
  [
    { shows: 'dizzy', lasts: 100, when: undefined, while: 'low' },
    /states\.x\.lasts: a state with "while" and no "when"/,
  ],
  [
    { shows: 'fall', fit: true },
    /states\.x\.fit: "fit" stretches a clip over what a state lasts; give it "lasts"/,
  ],
  [{ shows: 'fall', lasts: 9, fit: true, rate: 2 }, /states\.x\.fit: .*no place for "rate"/],
])('refused: %j', (state, told) => {
  expect(() => begin(state)).toThrow(told);
});

test('linger and settle may be expressions, read when they begin to count', () => {
  const definition = definitionOf({
    x: { shows: 'dizzy', while: 'slowed', priority: 9 },
    y: { shows: 'fall', while: 'ready', priority: 8 },
  });
  const performer = new Performer(
    compileController({
      ...definition,
      derived: { slowed: { of: 'low', linger: 'ms' }, ready: { of: 'not low', settle: 'ms * 4' } },
    }),
  );
  performer.set('low', true);
  expect(stepTold(performer, 100).at(0)).toBe('0 stand > x');
  performer.set('low', false);
  performer.step(10);
  performer.set('ms', 5);
  expect(stepTold(performer, 600).filter((one) => one.includes('>'))).toEqual(['350 x > stand']);
  expect(stepTold(performer, 600).filter((one) => one.includes('>'))).toEqual(['1100 stand > y']);
  performer.set('low', true);
  performer.step(10);
  performer.set('low', false);
  expect(stepTold(performer, 100).filter((one) => one.includes('>'))).toEqual([
    '1325 x > stand',
    '1340 stand > y',
  ]);
});

test.each([
  [
    'slowed',
    { of: 'low', linger: 'mz' },
    /derived\.slowed\.linger: there is no signal "mz"; did you mean "ms"/,
  ],
  ['slowed', { of: 'low', settle: '-3' }, /derived\.slowed\.settle: a length is 0 ms or more, not -3/],
  ['slowed', { of: 'low', settle: 'low' }, /derived\.slowed\.settle/],
])('refused: %s %j', (name, derived, told) => {
  const definition = { ...definitionOf({}), derived: { [name]: derived } };
  expect(() => compileController(definition as ControllerDefinition)).toThrow(told);
});
