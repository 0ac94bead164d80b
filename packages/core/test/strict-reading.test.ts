import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { DotHopError, Performer, compileController } from 'dot-hop';
import type { DocumentError } from 'dot-hop/document';
import { compileDocument, readDocument } from 'dot-hop/document';
import { readJsonDocument } from 'dot-hop/json';
import { readRehearsal } from 'dot-hop/rehearsal';
import { wardrobeOf } from 'dot-hop/wardrobe';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const head = `dotHop: 1
sheets: { gull: { image: gull.png, size: [16, 8], grid: { cell: [8, 8] } } }
clips: { sit: { cells: 0 }, hop: { cells: [0, 1], fps: 10, loop: once } }
signals: { near: { flag: false }, crumb: { pulse: { keep: 50 } }, vx: { number: 0 }, vy: { number: 0 } }
`;
const told = (run: () => unknown): string => {
  try {
    run();
  } catch (error) {
    expect(error).toBeInstanceOf(DotHopError);
    return (error as Error).message;
  }
  throw new Error('it was not refused');
};

describe('YAML is read as it is written, or refused with the line as it must be written', () => {
  test.each([
    ['hop: { shows: hop, while: !near && vx > 3, priority: 2 }', "while: '!near && vx > 3'"],
    ['hop: { shows: hop, while: !(near && vx > 3), priority: 2 }', "while: '!(near && vx > 3)'"],
    ['hop:\n    shows: hop\n    while: !near && vx > 3   # not near', "while: '!near && vx > 3'"],
    ['hop: { shows: hop, when: !crumb }', "when: '!crumb'"],
    ['hop: { shows: hop, when: *crumb }', "when: '*crumb'"],
    ['hop: { shows: hop, when: &crumb near }', "when: '&crumb near'"],
    ['hop: { shows: hop, while: max(vx, vy) > 3, priority: 2 }', "while: 'max(vx, vy) > 3'"],
    ['hop: { shows: hop, while: hypot(vx, max(vy, 0)) > 3 }', "while: 'hypot(vx, max(vy, 0)) > 3'"],
    ["hop: { shows: hop, while: !near && mode == 'a' }", `while: "!near && mode == 'a'"`],
    ['hop: { shows: hop, while: near ? vx > 3 : vy > 3 }', "while: 'near ? vx > 3 : vy > 3'"],
    ['hop: { while: vx * (near ? 1 : 0) > 3, shows: hop }', "while: 'vx * (near ? 1 : 0) > 3'"],
    ['hop: { shows: hop, hops: [{ to: sit, if: near ? vx > 3 : vy > 3 }] }', "if: 'near ? vx > 3 : vy > 3'"],
    ['hop:\n    shows: hop\n    while: near ? vx > 3 : vy > 3', "while: 'near ? vx > 3 : vy > 3'"],
  ])('%s', (state, line) => {
    const message = told(() =>
      readDocument(`${head}states:\n  sit: { shows: sit }\n  ${state}\n`, 'gull.yaml'),
    );
    expect(message).toContain(line);
    expect(message).toMatch(/^gull\.yaml:(7|8|9):\d+ /);
    expect(message.split('\n')).toHaveLength(1);
  });

  test('in lists, in rehearsals, and every one of them at once', () => {
    const text = `${head}compass: { directions: sides, by: [hypot(vx, vy), 0] }\nstates: { sit: { shows: sit, while: !near } }\n`;
    expect(told(() => readDocument(text, 'gull.yaml')).split('\n')).toEqual([
      expect.stringContaining(
        `gull.yaml:5:36 compass.by[0]: inside braces and brackets a comma ends the value`,
      ),
      expect.stringContaining(`gull.yaml:6:37 states.sit.while: "!" begins a tag in YAML`),
    ]);
    const rehearsal =
      'dotHopRehearsal: 1\ndocument: g.yaml\nlasts: 5\nscript: [{ until: !near, within: 3 }]\n';
    expect(told(() => readRehearsal(rehearsal, 'g.yaml'))).toContain("until: '!near'");
  });

  test('anchors, aliases and merge keys are refused, wherever they stand', () => {
    const text = `${head}states:\n  sit: &sit { shows: sit }\n  hop: { <<: *sit, priority: 2 }\n  far: *sit\n`;
    const message = told(() => readDocument(text, 'gull.yaml'));
    expect(message).toContain('states.sit: "&" begins an anchor in YAML');
    expect(message).toContain('states.hop["<<"]: "<<" takes the fields of another map over');
    expect(message).toContain('states.far: "*" begins an alias in YAML');
    const itself = `${head}states: &a { sit: *a }\n`;
    expect(told(() => readDocument(itself, 'gull.yaml'))).toContain('"&" begins an anchor');
  });

  test('what is quoted, or means nothing to YAML, is read as ever', () => {
    const text = `${head}states:
  sit: { shows: sit }
  hop: { shows: hop, while: "!near && max(vx, vy) > 3", priority: 2 } # !near, &c *d
  far: { shows: hop, while: near && !(vx > 3) }
`;
    const { states } = readDocument(text, 'gull.yaml').definition;
    expect(states!.hop!.while).toBe('!near && max(vx, vy) > 3');
    expect(states!.far!.while).toBe('near && !(vx > 3)');
  });

  test('what lies too deep, or twice, is told and ends nothing', () => {
    const deep = '['.repeat(100_000);
    expect(told(() => readDocument(deep, 'deep.yaml'))).toContain('deep.yaml:1:101 this is not YAML');
    expect(told(() => readDocument('- '.repeat(50_000), 'deep.yaml'))).toContain('lie more than 100 deep');
    expect(told(() => readDocument(deep + ']'.repeat(100_000), 'deep.json'))).toContain('more than 100 deep');
    expect(told(() => readDocument('{ "dotHop": 1,\n "clips": {}, "clips": {} }', 'twice.json'))).toContain(
      'twice.json:2:15 this is not JSON: "clips" is here twice',
    );
  });
});

