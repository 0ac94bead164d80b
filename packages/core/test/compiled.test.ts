import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import fc from 'fast-check';
import { gzipSync } from 'node:zlib';
import { DotHopError, Performer } from 'dot-hop';
import type { Controller, PerformerSnapshot } from 'dot-hop';
import { compiledOf } from 'dot-hop/compiled';
import { Player, loadCompiled } from 'dot-hop/play';
import type { CompiledDocument } from 'dot-hop/play';
import { Troupe } from 'dot-hop/troupe';
import { wardrobeOf } from 'dot-hop/wardrobe';
import { bundleOf } from './bundle.js';
import { compile, shownBy, stepTold } from './characters.js';
import { characters } from './made-characters.js';
import { act, bearable, scenes } from './stories.js';
import { chance, damaged } from './damage.js';
import { walker } from './walker.js';
import { often } from './often.js';

/** How many made-up characters are compared, and how many faults are put in; `npm run agreement` takes more. */
const runs = Number(process.env.AGREEMENT_RUNS ?? often(1000));
const [numRuns, numFaults] = [runs / 20, Math.min(10_000, runs)];

/** What is written to a file and read again. */
const written = <T extends object>(data: T): T => JSON.parse(JSON.stringify(data)) as T;
const loaded = (controller: Controller): Controller => loadCompiled(written(compiledOf(controller)));

test('a compiled document plays, decides, tells and explains what its source does, and their snapshots are one', () => {
  fc.assert(
    fc.property(characters, scenes, (parts, story) => {
      const controller = compile(parts);
      const performer = new Performer(controller);
      const player = new Player(loaded(controller));
      for (const { deeds, wait } of bearable(controller, story)) {
        const [said, saidToo] = [performer, player].map((one) => {
          try {
            const granted = deeds.map((deed) => act(one, deed));
            return JSON.stringify([granted, stepTold(one, wait / 1000), shownBy(one), one.pose]);
          } catch (error) {
            if (!(error instanceof DotHopError)) throw error;
            return JSON.stringify(error.problems);
          }
        });
        if (saidToo !== said) expect(saidToo).toBe(said);
        // States that lead to one another without taking time leave both between two instants.
        if (said!.includes('switch-cycle')) return;
      }
      const other = Performer.of(player);
      expect(JSON.stringify(other.why())).toBe(JSON.stringify(performer.why()));
      const snapshot = performer.snapshot();
      expect(JSON.stringify(other.snapshot())).toBe(JSON.stringify(snapshot));
      other.reset();
      other.restore(snapshot);
      expect(shownBy(player)).toEqual(shownBy(performer));
    }),
    { numRuns },
  );
});

describe('a compiled walker', () => {
  const controller = loaded(walker());

  test('is worked with in a troupe, and its copies serve one another', () => {
    const troupe = new Troupe(controller, 2);
    troupe.set(1, 'speed', 40);
    troupe.step(100);
    expect([troupe.member(0).state, troupe.member(1).state]).toEqual(['stand', 'walk']);
    const player = new Player(controller);
    const saved = player.save();
    player.set('speed', 40);
    player.step(100);
    player.load(saved);
    expect(player.state).toBe('stand');
  });

  test('is watched by way of a performer, who is told what the player is told', () => {
    const player = new Player(controller);
    const performer = Performer.of(player);
    expect(Performer.of(performer)).toBe(performer);
    const seen: string[] = [];
    const end = performer.observe({
      holds: (signal) => signal === 'wave',
      input: ({ kind, name }) => seen.push(`${kind} ${name}`),
      step: (reports) => seen.push(`step ${reports}`),
      moved: () => seen.push('moved'),
    });
    player.set('speed', -40);
    player.pulse('wave');
    player.step(10);
    player.reset();
    end();
    player.set('speed', 40);
    player.step(10);
    expect(seen).toEqual(['set speed', 'step 3', 'moved']);
    expect(player.facing).toBe('east');
  });

  test('has no source, and says so to whoever needs one', () => {
    expect(() => controller.definition).toThrow('was loaded from a compiled document');
    expect(() => wardrobeOf(controller)).toThrow('load the document itself');
  });
});

