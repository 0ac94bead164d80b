import { pathText } from 'dot-hop';
import type { CarryRule } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import type { Finding } from 'dot-hop/check';
import { compileDocument, readDocument } from 'dot-hop/document';
import { acceptFinding, acceptNoMore, changedData, changedText, remedyOf } from 'dot-hop/edit';
import type { FindingData } from 'dot-hop/edit';
import { examples as given, head } from './findings-page.js';

const examples = given.map(({ code, text }) => ({ code, text: head + text }));

const read = (text: string) => readDocument(text, 'example.yaml');
const checked = (text: string): readonly Finding[] => checkController(compileDocument(read(text))).findings;
const placesOf = (text: string, code: string): string[] =>
  checked(text).flatMap((one) => (one.code === code ? [pathText(one.path)] : []));

/** What is found first of a kind in a document, and what is done about it. */
function remedied(text: string, code: string): { says: string; text: string } | undefined {
  const finding = checked(text).find((one) => one.code === code)!;
  const edit = remedyOf(read(text).definition, finding);
  return edit && { says: edit.says, text: changedText(text, edit.changes) };
}

const mended = examples.flatMap(({ code, text }) => {
  const remedy = remedied(text, code);
  return remedy === undefined ? [] : [{ code, ...remedy, before: placesOf(text, code) }];
});

test('findings whose remedy needs no more to be known have one, in words', () => {
  expect(Object.fromEntries(mended.map(({ code, says }) => [code, says]))).toEqual({
    'accept-unused': 'take out what accepts nothing',
    'clip-unused': 'delete clip wave',
    'derived-unused': 'take out speed',
    'feet-jump': 'keep the phase in run',
    flicker: 'show run and walk for at least 80 ms',
    'follow-up-overtaken': 'rank float 3',
    'hop-never': 'take out the hop to dive',
    'one-sided': 'write abs(vx)',
    'press-lost': 'remember down for 120 ms',
    'rate-below-zero': 'write abs(vx / 60)',
    'signal-unused': 'take out the signal grounded',
    'state-never': 'rank sneak 3',
    'state-stuck': 'play spin once',
    'state-unreachable': 'delete state wave',
    'then-endless': 'play hop once',
    'then-never': 'take out “then: land”',
    'threshold-gap': 'write >= in “while” of fall',
    'threshold-overlap': 'write > in “while” of fall',
    'variant-unused': 'no variant of walk',
    'yield-needless': 'take out the yield to cower',
  });
});

test.each(mended.map((one) => [one.code, one] as const))(
  'after its remedy %s is found there no more',
  (code, { text, before }) => {
    const again = placesOf(text, code);
    expect(again.length).toBeLessThan(before.length);
  },
);

