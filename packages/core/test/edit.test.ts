import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parse } from 'yaml';
import { removeIn, setIn } from 'dot-hop/edit';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const wick = readFileSync(path.join(root, 'demo/wick.dothop.yaml'), 'utf8');
type Tree = Record<string, Record<string, Record<string, unknown>>>;

/** The lines of the one text that are not lines of the other, in order. */
function changed(before: string, after: string): { gone: string[]; come: string[] } {
  const [a, b] = [before.split('\n'), after.split('\n')];
  let first = 0;
  while (first < a.length && a[first] === b[first]) first++;
  let last = 0;
  while (last < Math.min(a.length, b.length) - first && a[a.length - 1 - last] === b[b.length - 1 - last])
    last++;
  return { gone: a.slice(first, a.length - last), come: b.slice(first, b.length - last) };
}

test('one field in braces, in the midst of a document with comments', () => {
  const { gone, come } = changed(wick, setIn(wick, ['clips', 'run', 'fps'], 9));
  expect([gone.length, come.length]).toEqual([1, 1]);
  expect(come[0]).toBe(gone[0]!.replace(/fps: \d+/, 'fps: 9'));
});

test.each([
  ['an entry in lines', 'a: 1 # one\nb: 2\n', ['c'], 3, 'a: 1 # one\nb: 2\nc: 3\n'],
  [
    'below an entry with lines of its own',
    'a:\n  x: 1\n\n# end\n',
    ['a', 'y'],
    'b, c',
    'a:\n  x: 1\n  y: "b, c"\n\n# end\n',
  ],
  ['in empty braces', 'a: {}\n', ['a', 'x'], [1, 'b}'], 'a: { x: [1, "b}"] }\n'],
  ['what has no value yet', 'a:\nb: 2\n', ['a'], true, 'a: true\nb: 2\n'],
  ['a list in lines becomes one line', 'a:\n  - 1\n  - 2\nb: 3\n', ['a'], [4], 'a: [4]\nb: 3\n'],
  ['maps that are not there', 'a: 1\n', ['b', 'c', 'd'], 2, 'a: 1\nb: { c: { d: 2 } }\n'],
  ['with a comment behind', 'a: { x: 1 } # so\n', ['a', 'x'], 2, 'a: { x: 2 } # so\n'],
  ['without a line break at the end', 'a: 1', ['b'], 2, 'a: 1\nb: 2'],
] as const)('set: %s', (_, text, at, value, expected) => {
  expect(setIn(text, at, value)).toBe(expected);
});

test('JSON stays JSON', () => {
  const text = '{\n  "a": { "x": 1 },\n  "b": [1]\n}\n';
  const now = setIn(setIn(text, ['a', 'y'], 'z', 'json'), ['c'], { d: [1] }, 'json');
  expect(now).toBe('{\n  "a": { "x": 1, "y": "z" },\n  "b": [1],\n  "c": {"d":[1]}\n}\n');
  expect(JSON.parse(removeIn(removeIn(now, ['a', 'x']), ['b']))).toEqual({ a: { y: 'z' }, c: { d: [1] } });
});

test('law: the tree has the value and nothing else is changed, in the tree or in lines of other entries', () => {
  const clips = Object.keys((parse(wick) as Tree).clips!);
  const value = fc.oneof(
    fc.integer({ min: -9, max: 99 }),
    fc.boolean(),
    fc.stringMatching(/^[ -~]{0,12}$/),
    fc.array(fc.oneof(fc.integer(), fc.stringMatching(/^[ -~]{0,5}$/)), { maxLength: 3 }),
    fc.dictionary(fc.stringMatching(/^[a-z -]{1,5}$/), fc.integer(), { maxKeys: 3 }),
  );
  const field = fc.constantFrom('fps', 'cells', 'loop', 'cues', 'note', 'stride', 'a b: c');
  fc.assert(
    fc.property(fc.constantFrom(...clips), field, value, (clip, name, given) => {
      const now = setIn(wick, ['clips', clip, name], given);
      const wanted = parse(wick) as Tree;
      wanted.clips![clip]![name] = given;
      expect(parse(now)).toEqual(wanted);
      const { gone, come } = changed(wick, now);
      expect(gone.length).toBeLessThanOrEqual(3);
      expect(come.length).toBeLessThanOrEqual(3);
      Reflect.deleteProperty(wanted.clips![clip]!, name);
      expect(parse(removeIn(now, ['clips', clip, name]))).toEqual(wanted);
    }),
    { numRuns: 40 },
  );
});
