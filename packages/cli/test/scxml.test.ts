import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readDocument } from 'dot-hop/document';
import { statesIn } from 'dot-hop/explain';
import { readRehearsal } from 'dot-hop/rehearsal';
import { Chart } from './chart.js';
import { root, runIn } from './command-line.js';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-chart-'));
  cpSync(path.join(root, 'demo'), folder, { recursive: true });
});
afterEach(() => rmSync(folder, { recursive: true }));

/** How a document of the ferryman begins. */
const ferry = `dotHop: 1
sheets: { s: { image: wick.png, grid: { cell: [64, 56] } } }
clips: { sit: { cells: 0 }, bow: { cells: 0-1, ms: 50, loop: once }, row: { cells: 2 } }
`;

const chartOf = (document: string): string => runIn(folder, ['convert', document, '--to', 'scxml']).out;

/** Plays the lines of a rehearsal to a chart: what an instant brings is one event. */
function play(chart: Chart, file: string): void {
  const { definition } = readRehearsal(readFileSync(path.join(folder, file), 'utf8'), file);
  for (const { at, set, pulse } of definition.script) {
    chart.advance(at!);
    const pulses = pulse === undefined ? [] : [pulse].flat();
    const data = { ...set, ...Object.fromEntries(pulses.map((name) => [name, true])) };
    if (Object.keys(data).length > 0) chart.send('signals', data);
  }
  chart.advance(definition.lasts);
}

/** The states that a track passes in a rehearsal, with their instants; taken ones as the chart names them. */
function switches(file: string, track: string, own: readonly string[]): [number, string][] {
  const { out } = runIn(folder, ['rehearse', file, '--json']);
  const [{ trace }] = JSON.parse(out) as [
    { trace: { kind: string; at: number; name: string; track: string }[] },
  ];
  return trace
    .filter((one) => one.kind === 'switch' && one.track === track)
    .map(({ at, name }) => [at, own.includes(name) ? name : `${track}.${name}`]);
}

test.each(['evening.rehearsal.yaml', 'gulls.rehearsal.yaml', 'running.rehearsal.yaml'])(
  'a chart of Wick passes through the same states at the same instants, legs and arms side by side: %s',
  (file) => {
    const chart = new Chart(chartOf('wick.dothop.yaml'));
    play(chart, file);
    const arms = ['with-body', 'swing1', 'swing2', 'swing3'];
    const { definition } = readDocument(readFileSync(path.join(folder, 'wick.dothop.yaml'), 'utf8'));
    const body = statesIn(definition).flatMap((one) => (one.path[0] === 'tracks' ? [] : [one.name]));
    const bodily = chart.entered().slice(1);
    expect(bodily).toEqual(switches(file, 'body', body));
    expect(chart.entered('shows.arms').slice(1)).toEqual(switches(file, 'arms', arms));
    expect(chart.entered().length + chart.entered('shows.arms').length).toBeGreaterThan(10);
  },
);

test('it sends cues at their instants, and faces where he faces, side by side with what shows', () => {
  const chart = new Chart(chartOf('wick.dothop.yaml'));
  play(chart, 'evening.rehearsal.yaml');
  const whooshes = chart.sent.filter(([, event]) => event === 'cue.whoosh');
  expect(whooshes.map(([at]) => at)).toEqual([2840, 3250]);
  expect(chart.states).toEqual(['doze', 'with-body', 'faces.west']);
});

