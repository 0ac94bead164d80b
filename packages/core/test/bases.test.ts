import fc from 'fast-check';
import { DocumentError, compileDocument, gatherBases, readDocument, readSoundPart } from 'dot-hop/document';
import type { Bases, CharacterDocument } from 'dot-hop/document';
import { changedData, changedText, changesOver } from 'dot-hop/edit';
import type { Change } from 'dot-hop/edit';
import { parse, stringify } from 'yaml';
import { often } from './often.js';

const mover = `dotHop: 1
sheets: { body: { image: body.png, size: [64, 64], grid: { cell: [8, 8] }, parts: { legs: cut/legs.png } } }
clips:
  stand: { cells: 0-3, fps: 4 }
  walk: { cells: 4-7, fps: 8, cues: { step: [0, 2] } }
signals: { vx: { number: 0 }, doze: { flag: false } }
states:
  stand: { shows: stand }
  walk: { shows: walk, while: abs(vx) > 5, priority: 10, tags: [legs, moving] }
  doze: { shows: stand, while: doze, priority: 5 }
`;
const readerOf =
  (files: Readonly<Record<string, string>>) =>
  (address: string): Promise<string> =>
    files[address] === undefined
      ? Promise.reject(new Error('it is not there'))
      : Promise.resolve(files[address]);

/** Reads a document of the folder `player` with what lies around it. */
async function read(text: string, files: Readonly<Record<string, string>>): Promise<CharacterDocument> {
  const bases = await gatherBases(text, 'player/kit.dothop.yaml', readerOf(files));
  return readDocument(text, 'player/kit.dothop.yaml', bases);
}
const refusal = async (text: string, files: Readonly<Record<string, string>>): Promise<string> =>
  read(text, files).then(
    () => 'it was read',
    (error: unknown) => (error as Error).message,
  );
const base = { '../common/mover.dothop.yaml': mover };
const head = 'dotHop: 1\nfrom: ../common/mover.dothop.yaml\n';

test('maps merge by name and field, lists and texts replace, and an empty value takes away', async () => {
  const { definition } = await read(
    `${head}clips: { walk: { fps: 12, cues: { step: 1 } }, run: { cells: 8-11, fps: 14 } }
signals: { doze: null }
states: { doze: null, walk: { tags: [quick] }, run: { shows: run, while: abs(vx) > 50, priority: 20 } }
`,
    base,
  );
  expect(definition).not.toHaveProperty('from');
  expect(definition.clips).toEqual({
    stand: { cells: '0-3', fps: 4 },
    walk: { cells: '4-7', fps: 12, cues: { step: 1 } },
    run: { cells: '8-11', fps: 14 },
  });
  expect(definition.signals).toEqual({ vx: { number: 0 } });
  expect(Object.keys(definition.states!)).toEqual(['stand', 'walk', 'run']);
  expect(definition.states!.walk).toMatchObject({ shows: 'walk', priority: 10, tags: ['quick'] });
  // Images are found from the document that is read, wherever they were named.
  expect(definition.sheets.body).toMatchObject({
    image: '../common/body.png',
    parts: { legs: '../common/cut/legs.png' },
  });
});

test('of several the later counts more, also where they build on documents themselves', async () => {
  const files = {
    ...base,
    'quick.dothop.yaml': 'dotHop: 1\nclips: { walk: { fps: 20, stride: 9 } }\n',
    'town/guard.dothop.yaml': 'dotHop: 1\nfrom: ../calm.dothop.yaml\nclips: { walk: { fps: 6 } }\n',
    'calm.dothop.yaml': 'dotHop: 1\nname: calm\nclips: { walk: { fps: 5, loop: once } }\n',
  };
  const { definition } = await read(
    'dotHop: 1\nfrom: [../common/mover.dothop.yaml, quick.dothop.yaml, town/guard.dothop.yaml]\n',
    files,
  );
  expect(definition.name).toBe('calm');
  expect(definition.clips.walk).toMatchObject({ cells: '4-7', fps: 6, stride: 9, loop: 'once' });
});

test('forty documents that each build twice on the next are read at once', async () => {
  const files = Object.fromEntries(
    Array.from({ length: 40 }, (_, i) => [
      `d${i}.yaml`,
      i === 39 ? mover : `dotHop: 1\nfrom: [d${i + 1}.yaml, ./d${i + 1}.yaml]\nname: d${i}\n`,
    ]),
  );
  const { definition } = await read('dotHop: 1\nfrom: d0.yaml\n', files);
  expect(definition.name).toBe('d0');
  expect(Object.keys(definition.states!)).toEqual(['stand', 'walk', 'doze']);
});

test('each problem is told in the document that it stands in', async () => {
  const document = await read(`${head}states: { walk: { then: stnad } }\n`, {
    '../common/mover.dothop.yaml': mover.replace('abs(vx) > 5', 'abs(vy) > 5'),
  });
  expect(() => compileDocument(document)).toThrow(
    /^player\/kit\.dothop\.yaml:3:\d+ states\.walk\.then: .*\n.*did you mean "stand".*\ncommon\/mover\.dothop\.yaml:9:\d+ states\.walk\.while: .*"vx"/,
  );
  expect(document.source.place(['clips', 'stand', 'fps'])).toMatchObject({
    file: 'common/mover.dothop.yaml',
    line: 4,
  });
  expect(document.source.place(['states', 'walk', 'then'])).toMatchObject({
    file: 'player/kit.dothop.yaml',
    line: 3,
  });
});

