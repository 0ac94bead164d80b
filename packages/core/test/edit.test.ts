import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { changedData, changedText } from 'dot-hop/edit';
import type { Change } from 'dot-hop/edit';
import { parse } from 'yaml';
import { pathsOf } from './paths.js';
import { often } from './often.js';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const read = (file: string): string => readFileSync(path.join(root, 'demo', file), 'utf8');
const wick = read('wick.dothop.yaml');
type Tree = Record<string, Record<string, Record<string, unknown>>>;
const set = (text: string, at: readonly (string | number)[], value: unknown): string =>
  changedText(text, [{ op: 'set', path: at, value }]);

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
  const { gone, come } = changed(wick, set(wick, ['clips', 'run', 'fps'], 9));
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
    "a:\n  x: 1\n  y: 'b, c'\n\n# end\n",
  ],
  ['in empty braces', 'a: {}\n', ['a', 'x'], [1, 'b}'], "a: { x: [1, 'b}'] }\n"],
  [
    'the first clip',
    'clips: {}\nrest: a\n',
    ['clips', 'a'],
    { cells: 0 },
    'clips:\n  a: { cells: 0 }\nrest: a\n',
  ],
  ['what has no value yet', 'a:\nb: 2\n', ['a'], true, 'a: true\nb: 2\n'],
  ['a list in lines becomes one line', 'a:\n  - 1\n  - 2\nb: 3\n', ['a'], [4], 'a: [4]\nb: 3\n'],
  ['maps that are not there', 'a: 1\n', ['b', 'c', 'd'], 2, 'a: 1\nb: { c: { d: 2 } }\n'],
  ['with a comment behind', 'a: { x: 1 } # so\n', ['a', 'x'], 2, 'a: { x: 2 } # so\n'],
  ['without a line break at the end', 'a: 1', ['b'], 2, 'a: 1\nb: 2'],
  ['in its own quotes', 'a: "b"\nc: \'d\'\n', ['a'], 'e, f', 'a: "e, f"\nc: \'d\'\n'],
  ['an item of a list', 'a: [1, [2, 3]]\n', ['a', 1, 0], 9, 'a: [1, [9, 3]]\n'],
  [
    'a sheet and its clips in lines',
    'dotHop: 1\n',
    ['sheets', 'wick', 'perCell', 3],
    { pivot: [1, 2] },
    'dotHop: 1\nsheets:\n  wick:\n    perCell:\n      3: { pivot: [1, 2] }\n',
  ],
] as const)('set: %s', (_, text, at, value, expected) => {
  expect(set(text, at, value)).toBe(expected);
});

test.each<[string, string, Change, string]>([
  [
    'insert into a list in brackets',
    'a: [1, 2]\n',
    { op: 'insert', path: ['a'], at: 1, value: 9 },
    'a: [1, 9, 2]\n',
  ],
  [
    'insert at the end of lines',
    'a:\n  - 1 # one\nb: 2\n',
    { op: 'insert', path: ['a'], at: 1, value: { x: 1 } },
    'a:\n  - 1 # one\n  - { x: 1 }\nb: 2\n',
  ],
  [
    'insert before lines',
    'a:\n  - 1\n',
    { op: 'insert', path: ['a'], at: 0, value: 0 },
    'a:\n  - 0\n  - 1\n',
  ],
  [
    'insert an entry before another',
    'a:\n  # of x\n  x: 1\n',
    { op: 'insert', path: ['a'], at: 0, name: 'w', value: 0 },
    'a:\n  w: 0\n  # of x\n  x: 1\n',
  ],
  [
    'insert into what is not there',
    'a: 1\n',
    { op: 'insert', path: ['b'], at: 0, value: 2 },
    'a: 1\nb: [2]\n',
  ],
  [
    'remove the first key behind a dash',
    'a:\n  - x: 1\n    y: 2\n',
    { op: 'remove', path: ['a', 0, 'x'] },
    'a:\n  - y: 2\n',
  ],
  ['remove the last of lines', 'a:\n  x: 1\nb: 2\n', { op: 'remove', path: ['a', 'x'] }, 'a: {}\nb: 2\n'],
  ['remove an item', 'a:\n  - 1\n  - 2\n', { op: 'remove', path: ['a', 0] }, 'a:\n  - 2\n'],
  ['remove what is not there', 'a: 1\n', { op: 'remove', path: ['b', 'c'] }, 'a: 1\n'],
  [
    'move in braces',
    'a: { x: 1, y: 2, z: 3 } # so\n',
    { op: 'move', path: ['a', 'z'], to: 0 },
    'a: { z: 3, x: 1, y: 2 } # so\n',
  ],
  [
    'move lines with the comments above them',
    'a:\n  x: 1 # one\n\n  # of y\n  y:\n    z: 2\nb: 3\n',
    { op: 'move', path: ['a', 'y'], to: 0 },
    'a:\n  # of y\n  y:\n    z: 2\n\n  x: 1 # one\nb: 3\n',
  ],
  ['rename a key', 'a: 1\n"b c": 2\n', { op: 'rename', path: ['b c'], name: 'd' }, 'a: 1\nd: 2\n'],
])('%s', (_, text, change, expected) => {
  expect(changedText(text, [change])).toBe(expected);
});

test('a change of what is not there is refused, and nothing is changed', () => {
  const refused =
    (change: Change): (() => string) =>
    () =>
      changedText('a: [1]\nb: 2\n', [change]);
  expect(refused({ op: 'rename', path: ['c'], name: 'd' })).toThrow('c: there is nothing to rename');
  expect(refused({ op: 'rename', path: ['a'], name: 'b' })).toThrow('a: there is "b" already');
  expect(refused({ op: 'move', path: ['a', 3], to: 0 })).toThrow('a[3]: there is nothing to move');
  expect(refused({ op: 'set', path: ['a', 3], value: 0 })).toThrow('a[3]: the list is not so long');
  expect(refused({ op: 'insert', path: [], at: 0, name: 'b', value: 0 })).toThrow('it has "b" already');
});