test('groups are states with states of their own, and pass the same', () => {
  writeFileSync(
    path.join(folder, 'swimmer.yaml'),
    `${ferry}signals:
  vx: { number: 0 }
  water: { flag: false }
  deep: { flag: false }
  pull: { pulse: true }
  leap: { pulse: true }
states:
  sit: { shows: sit }
  stride: { shows: row, while: vx == 9, priority: 90, hops: [{ to: sea, if: leap }] }
  back: { shows: row, while: not body.sea and vx < 0, priority: 10 }
groups:
  sea:
    while: water
    priority: 50
    rest: float
    carry: phase
    states:
      float: { shows: sit }
      swim: { shows: row, while: vx > 0, priority: 1 }
      stroke: { shows: bow, when: pull, priority: 2 }
    groups:
      below: { while: deep, rest: hover, states: { hover: { shows: sit }, dive: { shows: row, while: vx > 20 } } }
`,
  );
  const lines: [number, Record<string, number | boolean>][] = [
    [100, { vx: 30 }],
    [200, { water: true }],
    [300, { deep: true }],
    [400, { pull: true }],
    [600, { vx: 9 }],
    [700, { leap: true }],
    [800, { vx: 0 }],
    [900, { deep: false }],
    [1000, { vx: -1 }],
    [1100, { water: false }],
    [1200, { vx: 0 }],
  ];
  const text = chartOf('swimmer.yaml');
  const chart = new Chart(text);
  for (const [at, data] of lines) {
    chart.advance(at);
    chart.send('signals', data);
  }
  chart.advance(1300);
  const script = lines.map(([at, data]) => {
    const [[name, value]] = Object.entries(data) as [[string, number | boolean]];
    return name === 'pull' || name === 'leap' ? { at, pulse: name } : { at, set: { [name]: value } };
  });
  const rehearsal = { dotHopRehearsal: 1, document: 'swimmer.yaml', lasts: 1300, script };
  writeFileSync(path.join(folder, 'swim.rehearsal.json'), JSON.stringify(rehearsal));
  const passed = switches('swim.rehearsal.json', 'body', []).map(([at, name]) => [at, name.slice(5)]);
  expect(chart.entered().slice(1)).toEqual(passed);
  expect(passed.length).toBeGreaterThan(9);
  expect(text).toMatch(/<state id="sea" initial="float">[^]*<state id="below" initial="hover">/);
  expect(text).toContain('groups.sea.carry');
});

test('eight directions are faced as the compass faces them', () => {
  const chart = new Chart(chartOf('townsfolk/marlis.dothop.yaml'));
  const faced = ([vx, vy]: [number, number]): string => {
    chart.send('signals', { vx, vy });
    return chart.states[1]!;
  };
  const around = Array.from({ length: 8 }, (_, i): [number, number] => [
    40 * Math.cos((i * Math.PI) / 4),
    40 * Math.sin((i * Math.PI) / 4),
  ]);
  const names = ['east', 'southeast', 'south', 'southwest', 'west', 'northwest', 'north', 'northeast'];
  expect(around.map(faced)).toEqual(names.map((name) => `faces.${name}`));
  // Too short a vector turns nobody.
  expect(faced([0.5, 0])).toBe('faces.northeast');
});

test('what it has no place for is listed, on standard error and in the file', () => {
  const { code, err } = runIn(folder, ['convert', 'wick.dothop.yaml', '-o', 'wick.scxml']);
  expect(code).toBe(0);
  const left = [...err.matchAll(/^not in the chart: (.*)$/gm)].map((found) => found[1]!);
  expect(left).toEqual(
    expect.arrayContaining(['states.stand.bridges', 'states.go.gaits', 'states.rise.scrub']),
  );
  const walker = `${ferry}cues: { splash: { any: [plash, drip] } }\nstates: { sit: { shows: sit }, row: { shows: row } }\nrest: sit\n`;
  writeFileSync(
    path.join(folder, 'told.yaml'),
    walker.replace('row: { cells: 2 }', 'row: { cells: 2, cues: { splash: 0 } }'),
  );
  expect(runIn(folder, ['convert', 'told.yaml', '-o', 'told.scxml']).err).toContain(
    'not in the chart: cues.splash (told by its own name)',
  );
  const text = readFileSync(path.join(folder, 'wick.scxml'), 'utf8');
  for (const one of left) expect(text).toContain(one);
});

test('changes count once, presses are kept as long as they should, choices and vectors are read', () => {
  writeFileSync(
    path.join(folder, 'ferry.yaml'),
    `${ferry}signals:
  wind: { vector: [0, 0] }
  mood: { choice: [calm, cross] }
  call: { pulse: { keep: 200 } }
  bump: { flag: false }
states:
  sit: { shows: sit }
  row: { shows: row, while: "hypot(wind.x, wind.y) > 5 and mood != cross", priority: 1 }
  bow: { shows: bow, when: "call && mood == 'calm'", priority: 2 }
  jolt: { shows: bow, when: bump, priority: 3 }
rest: sit
`,
  );
  const chart = new Chart(chartOf('ferry.yaml'));
  const shows = (): string => chart.states[0]!;
  chart.send('signals', { wind: [3, 4.5], mood: 'cross' });
  expect(shows()).toBe('sit');
  chart.send('signals', { mood: 'calm' });
  expect(shows()).toBe('row');
  // Held, it jolts once.
  chart.send('signals', { bump: true });
  expect(shows()).toBe('jolt');
  chart.send('signals', { call: true });
  chart.advance(100);
  // The press was kept until the jolt was over.
  expect(shows()).toBe('bow');
  chart.advance(400);
  chart.send('signals', { call: true, mood: 'cross' });
  chart.advance(700);
  chart.send('signals', { mood: 'calm' });
  // Too late: the press is over.
  expect(chart.entered().map(([, name]) => name)).toEqual(['sit', 'row', 'jolt', 'bow', 'row', 'sit', 'row']);
});

