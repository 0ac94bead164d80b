import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parse } from 'yaml';
import { copyWick, runIn } from './command-line.js';

let folder: string;
const dotHop = (...args: string[]): ReturnType<typeof runIn> => runIn(folder, args);
const doc = 'wick.dothop.yaml';

beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-'));
  copyWick(folder);
  const file = path.join(folder, doc);
  const text = readFileSync(file, 'utf8');
  writeFileSync(
    file,
    text
      .replace(
        '\nclips:\n',
        '\nclips:\n  plod: { cells: 8-15, fps: 6, cues: { step: [0, 4] }, stride: 23 }\n',
      )
      .replace(
        '\nsignals:\n',
        '\nvariants: { tired: { walk: plod, plod: walk }, holds: { pole: { jig: run } } }\n\nsignals:\n  tired: { flag: false }\n  holds: { choice: [nothing, pole] }\n',
      )
      .replace('\nclips:\n', '\nclips:\n  jig: { cells: 0-7, fps: 9 }\n'),
  );
});
afterAll(() => rmSync(folder, { recursive: true }));

test('a preview shows the variant that is asked for', () => {
  const clipOf = (...args: string[]): string =>
    (JSON.parse(dotHop('preview', doc, ...args, '--json').out) as { clip: string }).clip;
  expect(clipOf('go')).toBe('walk');
  expect(clipOf('go', '--with', 'tired')).toBe('plod');
  expect(clipOf('walk', '--with', 'holds=pole,tired')).toBe('plod');
  const dial = JSON.parse(dotHop('preview', doc, 'go', '--dial', '--with', 'tired', '--json').out) as {
    directions: { clip: string }[];
  };
  expect(dial.directions.map((one) => one.clip)).toEqual(['plod', 'plod']);
});

test.each([
  ['tried', '--with tried: it has no variants; did you mean "tired"?'],
  ['tired=very', '--with tired=very: it is a flag; write --with tired'],
  ['holds=pol', '--with holds=pol: say which of its options; did you mean "pole"?'],
  ['holds', '--with holds: say which of its options; there are nothing, pole'],
  ['', 'It must be written as weapon=pole'],
  ['holds=pole,', 'It must be written as weapon=pole'],
])('refused: --with %s', (given, told) => {
  const { code, err } = dotHop('preview', doc, 'go', '--with', given);
  expect({ code, err }).toEqual({ code: 2, err: expect.stringContaining(told) as string });
});

test('what never shows is found, and left out of what is packed, which has the version of its source', () => {
  const { out } = dotHop('check', doc);
  expect(out).toContain('variant-unused');
  expect(out).toContain('"run" stands for "jig", but no state shows "jig"');
  expect(dotHop('pack', doc, '-o', 'game.yaml').code).toBe(0);
  const packed = parse(readFileSync(path.join(folder, 'game.yaml'), 'utf8')) as {
    variants: unknown;
    clips: Record<string, unknown>;
  };
  expect(packed.variants).toEqual({ tired: { walk: 'plod', plod: 'walk' } });
  expect(packed.clips).toHaveProperty('plod');
  expect(packed.clips).not.toHaveProperty('jig');
  expect(dotHop('pack', doc, '-o', 'game.json', '--compiled').code).toBe(0);
  const compiled = JSON.parse(readFileSync(path.join(folder, 'game.json'), 'utf8')) as {
    tables: { version: string };
  };
  expect(dotHop('pack', 'game.yaml', '-o', 'again.json', '--compiled').code).toBe(0);
  const again = JSON.parse(readFileSync(path.join(folder, 'again.json'), 'utf8')) as {
    tables: { version: string };
  };
  expect(again.tables.version).toBe(compiled.tables.version);
});

test('the ladder names what variants show', () => {
  const rungs = JSON.parse(dotHop('ladder', doc, '--json').out) as { state: string; shows: string[] }[];
  expect(rungs.find(({ state }) => state === 'go')!.shows).toEqual(['walk', 'run', 'plod']);
  expect(dotHop('ladder', doc).out).toMatch(/go .*walk, run, plod/);
});

test('a state chart says that it has no place for variants', () => {
  expect(dotHop('convert', doc, '--to', 'scxml').err).toContain('not in the chart: variants');
});