describe('a remedy in an expression', () => {
  const document = (conditions: Record<string, unknown>) => ({
    dotHop: 1 as const,
    sheets: {},
    clips: { c: { cells: 0 } },
    signals: { vx: { number: 0 } },
    states: {
      stand: { shows: 'c' },
      ...Object.fromEntries(
        Object.entries(conditions).map(([name, fields]) => [name, { shows: 'c', ...(fields as object) }]),
      ),
    },
    rest: 'stand',
  });
  const after = (conditions: Record<string, unknown>, finding: FindingData) => {
    const definition = document(conditions);
    return changedData(definition, remedyOf(definition, finding)!.changes).states;
  };

  test.each([
    ['vx > 5', 'abs(vx) > 5'],
    ['(vx > 5) and abs(vx) < 9', '(abs(vx) > 5) and abs(vx) < 9'],
    ['(vx) > 5 or vx<2', 'abs(vx) > 5 or abs(vx)<2'],
  ])('of %s makes %s', (text, now) => {
    const path = ['states', 'go', 'while'];
    const states = after({ go: { while: text } }, { code: 'one-sided', path, values: { name: 'vx' } });
    expect(states).toMatchObject({ go: { while: now } });
  });

  test('there is none while the expression cannot be read, as in the middle of typing', () => {
    for (const [code, values] of [
      ['one-sided', { name: 'vx' }],
      ['threshold-gap', { name: 'vx', value: 5, above: 'go', below: 'stand', rest: 'stand' }],
    ] as const) {
      const finding = { code, path: ['states', 'go', 'while'], values };
      expect(remedyOf(document({ go: { while: 'vx > 5 and (' } }), finding)).toBeUndefined();
    }
  });

  test('keeps the phase from the states that are not named yet, where others are', () => {
    const finding = {
      code: 'feet-jump',
      path: ['states', 'run'],
      values: { state: 'run', from: ['walk', 'sneak'] },
    };
    expect(after({ run: { carry: { crawl: 'none' } } }, finding)).toMatchObject({
      run: { carry: { crawl: 'none', walk: 'phase', sneak: 'phase' } },
    });
  });

  test('keeps what the group of a state says of the others, since the state then speaks for itself', () => {
    const path = ['groups', 'wet', 'states', 'wade'];
    const finding = { code: 'feet-jump', path, values: { state: 'wade', from: ['run'] } };
    const carryAfter = (carry: Record<string, CarryRule> | undefined) => {
      const group = { while: 'vx > 9', rest: 'wade', carry, states: { wade: { shows: 'c' } } };
      const definition = { ...document({ run: {}, crawl: {} }), groups: { wet: group } };
      return changedData(definition, remedyOf(definition, finding)!.changes).groups.wet.states.wade;
    };
    expect(carryAfter({ crawl: 'frame' })).toMatchObject({ carry: { crawl: 'frame', run: 'phase' } });
    expect(carryAfter(undefined)).toMatchObject({ carry: 'phase' });
  });

  test('takes the size of a whole rate, without its brackets', () => {
    const finding = {
      code: 'rate-below-zero',
      path: ['states', 'go', 'rate'],
      values: { text: '(vx + 1) * 2' },
    };
    expect(after({ go: { rate: '(vx + 1) * 2' } }, finding)).toMatchObject({
      go: { rate: 'abs((vx + 1) * 2)' },
    });
    const bracketed = { ...finding, values: { text: '(vx - 3)' } };
    expect(after({ go: { rate: '(vx - 3)' } }, bracketed)).toMatchObject({ go: { rate: 'abs(vx - 3)' } });
  });

  test.each([
    ['vx>5', 'vx>=5'],
    ['vx > 50 or (5 < vx)', 'vx > 50 or (5 <= vx)'],
    ['not (vx > 5)', 'not (vx >= 5)'],
    ['abs(vx) > 5 and (vx) > 5', 'abs(vx) > 5 and (vx) >= 5'],
  ])('of a gap at 5 makes of %s %s', (text, now) => {
    const values = { name: 'vx', value: 5, above: 'go', below: 'stand', rest: 'stand' };
    const states = after({ go: { while: text } }, { code: 'threshold-gap', path: ['states', 'go'], values });
    expect(states).toMatchObject({ go: { while: now } });
  });
});

test('what is accepted is accepted at its place with its reason, and taken back', () => {
  const { text } = examples.find(({ code }) => code === 'flicker')!;
  const { definition } = read(text);
  const [finding] = checked(text).filter(({ code }) => code === 'flicker');
  const { changes } = acceptFinding(definition, finding!.code, pathText(finding!.path), 'he is slow');
  const accepted = changedText(text, changes);
  expect(checked(accepted).find(({ code }) => code === 'flicker')!.accepted).toBe('he is slow');
  const second = acceptFinding(read(accepted).definition, 'clip-unused', undefined, 'later').changes;
  const both = read(changedText(accepted, second)).definition;
  expect(both.accept!.map(({ because }) => because)).toEqual(['he is slow', 'later']);
  expect(changedData(both, acceptNoMore(both, 0).changes).accept).toEqual([
    { finding: 'clip-unused', because: 'later' },
  ]);
  const one = read(accepted).definition;
  expect(changedData(one, acceptNoMore(one, 0).changes).accept).toBeUndefined();
});