test.each([
  [
    'a base that is missing',
    head,
    {},
    /kit\.dothop\.yaml:2:7 from: .*"\.\.\/common\/mover\.dothop\.yaml" cannot be read \(it is not there\)/,
  ],
  [
    'a circle, by its names',
    head,
    { '../common/mover.dothop.yaml': 'dotHop: 1\nfrom: ../player/kit.dothop.yaml\n' },
    /common\/mover\.dothop\.yaml:2:7 from: .*circle: player\/kit\.dothop\.yaml, common\/mover\.dothop\.yaml, player\/kit\.dothop\.yaml/,
  ],
  [
    'a base of a later version',
    head,
    { '../common/mover.dothop.yaml': 'dotHop: 9\n' },
    /common\/mover\.dothop\.yaml:1:9 dotHop: this is version 9/,
  ],
  [
    'a base of another kind',
    head,
    { '../common/mover.dothop.yaml': 'dotHopRehearsal: 1\n' },
    /common\/mover\.dothop\.yaml:1:1 this is a rehearsal/,
  ],
  [
    'a name that is taken away and was never there',
    `${head}states: { dose: null }\n`,
    base,
    /kit\.dothop\.yaml:3:\d+ states\.dose: .*did you mean "doze"/,
  ],
  [
    'a field of a name that was never there',
    `${head}clips: { wlak: { fps: 3 } }\n`,
    base,
    /clips\.wlak\.cells: "cells" is missing.*that is named "walk"/,
  ],
  [
    'an address from the root',
    'dotHop: 1\nfrom: /etc/mover.yaml\n',
    {},
    /from: "\/etc\/mover\.yaml" is the same place on no other/,
  ],
  [
    'no address at all',
    'dotHop: 1\nfrom: 3\n',
    {},
    /kit\.dothop\.yaml:2:7 from: expected a document, or a list of documents, not 3/,
  ],
  [
    'a list with no address',
    'dotHop: 1\nfrom: [mover.yaml, 3]\n',
    {},
    /from.*expected a list of documents|from\[1\]/,
  ],
  [
    'a base that is no YAML',
    head,
    { '../common/mover.dothop.yaml': 'dotHop: 1\nclips: { walk: [ }\n' },
    /^common\/mover\.dothop\.yaml:2:/,
  ],
  [
    'a base whose fields are of the wrong kind',
    head,
    { '../common/mover.dothop.yaml': mover.replace('fps: 8', 'fps: quick') },
    /^common\/mover\.dothop\.yaml:5:\d+ clips\.walk\.fps: expected/,
  ],
] as [string, string, Record<string, string>, RegExp][])('refused: %s', async (_, text, files, told) => {
  expect(await refusal(text, files)).toMatch(told);
});

test('a document that is read without its bases says how they are read', () => {
  expect(() => readDocument(head, 'kit.yaml')).toThrow(/kit\.yaml:2:7 from: .*gatherBases/);
});

test('of a document with faults the sound part is there with what it takes over', async () => {
  const text = `${head}clips: { walk: { fps: quick } }\n`;
  const bases = await gatherBases(text, 'player/kit.dothop.yaml', readerOf(base));
  const { definition, problems } = readSoundPart(text, 'player/kit.dothop.yaml', bases);
  expect(problems).toHaveLength(1);
  expect(Object.keys(definition.clips)).toContain('stand');
});

test('without "from" an empty value is a fault as ever', () => {
  expect(() => readDocument(`${mover}rest: null\n`, 'm.yaml')).toThrow(DocumentError);
});

/** Plain data as documents hold it, of a few names so that they meet. */
const names = fc.constantFrom('a', 'b', 'c', 'clips', 'x y');
const leaf = fc.oneof(fc.integer(), fc.string(), fc.array(fc.integer(), { maxLength: 3 }), fc.boolean());
const data = fc.letrec<{ map: object; value: unknown }>((tie) => ({
  map: fc.dictionary(names, tie('value'), { maxKeys: 4 }),
  value: fc.oneof({ depthSize: 'small' }, leaf, tie('map')),
})).map;

test('a change of the whole is one of its own text: read again with its bases, it is the changed whole', () => {
  fc.assert(
    fc.property(
      data,
      data,
      fc.array(
        fc.record({
          path: fc.array(names, { minLength: 1, maxLength: 3 }),
          value: fc.oneof(leaf, data),
          op: fc.constantFrom('set' as const, 'remove' as const),
        }),
        { maxLength: 5 },
      ),
      (below, own, some) => {
        const bases: Bases = new Map([['b.json', { text: JSON.stringify({ ...below, dotHop: 1 }) }]]);
        const text = stringify({ dotHop: 1, from: 'b.json', wardrobe: own });
        // The shape of documents does not matter here, so all hangs on a field that is kept as it is.
        const wholeOf = (one: string): unknown => {
          const said = readSoundPart(one, 'own.yaml', bases);
          return { layers: said.layers, value: said.source.value };
        };
        const { layers, value } = wholeOf(text) as {
          layers: { own: unknown; below: unknown };
          value: unknown;
        };
        const changes = some.map(({ path, ...rest }): Change => ({ path: ['wardrobe', ...path], ...rest }));
        const whole = changedData(value, changes);
        const now = changedText(text, changesOver(layers, value, changes));
        expect(withoutEmpty((wholeOf(now) as { value: unknown }).value)).toBe(withoutEmpty(whole));
        expect(parse(now)).toMatchObject({ from: 'b.json' });
      },
    ),
    { numRuns: often(100) },
  );
});

/** Data as text, by name. A map that nothing is in any more may stay or go. */
function withoutEmpty(value: unknown): string {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return JSON.stringify(value);
  const kept = Object.entries(value)
    .map(([name, one]) => [name, withoutEmpty(one)] as const)
    .filter(([, one]) => one !== '{}')
    .sort(([one], [other]) => (one < other ? -1 : 1));
  return `{${kept.map(([name, one]) => `${JSON.stringify(name)}:${one}`).join(',')}}`;
}
