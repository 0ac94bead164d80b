import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import fc from 'fast-check';
import { Performer } from 'dot-hop';
import { checkController, findings } from 'dot-hop/check';
import type { SignalValue } from 'dot-hop';
import type { Finding } from 'dot-hop/check';
import { compileDocument, readDocument } from 'dot-hop/document';
import { act, characters, compile, scenes } from './characters.js';

const page = readFileSync(fileURLToPath(new URL('../../../docs/findings.md', import.meta.url)), 'utf8');
const head = `dotHop: 1\nsheets: { s: { image: s.png, size: [64, 64], grid: { cell: [8, 8] } } }\n`;
const examples = [...page.matchAll(/### `([\w-]+)` \((\w+)\)\n[\s\S]*?```yaml\n([\s\S]*?)```/g)].map(
  ([, code, severity, text]) => ({ code: code!, severity: severity!, text: text! }),
);

const checked = (text: string): readonly Finding[] =>
  checkController(compileDocument(readDocument(head + text, 'example.yaml'))).findings;
/** What a document about some states has. */
const codes = (text: string): string[] =>
  checked(text)
    .filter(({ severity, accepted }) => severity !== 'note' && accepted === undefined)
    .map(({ code }) => code);

test('the page of findings has every one of them, with its weight', () => {
  const listed = Object.fromEntries(examples.map(({ code, severity }) => [code, severity]));
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

test('what is accepted with a reason is found and does not weigh', () => {
  const { text } = examples.find(({ code }) => code === 'flicker')!;
  const accept = 'accept: [{ finding: flicker, at: states.run, because: it is slow }]\n';
  const [found] = checked(text + accept);
  expect(found).toMatchObject({ code: 'flicker', accepted: 'it is slow' });
  expect(codes(text + accept)).toEqual([]);
  // Elsewhere it is not accepted, and what accepts it is told.
  expect(codes(text + accept.replace('states.run', 'states.ru'))).toEqual(['flicker', 'accept-unused']);
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

test('a hop whose span comes later takes time, and makes no circle', () => {
  const text = (during: string) => `clips: { sit: { cells: 0-3, fps: 8, spans: { late: 2-3, early: 0-1 } } }
signals: { tired: { flag: false } }
states:
  sit: { shows: sit, hops: [{ to: lie, if: tired }] }
  lie: { shows: sit, hops: [{ to: sit, if: tired, during: ${during} }] }\n`;
  expect(codes(text('early'))).toContain('hop-cycle');
  expect(codes(text('late'))).not.toContain('hop-cycle');
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
  fc.assert(
    fc.property(characters, scenes, (parts, story) => {
      const controller = compile(parts);
      const { findings: all } = checkController(controller);
      const never = new Set(
        all.filter(({ code }) => code === 'state-never').map(({ values }) => values.state),
      );
      const untaken = new Set(
        all
          .filter(({ code }) => code === 'then-never')
          .map(({ path, values }) => `${path[1]} > ${values.to as string}`),
      );
      said += never.size + untaken.size;
      const performer = new Performer(controller);
      for (const { deeds, wait } of story) {
        try {
          for (const deed of deeds) act(performer, deed);
          performer.step(Math.min(wait, 300_000) / 1000);
        } catch {
          return;
        }
        const { reports } = performer;
        for (let i = 0; i < reports.count; i++) {
          const rule = reports.rule(i);
          if (rule === 'rank' || rule === 'way') expect(never).not.toContain(reports.name(i));
          if (rule === 'then') expect(untaken).not.toContain(`${reports.from(i)} > ${reports.name(i)}`);
        }
      }
    }),
    { numRuns: 900 },
  );
  expect(said).toBeGreaterThan(20);
}, 120_000);

test('a situation that the check shows is one: set so, the performer rests', () => {
  let seen = 0;
  fc.assert(
    fc.property(characters, (parts) => {
      const controller = compile(parts);
      const found = checkController(controller).findings.find(({ code }) => code === 'rest-while-moving');
      if (found === undefined) return;
      const { set, when } = found.values as { set: Record<string, SignalValue>; when: string };
      const performer = new Performer(controller, set);
      // What a band remembers and what lingers is not set at the start.
      const others = when.split(', ').filter((term) => /^!?\w+$/.test(term) && !/^!?[tu]$/.test(term));
      if (others.some((term) => performer.value(term.replace('!', '')) !== !term.startsWith('!'))) return;
      seen++;
      expect(performer.state).toBe(parts.rest);
    }),
    { numRuns: 800 },
  );
  expect(seen).toBeGreaterThan(20);
}, 120_000);
