import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Performer } from 'dot-hop';
import { Player, loadCompiled } from 'dot-hop/play';
import type { CompiledDocument } from 'dot-hop/play';
import { readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import { loadCharacter } from '../src/character.js';
import { copyWick, root, runIn } from './command-line.js';

const rehearsals = ['evening.rehearsal.yaml', 'gulls.rehearsal.yaml', 'running.rehearsal.yaml'];
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-compiled-'));
  copyWick(folder, ...rehearsals);
  cpSync(path.join(root, 'demo/townsfolk'), path.join(folder, 'townsfolk'), { recursive: true });
});
afterAll(() => rmSync(folder, { recursive: true }));

const read = (file: string): string => readFileSync(path.join(folder, file), 'utf8');
const pack = (...args: string[]) => runIn(folder, ['pack', ...args]);

test('a compiled document plays as its source does, and says what was left out', async () => {
  // It is written again as often as one likes.
  expect(pack('wick.dothop.yaml', '-o', 'game.json', '--compiled').code).toBe(0);
  const { code, out } = pack('wick.dothop.yaml', '-o', 'game.json', '--compiled');
  expect({ code, out }).toEqual({ code: 0, out: expect.stringContaining('19 clips, compiled') as string });
  expect(out).toContain('its wardrobe is left out: a compiled document has none');
  const controller = loadCompiled(JSON.parse(read('game.json')) as CompiledDocument);
  const { controller: source } = await loadCharacter(path.join(folder, 'wick.dothop.yaml'));
  for (const file of rehearsals) {
    const { definition } = readRehearsal(read(file), file);
    const [was, is] = [source, controller].map((one) => runRehearsal(one, { ...definition, expect: [] }));
    expect(was!.trace.length).toBeGreaterThan(3);
    expect(is!.trace).toEqual(was!.trace);
  }
});

test('snapshots go between a document, the packed one and the compiled one', async () => {
  const source = 'townsfolk/marlis.dothop.yaml';
  expect(pack(source, '-o', 'packed.json').code).toBe(0);
  expect(pack(source, '-o', 'compiled.json', '--compiled').code).toBe(0);
  const [whole, packed] = await Promise.all(
    [source, 'packed.json'].map((file) => loadCharacter(path.join(folder, file))),
  );
  const player = new Player(loadCompiled(JSON.parse(read('compiled.json')) as CompiledDocument));
  const all = [new Performer(whole!.controller), new Performer(packed!.controller), Performer.of(player)];
  for (const from of all) {
    from.reset();
    from.set('vx', 20);
    from.set('vy', -20);
    from.step(333);
    const snapshot = from.snapshot();
    for (const to of all) {
      to.reset();
      to.restore(snapshot);
      expect([to.state, to.facing, to.phase]).toEqual([from.state, from.facing, from.phase]);
    }
  }
  expect(all[0]!.state).not.toBe(new Performer(whole!.controller).state);
});

test('what is compiled is only played: a document of it is asked for, and an ending that fits', () => {
  expect(pack('wick.dothop.yaml', '-o', 'small.json', '--compiled', '--json').code).toBe(0);
  const { code, err } = runIn(folder, ['check', 'small.json']);
  expect(code).toBe(2);
  expect(err).toContain('small.json:1:19 dotHopCompiled: this is a compiled document, which is only played');
  const yaml = pack('wick.dothop.yaml', '-o', 'small.yaml', '--compiled');
  expect(yaml.code).toBe(2);
  expect(yaml.err).toContain('-o small.yaml: a compiled document is written as .json');
});
