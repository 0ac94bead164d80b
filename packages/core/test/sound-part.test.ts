import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { DocumentError, readDocument, readSoundPart } from 'dot-hop/document';
import { changedData } from 'dot-hop/edit';
import { pathsOf } from './paths.js';
import { often } from './often.js';

const wick = readFileSync(new URL('../../../demo/wick.dothop.yaml', import.meta.url), 'utf8');
const whole = readDocument(wick).definition;

test('a misspelt field is left out and told, and all else is there', () => {
  const text = wick.replace('walk:       { cells: 8-15, fps: 11', 'walk:       { cells: 8-15, fsp: 11');
  const { definition, problems } = readSoundPart(text, 'wick.yaml');
  expect(problems.map(({ path, line }) => [path.join('.'), line])).toEqual([['clips.walk.fsp', 111]]);
  const { fps, ...walk } = whole.clips.walk!;
  expect(fps).toBe(11);
  expect(definition).toEqual({ ...whole, clips: { ...whole.clips, walk } });
});

test.each([
  [
    'a clip without cells',
    'dotHop: 1\nsheets: {}\nclips: { a: { fps: 3 }, b: { cells: 0 } }\n',
    { b: { cells: 0 } },
  ],
  ['no clips at all', 'dotHop: 1\nsheets: {}\n', {}],
  ['clips that are none', 'dotHop: 1\nsheets: {}\nclips: 3\n', {}],
  ['a list', '- 1\n- 2\n', {}],
  [
    'an item of a list',
    'dotHop: 1\nsheets: {}\nclips: { a: { cells: [0, { rwo: 1 }, 2], ms: [x, 2] } }\n',
    { a: { cells: [0, 2], ms: [2] } },
  ],
])('%s', (_, text, clips) => {
  const { definition, problems } = readSoundPart(text);
  expect(problems.length).toBeGreaterThan(0);
  expect(definition).toEqual({ dotHop: 1, sheets: {}, clips });
});

test('what is no YAML is refused as ever', () => {
  expect(() => readSoundPart('a: [1\nb: }')).toThrow(DocumentError);
});

test('law: whatever value is exchanged for another, what is left has the right shape', () => {
  const paths = pathsOf(whole);
  const value = fc.constantFrom<unknown>(7, 'x y', true, null, [], {}, [1, 'a'], { x: { y: 1 } });
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(), value), { minLength: 1, maxLength: 4 }), (many) => {
      const changes = many.map(
        ([at, one]) => ({ op: 'set', path: paths[at % paths.length]!, value: one }) as const,
      );
      // A later one may lie in what an earlier one took away.
      let damaged: unknown = whole;
      for (const change of changes) damaged = changedData(damaged, [change]);
      const text = JSON.stringify(damaged);
      if (Number((damaged as { dotHop?: unknown }).dotHop) > 1) {
        // Of another version nothing is known to be sound.
        expect(() => readSoundPart(text, 'wick.json')).toThrow('of the format');
        return;
      }
      const { definition, problems } = readSoundPart(text, 'wick.json');
      expect(readDocument(JSON.stringify(definition), 'wick.json').definition).toEqual(definition);
      if (problems.length === 0) expect(definition).toEqual(JSON.parse(JSON.stringify(damaged)));
    }),
    { numRuns: often(300) },
  );
});
