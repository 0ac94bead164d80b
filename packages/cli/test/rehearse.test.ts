import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import sharp from 'sharp';
import { copyWick, root, runIn } from './command-line.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-rehearse-'));
  const scripts = ['evening', 'gulls', 'errand', 'running'].map((name) => `${name}.rehearsal.yaml`);
  copyWick(folder, 'faulty-rehearsal.yaml', ...scripts);
});
afterEach(() => rmSync(folder, { recursive: true }));

test('prints what happened and that all was as expected', () => {
  const { code, out } = runIn(folder, ['rehearse', 'evening.rehearsal.yaml', '-o', 'evening.png']);
  expect(code).toBe(0);
  expect(out).toMatch(/1760\.0 ms {4}pulse jump\n\s+takeoff\s+from stand: ranks higher/);
  expect(out).toContain('all 10 expectations met');
  expect(existsSync(path.join(folder, 'evening.png'))).toBe(true);
});

test('a script asks for states, and what was refused is told', () => {
  const { code, out } = runIn(folder, ['rehearse', 'gulls.rehearsal.yaml']);
  expect(code).toBe(0);
  expect(out).toMatch(/6400\.0 ms {4}ask doze: not granted/);
  expect(out).toMatch(
    / 620\.0 ms {2}arms: swing2\s+from swing1: hop\n +swing2 +from swing1: taken by arms\n/,
  );
  const traceOf = (file: string) =>
    (
      JSON.parse(runIn(folder, ['rehearse', file, '--json']).out) as [
        { trace: { kind: string; name: string }[] },
      ]
    )[0].trace;
  const asked = { kind: 'ask', at: 6400, name: 'doze', granted: false };
  expect(traceOf('gulls.rehearsal.yaml')).toContainEqual(asked);
  const changed = { kind: 'flipbook', at: 850, name: 'run', from: 'walk', track: 'body' };
  expect(traceOf('evening.rehearsal.yaml')).toContainEqual(changed);
});

test('what is expected of a track is judged by it, and it is asked why', () => {
  writeFileSync(
    path.join(folder, 'arms.yaml'),
    `dotHopRehearsal: 1
document: wick.dothop.yaml
lasts: 900
script:
  - { at: 0, set: { vx: 130, along: 1 } }
  - { at: 100, pulse: swing }
  - { until: { state: arms.swing1 }, pulse: blow }
expect:
  - { at: 150, state: go }
  - { at: 150, state: body.swing1 }
  - { at: 150, state: swing2 }
  - { at: 200, state: swnig1 }
`,
  );
  const misspelt = runIn(folder, ['rehearse', 'arms.yaml']);
  expect(misspelt.code).toBe(2);
  expect(misspelt.err).toContain('expect[3].state: there is no state "swnig1"; did you mean "swing1"?');
  const text = readFileSync(path.join(folder, 'arms.yaml'), 'utf8');
  writeFileSync(path.join(folder, 'arms.yaml'), text.replace(/.*swnig1.*\n/, '').replace('blow', 'splash'));
  const { code, out } = runIn(folder, ['rehearse', 'arms.yaml', '--quiet']);
  expect(code).toBe(1);
  expect(out).toContain('instead: state splashed\n           splashed shows since 105 ms');
  expect(out).toContain(
    'instead: state splashed\n           arms: splashed shows since 105 ms: body shows it',
  );
});

test('exits with 1 and says why when something was not', () => {
  const evening = path.join(folder, 'evening.rehearsal.yaml');
  writeFileSync(
    evening,
    readFileSync(evening, 'utf8').replace('{ at: 500, state: go }', '{ at: 500, state: rise }'),
  );
  const { code, out } = runIn(folder, ['rehearse', 'evening.rehearsal.yaml', '--quiet']);
  expect(code).toBe(1);
  expect(out).toContain('NOT MET 2. at 500 ms: state rise (line 22)\n           instead: state go');
  expect(out).toContain('while not grounded and vy < -40   - not grounded   - vy < -40 (vy 0)');
  expect(out).toContain('1 of 10 expectations not met');
  const json = JSON.parse(runIn(folder, ['rehearse', 'evening.rehearsal.yaml', '--json']).out) as {
    expectations: { met: boolean }[];
  }[];
  expect(json[0]!.expectations.map(({ met }) => met)).toEqual([
    true,
    false,
    ...new Array<boolean>(8).fill(true),
  ]);
});

test('a body in place of a game: what it does is printed, its numbers are not', () => {
  const { code, out } = runIn(folder, ['rehearse', 'errand.rehearsal.yaml']);
  expect(code).toBe(0);
  expect(out).toMatch(/press jump\n\s+pulse jump\n\s+takeoff\s+from go: ranks higher/);
  expect(out).toMatch(/cue leap\n.* body: grounded = false/);
  expect(out).toContain('ramp breath to 2.2 over 500 ms');
  expect(out).not.toContain('body: vx');
  expect(out).toContain('all 7 expectations met');
});