test('JSON stays JSON', () => {
  const text = '{\n  "a": { "x": 1 },\n  "b": [1]\n}\n';
  const put: Change[] = [
    { op: 'set', path: ['a', 'y'], value: 'z' },
    { op: 'set', path: ['c'], value: { d: [1] } },
  ];
  const now = changedText(text, put, 'json');
  expect(now).toBe('{\n  "a": { "x": 1, "y": "z" },\n  "b": [1],\n  "c": {"d":[1]}\n}\n');
  const less: Change[] = [
    { op: 'remove', path: ['a', 'x'] },
    { op: 'remove', path: ['b'] },
  ];
  expect(JSON.parse(changedText(now, less, 'json'))).toEqual({ a: { y: 'z' }, c: { d: [1] } });
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
      const now = set(wick, ['clips', clip, name], given);
      const wanted = parse(wick) as Tree;
      wanted.clips![clip]![name] = given;
      expect(parse(now)).toEqual(wanted);
      const { gone, come } = changed(wick, now);
      expect(gone.length).toBeLessThanOrEqual(3);
      expect(come.length).toBeLessThanOrEqual(3);
      Reflect.deleteProperty(wanted.clips![clip]!, name);
      expect(parse(changedText(now, [{ op: 'remove', path: ['clips', clip, name] }]))).toEqual(wanted);
    }),
    { numRuns: often(15) },
  );
});

test('law: any change of any place of a document comes to the same as in plain data', () => {
  const texts = [wick, read('townsfolk/folk.dothop.yaml'), read('evening.rehearsal.yaml')];
  const value = fc.constantFrom<unknown>(7, 'on', 'a: b', [1, 2], { x: 1 }, { 'y z': [true] });
  fc.assert(
    fc.property(fc.nat(), fc.nat(), fc.nat(), value, (which, place, to, given) => {
      const text = texts[which % texts.length]!;
      const data: unknown = parse(text);
      const paths = pathsOf(data);
      const at = paths[place % paths.length]!;
      const around = at.slice(0, -1).reduce<unknown>((inner, step) => (inner as Tree)[step], data);
      const count = Object.keys(around as object).length;
      const isList = Array.isArray(around);
      const change: Change = [
        { op: 'set', path: at, value: given } as const,
        { op: 'remove', path: at } as const,
        { op: 'move', path: at, to: to % count } as const,
        isList
          ? ({ op: 'insert', path: at.slice(0, -1), at: place % (count + 1), value: given } as const)
          : ({ op: 'rename', path: at, name: 'other name' } as const),
      ][to % 4]!;
      // Numbers as keys come first in plain data, whatever their order in the text.
      const keys = isList ? [] : Object.keys(around as object);
      if (change.op === 'move' && keys.some((key) => /^\d+$/.test(key))) return;
      const now = changedText(text, [change]);
      expect(JSON.stringify(parse(now))).toBe(JSON.stringify(changedData(data, [change])));
      expect(data).toEqual(parse(text));
      // Comments stay, but for those behind what goes.
      const lines = changed(text, now);
      if (change.op === 'set') expect(lines.gone.filter((line) => /^\s*#/.test(line)).length).toBeLessThan(8);
    }),
    { numRuns: often(50) },
  );
});

test('what has got another name is met by that name, and what is made again may have the old one', () => {
  const text = 'clips:\n  row1: { cells: 0 } # one\n  row2: { cells: 1 }\n';
  const changes: Change[] = [
    { op: 'rename', path: ['clips', 'row1'], name: 'sit' },
    { op: 'set', path: ['clips', 'sit'], value: { cells: 0, fps: 5 } },
    { op: 'set', path: ['clips', 'row1'], value: { cells: 2 } },
    { op: 'rename', path: ['clips', 'row2'], name: 'walk' },
  ];
  expect(changedText(text, changes)).toBe(
    'clips:\n  sit: { cells: 0, fps: 5 } # one\n  walk: { cells: 1 }\n  row1: { cells: 2 }\n',
  );
});

test('law: many changes at once come to the same as one after the other', () => {
  const cells = Array.from({ length: 60 }, (_, i) => i);
  fc.assert(
    fc.property(fc.subarray(cells, { minLength: 1 }), fc.nat(3), (some, kind) => {
      const changes = some.flatMap((cell): Change[] => [
        { op: 'set', path: ['sheets', 'wick', 'perCell', cell, 'pivot'], value: [cell, kind] },
        ...(cell % 3 === kind
          ? [{ op: 'remove', path: ['sheets', 'wick', 'perCell', cell + 1] } as const]
          : []),
      ]);
      const each = changes.reduce((text, change) => changedText(text, [change]), wick);
      expect(changedText(wick, changes)).toBe(each);
    }),
    { numRuns: often(3) },
  );
});

test('what comes into a map and what comes behind it, at one place, each stands in its own', () => {
  const text = 'wardrobe:\n  inner:\n    a: 1\n';
  const changes: Change[] = [
    { op: 'set', path: ['wardrobe', 'outer'], value: 2 },
    { op: 'set', path: ['wardrobe', 'inner', 'b'], value: 3 },
  ];
  expect(changedText(text, changes)).toBe('wardrobe:\n  inner:\n    a: 1\n    b: 3\n  outer: 2\n');
});
