// Where the check could miss something: past one word of bits, at the first condition, in the longest circle, the innermost group, the last part.
import { compileController } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import type { ControllerDefinition, StateDefinition } from 'dot-hop';
import { parse } from 'yaml';
import { checked, examples, head } from './findings-page.js';

/** Those that say how a document decides, and have states. */
const decisions = examples
  .map(({ code, text }) => ({ code, definition: parse(head + text) as ControllerDefinition }))
  .filter(({ code, definition: { states, accept } }) => states && !accept && !code.endsWith('unused'));

test.each(decisions)('$code is found beside more flags than a word has bits, too', ({ code, definition }) => {
  const flags = Array.from({ length: 70 }, (_, i) => `beside${i}`);
  const crowd: StateDefinition = { shows: Object.keys(definition.clips)[0]!, while: flags.join(' and ') };
  const { findings } = checkController(
    compileController({
      ...definition,
      // Their bits come before those of the example.
      signals: { ...Object.fromEntries(flags.map((name) => [name, { flag: false }])), ...definition.signals },
      states: { ...definition.states, crowd: { ...crowd, priority: -99 } },
    }),
  );
  expect(findings.map((one) => one.code)).toContain(code);
});

test('a press is lost where no other condition stands before it', () => {
  const text = (keep: string) => `clips:
  sit: { cells: 0 }
  swing: { cells: 1-3, fps: 8, loop: once }
signals: { hop: { pulse: ${keep} }, tap: { pulse: true } }
states:
  hop: { shows: swing, when: hop, priority: 1 }
  sit: { shows: sit }
  swing: { shows: swing, when: tap, priority: 2 }
rest: sit
`;
  const lost = (keep: string): unknown[] =>
    checked(text(keep)).flatMap(({ code, path }) => (code === 'press-lost' ? [path] : []));
  expect(lost('true')).toEqual([['states', 'hop', 'when']]);
  expect(lost('{ keep: 200 }')).toEqual([]);
});

test.each([
  [8, true],
  [9, false],
])('a circle of %i hops is found: %p', (length, isFound) => {
  const states = Array.from({ length }, (_, i) => {
    const to = (i + 1) % length;
    return `  s${i}: { shows: sit, hops: [{ to: s${to}, if: on }] }\n`;
  });
  const found = checked(`clips: { sit: { cells: 0 } }
signals: { on: { flag: false } }
states:
${states.join('')}rest: s0
`);
  expect(found.some(({ code }) => code === 'hop-cycle')).toBe(isFound);
});

test('a condition of a group that is never true is told at the innermost group that says it', () => {
  const found = checked(`clips: { sit: { cells: 0 } }
signals: { vx: { number: 0 }, wet: { flag: false } }
states: { sit: { shows: sit } }
rest: sit
groups:
  water:
    while: wet
    rest: float
    states: { float: { shows: sit } }
    groups:
      deep: { while: vx > 5 and vx < 3, rest: sink, states: { sink: { shows: sit } } }
`);
  expect(found.map(({ code, path }) => [code, path])).toContainEqual([
    'condition-never',
    ['groups', 'water', 'groups', 'deep', 'while'],
  ]);
});

test('a threshold of the second part of a vector flickers too', () => {
  const found = checked(`clips: { sit: { cells: 0 }, rise: { cells: 1 } }
signals: { lead: { number: 0 }, aim: { vector: [0, 0] } }
states:
  sit: { shows: sit, while: aim.y <= 5 }
  rise: { shows: rise, while: aim.y > 5, priority: 1 }
rest: sit
`);
  expect(found.filter(({ code }) => code === 'flicker').map(({ values }) => values.name)).toEqual(['aim.y']);
});