test('what was not met is drawn with its reason below', async () => {
  const { code } = runIn(folder, ['rehearse', 'faulty-rehearsal.yaml', '-o', 'missed.png']);
  expect(code).toBe(1);
  const text = path.join(folder, 'faulty-rehearsal.yaml');
  writeFileSync(
    text,
    readFileSync(text, 'utf8').replace(', never: swing3', '').replace('within: 300', 'within: 900'),
  );
  expect(runIn(folder, ['rehearse', 'faulty-rehearsal.yaml', '-o', 'met.png']).code).toBe(0);
  const height = async (file: string) => (await sharp(path.join(folder, file)).metadata()).height;
  expect((await height('missed.png')) - (await height('met.png'))).toBeGreaterThan(100);
});

test('a folder stands for the rehearsals in it; one without any is refused', () => {
  const { code, out } = runIn(folder, ['rehearse', '.', '--quiet']);
  expect([code, out.match(/expectations met/g)]).toEqual([0, Array(4).fill('expectations met')]);
  for (const name of ['errand', 'evening', 'gulls', 'running'])
    rmSync(path.join(folder, `${name}.rehearsal.yaml`));
  expect(runIn(folder, ['rehearse', '.'])).toMatchObject({
    code: 2,
    err: expect.stringContaining('no rehearsal lies in this folder') as string,
  });
});

test('one that cannot be run keeps no other from it, and stands in every report', () => {
  writeFileSync(path.join(folder, 'broken.rehearsal.yaml'), 'dotHopRehearsal: 1\nlasts: soon\n');
  const both = ['rehearse', 'broken.rehearsal.yaml', 'errand.rehearsal.yaml'];
  const { code, out, err } = runIn(folder, [...both, '--quiet']);
  expect({ code, out: out.trimEnd().split('\n').at(-1) }).toEqual({ code: 2, out: 'all 7 expectations met' });
  expect(err).toContain('broken.rehearsal.yaml:2:8 lasts: expected milliseconds');
  const [broken, errand] = JSON.parse(runIn(folder, [...both, '--json']).out) as [
    { error: string },
    { expectations: { line: number }[] },
  ];
  expect(broken.error).toContain('lasts: expected milliseconds');
  expect(errand.expectations.map(({ line }) => line)).toEqual([24, 25, 17, 18, 18, 19, 21]);
  const junit = runIn(folder, [...both, '--junit']).out;
  expect(junit).toMatch(
    /<testsuite name="broken\.rehearsal\.yaml" tests="1" errors="1">[\s\S]*<error message="broken/,
  );
  expect(junit).toContain('<testsuite name="errand.rehearsal.yaml" tests="7" failures="0">');
  expect(runIn(folder, ['rehearse', 'nobody.yaml', '--watch'])).toMatchObject({
    code: 2,
    err: 'dot-hop: nobody.yaml: there is no such file\n',
  });
});

test('a cue that is told by another name is named with the one on the frame', () => {
  writeFileSync(
    path.join(folder, 'planks.dothop.yaml'),
    `${readFileSync(path.join(folder, 'wick.dothop.yaml'), 'utf8')}cues: { step: { any: [plank, creak] } }\n`,
  );
  writeFileSync(
    path.join(folder, 'planks.rehearsal.yaml'),
    'dotHopRehearsal: 1\ndocument: planks.dothop.yaml\nlasts: 900\nscript: [{ at: 0, set: { vx: 60, along: 1 } }]\n',
  );
  const { out } = runIn(folder, ['rehearse', 'planks.rehearsal.yaml']);
  expect(out).toMatch(/cue plank \(step\)[^]*cue creak \(step\)/);
});

/** A short run, in which Wick goes west over level ground and is given a body to go by. */
const walk = `# He goes home.
dotHopRehearsal: 1
document: wick.dothop.yaml
lasts: 700
body: { platformer: { speed: 140, leapAt: leap } }
script:
  - { at: 100, press: left, for: 500 }   # along the quay
`;

test('draws it moving: he goes over the ground, and a line runs through states and signals', async () => {
  writeFileSync(path.join(folder, 'walk.rehearsal.yaml'), walk);
  const { code, err } = runIn(folder, ['rehearse', 'walk.rehearsal.yaml', '-o', 'walk.webp']);
  expect({ code, err }).toEqual({
    code: 0,
    err: '19 pictures, one each 40 ms; writing them ...\nmoving picture of what happened in walk.webp\n',
  });
  const film = path.join(folder, 'walk.webp');
  const { pages, delay, width, loop } = await sharp(film, { animated: true }).metadata();
  // Every 40 ms, the last instant too; then it stays a while, and begins again.
  expect([pages, width, loop]).toEqual([19, 640, 0]);
  expect(delay).toEqual([...Array<number>(17).fill(40), 20, 900]);
  // The darkest column of the stage is where he stands; the bright line below says when it is.
  const placed = async (page: number): Promise<[number, number]> => {
    const { data, info } = await sharp(film, { page }).raw().toBuffer({ resolveWithObject: true });
    const sumOf = (x: number, from: number, to: number): number => {
      let sum = 0;
      for (let y = from; y < to; y++) for (let c = 0; c < 3; c++) sum += data[(y * info.width + x) * 4 + c]!;
      return sum;
    };
    const columns = Array.from({ length: info.width }, (_, x) => x);
    const dark = columns.map((x) => sumOf(x, 150, 210));
    const bright = columns.map((x) => sumOf(x, info.height - 16, info.height - 12));
    return [dark.indexOf(Math.min(...dark)), bright.indexOf(Math.max(...bright))];
  };
  const [first, last] = [await placed(1), await placed(16)];
  expect(last[0]).toBeLessThan(first[0] - 50);
  expect(last[1]).toBeGreaterThan(first[1] + 300);
});

