import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { compileController } from 'dot-hop';
import { describeController, glossary } from 'dot-hop/explain';

test('a controller is described as plain data, without its tables', () => {
  const facts = describeController(
    compileController({
      dotHop: 1,
      name: 'gull',
      sheets: { g: { image: 'g.png', size: [32, 8], grid: { cell: [8, 8] } } },
      clips: {
        sit: { cells: 0 },
        peck: {
          cells: '1-3',
          ms: [40, 50, 60],
          loop: 'back-and-forth',
          cues: { tap: 2 },
          spans: { bite: '1-2' },
        },
      },
      compass: { directions: 'sides', by: ['vx', 0], mirror: { west: 'east' } },
      signals: {
        vx: { number: 3 },
        near: { flag: true },
        mood: { choice: ['calm', 'cross'], first: 'cross' },
        aim: { vector: [1, 2] },
        crumb: { pulse: { keep: 300 } },
        tap: { pulse: true },
      },
      derived: { speed: 'abs(vx)', fast: { of: 'vx', above: 12, below: -4 } },
      states: {
        sit: { shows: 'sit' },
        peck: { shows: 'peck', while: 'fast && near', priority: 4, tags: ['busy'] },
      },
    }),
  );
  expect(JSON.parse(JSON.stringify(facts))).toEqual({
    name: 'gull',
    signals: [
      { name: 'vx', kind: 'number', first: 3, options: [], keep: 0, range: [-4, 12] },
      { name: 'near', kind: 'flag', first: true, options: [], keep: 0 },
      { name: 'mood', kind: 'choice', first: 'cross', options: ['calm', 'cross'], keep: 0 },
      { name: 'aim', kind: 'vector', first: [1, 2], options: [], keep: 0 },
      { name: 'crumb', kind: 'pulse', first: false, options: [], keep: 300 },
      { name: 'tap', kind: 'pulse', first: false, options: [], keep: 0 },
    ],
    derived: [
      { name: 'speed', kind: 'number' },
      { name: 'fast', kind: 'flag' },
    ],
    tracks: ['body'],
    states: [
      {
        name: 'peck',
        track: 'body',
        priority: 4,
        rank: '4',
        groups: [],
        kind: 'posture',
        isRest: false,
        tags: ['busy'],
        shows: ['peck'],
        while: 'fast && near',
      },
      {
        ...{ name: 'sit', track: 'body', priority: 0, rank: '0', groups: [] },
        ...{ kind: 'bare', isRest: true, tags: [], shows: ['sit'] },
      },
    ],
    clips: [
      {
        name: 'sit',
        lasts: expect.any(Number) as number,
        loops: true,
        showings: [{ frame: 0, cell: 0, ms: expect.any(Number) as number, cues: [] }],
        spans: {},
      },
      {
        name: 'peck',
        lasts: 200,
        loops: true,
        showings: [
          { frame: 0, cell: 1, ms: 40, cues: [] },
          { frame: 1, cell: 2, ms: 50, cues: [] },
          { frame: 2, cell: 3, ms: 60, cues: ['tap'] },
          { frame: 1, cell: 2, ms: 50, cues: [] },
        ],
        spans: { bite: { first: 1, last: 2 } },
      },
    ],
    directions: [
      { name: 'east', degrees: 0 },
      { name: 'west', degrees: 180 },
    ],
  });
});

test('what starts an act is told: a press, or its condition becoming true', () => {
  const { states } = describeController(
    compileController({
      dotHop: 1,
      sheets: { g: { image: 'g.png', size: [16, 8], grid: { cell: [8, 8] } } },
      clips: { sit: { cells: 0 }, hop: { cells: [0, 1], fps: 9, loop: 'once' } },
      signals: { near: { flag: false }, tap: { pulse: true } },
      states: {
        sit: { shows: 'sit' },
        tapped: { shows: 'hop', when: 'tap && near', priority: 2 },
        startled: { shows: 'hop', when: 'near', priority: 1 },
      },
    }),
  );
  expect(states.map(({ name, startsOn }) => [name, startsOn])).toEqual([
    ['tapped', 'press'],
    ['startled', 'change'],
    ['sit', undefined],
  ]);
});

test('the type of a controller that others see shows no table of the engine', () => {
  const types = readFileSync(new URL('../dist/controller/controller.d.ts', import.meta.url), 'utf8');
  const shown = types.slice(types.indexOf('export interface Controller<'));
  const fields = [...shown.matchAll(/^ {4}(?:readonly )?(\w+)[?<:(]/gm)].map(([, name]) => name!);
  expect(new Set(fields)).toEqual(
    new Set(
      'names name definition hasWardrobe sheets clips flipbooks compass states tracks order stateNamed rest conditionTexts questions cueNames signalNames signal'.split(
        ' ',
      ),
    ),
  );
});

test('the page of words has the glossary, each word with its sentence and a picture', () => {
  const docs = new URL('../../../docs/', import.meta.url);
  const page = readFileSync(fileURLToPath(new URL('glossary.md', docs)), 'utf8');
  for (const [term, sentence] of Object.entries(glossary)) {
    const picture = `pictures/terms/${term.replaceAll(' ', '-')}.svg`;
    expect(page).toContain(`| ![](${picture}) | **${term}** | ${sentence} |`);
    expect(readFileSync(fileURLToPath(new URL(picture, docs)), 'utf8')).toContain('<svg');
  }
});
