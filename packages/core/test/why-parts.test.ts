import { compile, perform } from './characters.js';
import { Performer } from 'dot-hop';
import { partText, whyText } from 'dot-hop/explain';

const character = (condition: string) => ({
  clips: { c: { cells: 0 } },
  signals: { vx: { number: 0 }, a: { flag: false }, b: { flag: false }, hit: { pulse: true as const } },
  derived: { moving: { of: 'abs(vx)', above: 12, below: 8 }, free: '!a && !b' },
  states: { rest: { shows: 'c' }, up: { shows: 'c', while: condition, priority: 1 } },
  tracks: { arms: { states: { 'hang-on': { shows: 'c' } } } },
});
const partsOf = (condition: string, set: Record<string, number | boolean>) => {
  const performer = perform(character(condition), set);
  performer.step(1);
  return performer.why().states[0]!.while!.parts.map(({ text, on }) => `${on ? '+' : '-'} ${text}`);
};

test.each([
  ['vx>5&&!a', { vx: 6 }, ['+ vx>5', '+ !a']],
  ['vx>5&&!a', { vx: 4, a: true }, ['- vx>5', '- !a']],
  ['!(a && b) || vx > 5', { a: true, b: true }, ['- !(a && b)', '- vx > 5']],
  ['!(a && b) || vx > 5', { a: true }, ['+ !(a && b)', '- vx > 5']],
  ['a ? vx > 5 : b', { a: true, vx: 6 }, ['+ a', '+ vx > 5', '- b']],
  ['(a || b) && free', {}, ['- a', '- b', '+ free']],
  ['vx > 5 and not a or b', { vx: 6 }, ['+ vx > 5', '+ not a', '- b']],
  ['not (a or b) and not vx > 5', { a: true }, ['- not (a or b)', '+ not vx > 5']],
  ['a == b', {}, ['+ a == b']],
  ["arms == 'hang-on' && a", {}, ["+ arms == 'hang-on'", '- a']],
  ['abs(vx) > 5 && moving', { vx: 20 }, ['+ abs(vx) > 5', '+ moving']],
] as const)(
  'the parts of %s with %j stand as they are written, true as they count there',
  (condition, set, parts) => {
    expect(partsOf(condition, set as Record<string, number>)).toEqual(parts);
  },
);

test('what a part reads stands beside it, of a band with the threshold that comes next', () => {
  const performer = new Performer(compile(character('moving && !a && vx > 3')), { vx: 20 });
  const parts = () => performer.why().states[0]!.while!.parts.map(partText);
  performer.step(1);
  expect(parts()).toEqual(['+ moving (vx 20, off below 8)', '+ !a', '+ vx > 3 (vx 20)']);
  performer.set('vx', 2);
  performer.step(1);
  expect(parts()).toEqual(['- moving (vx 2, on above 12)', '+ !a', '- vx > 3 (vx 2)']);
  expect(whyText(performer.why())).toContain('while moving && !a && vx > 3   - moving (vx 2, on above 12)');
});

test('what does not rank above a final state is kept out by its rank, and what does by the final state', () => {
  const c = { shows: 'c' };
  const performer = perform({
    clips: { c: { cells: 0, loop: 'once', ms: 500 } },
    signals: { hit: { pulse: true }, a: { flag: true } },
    states: {
      stand: c,
      low: { ...c, while: 'a', priority: 1 },
      hurt: { ...c, when: 'hit', priority: 5, final: true },
      high: { ...c, while: 'a and hurting', priority: 9 },
    },
    derived: { hurting: 'body.hurt' },
    rest: 'stand',
  });
  performer.step(1);
  performer.pulse('hit');
  performer.step(1);
  const kept = Object.fromEntries(performer.why().states.map(({ name, keptOut }) => [name, keptOut]));
  expect(kept).toMatchObject({ hurt: 'shows', low: 'rank', high: 'final' });
});
