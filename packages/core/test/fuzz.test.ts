import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { DotHopError, Performer, compileController } from 'dot-hop';
import type { Controller, ControllerDefinition, PerformerSnapshot } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import { compileDocument, readDocument } from 'dot-hop/document';
import { readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import { chance, damaged } from './damage.js';
import { often } from './often.js';

/**
 * Damaged data by chance: whatever comes, a problem of ours or a performer that goes on soundly. `FUZZ_RUNS` asks for more
 * than each run of the tests takes, `FUZZ_SEED` for others.
 */
const runs = Number(process.env.FUZZ_RUNS ?? often(150));
const seed = Number(process.env.FUZZ_SEED ?? 1);

const root = fileURLToPath(new URL('../../..', import.meta.url));
const demo = (file: string): string => readFileSync(path.join(root, 'demo', file), 'utf8');
const documents = [
  'wick.dothop.yaml',
  'townsfolk/folk.dothop.yaml',
  'townsfolk/marlis.dothop.yaml',
  'faulty-rules.dothop.yaml',
];
const definitions = documents.map((file) => readDocument(demo(file), file).definition);
const everySize = new Proxy(
  {},
  {
    has: () => true,
    get: () => ({ width: 512, height: 1120 }),
    getOwnPropertyDescriptor: () => ({
      configurable: true,
      enumerable: true,
      value: { width: 512, height: 1120 },
    }),
  },
) as Record<string, { width: number; height: number }>;

const shortly = (what: unknown): string => (what === undefined ? '' : JSON.stringify(what).slice(0, 4000));

/** Runs something that may refuse, and nothing else; it is never long. */
function bear<T>(what: unknown, run: () => T): T | undefined {
  const begin = performance.now();
  try {
    return run();
  } catch (error) {
    if (!(error instanceof DotHopError)) throw new Error(`${shortly(what)}\n${(error as Error).stack}`);
    expect(error.message).not.toBe('');
    return undefined;
  } finally {
    const took = performance.now() - begin;
    if (took > 5000) throw new Error(`${took} ms for ${shortly(what)}`);
    expect(({} as Record<string, unknown>).shows).toBeUndefined();
  }
}

function goesOn(performer: Performer, pick: (below: number) => number): void {
  for (let i = 0; i < 8; i++) {
    performer.step(pick(400));
    const { pose } = performer;
    for (const number of [
      ...Object.values(pose.points).flatMap(({ x, y }) => [x, y]),
      ...Object.values(pose.boxes).flatMap(({ x, y, width, height }) => [x, y, width, height]),
      ...[performer.time, performer.phase, performer.speed],
    ])
      expect(Number.isFinite(number)).toBe(true);
    expect(pose.cell).toBeDefined();
    performer.why();
  }
}

test('damaged documents', () => {
  let sound = 0;
  for (let i = 0; i < runs; i++) {
    const pick = chance(seed * 1_000_003 + i);
    const definition = damaged(definitions[pick(definitions.length)]!, pick);
    const controller = bear(definition, () =>
      compileDocument(readDocument(JSON.stringify(definition), 'damaged.json'), { images: everySize }),
    );
    if (controller === undefined) continue;
    sound++;
    bear(definition, () => goesOn(new Performer(controller), pick));
    if (i % 10 === 0) bear(definition, () => checkController(controller));
  }
  expect(sound).toBeGreaterThan(runs / 20);
});

test('damaged plain objects, of which some hold what JSON cannot', () => {
  for (let i = 0; i < runs; i++) {
    const pick = chance(seed * 2_000_003 + i);
    const definition = damaged(definitions[0]!, pick) as unknown as Record<string, unknown>;
    const odd = [undefined, NaN, Infinity, 1n, () => 1, Symbol('x'), new Map(), definition][pick(8)];
    const states = definition.states as Record<string, unknown> | undefined;
    if (typeof states === 'object') states[Object.keys(states)[0] ?? 'a'] = odd;
    bear(undefined, () =>
      compileController(definition as unknown as ControllerDefinition, { images: everySize }),
    );
  }
});

test('damaged texts', () => {
  const texts = documents.map(demo);
  const signs = [
    '!',
    '&',
    '*',
    '{',
    '}',
    '[',
    ']',
    ':',
    ',',
    '#',
    '\n',
    '  ',
    '"',
    "'",
    '|',
    '>',
    '-',
    '? ',
    '%',
    '@',
    '\t',
    '\u0000',
  ];
  for (let i = 0; i < runs / 5; i++) {
    const pick = chance(seed * 3_000_003 + i);
    let text = texts[pick(texts.length)]!;
    for (let faults = 1 + pick(4); faults > 0; faults--) {
      const at = pick(text.length);
      text = text.slice(0, at) + (signs[pick(signs.length)] ?? '') + text.slice(at + pick(3));
    }
    bear(text, () => readDocument(text, pick(5) === 0 ? 'damaged.json' : 'damaged.yaml'));
  }
});

test('damaged rehearsals', () => {
  const files = readdirSync(path.join(root, 'demo')).filter((file) => file.endsWith('rehearsal.yaml'));
  const controller = compileController(definitions[0]!, { images: everySize }) as Controller;
  const read = files
    .map((file) => readRehearsal(demo(file), file).definition)
    .filter(({ document }) => document.startsWith('wick'));
  let ran = 0;
  for (let i = 0; i < runs / 8; i++) {
    const pick = chance(seed * 4_000_003 + i);
    const rehearsal = damaged(read[pick(read.length)]!, pick);
    const result = bear(rehearsal, () => {
      const { source, definition } = readRehearsal(JSON.stringify(rehearsal), 'damaged.json');
      return source.placing(() =>
        runRehearsal(controller, { ...definition, lasts: Math.min(definition.lasts, 9000) }),
      );
    });
    if (result !== undefined) ran++;
  }
  expect(ran).toBeGreaterThan(runs / 200);
});

test('tampered snapshots: each field that does not fit is named, or the performer goes on soundly', () => {
  const controller = compileController(definitions[0]!, { images: everySize });
  const performer = new Performer(controller);
  const snapshots: PerformerSnapshot[] = [];
  const play = chance(seed);
  for (let i = 0; i < 40; i++) {
    performer.set('vx', play(300) - 150);
    performer.set('along', play(3) - 1);
    if (play(2) === 0)
      performer.pulse(
        ['hop', 'swing', 'blow', 'splash'].find((name) => controller.tables.signals.has(name))!,
      );
    performer.step(play(500));
    snapshots.push(performer.snapshot());
    expect(JSON.parse(JSON.stringify(performer.snapshot()))).toStrictEqual(performer.snapshot());
  }
  let refused = 0;
  for (let i = 0; i < runs * 4; i++) {
    const pick = chance(seed * 5_000_003 + i);
    const before = snapshots[pick(snapshots.length)]!;
    const tampered = damaged(before, pick);
    const one = new Performer(controller);
    one.restore(before);
    const way = pick(3) === 0 ? 'adopt' : 'restore';
    bear(tampered, () => {
      try {
        one[way](tampered);
      } catch (error) {
        refused++;
        expect(
          (error as DotHopError).problems.some(
            (problem) =>
              problem.path.length > 0 || problem.code === 'snapshot-version' || problem.code === 'field-kind',
          ),
        ).toBe(true);
        // Nothing is changed by what is refused.
        expect(one.snapshot()).toStrictEqual(before);
        throw error;
      }
      goesOn(one, pick);
      return one;
    });
  }
  expect(refused).toBeGreaterThan(runs / 2);
});
