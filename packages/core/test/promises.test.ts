import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Performer } from 'dot-hop';
import { bundleOf } from './bundle.js';
import { compile, stepTold } from './characters.js';

const source = fileURLToPath(new URL('../src', import.meta.url));

test('the runtime carries no schema, no YAML and no measuring, and stays small', async () => {
  const { read, contents } = await bundleOf('export * from "./index.ts"');
  expect(
    read.filter((module) => /node_modules|\/(document|rehearsal|pixels|wardrobe)\//.test(module)),
  ).toEqual([]);
  // With groups of states (4.9 kB), clips that play backwards (2.2 kB), flipbooks to pick from (3.3 kB), a pace (1 kB), cues told by one of several names (0.9 kB), what each text of a document is (1 kB), and what makes the typed route as strict as the file route: shapes, snapshots checked field by field, observers.
  expect(contents.length).toBeLessThan(157_000);
});

test('what is shipped has the numbers of enums in place, and looks none of them up in another module', () => {
  const textsIn = (folder: string, ending: string): string[] =>
    readdirSync(folder, { recursive: true, encoding: 'utf8' })
      .filter((file) => file.endsWith(ending))
      .map((file) => readFileSync(path.join(folder, file), 'utf8'));
  const named = (text: string, pattern: RegExp): string[] =>
    [...text.matchAll(pattern)].map((one) => one[1]!);
  const enums = textsIn(source, '.ts').flatMap((text) => named(text, /^export const enum (\w+)/gm));
  expect(enums).toEqual(expect.arrayContaining(['Row', 'TrackRow', 'StateBit', 'Op']));
  const imported = textsIn(path.join(source, '../dist'), '.js')
    .flatMap((text) => named(text, /^import \{(.*?)\} from/gm))
    .flatMap((names) => names.split(',').map((name) => name.trim()));
  expect(imported).toContain('placeOf');
  expect(imported.filter((name) => enums.includes(name))).toEqual([]);
});

test('measuring and islands come without a schema too', async () => {
  const { read } = await bundleOf('export * from "./pixels/index.ts"');
  expect(read.filter((module) => module.includes('node_modules'))).toEqual([]);
});

test('poses are shared: the same picture is the same object, for every performer', () => {
  const controller = compile({ clips: { c: { cells: '0-1', ms: 100 } }, states: { s: { shows: 'c' } } });
  const [one, other] = [new Performer(controller), new Performer(controller)];
  const { pose } = one;
  one.step(50);
  other.step(250);
  expect(one.pose).toBe(pose);
  expect(other.pose).toBe(pose);
  one.step(50);
  expect(one.pose).not.toBe(pose);
  expect(Object.isFrozen(one.pose) && Object.isFrozen(one.pose.cell)).toBe(true);
});

test('a step that reports nothing leaves no report of an earlier one', () => {
  const performer = new Performer(
    compile({ clips: { c: { cells: '0-1', ms: 100, cues: { tap: 1 } } }, states: { s: { shows: 'c' } } }),
  );
  expect(stepTold(performer, 100)).toEqual(['100 tap']);
  expect(stepTold(performer, 50)).toEqual([]);
  expect(performer.reports.count).toBe(0);
});

test('reading the reports of one performer leaves those of another as they are', () => {
  const controller = compile({
    clips: { c: { cells: '0-1', ms: 100, cues: { tap: 1 } } },
    states: { s: { shows: 'c' } },
  });
  const [one, other] = [new Performer(controller), new Performer(controller)];
  other.step(50);
  one.step(100);
  expect(other.reports.count).toBe(0);
  expect(one.reports.name(0)).toBe('tap');
});

test('thousands of situations do not make the table of decisions grow without end', () => {
  const flags = Array.from({ length: 16 }, (_, i) => `f${i}`);
  const performer = new Performer(
    compile({
      clips: { c: { cells: 0 } },
      signals: Object.fromEntries(flags.map((name) => [name, { flag: false }])),
      states: {
        s: { shows: 'c' },
        ...Object.fromEntries(flags.map((name, i) => [name, { shows: 'c', while: name, priority: i }])),
      },
      rest: 's',
    }),
  );
  for (let word = 0; word < 2 ** 16; word++) {
    flags.forEach((name, i) => performer.set(name, (word & (1 << i)) !== 0));
    performer.step(1);
    if (word % 4099 === 0) expect(performer.state).toBe(word === 0 ? 's' : `f${Math.floor(Math.log2(word))}`);
  }
});