test('JSON has the same places without a reader of YAML', () => {
  const text =
    '{ "dotHop": 1,\n  "sheets": {},\n  "clips": { "a": { "cells": 0, "lop": "once" } },\n  "rset": "a" }';
  const message = told(() => readJsonDocument(text, 'a.json'));
  expect(message.split('\n')).toEqual([
    'a.json:3:33 clips.a.lop: "lop" is not known here; did you mean "loop"?',
    'a.json:4:3 rset: "rset" is not known here; did you mean "rest"?',
  ]);
  expect(told(() => readDocument(text, 'a.json'))).toBe(message);
});

describe('a plain object is checked as a file is', () => {
  const sound = {
    dotHop: 1,
    sheets: { g: { image: 'g.png', size: [16, 8], grid: { cell: [8, 8] } } },
    clips: { sit: { cells: 0 }, hop: { cells: [0, 1], fps: 10, loop: 'once' } },
    signals: { vx: { number: 0 } },
    states: { sit: { shows: 'sit' }, hop: { shows: 'hop', while: 'vx > 3', priority: 1 } },
  };
  const wrong: readonly [string, (one: Record<string, Record<string, object>>) => unknown][] = [
    ['an unknown field', (one) => ({ ...one, staets: {} })],
    [
      'an unknown field inside',
      (one) => ({ ...one, states: { ...one.states, a: { shows: 'sit', prority: 9 } } }),
    ],
    ['a signal of no kind', (one) => ({ ...one, signals: { vx: { numbr: 0 } } })],
    ['a number for a pair', (one) => ({ ...one, sheets: { g: { image: 'g.png', grid: { cell: 16 } } } })],
    ['nothing', () => ({})],
    ['a list', () => []],
    ['a text for a list', (one) => ({ ...one, states: { a: { shows: 'sit', hops: 'b' } } })],
    ['a word for a rule', (one) => ({ ...one, clips: { sit: { cells: 0, loop: 'twice' } } })],
    [
      'a missing field of a hop',
      (one) => ({ ...one, states: { a: { shows: 'sit', hops: [{ too: 'a' }] } } }),
    ],
    ['a wardrobe without layers', (one) => ({ ...one, wardrobe: { layer: {} } })],
    [
      'colours that are no list',
      (one) => ({ ...one, palettes: { c: { drawn: 'a', colours: { a: '#fff' } } } }),
    ],
  ];
  test.each(wrong)('%s', (_, change) => {
    const value = change(structuredClone(sound) as never);
    const plain = (): unknown => wardrobeOf(compileController(value as never));
    const file = told(() => readDocument(JSON.stringify(value), 'a.json'));
    expect(told(plain).split('\n').sort()).toEqual(
      file
        .split('\n')
        .map((line) => line.replace(/^a\.json:\d+:\d+ /, ''))
        .sort(),
    );
  });

  test('a definition in place of a controller, and values that JSON cannot hold', () => {
    expect(told(() => new Performer(sound as never))).toContain('compileController');
    const circle: Record<string, unknown> = {};
    circle.self = circle;
    for (const odd of [circle, 10n, Symbol('a'), () => 1, new Date(), null, undefined])
      told(() => compileController({ ...sound, name: odd === undefined ? 3 : odd } as never));
  });

  test('names of things that every object has are names like others; only __proto__ is refused', () => {
    for (const name of ['constructor', 'toString', 'hasOwnProperty', 'valueOf']) {
      const made = compileController({
        dotHop: 1,
        sheets: { [name]: { image: 'g.png', size: [16, 8], grid: { cell: [8, 8] } } },
        clips: { [name]: { cells: 0 } },
        signals: { [name]: { flag: false } },
        derived: { [`${name}2`]: `!${name}` },
        states: { [name]: { shows: name }, [`${name}2`]: { shows: name, while: name, tags: [`${name}3`] } },
      });
      const performer = new Performer(made);
      performer.set(name, true);
      performer.step(1);
      expect([performer.state, performer.value(`${name}2`), performer.value(`${name}3`)]).toEqual([
        `${name}2`,
        false,
        true,
      ]);
      const misspelt = { ...sound, states: { a: { shows: name, while: `${name} > 1` } } };
      expect(told(() => compileController(misspelt as never))).toContain(`"${name}"`);
    }
    const text = JSON.stringify(sound).replace('"hop":{"shows"', '"__proto__":{"shows"');
    expect(told(() => readDocument(text, 'a.json'))).toContain('nothing can be named "__proto__"');
    expect(({} as { shows?: unknown }).shows).toBeUndefined();
  });
});

test('all faults at once: a misspelt clip hides none of the wardrobe', () => {
  const text = readFileSync(path.join(root, 'demo/townsfolk/folk.dothop.yaml'), 'utf8')
    .replace(/shows: walk/, 'shows: wakl')
    .replace(/palettes: \[cloth\]/, 'palettes: [clothh]');
  const { definition } = readDocument(text, 'folk.dothop.yaml');
  const images = Object.values(definition.sheets).flatMap((sheet) => [sheet.image!]);
  const sizes = Object.fromEntries(images.map((image) => [image, { width: 4096, height: 4096 }]));
  try {
    compileDocument(readDocument(text, 'folk.dothop.yaml'), { images: sizes });
    throw new Error('it was not refused');
  } catch (error) {
    expect((error as DocumentError).name).toBe('DocumentError');
    expect((error as DocumentError).problems.map(({ code }) => code).sort()).toEqual([
      'clip-unknown',
      'palette-unknown',
    ]);
  }
});
