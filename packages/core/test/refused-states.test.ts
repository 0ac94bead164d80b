import { compile } from './characters.js';
import { clips, signals, stage } from './stage.js';

describe('documents that cannot be', () => {
  test.each([
    [{ a: { shows: 'lop' } }, 'states.a.shows: there is no clip or flipbook "lop"; did you mean "loop"?'],
    [{ a: { shows: 'loop', when: 'press' } }, 'the clip "loop" loops forever, so this act would never end'],
    [{ a: { shows: 'act', while: 'go', then: 'rest' } }, '"then" follows the end of an act'],
    [{ a: { shows: 'act', then: 'rust' } }, 'there is no state "rust"; did you mean "rest"?'],
    [{ a: { shows: 'act', priority: NaN } }, 'states.a.priority: expected a number, not null'],
    [
      { a: { shows: 'act', hops: [{ to: 'rest', at: 'hot' }] } },
      'there is no cue or instant "hot"; did you mean "hit"?',
    ],
    [
      { a: { shows: 'act', hops: [{ to: 'rest', during: 'lat' }] } },
      'there is no span "lat"; did you mean "late"?',
    ],
    [{ a: { shows: 'act', yields: [{ to: ['a'] }] } }, 'a state cannot yield to itself'],
    [
      { a: { shows: 'act', yields: new Array(251).fill({}) as object[] } },
      'states.a.yields: the state has 251 yields, at most 250 are possible; name several states in one',
    ],
    [
      { a: { shows: 'act', hops: new Array(251).fill({ to: 'rest' }) as object[] } },
      'the state has 251 hops, at most 250 are possible',
    ],
  ])('%j is refused in words', (states, words) => {
    expect(() => stage(states as never)).toThrow(words.replace('not null', 'not NaN'));
  });

  test('all problems are told at once, each with its path', () => {
    const states = { a: { shows: 'x', while: 'y' }, b: { shows: 'loop', when: 'go', then: 'z' } };
    expect(() => compile({ clips, signals, states, rest: 'q' })).toThrow(
      /states\.a\.shows: .*\n.*states\.a\.while: .*\n.*states\.b\.shows: .*\n.*states\.b\.then: .*\n.*rest: /s,
    );
  });

  test.each([
    [{ directions: { only: 0 }, by: ['vx', 0] }, 'a compass needs at least two directions, not 1'],
    [{ directions: { a: 0, b: 360 }, by: ['vx', 0] }, '"a" and "b" are both at 0 degrees'],
    [{ directions: 'sides', by: ['vx', 0], mirror: { west: 'east', east: 'west' } }, 'is itself mirrored'],
    [
      { directions: 'sides', by: ['vx', 0], mirror: { wst: 'east' } },
      'there is no direction "wst"; did you mean "west"?',
    ],
    [{ directions: 'sides' }, '"by" is the vector that turns the character'],
    [{ directions: 'sides', by: ['go', 0] }, '"go" is a flag where a number is wanted'],
  ])('compass %j is refused in words', (compass, words) => {
    expect(() => stage({}, { compass })).toThrow(words);
  });
});