test('a state is over when it says, however often its clip passes; a flag lingers as long as a signal says', () => {
  writeFileSync(
    path.join(folder, 'ferry.yaml'),
    `${ferry.replace('row: { cells: 2 }', 'row: { cells: 2-3, ms: 50, cues: { dip: 0 } }')}signals:
  hit: { pulse: true }
  stun: { number: 300 }
  near: { flag: false }
derived: { lately: { of: near, linger: stun * 2 } }
states:
  sit: { shows: sit }
  reel: { shows: row, when: hit, priority: 3, lasts: stun * 5 }
  daze: { shows: row, when: hit and near, priority: 4, lasts: 2000 }
  watch: { shows: sit, while: lately, priority: 1 }
rest: sit
`,
  );
  const chart = new Chart(chartOf('ferry.yaml'));
  chart.send('signals', { hit: true });
  chart.advance(2000);
  chart.send('signals', { near: true, hit: true });
  chart.advance(4500);
  chart.send('signals', { near: false });
  chart.advance(5500);
  expect(chart.entered()).toEqual([
    [0, 'sit'],
    [0, 'reel'],
    [1500, 'sit'],
    [2000, 'daze'],
    [4000, 'watch'],
    [5100, 'sit'],
  ]);
  // The chart's clip passes ten times a second.
  expect(chart.sent.filter(([, event]) => event === 'cue.dip').length).toBeGreaterThan(20);
});

test("a track's state is asked for by its name or by a text", () => {
  writeFileSync(
    path.join(folder, 'ferry.yaml'),
    `${ferry}signals:
  call: { pulse: true }
states:
  sit: { shows: sit }
  lean: { shows: row, while: oars == 'pull-in', priority: 2 }
  look: { shows: row, while: idle && oars.out, priority: 1 }
rest: sit
derived: { idle: "'pull-in' != oars" }
tracks:
  oars: { states: { in: { inStep: body }, pull-in: { shows: bow, when: call, then: out }, out: { shows: bow } }, rest: in }
`,
  );
  const chart = new Chart(chartOf('ferry.yaml'));
  chart.send('signals', { call: true });
  chart.advance(300);
  expect(chart.entered()).toEqual([
    [0, 'sit'],
    [0, 'lean'],
    [100, 'look'],
    [200, 'sit'],
  ]);
  expect(chart.entered('shows.oars').map(([, name]) => name)).toEqual(['in', 'pull-in', 'out', 'in']);
});

test.each([
  [
    'states: { sit: { shows: sit }, "a b": { shows: row, while: on, priority: 1 } }',
    'the state "a b" cannot stand in a state chart',
  ],
  [
    `states: { sit: { shows: sit }, "x') || true": { shows: row, while: on } }`,
    'cannot stand in a state chart',
  ],
  [
    'states: { sit: { shows: sit }, go-on: { shows: row, while: on }, go_on: { shows: row } }',
    'a variable of it would be called as one of "go-on"',
  ],
  [
    'derived: { class: "!on" }\nstates: { sit: { shows: sit }, go: { shows: row, while: class } }',
    'the derived signal "class" cannot stand in a state chart: it is a word of ECMAScript',
  ],
])('a name that a chart cannot hold is refused: %s', (states, words) => {
  writeFileSync(path.join(folder, 'odd.yaml'), `${ferry}signals: { on: { flag: false } }\n${states}\n`);
  expect(runIn(folder, ['ladder', 'odd.yaml']).code).toBe(0);
  expect(runIn(folder, ['convert', 'odd.yaml', '--to', 'scxml'])).toMatchObject({
    code: 2,
    err: expect.stringContaining(words) as string,
  });
});

test('what XML cannot hold stands in no comment or attribute', () => {
  writeFileSync(
    path.join(folder, 'odd.yaml'),
    `name: "a --> <b> & \\u0001"\n${ferry}states: { sit: { shows: sit } }\n`,
  );
  const chart = chartOf('odd.yaml');
  expect(chart).toContain('name="a----b-"');

  expect(chart).not.toMatch(/[\x00-\x08]|a --> /);
});
