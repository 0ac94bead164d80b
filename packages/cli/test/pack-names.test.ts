import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { compileController, poseOf } from 'dot-hop';
import type { Controller, DotHopError } from 'dot-hop';
import fc from 'fast-check';
import { loadCharacter } from '../src/character.js';
import { pack as packCharacter } from 'dot-hop/pack';
import { copyWick, runIn } from './command-line.js';
import { drawn } from './drawn-pose.js';
import { often } from '../../core/test/often.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-pack-'));
  copyWick(folder);
});
afterEach(() => rmSync(folder, { recursive: true }));

test('law: whatever clips are called, each keeps its drawings, times, cues and spans', async () => {
  const character = await loadCharacter(path.join(folder, 'wick.dothop.yaml'));
  const images = new Map([['wick.png', character.images.get('wick.png')!]]);
  const { width, height } = images.get('wick.png')!;
  const names = ['walk', 'walk-fast', 'walk-south', 'walk-fast-east', 'constructor', 'to/../x', 'walk-'];
  const clip = fc.record({
    rows: fc.option(fc.subarray(['south', 'east', 'west'], { minLength: 1 }), { nil: undefined }),
    first: fc.nat(5),
    ms: fc.tuple(fc.integer({ min: 1, max: 300 }), fc.integer({ min: 1, max: 300 })),
    cue: fc.constantFrom('step', 'walk', '__x'),
  });
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.constantFrom(...names), { minLength: 1 }),
      fc.array(clip, { minLength: 7, maxLength: 7 }),
      (some, made) => {
        const clips = Object.fromEntries(
          some.map((name, i) => {
            const { rows, first, ms, cue } = made[i]!;
            return [
              name,
              {
                cells: [first, first + 1],
                ms,
                cues: { [cue]: i % 2 },
                spans: { [name]: 1 },
                ...(rows && { rows }),
              },
            ];
          }),
        );
        const definition = {
          dotHop: 1 as const,
          sheets: { 'w/ick': { image: 'wick.png', grid: { cell: [64, 56] as const } } },
          clips,
          compass: { directions: { south: 90, east: 0, west: 180 }, by: ['vx', 'vy'] as const },
          signals: { vx: { number: 0 }, vy: { number: 0 } },
        };
        let controller: Controller;
        try {
          controller = compileController(definition, { images: { 'wick.png': { width, height } } });
        } catch (error) {
          // Rows that would be written out under the name of another clip are refused.
          expect((error as DotHopError).problems[0]!.code).toBe('rows-twice');
          return;
        }
        const packed = packCharacter(controller, images, 'game.png', {
          padding: 0,
          powerOfTwo: false,
          most: 4096,
        });
        expect(packed.images.map(({ file }) => path.basename(file))).toEqual(
          packed.images.map(({ file }) => file),
        );
        const all = new Map(packed.images.map(({ file, atlas }) => [file, atlas]));
        const again = compileController(packed.definition, { images: Object.fromEntries(all) });
        expect([...again.clips.keys()].sort()).toEqual([...controller.clips.keys()].sort());
        for (const [name, was] of controller.clips) {
          const is = again.clips.get(name)!;
          expect([is.ends, is.cues, is.spans, is.loopFrom]).toEqual([
            was.ends,
            was.cues,
            was.spans,
            was.loopFrom,
          ]);
          was.cells.forEach((cell, i) =>
            expect(
              drawn({ images: all }, poseOf(is.cells[i]!, false)) === drawn({ images }, poseOf(cell, false)),
            ).toBe(true),
          );
        }
      },
    ),
    { numRuns: often(25) },
  );
});

test('a name leads to no other folder', async () => {
  const text = readFileSync(path.join(folder, 'wick.dothop.yaml'), 'utf8')
    .replace(/^  oilskin:/m, '  /../../escaped:')
    .replace(/sheet: oilskin/g, 'sheet: /../../escaped');
  writeFileSync(path.join(folder, 'wick.dothop.yaml'), text);
  expect(runIn(folder, ['pack', 'wick.dothop.yaml', '-o', 'packed/far/game.json'])).toMatchObject({
    code: 0,
    err: '',
  });
  expect(readdirSync(path.join(folder, 'packed'))).toEqual(['far']);
  expect(readdirSync(path.join(folder, 'packed/far'))).toContain('game--escaped.png');
  const { images } = await loadCharacter(path.join(folder, 'packed/far/game.json'));
  expect([...images.keys()]).toContain('game--escaped.png');
});