describe('what is no sound compiled document is refused', () => {
  const sound = written(
    compiledOf(compile({ clips: { c: { cells: '0-1', ms: 100 } }, signals: { on: { flag: false } } })),
  );
  const refusal = (data: unknown): string => {
    try {
      loadCompiled(data as CompiledDocument);
      return '';
    } catch (error) {
      return (error as Error).message;
    }
  };

  test('of another kind, of another version, cut off', () => {
    expect(refusal(undefined)).toContain('not a compiled document but nothing');
    expect(refusal({ dotHop: 1, sheets: {} })).toContain('not a compiled document but {"dotHop":1');
    expect(refusal({ ...sound, dotHopCompiled: 7 })).toContain(
      'compiled in version 7 of the format, and this Dot Hop reads version 4; compile it again',
    );
    expect(refusal({ ...sound, tables: undefined })).toContain('cut off or changed');
    const { states, ...rest } = sound.tables;
    expect(refusal({ ...sound, tables: rest })).toContain('cut off or changed');
    expect(states.length).toBe(1);
  });

  test('with faults put in by chance, of which there are ten thousand in `npm run agreement`', () => {
    const pick = chance(5);
    const text = JSON.stringify(sound);
    let refused = 0;
    for (let i = 0; i < numFaults; i++) {
      // Half of them in the data, half in the letters.
      const faulty = i % 2 === 0 ? JSON.stringify(damaged(sound, pick)) : mangled(text, pick);
      if (faulty === text) continue;
      const data = parsed(faulty);
      if (data === undefined || JSON.stringify(data) === text) continue;
      // Only what lies beside the tables may be other than it was.
      if (isEqual(data, sound)) continue;
      expect(refusal(data)).toMatch(/cut off or changed|in version|not a compiled document/);
      refused++;
    }
    expect(refused).toBeGreaterThan(numFaults / 2);
  });
});

/** A text with a letter changed, taken away or doubled, or cut off. */
function mangled(text: string, pick: (below: number) => number): string {
  const at = pick(text.length);
  const [before, letter, after] = [text.slice(0, at), text[at]!, text.slice(at + 1)];
  switch (pick(4)) {
    case 0:
      return before + String(pick(10)) + after;
    case 1:
      return before + after;
    case 2:
      return before + letter + letter + after;
    default:
      return before;
  }
}

const isEqual = (data: unknown, { tables, sum }: CompiledDocument): boolean => {
  const other = data as CompiledDocument | null;
  return other?.sum === sum && JSON.stringify(other.tables) === JSON.stringify(tables);
};

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

describe('the entry that plays', () => {
  test('carries no compiler, no sentences, no snapshots and no shapes, and stays small', async () => {
    const { left, contents } = await bundleOf('export * from "./play/index.ts"');
    expect(
      left.filter((file) =>
        /sentences|snapshot|why|observing|compile\.ts|compiler|shape|expression/.test(file),
      ),
    ).toEqual([]);
    expect(gzipSync(contents, { level: 9 }).length).toBeLessThan(20_470);
  });

  test('says codes and values, and sentences once a developer wants them', async () => {
    const folder = await mkdtemp(path.join(tmpdir(), 'dot-hop-play-'));
    try {
      const bare = 'export * from "./play/index.ts";';
      const worded = `${bare} export { wordErrors } from "./play/words.ts";`;
      for (const [file, code] of Object.entries({ 'bare.mjs': bare, 'worded.mjs': worded }))
        writeFileSync(path.join(folder, file), (await bundleOf(code)).contents);
      const script = (file: string): string => `
        const { Player, loadCompiled, wordErrors } = await import(${JSON.stringify(pathToFileURL(path.join(folder, file)).href)});
        wordErrors?.();
        const player = new Player(loadCompiled(${JSON.stringify(compiledOf(walker()))}));
        try { player.set('sped', 1); } catch (error) { console.log(error.message, error.problems[0].code); }`;
      const said = (file: string): string =>
        execFileSync(process.execPath, ['--input-type=module', '-e', script(file)], {
          encoding: 'utf8',
        }).trim();
      expect(said('bare.mjs')).toBe('set-unknown {"name":"sped","known":["speed","wave"]} set-unknown');
      expect(said('worded.mjs')).toBe('there is no signal "sped"; did you mean "speed"? set-unknown');
    } finally {
      await rm(folder, { recursive: true });
    }
  });
});

test('a snapshot goes from a document to its compiled form and back by way of a file', () => {
  const performer = new Performer(walker());
  performer.set('speed', 30);
  performer.step(200);
  const snapshot = written<PerformerSnapshot>(performer.snapshot());
  const other = new Performer(loaded(walker()));
  other.restore(snapshot);
  expect([other.state, other.frameIndex]).toEqual([performer.state, performer.frameIndex]);
});