test('what it cannot be drawn as is refused before it runs', () => {
  const { code, err } = runIn(folder, ['rehearse', 'evening.rehearsal.yaml', '-o', 'evening.mp4']);
  expect(code).toBe(2);
  expect(err).toContain('drawn as .png (along its time) or .webp, .gif or .apng (moving)');
});

test('what is seen becomes what is expected, once, and all else in the file stays', () => {
  const file = path.join(folder, 'walk.rehearsal.yaml');
  writeFileSync(file, walk);
  const { code, out, err } = runIn(folder, ['rehearse', 'walk.rehearsal.yaml', '--expect-seen', '--quiet']);
  expect(code).toBe(0);
  expect(err).toBe(
    '4 expectations written into walk.rehearsal.yaml: what was seen is expected from now on\n',
  );
  expect(out).toContain('all 4 expectations met');
  const filled = readFileSync(file, 'utf8');
  expect(filled.startsWith(walk)).toBe(true);
  expect(filled).toContain('\n  - { at: 50, state: stand, direction: east }\n');
  expect(filled).toMatch(/\n {2}- { from: 0, to: 700, passes: \[stand, go, stand\], cues: { .* } }\n/);
  const again = runIn(folder, ['rehearse', 'walk.rehearsal.yaml', '--expect-seen']);
  expect(again.code).toBe(2);
  expect(again.err).toContain('walk.rehearsal.yaml expects 4 things already; take "expect" out');
  expect(readFileSync(file, 'utf8')).toBe(filled);
  expect(runIn(folder, ['rehearse', '-', '--expect-seen'], walk).err).toContain('standard input is none');
  // What is refused keeps no other from it, and nothing is written where the picture could not be.
  writeFileSync(path.join(folder, 'again.rehearsal.yaml'), walk);
  writeFileSync(path.join(folder, 'empty.rehearsal.yaml'), '');
  const badly = runIn(folder, ['rehearse', 'again.rehearsal.yaml', '--expect-seen', '-o', 'film.mp4']);
  expect([badly.code, readFileSync(path.join(folder, 'again.rehearsal.yaml'), 'utf8')]).toEqual([2, walk]);
  const files = ['empty', 'walk', 'again'].map((name) => `${name}.rehearsal.yaml`);
  const some = runIn(folder, ['rehearse', ...files, '--expect-seen', '--quiet']);
  expect(some.code).toBe(2);
  expect(some.err.match(/the document is empty/g)).toHaveLength(1);
  expect(some.err).toContain('4 expectations written into again.rehearsal.yaml');
  expect(some.out).toBe('again.rehearsal.yaml  wick, 700 ms\nall 4 expectations met\n');
});

test('watching runs them again at a change, and outlives a faulty document', async () => {
  const program = path.join(root, 'packages/cli/bin/dot-hop.js');
  const child = spawn(process.execPath, [program, 'rehearse', '.', '--quiet', '--watch'], { cwd: folder });
  let told = '';
  child.stdout.on('data', (data) => (told += String(data)));
  child.stderr.on('data', (data) => (told += String(data)));
  const until = async (words: string): Promise<void> => {
    for (let i = 0; i < 300 && !told.includes(words); i++) await sleep(100);
    expect(told).toContain(words);
    told = '';
  };
  const ended = new Promise((resolve) => child.once('exit', resolve));
  const document = path.join(folder, 'wick.dothop.yaml');
  const sound = readFileSync(document, 'utf8');
  const save = (text: string): void => {
    writeFileSync(`${document}.new`, text);
    renameSync(`${document}.new`, document);
  };
  try {
    await until('watching for changes');
    save(sound.replace('shows: takeoff', 'shows: takeof'));
    await until('there is no clip or flipbook "takeof"; did you mean "takeoff"?');
    save(sound.replace('cues: { whoosh: 2 }', 'cues: { whoosh: [2, 3] }'));
    await until('1 of 7 expectations not met');
    save(sound);
    await until('all 7 expectations met');
    await sleep(1500);
    told = '';
    // What it does not depend on starts no run: its own output that is redirected here, and what else lies beside it.
    for (const name of ['log.txt', 'notes.yaml', 'wick.txt'])
      writeFileSync(path.join(folder, name), 'a line\n');
    await sleep(1500);
    expect(told).toBe('');
  } finally {
    child.kill('SIGINT');
  }
  expect(await ended).toBe(0);
}, 240_000);
