import fc from 'fast-check';
import { Performer, compileController } from 'dot-hop';
import { checkController, findings } from 'dot-hop/check';
import type { SignalValue, StateDefinition } from 'dot-hop';
import type { Finding } from 'dot-hop/check';
import { compile } from './characters.js';
import { checked, examples, page } from './findings-page.js';
import { characters } from './made-characters.js';
import { act, bearable, scenes } from './stories.js';
import { lawThatMeets } from './often.js';

/** What a document about some states has. */
const codes = (text: string): string[] =>
  checked(text)
    .filter(({ severity, accepted }) => severity !== 'note' && accepted === undefined)
    .map(({ code }) => code);

test('the page of findings has every one of them, with its weight', () => {
  const heads = [...page.matchAll(/### `([\w-]+)` \((\w+)\)/g)].map(
    ([, code, severity]) => [code, severity] as const,
  );
  const listed = Object.fromEntries(heads) as Record<string, string>;
  expect(listed).toEqual(
    Object.fromEntries(Object.entries(findings).map(([code, { severity }]) => [code, severity])),
  );
});

test.each(examples.map(({ code, text }) => [code, text]))(
  '%s is found in its example, and told',
  (code, text) => {
    const found = checked(text);
    expect(found.map((one) => one.code)).toContain(code);
    const { message, path } = found.find((one) => one.code === code)!;
    expect(message).not.toMatch(/undefined|\[object|NaN/);
    expect(path.length).toBeGreaterThan(0);
    // Nothing else of weight stands in the way of what the example is about.
    const others = new Set(codes(text).filter((one) => one !== code));
    expect([...others].filter((one) => one !== 'condition-never')).toEqual([]);
  },
);

test.each(examples)('$code is not found once it is mended, nor anything else', ({ text, mended }) => {
  expect(mended).not.toBe(text);
  expect(checked(mended).map(({ code, message }) => `${code}: ${message}`)).toEqual([]);
});

test('what is accepted with a reason is found and does not weigh', () => {
  const { text } = examples.find(({ code }) => code === 'flicker')!;
  const accept = 'accept: [{ finding: flicker, at: states.run, because: it is slow }]\n';
  const [found] = checked(text + accept);
  expect(found).toMatchObject({ code: 'flicker', accepted: 'it is slow' });
  expect(codes(text + accept)).toEqual([]);
  // Elsewhere it is not accepted, and what accepts it is told.
  expect(codes(text + accept.replace('states.run', 'states.ru'))).toEqual(['flicker', 'accept-unused']);
  // Nor is something else accepted there.
  expect(codes(text + accept.replace('flicker', 'never-shows'))).toEqual(['flicker', 'accept-unused']);
});

test('a state that another one yields to by name can show, whoever ranks above it', () => {
  const text = (yields: string) => `clips: { sit: { cells: 0 }, peck: { cells: 1-3, fps: 8, loop: once } }
signals: { low: { flag: false }, crumb: { pulse: true } }
states:
  sit: { shows: sit }
  crouch: { shows: sit, while: low, priority: 2 }
  lie: { shows: sit, while: low, priority: 1 }
  peck: { shows: peck, when: crumb, priority: 3${yields} }\n`;
  expect(codes(text(''))).toContain('state-never');
  expect(codes(text(', yields: [{}]'))).toContain('state-never');
  expect(codes(text(', yields: [{ to: [lie] }]'))).not.toContain('state-never');
});

test('a frame too short to be seen is found by its rate too', () => {
  const text = (fps: number) => `clips: { sit: { cells: 0-3, fps: ${fps} } }
states: { sit: { shows: sit } }\n`;
  const found = checked(text(125)).find(({ code }) => code === 'frame-short');
  expect([found?.path.join('.'), found?.values.ms]).toEqual(['clips.sit.fps', 8]);
  expect(codes(text(60))).toEqual([]);
});

test('a state that has taken a track lets go of it where what it takes it for can end', () => {
  const text = (takes: string) => `clips: { sit: { cells: 0 }, wave: { cells: 1-3, fps: 8 } }
signals: { hailed: { flag: false }, low: { flag: false } }
states:
  sit: { shows: sit }
tracks:
  arms:
    states:
      along: { inStep: body }
      wave: { shows: wave, while: hailed or body.wave, priority: 1, takes: ${takes} }\n`;
  expect(codes(text('[body]'))).toContain('take-forever');
  expect(codes(text('{ body: low }'))).not.toContain('take-forever');
});

const cuts = (below: string, above: string) => `clips: { sit: { cells: 0 } }
signals: { vx: { number: 0 }, vy: { number: 0 } }
states:
  sit: { shows: sit }
  slow: { shows: sit, while: '${below}', priority: 1 }
  fast: { shows: sit, while: '${above}', priority: 1 }\n`;

test.each([
  ['hypot(vx, vy) < 5', 'hypot(vx, vy) > 5', 'threshold-gap', 'at hypot(vx, vy) = 5 exactly neither'],
  ['hypot(vx, vy) < 5', '5 < hypot(vx, vy)', 'threshold-gap', 'at hypot(vx, vy) = 5 exactly neither'],
  ['hypot(vx, vy) < 5', 'hypot(vx, vy) >= 5', 'flicker', 'around hypot(vx, vy) = 5 a number that trembles'],
  ['vx * 2 + vy <= -3', 'vx * 2 + vy > -3', 'flicker', 'around (vx * 2) + vy = -3'],
])('numbers that are read together have thresholds too: %s, %s', (below, above, code, words) => {
  const found = checked(cuts(below, above)).find((one) => one.code === code);
  expect(found?.message).toContain(words);
  // With a band there is nothing to find.
  const banded = cuts('!f', 'f').replace(
    'states:',
    `derived: { f: { of: 'hypot(vx, vy)', above: 6, below: 4 } }\nstates:`,
  );
  expect(codes(banded)).toEqual([]);
});

test('a state that is kept for a while, or left at its end only, does not flicker', () => {
  const text = cuts('vx < 5', 'vx >= 5');
  expect(codes(text)).toContain('flicker');
  for (const state of ['slow', 'fast'])
    for (const kept of ['atLeast: 120', 'leaves: end']) {
      const held = text.replace(`${state}: {`, `${state}: { ${kept},`);
      expect([kept, codes(held).filter((code) => code === 'flicker')]).toEqual([kept, []]);
    }
});

test('a threshold between states that cannot meet there is none', () => {
  // Faster than 200 to the side, the whole speed is never 100.
  const text = cuts('hypot(vx, vy) <= 100 && abs(vx) > 200', 'hypot(vx, vy) > 100 && abs(vx) > 150');
  expect(
    checked(text).filter(({ code, values }) => code === 'flicker' && values.name === 'hypot(vx, vy)'),
  ).toEqual([]);
});

test('the name of a state that a track is compared with is no signal that is read', () => {
  const text = `clips: { sit: { cells: 0 } }
signals: { along: { flag: false } }
states: { sit: { shows: sit }, nod: { shows: sit, while: arms == along, priority: 1 } }
tracks: { arms: { states: { hang: { shows: sit }, along: { shows: sit, while: 'SAID', priority: 1 } } } }\n`;
  expect(codes(text.replace('SAID', 'along'))).toEqual([]);
  expect(codes(text.replace('SAID', 'false'))).toContain('signal-unused');
});

test('an act is there for a moment: it covers nothing for good, and what it starts at is no threshold between states', () => {
  const text = `clips: { sit: { cells: 0 }, hop: { cells: 1-3, fps: 8, loop: once } }
signals: { vx: { number: 0 }, wet: { flag: false } }
derived: { moving: { of: abs(vx), above: 9, below: 5 } }
states:
  sit: { shows: sit }
  go: { shows: sit, while: 'moving && !wet', priority: 1 }
  hop: { shows: hop, when: 'moving && wet', priority: 2 }\n`;
  expect(codes(text)).toEqual(['rest-while-moving']);
  const postures = cuts('vx < 5', 'vx > 5').replace(
    '{ sit',
    '{ hop: { cells: 1-3, fps: 8, loop: once }, sit',
  );
  expect(codes(postures)).toContain('threshold-gap');
  const isAct = postures.replace("shows: sit, while: 'vx > 5'", "shows: hop, when: 'vx > 5'");
  expect(isAct).not.toBe(postures);
  expect(codes(isAct)).not.toContain('threshold-gap');
});

test('several situations in which only the rest shows are told, each once', () => {
  const text = `clips: { sit: { cells: 0 } }
signals: { vx: { number: 0 }, wet: { flag: false }, low: { flag: false } }
derived: { moving: { of: abs(vx), above: 9, below: 5 } }
states:
  sit: { shows: sit }
  wade: { shows: sit, while: moving && wet && !low, priority: 1 }
  walk: { shows: sit, while: moving && !wet && !low, priority: 1 }\n`;
  const [{ values, message }] = checked(text).filter(({ code }) => code === 'rest-while-moving') as [Finding];
  const { situations } = values as { situations: { when: string }[] };
  expect(situations.map(({ when }) => when)).toEqual([
    expect.stringMatching(/moving, not wet, low$/),
    expect.stringMatching(/moving, wet, low$/),
  ]);
  for (const { when } of situations) expect(message).toContain(when);
});

test('only the rest shows while something moves: said by a size that is compared as more or less, not by one that is equal', () => {
  const text = (moving: string) => `clips: { sit: { cells: 0 }, walk: { cells: 1 } }
signals: { vx: { number: 0 }, low: { flag: false } }
states:
  sit: { shows: sit }
  walk: { shows: walk, while: 'not low and ${moving}', priority: 1, atLeast: 50 }\n`;
  for (const moving of ['abs(vx) > 5', '5 <= hypot(vx, 0) * 2'])
    expect([moving, ...codes(text(moving))]).toEqual([moving, 'rest-while-moving']);
  for (const still of ['abs(vx) == 5', 'abs(vx) != 0'])
    expect(codes(text(still))).not.toContain('rest-while-moving');
});

test('a number that is compared in more places than a word has bits flickers at each of them', () => {
  const steps = Array.from({ length: 40 }, (_, i) => i + 1);
  const text = `clips: { sit: { cells: 0 } }
signals: { depth: { number: 0 } }
states:
  sit: { shows: sit }
${steps.map((i) => `  at${i}: { shows: sit, while: depth > ${i}, priority: ${i} }`).join('\n')}\n`;
  const found = checked(text).filter(({ code }) => code === 'flicker');
  expect(found.map(({ values }) => values.value)).toEqual(steps);
});

test('between two whole numbers there are others, unless a number says that it is whole', () => {
  const text = (number: string) => `clips: { sit: { cells: 0 } }
signals: { depth: { number: 0${number} } }
states:
  sit: { shows: sit }
  wade: { shows: sit, while: depth > 0.2 and depth < 0.9, priority: 1, atLeast: 50 }\n`;
  expect(codes(text(''))).toEqual([]);
  expect(codes(text(', whole: true'))).toContain('condition-never');
});

test('a signal named like an option counts as unused, unless a condition reads the signal itself', () => {
  const text = (condition: string): string => `
clips: { stand: { cells: [0], fps: 8 }, climb: { cells: [1], fps: 8 } }
signals: { mode: { choice: [ground, ladder] }, ladder: { flag: false } }
states: { stand: { shows: stand }, climb: { shows: climb, while: ${condition} } }
rest: stand
`;
  expect(codes(text('mode == ladder'))).toEqual(['signal-unused']);
  expect(codes(text('mode == ladder and ladder'))).toEqual([]);
});

test('a document without states has nothing to decide yet', () => {
  expect(codes('clips: { sit: { cells: 0 }, walk: { cells: 1-3, fps: 8 } }\n')).toEqual([]);
});

test('a hop whose span comes later takes time, and makes no circle', () => {
  const text = (during: string) => `clips: { sit: { cells: 0-3, fps: 8, spans: { late: 2-3, early: 0-1 } } }
signals: { tired: { flag: false } }
states:
  sit: { shows: sit, hops: [{ to: lie, if: tired }] }
  lie: { shows: sit, hops: [{ to: sit, if: tired, during: ${during} }] }\n`;
  expect(codes(text('early'))).toContain('hop-cycle');
  expect(codes(text('late'))).not.toContain('hop-cycle');
});

test('nothing flickers at the end of what a number can be', () => {
  const text = (to: number) => `clips: { sit: { cells: 0 }, go: { cells: 1-2, fps: 8 } }
signals: { vx: { number: 0, from: 0, to: ${to} } }
states:
  sit: { shows: sit }
  go: { shows: go, while: vx >= 100, priority: 2 }\n`;
  expect(codes(text(101))).toEqual(['flicker']);
  expect(codes(text(100))).toEqual([]);
  const above = (from: number) =>
    text(200).replace('from: 0', `from: ${from}`).replace('vx >= 100', 'vx > 0');
  expect(codes(above(-1))).toContain('flicker');
  expect(codes(above(0))).not.toContain('flicker');
});

test('a speed that is compared on one side is told where it is compared, and nowhere else', () => {
  const found = checked(`clips: { sit: { cells: 0 }, go: { cells: 1-2, fps: 8 } }
compass: { directions: sides, mirror: { west: east }, by: [vx, 0] }
signals: { vx: { number: 0 }, low: { flag: false } }
states:
  sit: { shows: sit }
  go: { shows: go, while: vx > 5, priority: 2, atLeast: 60 }
  duck: { shows: sit, while: low, priority: 1 }\n`);
  expect(found.filter(({ code }) => code === 'one-sided').map(({ path }) => path)).toEqual([
    ['states', 'go', 'while'],
  ]);
});

test('a circle of hops is found that one gait alone has open at its beginning', () => {
  const found = codes(`clips:
  sit: { cells: 0-3, fps: 8 }
  nap: { cells: 0-3, fps: 8, spans: { early: 0-1 } }
  doze: { cells: 0-3, fps: 8, spans: { early: 2-3 } }
signals: { tired: { flag: false }, deep: { number: 0 } }
states:
  sit: { shows: sit, hops: [{ to: lie, if: tired }] }
  lie:
    gaits: { by: deep, shows: [doze, nap], above: [5] }
    hops: [{ to: sit, if: tired, during: early }]\n`);
  expect(found).toContain('hop-cycle');
});

test('forty states over twenty-five terms are proved in a few thousand steps', () => {
  const flags = Array.from({ length: 20 }, (_, i) => `f${i}`);
  const states = Object.fromEntries(
    Array.from({ length: 40 }, (_, i) => {
      const [a, b, c] = [flags[i % 20]!, flags[(i * 7 + 3) % 20]!, flags[(i * 3 + 11) % 20]!];
      const during = `${a} && (!${b} || ${c}) && vx > ${(i % 5) * 10}`;
      return [`s${i}`, { shows: 'c', while: during, priority: i % 9 }];
    }),
  );
  const result = checkController(
    compile({
      clips: { c: { cells: 0 } },
      signals: { vx: { number: 0 }, ...Object.fromEntries(flags.map((name) => [name, { flag: false }])) },
      states: { rest: { shows: 'c' }, ...states },
      rest: 'rest',
    }),
  );
  expect(result.situations).toBe(2 ** 20 * 6);
  expect(result.givenUp).toBe(0);
  expect(result.tried).toBeLessThan(300_000);
});

test('the check agrees with the runtime: what it says can never show is never seen to win', () => {
  let said = 0;
  lawThatMeets(
    fc.property(characters, scenes, (parts, story) => {
      const controller = compile(parts);
      const { findings: all } = checkController(controller);
      const never = new Set(
        all
          .filter(({ code }) => code === 'state-never')
          .map(({ values }) => `${values.track as string}.${values.state as string}`),
      );
      const untaken = new Set(
        all
          .filter(({ code }) => code === 'then-never')
          .map(({ path, values }) => `${path.at(-2)} > ${values.to as string}`),
      );
      said += never.size + untaken.size;
      const performer = new Performer(controller);
      for (const { deeds, wait } of bearable(controller, story)) {
        try {
          for (const deed of deeds) act(performer, deed);
          performer.step(wait / 1000);
        } catch {
          return;
        }
        const { reports } = performer;
        for (let i = 0; i < reports.count; i++) {
          const rule = reports.rule(i);
          if (rule === 'rank' || rule === 'way')
            expect(never).not.toContain(`${reports.track(i)}.${reports.name(i)}`);
          if (rule === 'then') expect(untaken).not.toContain(`${reports.from(i)} > ${reports.name(i)}`);
        }
      }
    }),
    { usual: 180, met: () => said, moreThan: 4 },
  );
}, 240_000);

test('a situation that the check shows is one: set so, the performer rests', () => {
  let seen = 0;
  lawThatMeets(
    fc.property(characters, (parts) => {
      const controller = compile(parts);
      // What takes the body is not set by signals alone.
      if (controller.states.some(({ takenBy, track }) => takenBy >= 0 && track === 0)) return;
      const found = checkController(controller).findings.find(({ code }) => code === 'rest-while-moving');
      if (found === undefined) return;
      const { situations } = found.values as {
        situations: { set: Record<string, SignalValue>; when: string }[];
      };
      const { set, when } = situations[situations.length - 1]!;
      const performer = new Performer(controller, set);
      // What a band remembers and what lingers is not set at the start; nor is what another track shows, which counts
      // as its rest while the start is decided.
      const terms = when.split(', ');
      if (terms.some((term) => term.includes('arms.'))) return;
      const others = terms.filter((term) => /^!?\w+$/.test(term) && !/^!?[tu]$/.test(term));
      if (others.some((term) => performer.value(term.replace('!', '')) !== !term.startsWith('!'))) return;
      seen++;
      expect(performer.state).toBe(parts.rest);
    }),
    { usual: 320, met: () => seen, moreThan: 4 },
  );
}, 240_000);

test('the work of the check grows about as the states do, not as their pairs', () => {
  /** Thresholds, flags and a mode in many combinations: more and more of the states are never reached. */
  const lookedAt = (count: number): number => {
    const states: Record<string, StateDefinition> = { rest: { shows: 'c' } };
    for (let i = 0; i < count; i++) {
      const k = i % 40;
      const more = i % 7 === 0 ? ' && vx > 5' : i % 5 === 0 ? ' && abs(vy) > 3' : '';
      const condition = `f${k % 12} && vx > ${(k * 7) % 19} && mode == 'm${k % 6}' && !f${(k + 5) % 12}${more}`;
      states[`s${i}`] = { shows: 'c', while: condition, priority: i % 11 };
    }
    const controller = compileController({
      dotHop: 1,
      sheets: { s: { image: 's.png', size: [16, 8], grid: { cell: [8, 8] } } },
      clips: { c: { cells: [0, 1], fps: 9 } },
      signals: {
        mode: { choice: Array.from({ length: 6 }, (_, i) => `m${i}`) },
        vx: { number: 0 },
        vy: { number: 0 },
        ...Object.fromEntries(Array.from({ length: 12 }, (_, i) => [`f${i}`, { flag: false }])),
      },
      states,
      rest: 'rest',
    });
    const { tried, givenUp } = checkController(controller);
    expect(givenUp).toBe(0);
    return tried;
  };
  expect(lookedAt(320) / lookedAt(80)).toBeLessThan(6);
});
